// How long messages are kept: those in the Bin and in Junk for some days, the others for ever.
import type { Setup } from '../../core/line/setup';
import { placeTraits, type Place } from '../../core/mail/place';
import type { MailState } from './mailState';

const day = 86_400_000;

/** How many days a place keeps its mail before it is deleted for good; null for ever. */
export function daysKept(place: Place, { junk }: Pick<Setup, 'junk'>): number | null {
  const { keeps } = placeTraits(place);
  return keeps === 'set' ? junk.keepDays : keeps;
}

/**
 * When a message is deleted for good, milliseconds since 1970; null where it is kept. So many days must have been seen to
 * pass: each that is still to be seen may be as near as the next one.
 */
export function deletedOn(
  { columns, tables, setup, daysSeen, now }: Pick<MailState, 'columns' | 'tables' | 'setup' | 'daysSeen' | 'now'>,
  id: number,
): number | null {
  const place = tables.place(columns.place[id]);
  const days = daysKept(place, setup);
  if (days === null) return null;
  const set = placeTraits(place).keeps === 'set';
  // Until the person has seen how long, nothing of it is deleted.
  if (set && setup.junk.keepFrom === 0) return null;
  const from = set ? Math.max(columns.placedAt[id], setup.junk.keepFrom) : columns.placedAt[id];
  const unseen = days - daysSeen.since(from);
  const due = from + days * day;
  return unseen > 0 ? Math.max(due, (Math.floor(now() / day) + unseen) * day) : due;
}

/** The moment at which what is moved now is in its place: a clock that was set back does not make it an old one. */
export const placedNow = ({ now, daysSeen }: Pick<MailState, 'now' | 'daysSeen'>): number =>
  Math.max(now(), daysSeen.newest);
