// Reading the state back: the meta record and the state packs, and where one of them is spoilt, the checkpoint
// (commands/compaction.ts).
import type { StateColumns } from './columns';
import { type Records } from '../storage/records';
import { checkpointSchema, metaSchema, statePackSchema, type Meta } from '../storage/stateRecords';
import { keyOf, statePackSize } from '../storage/keys';

/** What was read: `meta` is null in a new mailbox. The journal is to be replayed after record `from`. */
export interface ReadState {
  meta: Meta | null;
  from: number;
  /** The first record of the journal that is kept. */
  first: number;
}

/** The first record of a journal of which nothing else is known. */
async function firstOfJournal(records: Records): Promise<number> {
  const numbers = (await records.keys()).flatMap((key) => /^journal\/(\d+)$/.exec(key)?.[1] ?? []).map(Number);
  return numbers.reduce((least, n) => Math.min(least, n), numbers[0] ?? 1);
}

/**
 * Reads the state into columns. `begun` is told as soon as the number of messages is known. A spoilt state pack is taken
 * from the checkpoint, and all that was done since is replayed; without a checkpoint the journal begins at its beginning.
 */
export async function readState(
  records: Records,
  columns: StateColumns,
  begun: (count: number) => void,
): Promise<ReadState> {
  const stored = await records.read(keyOf.meta, metaSchema);
  if (stored === null) return { meta: null, from: 0, first: 1 };
  let meta = stored === 'spoilt' ? null : stored;
  let from = meta?.seq ?? 0;
  let spoilt: number[] = [];
  if (meta) {
    begun(meta.count);
    spoilt = await readPacks(records, columns, meta.count, keyOf.state);
  }
  if (!meta || spoilt.length) {
    const checkpoint = await records.read(keyOf.checkpoint, checkpointSchema);
    if (checkpoint !== null && checkpoint !== 'spoilt') {
      const { count, seq } = checkpoint.meta;
      from = seq;
      if (!meta) begun(count);
      meta ??= checkpoint.meta;
      const packs = spoilt.length ? spoilt : packsOf(count);
      const wanted = packs.filter((pack) => pack * statePackSize < count);
      await readPacks(records, columns, count, keyOf.checkpointState, wanted);
    } else from = (await firstOfJournal(records)) - 1;
  }
  columns.count = meta?.count ?? 0;
  return { meta, from, first: meta?.first ?? from + 1 };
}

const packsOf = (count: number): number[] =>
  Array.from({ length: Math.ceil(count / statePackSize) }, (_, pack) => pack);

/** Reads state packs into columns; those that can’t be read, or are missing, come back. */
async function readPacks(
  records: Records,
  columns: StateColumns,
  count: number,
  key: (pack: number) => string,
  packs = packsOf(count),
): Promise<number[]> {
  const read = await Promise.all(packs.map((pack) => records.read(key(pack), statePackSchema)));
  return packs.filter((pack, i) => {
    const record = read[i];
    if (record === null) records.setAside(key(pack), 'it is missing', null);
    if (record === null || record === 'spoilt') return true;
    columns.load(pack, record);
    return false;
  });
}
