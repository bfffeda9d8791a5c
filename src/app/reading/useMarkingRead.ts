// Marks what was opened as read, when the person wants that: at once, after some seconds, or not at all.
import { useEffect, useRef } from 'react';
import type { Selection, View } from '../../mailroom/border/views';
import { mailroom } from '../../mailroom/client';
import { isToBeMarked, noteMarked } from '../state/opened';
import { usePreferences } from '../state/preferences';
import { useIsSeen } from './seen';

/** Marks the open message once its text was on the screen, for as long as the person wants. */
export function useMarkingRead(id: number, view: View, grouped: boolean): void {
  const { markRead, markReadSeconds, readAll } = usePreferences();
  const seen = useIsSeen(id);
  // What is marked is what is open when the time comes: a filter that is applied again meanwhile opens nothing.
  const marked = useRef<Selection>({ ids: [id] });
  useEffect(() => {
    marked.current = grouped && readAll ? { conversationsOf: [id], within: view } : { ids: [id] };
  });
  useEffect(() => {
    if (markRead === 'hand' || !seen || !isToBeMarked(id)) return;
    // It is no act of the person's own, so it is not what Undo takes back; and it happens once.
    const mark = () => {
      if (!isToBeMarked(id)) return;
      noteMarked({ ids: [id] });
      void mailroom.act(crypto.randomUUID(), marked.current, { do: 'read', value: true, opened: true });
    };
    if (markRead === 'opened') return mark();
    const timer = setTimeout(mark, markReadSeconds * 1_000);
    return () => clearTimeout(timer);
  }, [id, markRead, markReadSeconds, seen]);
}
