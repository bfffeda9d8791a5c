// Deleting for good what has been in the Bin, or in Junk, for its time.
import { numbersWhere } from '../../core/data/rows';
import { fixedPlace, fixedPlaces, type FixedPlace } from '../../core/mail/place';
import { messages } from '../../core/text/sentences';
import { expunged } from '../state/internedTables';
import type { MailState } from '../state/mailState';
import { daysKept, deletedOn } from '../state/retention';
import type { Committing } from '../storage/committing';
import { eraseDeleted } from './erasing';

const day = 86_400_000;

/**
 * When it is to be looked at again what is to be deleted for good, milliseconds since 1970; null where all is kept. Each
 * day has to be seen.
 */
export function nextDeletion(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'setup' | 'daysSeen' | 'now'>,
): number | null {
  const { columns, tables, setup } = mailbox;
  const kept = tables.places.items.map((_, index) => daysKept(tables.place(index), setup) === null);
  let next = Infinity;
  for (let id = 0; id < columns.count; id++)
    if (!kept[columns.place[id]]) next = Math.min(next, deletedOn(mailbox, id) ?? Infinity);
  return next === Infinity ? null : Math.min(next, (Math.floor(mailbox.now() / day) + 1) * day);
}

/** Deletes for good what has been in the Bin, or in Junk, for its time, and says so in the Logbook. Returns how many. */
export async function tidy(mailbox: MailState & Committing & Parameters<typeof eraseDeleted>[0]): Promise<number> {
  if (mailbox.daysSeen.see(mailbox.now())) mailbox.storeSoon();
  let count = 0;
  for (const place of fixedPlaces) {
    const days = daysKept(place, mailbox.setup);
    if (days !== null) count += await tidyPlace(mailbox, place, days);
  }
  // Also what a crash has left of an earlier time.
  await eraseDeleted(mailbox);
  return count;
}

async function tidyPlace(mailbox: MailState & Committing, place: FixedPlace, days: number): Promise<number> {
  const { columns, tables } = mailbox;
  const index = tables.placeIndex(place);
  const now = mailbox.now();
  const due = numbersWhere(
    columns.count,
    (id) => columns.place[id] === index && (deletedOn(mailbox, id) ?? Infinity) <= now,
  );
  if (due.length === 0) return 0;
  const after = `after ${days} ${days === 1 ? 'day' : 'days'} in ${fixedPlace(place).called}`;
  await mailbox.commit({
    command: `tidy-${mailbox.seq + 1}`,
    by: 'Wide Sort',
    says: `Deleted ${messages(due.length)} for good, ${after}`,
    final: true,
    ids: due,
    after: { place: expunged, placedAt: now },
  });
  return due.length;
}
