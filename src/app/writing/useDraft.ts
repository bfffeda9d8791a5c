// A draft while it is written: taken up by one tab at a time, and kept within a second of every keystroke.
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Draft, DraftContent } from '../../mailroom/border/drafts';
import { mailroom } from '../../mailroom/client';
import { contentOf } from '../../core/writing/draft';
import { typedText } from '../../core/writing/flowed';
import { htmlLines } from '../../core/writing/htmlLines';
import { reasonOf } from '../../core/text/sentences';
import { copyDraft } from '../state/draftCopies';
import { noMore } from './ownPictures';

/** What was typed is stored so many milliseconds later at the latest. */
const storedWithin = 400;

export interface Writing {
  /** Null until it is here. */
  draft: Draft | null;
  /** Where it is written instead of here, or why it is not. */
  where: 'here' | 'asking' | 'another tab' | 'gone';
  /** Why what was typed is not kept; null where it is. */
  trouble: string | null;
  change: (some: Partial<DraftContent> | ((before: Draft) => Partial<DraftContent>)) => void;
  /** Settled once all that was typed is kept; whether it is. */
  flush: () => Promise<boolean>;
}

/** A draft that is here, and how it is changed. */
export interface DraftPart {
  draft: Draft;
  change: Writing['change'];
}

/** Holds a draft for this tab as long as it is written here; settled at the end. */
function useHeld(id: string): boolean | null {
  const [held, setHeld] = useState<{ id: string; held: boolean } | null>(null);
  useEffect(() => {
    let free: () => void = () => undefined;
    const over = new Promise<void>((resolve) => (free = resolve));
    const asking = new AbortController();
    // Another tab has it where this does not come at once; it comes as soon as that one lets go.
    const late = setTimeout(() => setHeld({ id, held: false }), 300);
    navigator.locks
      .request(`draft ${id}`, { signal: asking.signal }, () => {
        clearTimeout(late);
        setHeld({ id, held: true });
        return over;
      })
      .catch(() => undefined);
    return () => {
      clearTimeout(late);
      asking.abort();
      free();
    };
  }, [id]);
  return held?.id === id ? held.held : null;
}

export function useDraft(id: string): Writing {
  const held = useHeld(id);
  const [draft, setDraft] = useState<Draft | null>(null);
  const [gone, setGone] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const now = useRef<Draft | null>(null);
  const unsaved = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const saving = useRef<Promise<boolean>>(Promise.resolve(true));

  const store = useCallback(async (): Promise<boolean> => {
    const one = now.current;
    if (!one || !unsaved.current) return true;
    unsaved.current = false;
    const text = one.rich ? typedText(htmlLines(one.html)) : one.text;
    copyDraft(one.id, { to: one.to, subject: one.subject, text, at: one.at });
    const kept = await mailroom
      .keepDraft(one.id, contentOf(one))
      .catch((error: unknown) => ({ ok: false as const, error: reasonOf(error) }));
    setTrouble(kept.ok ? null : kept.error);
    if (!kept.ok) unsaved.current = true;
    return kept.ok;
  }, []);

  const flush = useCallback((): Promise<boolean> => {
    if (timer.current) clearTimeout(timer.current);
    timer.current = null;
    return (saving.current = saving.current.then(store));
  }, [store]);

  useEffect(() => {
    if (held !== true) return;
    let current = true;
    void mailroom.draft(id).then((found) => {
      if (!current) return;
      if (!found || found.thrown !== null || found.due !== null || found.gone) return setGone(true);
      now.current = found;
      setDraft(found);
    });
    const hidden = () => void flush();
    window.addEventListener('pagehide', hidden);
    document.addEventListener('visibilitychange', hidden);
    return () => {
      current = false;
      window.removeEventListener('pagehide', hidden);
      document.removeEventListener('visibilitychange', hidden);
      void flush();
      noMore();
    };
  }, [held, id, flush]);

  const change = useCallback(
    (some: Partial<DraftContent> | ((before: Draft) => Partial<DraftContent>)) => {
      if (!now.current) return;
      now.current = {
        ...now.current,
        ...(typeof some === 'function' ? some(now.current) : some),
        at: Math.max(Date.now(), now.current.at + 1),
      };
      unsaved.current = true;
      setDraft(now.current);
      timer.current ??= setTimeout(() => void flush(), storedWithin);
    },
    [flush],
  );
  const where = gone ? 'gone' : held === null ? 'asking' : held ? 'here' : 'another tab';
  return { draft, where, trouble, change, flush };
}
