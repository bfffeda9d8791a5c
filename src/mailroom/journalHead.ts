// The heads of journal records: what stays of a command in memory once it is done.
import { journalSchema, keyOf, type JournalRecord } from './records';
import type { RecordStore } from './storage';

/** A journal record without its change: enough for the Logbook and for “Why here”. */
export interface JournalHead {
  seq: number;
  command: string;
  at: number;
  by: JournalRecord['by'];
  says: string;
  undoes: number | null;
  final: boolean;
  count: number;
  /** The messages it touched; null where it touched only the setup. */
  ids: Int32Array | null;
  /** Whether it moved messages or brought them in. */
  moved: boolean;
  added: boolean;
}

/** What the Logbook and “Why here” need of a record. */
export function headOf(record: JournalRecord): JournalHead {
  const ids = record.change?.ids ?? null;
  return {
    seq: record.seq,
    command: record.command,
    at: record.at,
    by: record.by,
    says: record.says,
    undoes: record.undoes,
    final: record.final,
    count: ids?.length ?? 0,
    ids,
    moved: record.change?.after.place !== undefined,
    added: record.add !== null,
  };
}

/** Records asked for at a time. */
const atOnce = 64;

/** The heads of the records up to `last`. `spoilt` is told of each that can't be read. */
export async function readHeads(
  store: RecordStore,
  last: number,
  spoilt: (key: string, reason: string, record: unknown) => void,
): Promise<JournalHead[]> {
  const heads: JournalHead[] = [];
  for (let at = 1; at <= last; at += atOnce) {
    const seqs = Array.from({ length: Math.min(atOnce, last - at + 1) }, (_, i) => at + i);
    const records = await Promise.all(seqs.map((seq) => store.get(keyOf.journal(seq))));
    for (const [i, record] of records.entries()) {
      const parsed = journalSchema.safeParse(record);
      if (parsed.success) heads.push(headOf(parsed.data));
      else if (record !== null) spoilt(keyOf.journal(seqs[i]), parsed.error.issues[0].message, record);
    }
  }
  return heads;
}
