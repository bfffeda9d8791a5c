import { CalendarClock, FileDown, Send, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { Draft } from '../../mailroom/border/drafts';
import { messages } from '../../core/text/sentences';
import { throwAwayDraft } from '../state/drafts';
import { SendLater } from './SendLater';
import type { DraftPart } from './useDraft';

const afterWords = { stay: 'leave it where it is', archive: 'archive it', bin: 'put it in the Bin' } as const;

/** What becomes of what is answered once the answer has gone. */
function After({ draft, change }: DraftPart) {
  if (draft.answers.length === 0) return null;
  return (
    <label className="flex items-center gap-1.5 text-sm">
      Once sent
      <select
        className="select w-auto select-xs"
        value={draft.after}
        aria-label={`Once sent, with ${draft.answers.length === 1 ? 'the message' : messages(draft.answers.length)}`}
        onChange={(event) => change({ after: event.target.value as Draft['after'] })}
      >
        {(['stay', 'archive', 'bin'] as const).map((after) => (
          <option key={after} value={after}>
            {afterWords[after]}
          </option>
        ))}
      </select>
    </label>
  );
}

interface SendButtonsProps extends DraftPart {
  office: boolean;
  busy: boolean;
  onSend: (later: number | null) => void;
}

/** What is done with a draft. */
export function SendButtons({ draft, change, office, busy, onSend }: SendButtonsProps) {
  const [later, setLater] = useState(false);
  return (
    <div className="flex flex-wrap items-center gap-2">
      <button
        type="button"
        className="btn btn-primary btn-sm"
        disabled={busy}
        onClick={() => onSend(null)}
        title={office ? 'Send (Ctrl+Enter)' : 'Save as a file, for the program with which you send (Ctrl+Enter)'}
      >
        {office ? <Send size={15} aria-hidden /> : <FileDown size={15} aria-hidden />}
        {office ? 'Send' : 'Save as a file'}
      </button>
      {office && (
        <button type="button" className="btn btn-outline btn-sm" disabled={busy} onClick={() => setLater(true)}>
          <CalendarClock size={15} aria-hidden /> Send later
        </button>
      )}
      {office && <After draft={draft} change={change} />}
      <button
        type="button"
        className="btn btn-ghost btn-sm ml-auto"
        onClick={() => void throwAwayDraft(draft.id, draft.to, draft.at > 0)}
      >
        <Trash2 size={15} aria-hidden /> Throw away
      </button>
      {later && <SendLater onClose={() => setLater(false)} onTake={onSend} />}
    </div>
  );
}
