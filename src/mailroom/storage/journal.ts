// The journal: one record for each command, written before it is applied. What a command is to write becomes a record
// here, and records are read back in their order.
import { type SetupEdit, withInverses, setupChangeSchema } from '../../core/line/setupEdit';
import { itemChangeSchema, withBefore, type ItemEdit } from '../../core/agenda/itemEdit';
import type { Item } from '../../core/agenda/item';
import { SpoiltRecord, type Records } from './records';
import { type Column, type Columns, columns } from './stateRecords';
import { int32 } from './schemas';
import { keyOf } from './keys';
import type { Setup } from '../../core/line/setup';
import { z } from 'zod';
import { traceLineSchema } from './trace';

export const journalSchema = z.object({
  seq: z.number().int(),
  /** The caller's id of the command: the same one is never done twice. `JOB/1`, `JOB/2` … are the parts of one job. */
  command: z.string(),
  at: z.number(),
  by: z.enum(['you', 'Wide Sort', 'post office']),
  says: z.string(),
  /** The entry that this one undoes; null for a command of its own. */
  undoes: z.number().nullable(),
  /** True where nothing can bring it back: deletion for good. */
  final: z.boolean(),
  /** Messages that came in: ids `first` up to, not including, `first + count`. */
  add: z.object({ first: z.number(), count: z.number() }).nullable(),
  change: z.object({ ids: int32, before: columns, after: columns }).nullable(),
  setup: z.array(setupChangeSchema).nullable(),
  /** Tasks and appointments that changed; absent where none did. */
  items: z.array(itemChangeSchema).optional(),
  /** Words added to the tables, with the index of the first. */
  intern: z.object({
    places: z.object({ first: z.number(), items: z.array(z.string()) }),
    labelSets: z.object({ first: z.number(), items: z.array(z.array(z.string())) }),
    traces: z.object({ first: z.number(), items: z.array(z.array(traceLineSchema)) }),
    /** Absent where none was added: most commands know of no tray. */
    trays: z.object({ first: z.number(), items: z.array(z.string()) }).optional(),
  }),
  cursor: z.string().nullable(),
  postOn: z.boolean().nullable(),
});

export type JournalRecord = z.infer<typeof journalSchema>;

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
  items?: ItemEdit[];
  cursor?: string;
  postOn?: boolean;
}

/** What a record is made of besides the command: its number, the moment, and how things stood before. */
export interface Standing {
  seq: number;
  at: number;
  columns: { pick(name: keyof Columns, ids: Int32Array): Column };
  setup: Setup;
  items: { readonly all: ReadonlyMap<string, Item> };
  /** Words that the command added to the tables. */
  intern: JournalRecord['intern'];
}

/** The record of a command, with what takes it back. */
export function recordOf(commit: Commit, { seq, at, columns, setup, items, intern }: Standing): JournalRecord {
  const { ids, after } = commit;
  const before: Columns = {};
  if (ids && after) for (const name of Object.keys(after) as (keyof Columns)[]) before[name] = columns.pick(name, ids);
  return {
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
    ...(commit.items ? { items: withBefore(items.all, commit.items) } : {}),
    intern,
    cursor: commit.cursor ?? null,
    postOn: commit.postOn ?? null,
  };
}

/** Reads one record. Throws SpoiltRecord where it is none, NewerStorage where a newer version wrote it. */
export async function readJournal(records: Records, seq: number): Promise<JournalRecord> {
  const key = keyOf.journal(seq);
  const record = await records.take(key, journalSchema);
  if (record === null) throw new SpoiltRecord(key, 'it is missing');
  return record;
}

/** The records of these numbers, in their order; null for one that can't be read. */
export async function* recordsOf(
  records: Records,
  numbers: readonly number[],
): AsyncGenerator<{ seq: number; record: JournalRecord | null }> {
  for (const seq of numbers) {
    const record = await records.read(keyOf.journal(seq), journalSchema);
    yield { seq, record: record === 'spoilt' || record?.seq !== seq ? null : record };
  }
}

/** Has a record say something else of what was done. */
export async function rewriteJournal(records: Records, seq: number, says: string): Promise<void> {
  await records.write(keyOf.journal(seq), { ...(await readJournal(records, seq)), says });
}
