// The records: what is written to storage, how it is keyed, and how it is checked when it comes back.
//
//   meta             one record: counts, tables, setup, and the journal number up to which the state packs are complete
//   state/00000      columns of 4,096 messages: place, flags, labels … (changes often, so it is small)
//   ground           meta as it was when the journal was last shortened; ground/00000 the state packs of that moment
//   derived/00000    what was computed of 4,096 messages: conversation, account … (can be made anew)
//   text/00000       the text index of 4,096 messages (can be made anew)
//   junk             the junk filter: its model, what each mark taught, the score of each message (can be made anew)
//   envelopes/00000  envelopes of 512 messages, as JSON (never changes once written)
//   raw/000000       raw bytes of 64 messages (read only when opened, exported or deleted)
//   big/0000000      raw bytes of one message over a megabyte
//   journal/00000000 one command: what it was, before and after
//   aside/…          a record that could not be read, kept as it was found
import { z } from 'zod';
import { hashOf, hashOfText } from '../../core/data/hash';
import type { PackedSegment } from '../../core/search/textIndex';
import { keptEnvelopeSchema, type KeptEnvelope } from './keptEnvelope';
import { setupSchema } from '../../core/line/setup';
import { segmentSize } from '../../core/search/units';
import { setupChangeSchema } from '../../core/line/setupEdit';

/** The version of all records. An older one is brought up in {@link migrate}; a newer one is refused. */
export const recordVersion = 1;

export const statePackSize = 4_096;

export const envelopePackSize = 512;

export const rawPackSize = 64;

/** A raw message over this many bytes gets a record of its own. */
export const bigMessage = 1 << 20;

const padded = (n: number, width: number) => String(n).padStart(width, '0');

export const keyOf = {
  meta: 'meta',
  state: (pack: number) => `state/${padded(pack, 5)}`,
  junk: 'junk',
  text: (segment: number) => `text/${padded(segment, 5)}`,
  derived: (pack: number) => `derived/${padded(pack, 5)}`,
  envelopes: (pack: number) => `envelopes/${padded(pack, 5)}`,
  raw: (pack: number) => `raw/${padded(pack, 6)}`,
  big: (id: number) => `big/${padded(id, 7)}`,
  ground: 'ground',
  groundState: (pack: number) => `ground/${padded(pack, 5)}`,
  journal: (seq: number) => `journal/${padded(seq, 8)}`,
  aside: (key: string, at: number) => `aside/${key}/${at}`,
};

/** A typed array of one kind, told by its tag: one that comes from another realm is as good. */
function arrayOf<T>(tag: string): z.ZodType<T> {
  return z.custom<T>((value) => Object.prototype.toString.call(value) === `[object ${tag}]`, {
    error: `expected ${tag}`,
  });
}

const bytes = arrayOf<Uint8Array>('Uint8Array');

const uint16 = arrayOf<Uint16Array>('Uint16Array');

const uint32 = arrayOf<Uint32Array>('Uint32Array');

const int32 = arrayOf<Int32Array>('Int32Array');

const float64 = arrayOf<Float64Array>('Float64Array');

const versioned = { v: z.literal(recordVersion) };

export const traceLineSchema = z.object({
  station: z.enum(['register', 'junk', 'rules', 'inbox', 'silence', 'import', 'post office']),
  by: z.string().nullable(),
  says: z.string(),
});

export type StoredTraceLine = z.infer<typeof traceLineSchema>;

export const metaSchema = z.object({
  ...versioned,
  /** The journal number that all state packs have reached. */
  seq: z.number().int(),
  count: z.number().int(),
  places: z.array(z.string()),
  labelSets: z.array(z.array(z.string())),
  traces: z.array(z.array(traceLineSchema)),
  setup: setupSchema,
  /** The post office's cursor; null before the first check or where there is none. */
  cursor: z.string().nullable(),
  postOn: z.boolean(),
  /** The moment for which rules on the age of messages were last asked; 0 for never. */
  agedAt: z.number().default(0),
  /** The first record of the journal that is kept. */
  first: z.number().int().min(1).default(1),
});

export type Meta = z.infer<typeof metaSchema>;

/** What the journal stands on once it was shortened: together with the records after `meta.seq` it gives all state. */
export const groundSchema = z.object({ ...versioned, meta: metaSchema });

export const statePackSchema = z.object({
  ...versioned,
  place: uint16,
  placedAt: float64,
  bits: bytes,
  labels: uint16,
  trace: uint32,
  date: float64,
  due: float64.default(() => new Float64Array(statePackSize)),
  ink: bytes.default(() => new Uint8Array(statePackSize)),
});

export type StatePack = z.infer<typeof statePackSchema>;

export const derivedPackSchema = z.object({
  ...versioned,
  /** The accounts for which it was computed. */
  stamp: z.string(),
  conversation: uint32,
  above: uint32,
  account: bytes,
  facts: bytes,
});

/** How segments of the text index are written now; one that is written otherwise is made anew. */
const textForm = 2;

export const textSegmentSchema = z
  .object({
    ...versioned,
    form: z.literal(textForm),
    count: z.number().int().min(0).max(segmentSize),
    words: z.string(),
    units: uint16,
    ends: uint32,
    seal: z.number(),
  })
  // What points beyond its own arrays, or to other words, would mislead every search.
  .refine((record) => record.seal === sealOf(record), { error: 'seal: it is not what was written' });

