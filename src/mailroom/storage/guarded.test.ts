// A store whose browser runs out of room, or drops the database: nothing is begun that can't end, and nothing written
// into an empty database as if it were kept.
import { act } from '../commands/acts';
import { NotWritten } from './committing';
import { guarded } from './guarded';
import { memoryStore, type RecordStore } from './recordStore';
import { anyRoom, type Room } from './room';
import { fill, openMailbox, stateOf } from '../testing/testing';
import { exportMemory } from '../questions/memory';

const deaf = { lost: () => undefined, full: () => undefined };

const read = { do: 'read', value: true } as const;

/** A disk with so much room, and how often its reserve was given back. */
const disk = (left: number): Room & { left: number; released: number } => ({
  left,
  released: 0,
  has(bytes) {
    return bytes <= this.left;
  },
  release() {
    this.released++;
  },
});

test('without room no write is begun, and all that was there is there; with room it goes on', async () => {
  const records = new Map<string, unknown>();
  const inner = memoryStore(records);
  let writes = 0;
  const counting: RecordStore = { ...inner, set: async (key, value) => (writes++, inner.set(key, value)) };
  const room = disk(1e9);
  const full: boolean[] = [];
  const mailbox = await openMailbox(guarded(counting, room, { ...deaf, full: (now) => full.push(now) }));
  await fill(mailbox, 20);
  await mailbox.flush();
  const [before, written] = [stateOf(mailbox), writes];
  room.left = 0;
  for (const n of [1, 2, 3])
    await expect(act(mailbox, `a${n}`, { ids: [n] }, read)).rejects.toThrow(/disk is full.*nothing was changed/);
  expect(writes).toBe(written);
  expect(stateOf(mailbox)).toEqual(before);
  expect(stateOf(await openMailbox(memoryStore(new Map(records))))).toEqual(before);
  expect(full).toEqual([false, true]);
  room.left = 1e9;
  expect((await act(mailbox, 'b', { ids: [1] }, read)).count).toBe(1);
  expect(full).toEqual([false, true, false]);
});

test('after a write that failed the reserve is given back, and the database is left alone until there is room', async () => {
  const inner = memoryStore();
  let full = false;
  let asked = 0;
  const store: RecordStore = {
    ...inner,
    get: async (key) => (asked++, inner.get(key)),
    set: async (key, value) => {
      if (full) throw new DOMException('The transaction was aborted', 'AbortError');
      await inner.set(key, value);
    },
  };
  const room = disk(1e9);
  const mailbox = await openMailbox(guarded(store, room, deaf));
  await fill(mailbox, 5);
  full = true;
  await expect(act(mailbox, 'a', { ids: [1] }, read)).rejects.toThrow(NotWritten);
  expect(room.released).toBe(1);
  room.left = 0;
  const before = asked;
  await expect(act(mailbox, 'b', { ids: [1] }, read)).rejects.toThrow(/disk is full/);
  expect(asked).toBe(before);
  [full, room.left] = [false, 1e9];
  expect((await act(mailbox, 'c', { ids: [1] }, read)).count).toBe(1);
});

test('the database dropped under it: it stops, says so once, and what is in memory can be saved', async () => {
  const records = new Map<string, unknown>();
  let told = 0;
  let lose = () => undefined as void;
  const store = guarded(memoryStore(records), anyRoom, {
    ...deaf,
    lost: () => {
      told++;
      lose();
    },
  });
  const mailbox = await openMailbox(store);
  lose = () => mailbox.storage.lost();
  await fill(mailbox, 12);
  await mailbox.flush();
  // The browser deletes all and opens an empty database in its place.
  records.clear();
  for (const n of [1, 2])
    await expect(act(mailbox, `a${n}`, { ids: [n] }, read)).rejects.toThrow(/dropped what it stored/);
  await expect(fill(mailbox, 3, 50)).rejects.toThrow(NotWritten);
  expect(told).toBe(1);
  expect(mailbox.storage.isLost).toBe(true);
  expect(records.size).toBe(0);
  expect(mailbox.columns.count).toBe(12);
  const left = exportMemory(mailbox);
  expect(left).toMatchObject({ ok: true, count: 12, lost: 0 });
  const text = left.ok ? await left.blob.text() : '';
  expect(text.match(/^Subject: Message \d+\r?$/gm)).toHaveLength(12);
  expect(text).toContain('Text of 7');
});

test('dropped between the look and the write: the command is not said done', async () => {
  const records = new Map<string, unknown>();
  const inner = memoryStore(records);
  let dropping = false;
  const store: RecordStore = {
    ...inner,
    set: async (key, value) => {
      if (dropping) records.clear();
      await inner.set(key, value);
    },
  };
  const mailbox = await openMailbox(guarded(store, anyRoom, deaf));
  await fill(mailbox, 5);
  dropping = true;
  const before = stateOf(mailbox);
  await expect(act(mailbox, 'a', { ids: [1] }, read)).rejects.toThrow(NotWritten);
  expect(stateOf(mailbox)).toEqual(before);
  // What it would try again for ever.
  mailbox.close();
});

test('starting afresh begins a new database with a mark of its own', async () => {
  const records = new Map<string, unknown>();
  const store = guarded(memoryStore(records), anyRoom, deaf);
  await store.set('a', 1);
  const mark = records.get('mark');
  await store.clear();
  await store.set('b', 2);
  expect(records.get('mark')).toEqual(expect.any(String));
  expect(records.get('mark')).not.toBe(mark);
  expect(await store.keys()).toEqual(['b']);
});

test('what was being written while everything is deleted does not come back', async () => {
  const records = new Map<string, unknown>();
  const inner = memoryStore(records);
  const slow: RecordStore = {
    ...inner,
    get: async (key) => {
      await new Promise((resolve) => setTimeout(resolve, 5));
      return inner.get(key);
    },
  };
  const store = guarded(slow, anyRoom, deaf);
  await store.set('first', 1);
  const late = [store.set('late', 2), store.remove('first')];
  await store.clear();
  await Promise.allSettled(late);
  expect([...records.keys()]).toEqual([]);
  await store.set('anew', 3);
  expect(await store.keys()).toEqual(['anew']);
});
