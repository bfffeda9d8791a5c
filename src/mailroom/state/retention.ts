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

/** When a message is deleted for good, milliseconds since 1970; null where it is kept. */
export function deletedOn(
  { columns, tables, setup }: Pick<MailState, 'columns' | 'tables' | 'setup'>,
  id: number,
): number | null {
  const place = tables.place(columns.place[id]);
  const days = daysKept(place, setup);
  if (days === null) return null;
  if (placeTraits(place).keeps !== 'set') return columns.placedAt[id] + days * day;
  // Until the person has seen how long, nothing of it is deleted.
  const { keepFrom } = setup.junk;
  return keepFrom === 0 ? null : Math.max(columns.placedAt[id], keepFrom) + days * day;
}
