// Reading the state back: the meta record and the state packs, and where one of them is spoilt, the ground on which the
// journal stands (shortening.ts).
import type { StateColumns } from './columns';
import {
  groundSchema,
  keyOf,
  metaSchema,
  NewerStorage,
  readRecord,
  statePackSchema,
  statePackSize,
  type Meta,
} from '../storage/records';
import type { RecordStore } from '../storage/recordStore';

/** What was read: `meta` is null in a new mailbox. The journal is to be replayed after record `from`. */
export interface ReadState {
  meta: Meta | null;
  from: number;
  /** The first record of the journal that is kept. */
  first: number;
}

type SetAside = (key: string, reason: string, record: unknown) => void;

/** Reads a record; what can't be read is set aside. Undefined where it is missing or spoilt. */
async function read<T>(
  store: RecordStore,
  key: string,
  schema: Parameters<typeof readRecord<T>>[2],
  setAside: SetAside,
) {
  const record = await store.get(key);
  if (record === null) return undefined;
  try {
    return readRecord(key, record, schema);
  } catch (error) {
    if (error instanceof NewerStorage) throw error;
    setAside(key, String(error), record);
    return undefined;
  }
}

/** The first record of a journal of which nothing else is known. */
async function firstOfJournal(store: RecordStore): Promise<number> {
  const numbers = (await store.keys()).flatMap((key) => /^journal\/(\d+)$/.exec(key)?.[1] ?? []).map(Number);
  return numbers.reduce((least, n) => Math.min(least, n), numbers[0] ?? 1);
}

/**
 * Reads the state into columns. `begun` is told as soon as the number of messages is known. A spoilt state pack is taken
 * from the ground, and all that was done since is replayed; without a ground the journal begins at its beginning.
 */
export async function readState(
  store: RecordStore,
  columns: StateColumns,
  setAside: SetAside,
  begun: (count: number) => void,
): Promise<ReadState> {
  const stored = await store.get(keyOf.meta);
  if (stored === null) return { meta: null, from: 0, first: 1 };
  let meta = await read(store, keyOf.meta, metaSchema, setAside);
  let from = meta?.seq ?? 0;
  let spoilt: number[] = [];
  if (meta) {
    begun(meta.count);
    spoilt = await readPacks(store, columns, meta.count, keyOf.state, setAside);
  }
  if (!meta || spoilt.length) {
    const ground = await read(store, keyOf.ground, groundSchema, setAside);
    if (ground) {
      from = ground.meta.seq;
      if (!meta) begun(ground.meta.count);
      meta ??= ground.meta;
      const packs = spoilt.length ? spoilt : packsOf(ground.meta.count);
      const wanted = packs.filter((pack) => pack * statePackSize < ground.meta.count);
      await readPacks(store, columns, ground.meta.count, keyOf.groundState, setAside, wanted);
    } else from = (await firstOfJournal(store)) - 1;
  }
  columns.count = meta?.count ?? 0;
  return { meta: meta ?? null, from, first: meta?.first ?? from + 1 };
}

const packsOf = (count: number): number[] =>
  Array.from({ length: Math.ceil(count / statePackSize) }, (_, pack) => pack);

/** Reads state packs into columns; those that can’t be read come back. */
async function readPacks(
  store: RecordStore,
  columns: StateColumns,
  count: number,
  key: (pack: number) => string,
  setAside: SetAside,
  packs = packsOf(count),
): Promise<number[]> {
  const records = await Promise.all(packs.map((pack) => store.get(key(pack))));
  const spoilt: number[] = [];
  for (const [i, record] of records.entries()) {
    try {
      columns.load(packs[i], readRecord(key(packs[i]), record, statePackSchema));
    } catch (error) {
      if (error instanceof NewerStorage) throw error;
      setAside(key(packs[i]), String(error), record);
      spoilt.push(packs[i]);
    }
  }
  return spoilt;
}
