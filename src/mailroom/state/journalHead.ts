// The heads of journal records: what stays of a command in memory once it is done.
import { bit } from './columns';
import { journalSchema, type JournalRecord } from '../storage/journal';
import { valueAt } from '../storage/stateRecords';
import { expunged } from './internedTables';
import { keyOf } from '../storage/keys';
import type { LogKind } from '../../core/line/logKinds';
import type { Records } from '../storage/records';

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
  /** Whether the line sorted its messages: as they came in, or anew. */
  sorted: boolean;
  kinds: readonly LogKind[];
}

/** What a record did, by the columns that it changed; of the bits by those that its first message got. */
function kindsOf({
  undoes,
  final,
  add,
  change,
  setup,
  items,
}: Pick<JournalRecord, 'undoes' | 'final' | 'add' | 'change' | 'setup' | 'items'>): LogKind[] {
  const kinds: LogKind[] = [];
  if (undoes !== null) kinds.push('undone');
  if (add) kinds.push('arrived');
  else if (change) {
    const { before, after } = change;
    if (after.place !== undefined) kinds.push(final && valueAt(after.place, 0) === expunged ? 'deleted' : 'moved');
    if (after.labels !== undefined && !final) kinds.push('labelled');
    const bits = after.bits === undefined ? 0 : valueAt(before.bits ?? 0, 0) ^ valueAt(after.bits, 0);
    if (after.due !== undefined || bits & (bit.flagged | bit.done)) kinds.push('flagged');
    if (bits & bit.read || (after.place === undefined && bits & (bit.markedJunk | bit.markedGood | bit.silenced)))
      kinds.push('marked');
  }
  if (setup) kinds.push('setup');
  if (items) kinds.push('agenda');
  return kinds;
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
    sorted: record.add !== null || record.change?.after.trace !== undefined,
    kinds: kindsOf(record),
  };
}

/** Records asked for at a time. */
const atOnce = 64;

/** The heads of the records from `first` up to `last`. What can't be read is set aside. */
export async function readHeads(records: Records, first: number, last: number): Promise<JournalHead[]> {
  const heads: JournalHead[] = [];
  for (let at = first; at <= last; at += atOnce) {
    const seqs = Array.from({ length: Math.min(atOnce, last - at + 1) }, (_, i) => at + i);
    for (const record of await Promise.all(seqs.map((seq) => records.read(keyOf.journal(seq), journalSchema))))
      if (record !== null && record !== 'spoilt') heads.push(headOf(record));
  }
  return heads;
}

/** Whether an entry is of a kind that can be undone: not what arrived, not what was deleted for good. */
export const canUndo = (head: JournalHead): boolean => !head.final && head.by !== 'post office';

/** The job of a command: the parts of an import are one. A command of its own is a job of one. */
export const jobOf = (command: string): string => command.replace(/\/\d+$/, '');

/** The last entry that undid this one, or another part of its job, unless that was undone in turn. */
export function undoneBy(heads: readonly JournalHead[], seq: number): number | null {
  const command = heads.find((h) => h.seq === seq)?.command ?? '';
  const job = jobOf(command);
  // A command of its own is a job of one: most are.
  const parts = job === command ? [seq] : heads.filter((h) => jobOf(h.command) === job).map((h) => h.seq);
  const by = heads.findLast((h) => h.undoes !== null && parts.includes(h.undoes));
  if (!by) return null;
  return undoneBy(heads, by.seq) === null ? by.seq : null;
}

/** Entries younger than this are kept however many they are, in days. */
const youngestKept = 90;

/** For how many days every entry is kept: longer than anything stays in Junk or the Bin. */
export const daysKept = (keepDays: number): number => Math.max(youngestKept, keepDays + 1);
