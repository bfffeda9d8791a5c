// How long messages are kept: those in the Bin and in Junk for some days, the others for ever.
import { binKeeps } from '../../core/mail/place';
import type { MailState } from './mailState';

/** When a message is deleted for good, milliseconds since 1970; null where it is kept. */
export function deletedOn(
  { columns, tables, setup }: Pick<MailState, 'columns' | 'tables' | 'setup'>,
  id: number,
): number | null {
  const place = tables.place(columns.place[id]);
  if (place === 'bin') return columns.placedAt[id] + binKeeps;
  const { keepDays, keepFrom } = setup.junk;
  if (place !== 'junk' || keepFrom === 0) return null;
  return Math.max(columns.placedAt[id], keepFrom) + keepDays * 86_400_000;
}
