// The acts of the desk: on what is ticked, else on what is open.
import {
  Archive,
  Flag,
  FlagOff,
  Inbox,
  Mail,
  MailOpen,
  ShieldCheck,
  ShieldX,
  Trash2,
  type LucideIcon,
} from 'lucide-react';
import type { Act, Selection, View } from '../../mailroom/border/views';

/** An act as the stamp bar offers it: its word, its key, and what it does. */
export interface DeskAct {
  id: string;
  word: string;
  icon: LucideIcon;
  /** The key as KeyboardEvent.key gives it, in lower case. */
  pressed: string;
  keyWord: string;
  act: Act;
  /** The places in which it has something to do; all where this is absent. */
  only?: (place: string) => boolean;
}

const act = (
  id: string,
  word: string,
  icon: LucideIcon,
  key: string,
  does: Act,
  only?: (place: string) => boolean,
): DeskAct => ({
  id,
  word,
  icon,
  pressed: key,
  keyWord: key === 'delete' ? 'Del' : key.toUpperCase(),
  act: does,
  only,
});

export const deskActs: readonly DeskAct[] = [
  act('archive', 'Archive', Archive, 'a', { do: 'move', place: 'archive' }, (place) => place !== 'archive'),
  act('bin', 'Bin', Trash2, 'delete', { do: 'move', place: 'bin' }, (place) => place !== 'bin'),
  act('inbox', 'Inbox', Inbox, 'i', { do: 'move', place: 'inbox' }, (place) => !['inbox', 'junk'].includes(place)),
  act('not-junk', 'Not junk', ShieldCheck, 'n', { do: 'move', place: 'inbox' }, (place) => place === 'junk'),
  act('read', 'Read', MailOpen, 'r', { do: 'read', value: true }),
  act('unread', 'Unread', Mail, 'u', { do: 'read', value: false }),
  act('flag', 'Flag', Flag, 'f', { do: 'flag', value: true }),
  act('clear-flag', 'Clear flag', FlagOff, 'c', { do: 'flag', value: false }),
  act('junk', 'Junk', ShieldX, 'j', { do: 'move', place: 'junk' }, (place) => !['junk', 'sent'].includes(place)),
];

/** The acts that have something to do in a view. */
export function actsIn(view: View): DeskAct[] {
  const place = view.kind === 'place' ? view.place : '';
  return deskActs.filter(({ only }) => !only || only(place));
}

/** The act of that id, where it has something to do in the view. */
export const actOf = (id: string, view: View): DeskAct | undefined => actsIn(view).find((a) => a.id === id);

/** What an act would go to, and how many rows that is; null: all of a view. */
export interface Target {
  selection: Selection;
  count: number | null;
}

/** What an act on one row alone goes to. */
export const rowTarget = (row: { id: number }, view: View, grouped: boolean): Target => ({
  selection: grouped ? { conversationsOf: [row.id], within: view } : { ids: [row.id] },
  count: 1,
});

/**
 * What an act would go to now: what is ticked, else what is open; null where there is neither. Where rows are
 * conversations, `within` is the view that they are rows of: what it holds of them is meant.
 */
export function target(
  ticked: ReadonlySet<number>,
  allOf: View | null,
  open: number | null,
  within: View | null,
): Target | null {
  if (allOf) return { selection: { view: allOf }, count: null };
  const ids = ticked.size ? [...ticked] : open === null ? [] : [open];
  if (ids.length === 0) return null;
  return { selection: within ? { conversationsOf: ids, within } : { ids }, count: ids.length };
}
