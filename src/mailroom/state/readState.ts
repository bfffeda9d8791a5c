// Reading the state back: the meta record and the state packs, and where one of them is lost, the checkpoint
// (commands/compaction.ts) and the journal. What lies in storage is never taken for nothing.
import { numbersWhere } from '../../core/data/rows';
import type { StateColumns } from './columns';
import { type Records } from '../storage/records';
import { checkpointSchema, metaSchema, statePackSchema, type Meta } from '../storage/stateRecords';
import { keyOf, statePackSize } from '../storage/keys';
import { gapsIn, journalOf, stockOf, type Stock } from '../storage/stock';

/** What was read: `meta` is null in a new mailbox, and where no record says how far it goes. */
export interface ReadState {
  meta: Meta | null;
  /** The journal is to be replayed after this record. */
  from: number;
  /** The first record of the journal that is kept. */
  first: number;
  /** The last record of the journal that there is, or was. */
  last: number;
  /** The numbers of the journal's records that there are, ascending. */
  journal: readonly number[];
  /** Whether records of the journal are missing. */
  gaps: boolean;
  /** Messages of which nothing is known but what the journal says of them; empty where all was read. */
  uncertain: number[];
}

const packsOf = (count: number): number[] =>
  Array.from({ length: Math.ceil(count / statePackSize) }, (_, pack) => pack);

/** Reads state packs into columns; those that can’t be read, or are missing, come back. */
async function readPacks(
  records: Records,
  columns: StateColumns,
  key: (pack: number) => string,
  packs: readonly number[],
): Promise<number[]> {
  const read = await Promise.all(packs.map((pack) => records.read(key(pack), statePackSchema)));
  return packs.filter((pack, i) => {
    const record = read[i];
    if (record === null) records.tell(`A stored record (${key(pack)}) is missing.`);
    if (record === null || record === 'spoilt') return true;
    columns.load(pack, record);
    return false;
  });
}

/** Tells of the records of the journal that are missing. */
function tellGaps(records: Records, journal: readonly number[], first: number, last: number): boolean {
  const gaps = gapsIn(journal, first, last);
  for (const [from, to] of gaps)
    records.tell(
      from === to
        ? `Entry ${from} of the Logbook is missing: what it did may be lost.`
        : `Entries ${from} to ${to} of the Logbook are missing: what they did may be lost.`,
    );
  return gaps.length > 0;
}

/** The ids of the messages of some packs. */
function idsOf(packs: readonly number[], count: number): number[] {
  const ids: number[] = [];
  for (const pack of packs)
    for (let id = pack * statePackSize; id < Math.min(count, (pack + 1) * statePackSize); id++) ids.push(id);
  return ids;
}

/** Reads the state where the meta record is lost. */
async function readWithoutMeta(
  records: Records,
  columns: StateColumns,
  stock: Stock,
  journal: readonly number[],
  { begun, reach }: Hearing,
): Promise<Pick<ReadState, 'meta' | 'from' | 'uncertain'>> {
  const checkpoint = await records.read(keyOf.checkpoint, checkpointSchema);
  if (checkpoint !== null && checkpoint !== 'spoilt') {
    const { meta } = checkpoint;
    begun(meta.count);
    columns.count = meta.count;
    const lost = await readPacks(records, columns, keyOf.checkpointState, packsOf(meta.count));
    return { meta, from: meta.seq, uncertain: idsOf(lost, meta.count) };
  }
  // The journal alone is enough where it begins at its beginning.
  if (journal[0] === 1) return { meta: null, from: 0, uncertain: [] };
  const count = await reach(stock);
  const packs = packsOf(count).filter((pack) => stock.state.has(pack));
  const lost = await readPacks(records, columns, keyOf.state, packs);
  columns.grow(count);
  records.tell(
    'What says how far the mailbox goes is lost, and so are the setup and the names of folders and labels: rules, the Register, accounts. The messages were found again.',
  );
  const known = new Set(packs.filter((pack) => !lost.includes(pack)));
  const uncertain = [
    ...numbersWhere(count, (id) => !known.has(Math.floor(id / statePackSize)) || columns.place[id] === 0),
  ];
  return { meta: null, from: (journal[0] ?? 1) - 1, uncertain };
}

/** The state with its meta record: what is lost of the packs comes from the checkpoint, or from the whole journal. */
async function readWithMeta(
  records: Records,
  columns: StateColumns,
  journal: readonly number[],
  meta: Meta,
): Promise<Pick<ReadState, 'meta' | 'from' | 'uncertain'>> {
  const spoilt = await readPacks(records, columns, keyOf.state, packsOf(meta.count));
  columns.count = meta.count;
  if (spoilt.length === 0) return { meta, from: meta.seq, uncertain: [] };
  const checkpoint = await records.read(keyOf.checkpoint, checkpointSchema);
  if (checkpoint === null || checkpoint === 'spoilt')
    return { meta, from: (journal[0] ?? 1) - 1, uncertain: idsOf(spoilt, meta.count) };
  const { count, seq } = checkpoint.meta;
  const older = spoilt.filter((pack) => pack * statePackSize < count);
  const lost = new Set(await readPacks(records, columns, keyOf.checkpointState, older));
  const uncertain = idsOf(spoilt, meta.count).filter((id) => id >= count || lost.has(Math.floor(id / statePackSize)));
  return { meta, from: seq, uncertain };
}

/** What reading the state tells and asks. */
export interface Hearing {
  /** Told as soon as the number of messages is known. */
  begun(count: number): void;
  /** How many messages there are bytes or envelopes of. */
  reach(stock: Stock): Promise<number>;
}

/**
 * Reads the state into columns. What of it is lost is taken
 * from the checkpoint, and all that was done since is replayed; without a checkpoint the journal begins at its beginning.
 */
export async function readState(records: Records, columns: StateColumns, hearing: Hearing): Promise<ReadState> {
  const [stored, journal] = await Promise.all([
    records.read(keyOf.meta, metaSchema).then((meta) => {
      if (meta && meta !== 'spoilt') hearing.begun(meta.count);
      return meta;
    }),
    journalOf(records),
  ]);
  let read: Pick<ReadState, 'meta' | 'from' | 'uncertain'>;
  if (stored !== null && stored !== 'spoilt') read = await readWithMeta(records, columns, journal, stored);
  else {
    // All that lies there takes longer to tell, and is asked only where nothing else says how far the mailbox goes.
    const stock = await stockOf(records);
    if (stored === null && !stock.any)
      return { meta: null, from: 0, first: 1, last: 0, journal, uncertain: [], gaps: false };
    // A new mailbox that was closed before anything but its first commands was written has no meta record yet.
    if (stored === null && journal[0] !== 1) records.tell(`A stored record (${keyOf.meta}) is missing.`);
    read = await readWithoutMeta(records, columns, stock, journal, hearing);
  }
  const first = read.meta?.first ?? journal[0] ?? 1;
  // A mailbox that was found again from its packs alone has a journal that does not begin at its beginning.
  const found = read.meta === null && journal[0] !== 1 ? 1 : 0;
  const last = Math.max(journal.at(-1) ?? 0, read.meta?.seq ?? 0, first - 1, found);
  const gaps = tellGaps(records, journal, first, last);
  return { ...read, first, last, journal, gaps };
}
