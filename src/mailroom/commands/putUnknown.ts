// Messages whose bytes are there and of which no record says where they were: into the Inbox.
import { filled } from '../../core/data/rows';
import type { JournalRecord } from '../storage/journal';
import { count, messages } from '../../core/text/sentences';
import { placedNow } from '../state/retention';
import type { MailState } from '../state/mailState';
import { NotWritten, type Committing } from '../storage/committing';
import type { Keeping, Stored } from '../storage/stored';

/** Messages of which no record says how they came in. */
export interface Unknown {
  ids: readonly number[];
  /** Those of them that a later record has put somewhere. */
  put: ReadonlySet<number>;
}

/** What stays unknown after some changes: what brings messages in, or finds them again, says their date. */
export function unknownAfter(unknown: ReadonlySet<number>, changes: readonly JournalRecord['change'][]): Unknown {
  const put = new Set<number>();
  const left = new Set(unknown);
  if (left.size > 0)
    for (const change of changes) {
      if (change?.after.date !== undefined) for (const id of change.ids) left.delete(id);
      if (change?.after.place !== undefined) for (const id of change.ids) put.add(id);
    }
  return { ids: [...left].sort((a, b) => a - b), put };
}

/** Puts messages into the Inbox, as one command; what was deleted for good stays so. Only within `exclusive`. */
export async function putUnknown(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'daysSeen' | 'now'> & Stored & Committing & Pick<Keeping, 'records'>,
  { ids, put }: Unknown,
): Promise<void> {
  const { columns, tables, envelopes, raws } = mailbox;
  await envelopes.ensure(ids, columns.count);
  const there: number[] = [];
  for (const id of ids) if (put.has(id) || !(await raws.isGone(id))) there.push(id);
  if (there.length === 0) return;
  const inbox = tables.placeIndex('inbox');
  const says = `Found ${messages(there.length)} again of which no record was left, ${count(there.filter((id) => !put.has(id)).length)} of them put into the Inbox`;
  try {
    await mailbox.commit({
      command: `found-${mailbox.seq + 1}`,
      by: 'Wide Sort',
      says,
      final: true,
      ids: Int32Array.from(there),
      after: {
        place: filled(Uint16Array, there, (id) => (put.has(id) ? columns.place[id] : inbox)),
        placedAt: placedNow(mailbox),
        date: filled(Float64Array, there, (id) => envelopes.get(id).date ?? mailbox.now()),
      },
    });
    mailbox.records.tell(`${says}.`);
  } catch (error) {
    if (!(error instanceof NotWritten)) throw error;
    mailbox.records.tell(error.message);
  }
}
