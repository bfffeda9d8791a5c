// The heads of journal records: what stays of a command in memory once it is done.
import type { JournalRecord } from './records';

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
