// The message that is open, and whether it is still to be marked as read for that: it follows from opening alone. However
// often it is drawn anew, in another width, by conversations or singly, one marked unread by hand stays unread.
import type { Selection } from '../../mailroom/border/views';

let opened: number | null = null;
let waiting: number | null = null;

/** Says which message is open, wherever it is drawn; null for none. */
export function noteOpened(id: number | null): void {
  if (id === opened) return;
  opened = id;
  waiting = id;
}

/** Whether a message was opened and is not yet marked for it. */
export const isToBeMarked = (id: number): boolean => waiting === id;

/** It is marked now, or the person said themselves whether it is read. */
export function noteMarked(selection: Selection): void {
  if (waiting !== null && (!('ids' in selection) || selection.ids.includes(waiting))) waiting = null;
}
