// Sending what is written, or giving it as a file.
import { useState } from 'react';
import { mailroom } from '../../mailroom/client';
import { say } from '../state/desk';
import { forgetCopy } from '../state/draftCopies';
import { openDraft, refreshDrafts } from '../state/drafts';
import { usePreferences } from '../state/preferences';
import { saveFile } from '../ui/save';
import type { Writing } from './useDraft';

/** Minutes east of UTC. */
const zone = (): number => -new Date().getTimezoneOffset();

/** Sending a draft now or later, or giving it as a file; why it was not. */
export function useSending({ draft, flush }: Writing, office: boolean) {
  const [error, setError] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const wait = usePreferences((s) => s.sendWait);
  const go = async (later: number | null) => {
    if (!draft || busy) return;
    setBusy(true);
    setError(null);
    try {
      if (!(await flush())) return;
      if (!office) {
        const file = await mailroom.draftAsFile(draft.id, zone());
        if (!file.ok) return setError(file.error);
        saveFile(file.blob, file.name);
        return say({ text: `Saved ${file.name}. The draft stays in Drafts until it is thrown away.`, tone: 'done' });
      }
      const sent = await mailroom.sendDraft(draft.id, later ?? Date.now() + wait * 1_000, zone());
      if (!sent.ok) return setError(sent.error);
      forgetCopy(draft.id);
      openDraft(null);
      await refreshDrafts();
    } finally {
      setBusy(false);
    }
  };
  return { error, busy, go };
}
