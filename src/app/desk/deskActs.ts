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
import { andWords, count, messages } from '../../core/text/sentences';
import { canBePutOff } from '../../core/mail/place';
import type { Row } from '../../mailroom/border/rows';
import type { Act, View } from '../../mailroom/border/views';
import type { Reach } from '../state/desk';
import { rowMessages, tickedMessages, type Ticks } from '../state/ticks';

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

/** Whether what a view shows can be put off. */
export const canPutOff = (view: View): boolean => view.kind !== 'place' || canBePutOff(view.place);

/** The act of that id, where it has something to do in the view. */
export const actOf = (id: string, view: View): DeskAct | undefined => actsIn(view).find((a) => a.id === id);

/** What an act would go to: how many messages, and of how many rows. */
export interface Target {
  selection: { ids: number[] };
  rows: number;
  /** How many of those rows stand for trays; absent for none. */
  trays?: number;
  /** The open message or its conversation, rather than what is ticked. */
  open: Reach | null;
}

/** How far it was looked: what is counted is not all as long as that is said. */
export const lookedWords = ({ done, of }: { done: number; of: number }): string =>
  `${count(done)} of ${count(of)} looked through`;

/** What rows stand for where they are conversations: `5 conversations`, `5 conversations and 1 tray`. */
export function rowsWords({ rows, trays = 0 }: { rows: number; trays?: number }): string {
  const words = (n: number, one: string) => `${count(n)} ${one}${n === 1 ? '' : 's'}`;
  const parts = [
    ...(rows > trays || trays === 0 ? [words(rows - trays, 'conversation')] : []),
    ...(trays > 0 ? [words(trays, 'tray')] : []),
  ];
  return andWords(parts);
}

/** How many messages, and of how many rows: `5 conversations, 7 messages`. */
export function heldWords(held: { rows: number; trays?: number; messages: number }, grouped: boolean): string {
  return grouped ? `${rowsWords(held)}, ${messages(held.messages)}` : count(held.messages);
}

/** What an act on one row alone goes to. */
export const rowTarget = (row: Row): Target => ({
  selection: { ids: [...rowMessages(row)] },
  rows: 1,
  ...(row.tray ? { trays: 1 } : {}),
  open: null,
});

/** What an act on the open message goes to, where nobody said: all of a conversation that was opened by its row. */
export const reachOf = (open: number, row: Row | undefined, said: { open: number; of: Reach } | null): Reach =>
  said?.open === open ? said.of : row?.id === open ? 'conversation' : 'message';

/** How many of the rows that are ticked stand for trays: their keys are below 0. */
function traysIn(ticked: Ticks): Pick<Target, 'trays'> {
  const trays = [...ticked.keys()].filter((key) => key < 0).length;
  return trays > 0 ? { trays } : {};
}

/**
 * What an act would go to now: what is ticked, else the open message or all of its conversation here; null where there is
 * neither. `row`: that of the open message, where it is known.
 */
export function target(
  ticked: Ticks,
  open: number | null,
  row: Row | undefined,
  said: { open: number; of: Reach } | null = null,
): Target | null {
  if (ticked.size)
    return { selection: { ids: tickedMessages(ticked) }, rows: ticked.size, ...traysIn(ticked), open: null };
  if (open === null) return null;
  // A tray’s row stands for all that it holds.
  if (open < 0) return row ? { ...rowTarget(row), open: 'conversation' } : null;
  const reach = row?.whole && row.whole.ids.length > 1 ? reachOf(open, row, said) : 'message';
  const ids = reach === 'conversation' && row ? [...rowMessages(row)] : [open];
  return { selection: { ids }, rows: 1, open: reach };
}
