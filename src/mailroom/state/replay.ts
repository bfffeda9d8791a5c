// Replaying the journal at opening: the records that the state packs don't hold are applied again.
import { recordsOf, type JournalRecord } from '../storage/journal';
import type { Keeping } from '../storage/stored';
import type { MailState } from './mailState';
import type { ReadState } from './readState';

/** How records are applied, and how many messages there are bytes or envelopes of, at least so many. */
interface Replaying {
  apply: (record: JournalRecord) => void;
  reach: (count: number) => Promise<number>;
}

/** What came of it: the messages of which no record says how they came in, and all changes. */
interface Replayed {
  unknown: ReadonlySet<number>;
  changes: JournalRecord['change'][];
}

/** Applies the journal's records after `from`; over one that is lost it goes on. */
export async function replay(
  { columns, records }: Pick<MailState, 'columns'> & Pick<Keeping, 'records'>,
  { from, journal, uncertain, gaps }: ReadState,
  { apply, reach }: Replaying,
): Promise<Replayed> {
  const unknown = new Set(uncertain);
  const changes: JournalRecord['change'][] = [];
  let lost = gaps;
  for await (const { record } of recordsOf(
    records,
    journal.filter((seq) => seq > from),
  )) {
    lost ||= record === null;
    if (!record) continue;
    const { count } = columns;
    apply(record);
    changes.push(record.change);
    for (let id = count; id < (record.add?.first ?? 0); id++) unknown.add(id);
  }
  // The record that is lost may be the one by which the last messages came.
  if (lost) {
    const { count } = columns;
    columns.grow(await reach(count));
    for (let id = count; id < columns.count; id++) unknown.add(id);
  }
  return { unknown, changes };
}