type Sealed = { count: number; words: string; units: ArrayLike<number>; ends: ArrayLike<number> };

const sealOf = ({ count, words, units, ends }: Sealed): number =>
  hashOf(ends, hashOf(units, hashOfText(words, hashOf([count]))));

/** The record of a segment of the text index. */
export const packText = (segment: PackedSegment): z.infer<typeof textSegmentSchema> => ({
  v: recordVersion,
  form: textForm,
  ...segment,
  seal: sealOf(segment),
});

export const junkRecordSchema = z.object({
  ...versioned,
  /** What is beneath it: `shipped`, `none`, or the checksum of a model that was carried here. */
  base: z.string(),
  /** The model as a file (core/junk/modelFile.ts). */
  model: bytes,
  /** The messages that taught it, what each was marked as (1 is junk), and what it taught. */
  ids: int32,
  marks: bytes,
  steps: int32,
  /** One more than the score of each message, 0 where it was not judged. */
  scores: bytes,
});

/** `seal`: of rows that were written whole; absent from what earlier versions wrote. */
export const envelopePackSchema = z.object({ ...versioned, rows: z.string(), seal: z.number().optional() });

const envelopeRows = z.array(keptEnvelopeSchema);

/** What rows mean is in their seal, too: when envelopes get another field, those of before are looked through. */
const envelopeForm = hashOfText(Object.keys(keptEnvelopeSchema.shape).join(' '));

/** The record of a pack of envelopes. */
export function packEnvelopes(envelopes: readonly KeptEnvelope[]): z.infer<typeof envelopePackSchema> {
  const rows = JSON.stringify(envelopes);
  return { v: recordVersion, rows, seal: hashOfText(rows, envelopeForm) };
}

export const rawPackSchema = z.object({
  ...versioned,
  /** Length of each message in bytes; -1 for one that has a record of its own, -2 for one that is gone. */
  lengths: int32,
  /** How each is wrapped: 0 for a message by itself, 1 as it stood in an mbox. */
  forms: bytes,
  bytes,
});

export type RawPack = z.infer<typeof rawPackSchema>;

/** The bytes of a message in a record of its own. */
export const bigRecordSchema = bytes;

/** A column of values for the messages of a change: one for all, or one for each. */
const column = z.union([z.number(), uint16, uint32, float64, bytes]);

export type Column = z.infer<typeof column>;

const columns = z.object({
  place: column.optional(),
  placedAt: column.optional(),
  bits: column.optional(),
  labels: column.optional(),
  trace: column.optional(),
  date: column.optional(),
  due: column.optional(),
  ink: column.optional(),
});

export type Columns = z.infer<typeof columns>;

export const journalSchema = z.object({
  ...versioned,
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
  /** Words added to the tables, with the index of the first. */
  intern: z.object({
    places: z.object({ first: z.number(), items: z.array(z.string()) }),
    labelSets: z.object({ first: z.number(), items: z.array(z.array(z.string())) }),
    traces: z.object({ first: z.number(), items: z.array(z.array(traceLineSchema)) }),
  }),
  cursor: z.string().nullable(),
  postOn: z.boolean().nullable(),
});

export type JournalRecord = z.infer<typeof journalSchema>;

/** A record that could not be read: what it should have been, and why it is not. */
export class SpoiltRecord extends Error {
  constructor(
    readonly key: string,
    reason: string,
  ) {
    super(reason);
    this.name = 'SpoiltRecord';
  }
}

/** Storage written by a newer version of the program: nothing may be touched. */
export class NewerStorage extends Error {
  constructor() {
    super(
      'The mail in this browser was stored by a newer version of Wide Sort. Nothing was changed; start the newer version to read it.',
    );
    this.name = 'NewerStorage';
  }
}

/** Brings a record of an older version up to {@link recordVersion}. There is none older than 1 yet. */
function migrate(record: { v: number }): unknown {
  return record;
}

/** Checks a record that came out of storage. */
export function readRecord<T>(key: string, record: unknown, schema: z.ZodType<T>): T {
  const version = typeof record === 'object' && record !== null && 'v' in record ? record.v : null;
  if (typeof version === 'number' && version > recordVersion) throw new NewerStorage();
  const parsed = schema.safeParse(typeof version === 'number' ? migrate(record as { v: number }) : record);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0];
  throw new SpoiltRecord(key, `${issue.path.join('.') || 'record'}: ${issue.message}`);
}

/** The envelopes of a pack. */
export function readEnvelopes(key: string, record: unknown): KeptEnvelope[] {
  const { rows, seal } = readRecord(key, record, envelopePackSchema);
  let parsed: unknown;
  try {
    parsed = JSON.parse(rows);
  } catch {
    throw new SpoiltRecord(key, 'rows: no JSON');
  }
  // What came back just as it was written is what was written: to look through a hundred thousand takes a second.
  if (seal === hashOfText(rows, envelopeForm)) return parsed as KeptEnvelope[];
  const checked = envelopeRows.safeParse(parsed);
  if (!checked.success) throw new SpoiltRecord(key, `rows: ${checked.error.issues[0].message}`);
  return checked.data;
}

/** One value of a column for the `i`th message of a change. */
export const valueAt = (value: Column, i: number): number => (typeof value === 'number' ? value : value[i]);
