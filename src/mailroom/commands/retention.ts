// Deleting for good what has been in the Bin, or in Junk, for its time.
import type { Place } from '../../core/mail/place';
import type { MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { Committing } from '../storage/committing';
import { expunged } from '../state/internedTables';
import { messages } from '../../core/text/sentences';
import { deletedOn } from '../state/retention';

/** Deletes for good what has been in the Bin, or in Junk, for its time, and says so in the Logbook. */
export async function tidy(mailbox: MailState & Pick<Stored, 'raws'> & Committing): Promise<number> {
  const { keepDays } = mailbox.setup.junk;
  return (
    (await tidyPlace(mailbox, 'bin', 'after 30 days in the Bin')) +
    (await tidyPlace(mailbox, 'junk', `after ${keepDays} ${keepDays === 1 ? 'day' : 'days'} in Junk`))
  );
}

async function tidyPlace(
  mailbox: MailState & Pick<Stored, 'raws'> & Committing,
  place: Place,
  why: string,
): Promise<number> {
  const { columns, tables } = mailbox;
  const index = tables.placeIndex(place);
  const now = mailbox.now();
  const due = Int32Array.from({ length: columns.count }, (_, id) => id).filter(
    (id) => columns.place[id] === index && (deletedOn(mailbox, id) ?? Infinity) <= now,
  );
  if (due.length === 0) return 0;
  await mailbox.commit({
    command: `tidy-${mailbox.seq + 1}`,
    by: 'Wide Sort',
    says: `Deleted ${messages(due.length)} for good, ${why}`,
    final: true,
    ids: due,
    after: { place: expunged, placedAt: now },
  });
  await mailbox.raws.drop(due);
  return due.length;
}
