// The mailbox and its store: opened again, damaged, full, newer than the program.
import { act } from '../commands/acts';
import { changeSetup } from '../commands/changeSetup';
import { addMessages } from '../intake/incoming';
import { Mailbox } from './mailbox';
import { NotWritten } from '../storage/committing';
import { open } from '../questions/message';
import { rows } from '../questions/rows';
import { NewerStorage } from '../storage/records';
import { keyOf } from '../storage/keys';
import { memoryStore, type RecordStore } from '../storage/recordStore';
import { fill, incoming, openMailbox, stateOf, single } from '../testing/testing';
import type { View } from '../border/views';
import { here } from '../reading/here';

const inbox: View = { kind: 'place', place: 'inbox' };
const block = (value: string) => [
  {
    list: 'register' as const,
    id: value,
    item: { id: value, kind: 'address' as const, value, standing: 'blocked' as const, since: 0, why: '' },
  },
];

test('everything is there after opening again, from packs or from the journal alone', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 700);
  await act(mailbox, 'a', { ids: [5, 600] }, { do: 'move', place: 'archive' });
  await mailbox.flush();
  await act(mailbox, 'b', { ids: [6] }, { do: 'flag', value: true });
  const before = stateOf(mailbox);
  expect(stateOf(await openMailbox(memoryStore(records)))).toEqual(before);
  for (const key of [...records.keys()]) if (key === keyOf.meta || key.startsWith('state/')) records.delete(key);
  expect(stateOf(await openMailbox(memoryStore(records)))).toEqual(before);
});

test.each([
  ['meta', keyOf.meta],
  ['a state pack', keyOf.state(0)],
  ['an envelope pack', keyOf.envelopes(0)],
])('%s that was spoilt is set aside and told, and the rest is as before', async (_what, key) => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 600);
  await act(mailbox, 'a', { ids: [5] }, { do: 'move', place: 'archive' });
  await mailbox.flush();
  const before = stateOf(mailbox);
  records.set(key, { v: 1, rows: '[{"nonsense', place: 'x' });
  const again = await openMailbox(memoryStore(records));
  expect(stateOf(again)).toEqual(before);
  expect(again.troubles.join()).toMatch(new RegExp(`A stored record \\(${key}\\) could not be read`));
  expect([...records.keys()].some((k) => k.startsWith(`aside/${key}`))).toBe(true);
});

test('envelopes that are not what was written are looked through; those of earlier versions always are', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 600);
  await mailbox.flush();
  const before = stateOf(mailbox);
  const key = keyOf.envelopes(0);
  const written = records.get(key) as { v: number; rows: string; checksum: number };
  const { v, rows, checksum } = written;
  const reopened = async (record: unknown) => {
    const again = await openMailbox(memoryStore(new Map(records).set(key, record)));
    expect(stateOf(again)).toEqual(before);
    return again.troubles;
  };
  expect(await reopened({ v, rows })).toEqual([]);
  expect(await reopened(written)).toEqual([]);
  expect((await reopened({ ...written, checksum: checksum + 1 })).join()).toMatch(/could not be read \(checksum: /);
  const altered = rows.replace('"subject":"Message 7"', '"subject":7');
  expect(altered).not.toBe(rows);
  expect((await reopened({ v, rows: altered })).join()).toMatch(/could not be read \(rows: /);
  expect((await reopened({ ...written, rows: altered })).join()).toMatch(/could not be read \(checksum: /);
});

test('a spoilt journal record loses only itself', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 4);
  await act(mailbox, 'a', { ids: [1] }, { do: 'move', place: 'archive' });
  await act(mailbox, 'b', { ids: [2] }, { do: 'move', place: 'bin' });
  records.set(keyOf.journal(2), 'nonsense');
  const again = await openMailbox(memoryStore(records));
  expect(stateOf(again).messages.map((m) => m.place)).toEqual(['inbox', 'inbox', 'bin', 'inbox']);
  expect(again.troubles).toHaveLength(1);
  await act(again, 'c', { ids: [3] }, { do: 'move', place: 'archive' });
  expect(stateOf(await openMailbox(memoryStore(records))).messages[3].place).toBe('archive');
});

test('raw bytes that were spoilt are said to be so, the row stays', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 3);
  await mailbox.flush();
  records.set(keyOf.raw(0), { v: 1 });
  const again = await openMailbox(memoryStore(records));
  expect(await open(again, 1, false)).toBeNull();
  expect((await rows(again, inbox, single, 0, 9)).total).toBe(3);
});

test('storage of a newer version is refused and left alone', async () => {
  const records = new Map<string, unknown>([[keyOf.meta, { v: 2 }]]);
  await expect(
    Mailbox.open(
      memoryStore(records),
      () => 0,
      () => undefined,
      here,
    ),
  ).rejects.toThrow(NewerStorage);
  expect([...records]).toEqual([[keyOf.meta, { v: 2 }]]);
});

test('a full disk: the command is refused in words, nothing is changed, and it works once there is room', async () => {
  const inner = memoryStore();
  let full = false;
  const store: RecordStore = {
    ...inner,
    set: async (key, value) => {
      if (full) throw new DOMException('Quota exceeded', 'QuotaExceededError');
      await inner.set(key, value);
    },
  };
  const mailbox = await openMailbox(store);
  await fill(mailbox, 10);
  const before = stateOf(mailbox);
  full = true;
  await expect(act(mailbox, 'a', { view: inbox }, { do: 'move', place: 'archive' })).rejects.toThrow(NotWritten);
  await expect(fill(mailbox, 5, 100)).rejects.toThrow(/disk is full, .* so nothing was changed/);
  await expect(changeSetup(mailbox, 's', block('sender1@harbour.example'), 'Blocked', true)).rejects.toThrow(
    NotWritten,
  );
  expect(stateOf(mailbox)).toEqual(before);
  full = false;
  await fill(mailbox, 5, 100);
  expect(await changeSetup(mailbox, 't', block('sender1@harbour.example'), 'Blocked', true)).toMatchObject({
    ok: true,
  });
  const now = stateOf(mailbox);
  expect(now.messages).toHaveLength(15);
  expect(stateOf(await openMailbox(store))).toEqual(now);
});

test('a message over a megabyte has a record of its own, and comes back whole', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  const big = incoming(1);
  big.stored = { bytes: new Uint8Array(2 << 20).fill(65), form: 'eml' };
  await addMessages(mailbox, [incoming(0), big, incoming(2)], { command: 'a', by: 'you', says: '' });
  expect(records.has(keyOf.big(1))).toBe(true);
  const again = await openMailbox(memoryStore(records));
  expect((await again.raws.read(1))?.bytes).toHaveLength(2 << 20);
  expect((await again.raws.read(2))?.bytes).toEqual(incoming(2).stored.bytes);
});
