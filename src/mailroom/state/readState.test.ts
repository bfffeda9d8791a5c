// Reading the state back from whatever is left of it.
import { StateColumns } from './columns';
import { readState } from './readState';
import { NewerStorage, Records } from '../storage/records';
import { keyOf, statePackSize } from '../storage/keys';
import { memoryStore } from '../storage/recordStore';
import { fill, openMailbox } from '../testing/testing';

async function stored(count: number): Promise<Map<string, unknown>> {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, count);
  await mailbox.flush();
  mailbox.close();
  return records;
}

async function read(records: Map<string, unknown>) {
  const columns = new StateColumns();
  const begun: number[] = [];
  const told: string[] = [];
  const stored = new Records(
    memoryStore(new Map(records)),
    () => 0,
    (says) => told.push(says),
  );
  const state = await readState(stored, columns, { begun: (count) => begun.push(count), reach: async () => 0 });
  const aside = (await stored.keys()).flatMap((key) => /^aside\/(.*)\/0$/.exec(key)?.[1] ?? []);
  const missing = told.flatMap((says) => /^A stored record \((.*)\) is missing/.exec(says)?.[1] ?? []);
  return { ...state, count: columns.count, aside: [...aside, ...missing], begun };
}

test('a new mailbox: nothing, and the journal from its beginning', async () => {
  expect(await read(new Map())).toMatchObject({ meta: null, from: 0, first: 1, count: 0, aside: [], begun: [] });
});

test('all is there: the journal goes on where the packs end', async () => {
  const records = await stored(12);
  expect(await read(records)).toMatchObject({ from: 1, first: 1, count: 12, aside: [], begun: [12] });
});

test.each([
  ['a pack that is no record', keyOf.state(0), 7],
  ['a pack that is missing', keyOf.state(0), null],
  ['a pack cut short', keyOf.state(0), { v: 1, place: new Uint16Array(3) }],
])('%s, and no checkpoint yet: the whole journal is replayed', async (_what, key, record) => {
  const records = await stored(12);
  if (record === null) records.delete(key);
  else records.set(key, record);
  expect(await read(records)).toMatchObject({ from: 0, first: 1, count: 12, aside: [key] });
});

test('no meta that can be read: the count is not known, and the whole journal is replayed', async () => {
  const records = await stored(12);
  records.set(keyOf.meta, { v: 1, seq: 'x' });
  expect(await read(records)).toMatchObject({ meta: null, from: 0, first: 1, count: 0, aside: [keyOf.meta] });
});

test('no meta and no checkpoint, and a journal that was shortened: it is replayed from what is left', async () => {
  const records = await stored(12);
  records.set(keyOf.journal(7), records.get(keyOf.journal(1)));
  records.delete(keyOf.journal(1));
  records.set(keyOf.meta, 7);
  expect(await read(records)).toMatchObject({ meta: null, from: 6, first: 7 });
});

test('storage of a newer version is refused, wherever it shows', async () => {
  for (const key of [keyOf.meta, keyOf.state(0)]) {
    const records = await stored(1);
    records.set(key, { v: 99 });
    await expect(read(records)).rejects.toBeInstanceOf(NewerStorage);
  }
});

test('one of several packs spoilt: the others are read', async () => {
  const records = await stored(statePackSize + 5);
  records.set(keyOf.state(1), { v: 1 });
  expect(await read(records)).toMatchObject({ from: 0, count: statePackSize + 5, aside: [keyOf.state(1)] });
});
