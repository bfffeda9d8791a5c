// What the records of the state hold: its columns, and what says how far they go.
import { z } from 'zod';
import { setupSchema } from '../../core/line/setup';
import { statePackSize } from './keys';
import { bytes, uint16, uint32, float64 } from './schemas';
import { traceLineSchema } from './trace';

/** More messages than this no mailbox holds: what says so is damaged. */
const mostIds = 1 << 24;

export const metaSchema = z.object({
  /** The journal number that all state packs have reached. */
  seq: z.number().int().min(0),
  count: z.number().int().min(0).max(mostIds),
  places: z.array(z.string()),
  labelSets: z.array(z.array(z.string())),
  traces: z.array(z.array(traceLineSchema)),
  trays: z.array(z.string()).default(['']),
  setup: setupSchema,
  /** Tasks and appointments as one text (state/items.ts). */
  items: z.string().default(''),
  /** The post office's cursor; null before the first check or where there is none. */
  cursor: z.string().nullable(),
  postOn: z.boolean(),
  /** The moment for which rules on the age of messages were last asked; 0 for never. */
  agedAt: z.number().default(0),
  /** The moment up to which flags that fell due were told of; 0 for never. */
  remindedAt: z.number().default(0),
  /** The days that were seen to pass, in days since 1970. */
  daysSeen: z.array(z.number().int()).default([]),
  /** The first record of the journal that is kept. */
  first: z.number().int().min(1).default(1),
  /** The last record of the journal whose messages, deleted for good, are gone from everything that is stored. */
  erasedTo: z.number().int().min(0).default(0),
});

export type Meta = z.infer<typeof metaSchema>;

/** What the journal stands on once it was shortened: together with the records after `meta.seq` it gives all state. */
export const checkpointSchema = z.object({ meta: metaSchema });

/** A column of a state pack: one value for each of its messages. */
const whole = <T extends { length: number }>(array: z.ZodType<T>): z.ZodType<T> =>
  array.refine(({ length }) => length === statePackSize, { error: `expected ${statePackSize} values` });

/** A column in which nothing stands may be absent: most messages never waited, and opening reads all of it. */
export const statePackSchema = z.object({
  place: whole(uint16),
  placedAt: whole(float64),
  bits: whole(bytes),
  labels: whole(uint16),
  trace: whole(uint32),
  date: whole(float64),
  due: whole(float64).default(() => new Float64Array(statePackSize)),
  ink: whole(bytes).default(() => new Uint8Array(statePackSize)),
  until: whole(float64).optional(),
  waitsFrom: whole(uint32).optional(),
  delivered: whole(float64).optional(),
  tray: whole(uint16).optional(),
});

export type StatePack = z.infer<typeof statePackSchema>;

/** A column of values for the messages of a change: one for all, or one for each. */
const column = z.union([z.number(), uint16, uint32, float64, bytes]);

export type Column = z.infer<typeof column>;

export const columns = z.object({
  place: column.optional(),
  placedAt: column.optional(),
  bits: column.optional(),
  labels: column.optional(),
  trace: column.optional(),
  date: column.optional(),
  due: column.optional(),
  ink: column.optional(),
  until: column.optional(),
  waitsFrom: column.optional(),
  delivered: column.optional(),
  tray: column.optional(),
});

export type Columns = z.infer<typeof columns>;

/** One value of a column for the `i`th message of a change. */
export const valueAt = (value: Column, i: number): number => (typeof value === 'number' ? value : value[i]);
