// The acts of the desk: on what is ticked, else on the open message.
import type { Act, Selection, View } from '../../mailroom/api';

/** An act as the stamp bar offers it: its word, its key, and what it does. */
export interface DeskAct {
  id: string;
  word: string;
  /** The key as KeyboardEvent.key gives it, in lower case. */
  key: string;
  keyWord: string;
  act: Act;
}

export const archive: DeskAct = {
  id: 'archive',
  word: 'Archive',
  key: 'a',
  keyWord: 'A',
  act: { do: 'move', place: 'archive' },
};
export const bin: DeskAct = {
  id: 'bin',
  word: 'Bin',
  key: 'delete',
  keyWord: 'Del',
  act: { do: 'move', place: 'bin' },
};
export const read: DeskAct = { id: 'read', word: 'Read', key: 'r', keyWord: 'R', act: { do: 'read', value: true } };
export const unread: DeskAct = {
  id: 'unread',
  word: 'Unread',
  key: 'u',
  keyWord: 'U',
  act: { do: 'read', value: false },
};
export const flag: DeskAct = { id: 'flag', word: 'Flag', key: 'f', keyWord: 'F', act: { do: 'flag', value: true } };
export const clearFlag: DeskAct = {
  id: 'clear-flag',
  word: 'Clear flag',
  key: 'c',
  keyWord: 'C',
  act: { do: 'flag', value: false },
};

export const deskActs: readonly DeskAct[] = [archive, bin, read, unread, flag, clearFlag];

/** What an act would go to now: what is ticked, else the open message; null where there is neither. `count` null: all. */
export function target(
  ticked: ReadonlySet<number>,
  allOf: View | null,
  open: number | null,
): { selection: Selection; count: number | null } | null {
  if (allOf) return { selection: { view: allOf }, count: null };
  if (ticked.size) return { selection: { ids: [...ticked] }, count: ticked.size };
  return open === null ? null : { selection: { ids: [open] }, count: 1 };
}
