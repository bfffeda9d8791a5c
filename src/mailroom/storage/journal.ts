// The journal: one record for each command, written before it is applied. What a command is to write becomes a record
// here, and records are read back in their order.
import { type SetupEdit, withInverses } from '../../core/line/setupEdit';
import {
  journalSchema,
  keyOf,
  NewerStorage,
  readRecord,
  recordVersion,
  type Column,
  type Columns,
  type JournalRecord,
} from './records';
import type { RecordStore } from './recordStore';
import type { Setup } from '../../core/line/setup';

/** What a command is to write. */
export interface Commit {
  command: string;
  by: JournalRecord['by'];
  says: string;
  undoes?: number;
  final?: boolean;
  add?: { first: number; count: number };
  ids?: Int32Array;
  after?: Columns;
  setup?: SetupEdit[];
  cursor?: string;
  postOn?: boolean;
}

/** What a record is made of besides the command: its number, the moment, and how things stood before. */
export interface Standing {
  seq: number;
  at: number;
  columns: { pick(name: keyof Columns, ids: Int32Array): Column };
  setup: Setup;
  /** Words that the command added to the tables. */
  intern: JournalRecord['intern'];
}

/** The record of a command, with what takes it back. */
export function recordOf(commit: Commit, { seq, at, columns, setup, intern }: Standing): JournalRecord {
  const { ids, after } = commit;
  const before: Columns = {};
  if (ids && after) for (const name of Object.keys(after) as (keyof Columns)[]) before[name] = columns.pick(name, ids);
  return {
    v: recordVersion,
    seq,
    command: commit.command,
    at,
    by: commit.by,
    says: commit.says,
    undoes: commit.undoes ?? null,
    final: commit.final ?? false,
    add: commit.add ?? null,
    change: ids && after ? { ids: Int32Array.from(ids), before, after } : null,
    setup: commit.setup ? withInverses(setup, commit.setup) : null,
    intern,
    cursor: commit.cursor ?? null,
    postOn: commit.postOn ?? null,
  };
}

/** Reads one record. Throws SpoiltRecord where it is none, NewerStorage where a newer version wrote it. */
export async function readJournal(store: RecordStore, seq: number): Promise<JournalRecord> {
  const key = keyOf.journal(seq);
  return readRecord(key, await store.get(key), journalSchema);
}

/** The records after `from`, in their order; null for one that is missing or spoilt, of which the callers are told. */
export async function* recordsAfter(
  store: RecordStore,
  from: number,
  missing: (seq: number) => void,
  spoilt: (key: string, reason: string, record: unknown) => void,
): AsyncGenerator<{ seq: number; record: JournalRecord | null }> {
  for (let seq = from + 1; ; seq++) {
    const key = keyOf.journal(seq);
    const stored = await store.get(key);
    let record: JournalRecord | null = null;
    if (stored === null) {
      // A hole is not the end where a later record exists: a record may have been lost by damage.
      if (!(await store.get(keyOf.journal(seq + 1)))) return;
      missing(seq);
    } else {
      try {
        record = readRecord(key, stored, journalSchema);
      } catch (error) {
        if (error instanceof NewerStorage) throw error;
        spoilt(key, String(error), stored);
      }
    }
    yield { seq, record };
  }
}
