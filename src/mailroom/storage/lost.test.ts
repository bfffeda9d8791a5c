// Records that are lost or damaged, one kind after another: what lies in storage is never taken for nothing.
import { act } from '../commands/acts';
import { compact } from '../commands/compaction';
import { tidy } from '../commands/retention';
import { undo } from '../commands/undo';
import { exportMail } from '../questions/exporting';
import { wholeLog } from '../border/log';
import { logbook, logDetail } from '../questions/logbook';
import { fill, incoming, openMailbox, stateOf, testTime } from '../testing/testing';
import { addMessages } from '../intake/incoming';
import { keyOf } from './keys';
import { memoryStore, type RecordStore } from './recordStore';
import { here } from '../reading/here';

const day = 86_400_000;
const archive = { do: 'move', place: 'archive' } as const;

/** A mailbox of 200 messages some of which were archived, whose Logbook was shortened. */
async function shortened(records: Map<string, unknown>) {
  let now = testTime - 200 * day;
  const mailbox = await openMailbox(memoryStore(records), () => now);
  await fill(mailbox, 200);
  for (let n = 0; n < 5; n++) await act(mailbox, `a${n}`, { ids: [n] }, archive);
  now = testTime;
  expect(await compact(mailbox, 2)).toBeGreaterThan(0);
  await act(mailbox, 'late', { ids: [100] }, archive);
  await mailbox.flush();
  mailbox.close();
  return stateOf(mailbox);
}

test('meta lost after the Logbook was shortened: all as it was, and told', async () => {
  const records = new Map<string, unknown>();
  const was = await shortened(records);
  records.delete(keyOf.meta);
  const again = await openMailbox(memoryStore(records));
  expect(stateOf(again)).toEqual(was);
  expect(again.troubles.join()).toMatch(/\(meta\) is missing/);
});

test('meta, journal and checkpoint lost: every message is found again, nothing of it overwritten', async () => {
  const records = new Map<string, unknown>();
  const was = await shortened(records);
  for (const key of [...records.keys()]) if (/^(meta|journal|ground)/.test(key)) records.delete(key);
  const again = await openMailbox(memoryStore(records));
  expect(stateOf(again).messages.map(({ place, subject }) => [place, subject])).toEqual(
    was.messages.map(({ place, subject }) => [place, subject]),
  );
  expect(again.troubles.join()).toMatch(/The messages were found again/);
  const raw = records.get(keyOf.raw(0));
  await fill(again, 3, 900);
  expect(records.get(keyOf.raw(0))).toEqual(raw);
  await again.flush();
  expect(stateOf(await openMailbox(memoryStore(records)))).toEqual(stateOf(again));
});

test('only raw messages are left: they come back into the Inbox', async () => {
  const records = new Map<string, unknown>();
  await shortened(records);
  for (const key of [...records.keys()]) if (!key.startsWith('raw/')) records.delete(key);
  const again = await openMailbox(memoryStore(records));
  expect(stateOf(again).messages.map(({ place, subject }) => [place, subject])).toEqual(
    Array.from({ length: 200 }, (_, n) => ['inbox', `Message ${n}`]),
  );
});

test('a raw pack that is missing is told at opening; one that was altered is told at saving, and the rest is saved', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 200);
  await mailbox.flush();
  records.delete(keyOf.raw(1));
  const again = await openMailbox(memoryStore(records));
  expect(again.troubles.join()).toMatch(/bytes of 64 messages are missing from storage/);
  const pack = records.get(keyOf.raw(0)) as { bytes: Uint8Array };
  pack.bytes[50] ^= 1;
  const third = await openMailbox(memoryStore(records));
  const out = await exportMail(third, { view: { kind: 'place', place: 'inbox' } }, 'mbox');
  expect(out).toMatchObject({ ok: true, count: 72, lost: 128 });
});

test('raw packs in each other’s place are not taken for what they are not', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 128);
  const [a, b] = [records.get(keyOf.raw(0)), records.get(keyOf.raw(1))];
  records.set(keyOf.raw(0), b).set(keyOf.raw(1), a);
  const again = await openMailbox(memoryStore(records));
  await expect(again.raws.read(3)).rejects.toThrow(/checksum/);
});

test.each([true, false])('a state pack cut short hides no message; with its checksum: %p', async (sealed) => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 200);
  await mailbox.flush();
  const { checksum, ...pack } = records.get(keyOf.state(0)) as { checksum: number; place: Uint16Array };
  // Earlier versions wrote none.
  records.set(keyOf.state(0), { ...pack, place: pack.place.slice(0, 100), ...(sealed ? { checksum } : {}) });
  const again = await openMailbox(memoryStore(records));
  expect(stateOf(again)).toEqual(stateOf(mailbox));
  expect(again.troubles.join()).toMatch(/state\/00000/);
});

test.each([100, 1e9, -1])('a count of %p in meta is not believed', async (count) => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 200);
  await mailbox.flush();
  records.set(keyOf.meta, { ...(records.get(keyOf.meta) as object), count });
  expect(stateOf(await openMailbox(memoryStore(records)))).toEqual(stateOf(mailbox));
});

test('journal records that are missing end nothing: what follows is done, and nothing written over it', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 20);
  for (let n = 0; n < 6; n++) await act(mailbox, `a${n}`, { ids: [n] }, archive);
  mailbox.close();
  records.delete(keyOf.journal(4));
  records.delete(keyOf.journal(5));
  const last = records.get(keyOf.journal(7));
  const again = await openMailbox(memoryStore(records));
  expect(
    stateOf(again)
      .messages.slice(0, 7)
      .map(({ place }) => place),
  ).toEqual(['archive', 'archive', 'inbox', 'inbox', 'archive', 'archive', 'inbox']);
  expect(again.troubles.join()).toMatch(/Entries 4 to 5 of the Logbook are missing/);
  await act(again, 'next', { ids: [9] }, archive);
  expect(records.get(keyOf.journal(7))).toEqual(last);
  expect(records.has(keyOf.journal(8))).toBe(true);
});

test('a record lost by which words got their numbers shifts nothing that comes after it', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 9);
  const setup = (list: 'folders', id: string) => [{ list, id, item: { id, name: id } }];
  await mailbox.commit({
    command: 's',
    by: 'you',
    says: '',
    setup: [...setup('folders', 'f'), ...setup('folders', 'g')],
  });
  await act(mailbox, 'a', { ids: [1] }, { do: 'move', place: 'folder:f' });
  await act(mailbox, 'b', { ids: [2] }, { do: 'move', place: 'folder:g' });
  mailbox.close();
  records.delete(keyOf.journal(3));
  const again = await openMailbox(memoryStore(records));
  expect(
    stateOf(again)
      .messages.slice(0, 3)
      .map(({ place }) => place),
  ).toEqual(['inbox', 'inbox', 'folder:g']);
});

test('a read that fails for once is tried again, and nothing is sealed as empty by it', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 30);
  await mailbox.flush();
  const inner = memoryStore(records);
  let failing = 0;
  const store: RecordStore = {
    ...inner,
    get: async (key) => {
      if (failing > 0 && key.startsWith('raw/')) {
        failing--;
        throw new Error('The disk did not answer');
      }
      return inner.get(key);
    },
  };
  const again = await openMailbox(store);
  failing = 1;
  await again.text.ready(30);
  expect([...again.text.texts.pack(0).words.matchAll(/\ntext\n/gi)]).toHaveLength(1);
  // One that goes on failing is an error, and no text is taken for empty; once it can be read, it is.
  const third = await openMailbox(store);
  for (const key of [...records.keys()]) if (key.startsWith('text/')) records.delete(key);
  failing = 99;
  await expect(third.text.ready(30)).rejects.toThrow(/did not answer/);
  failing = 0;
  await third.text.ready(30);
  expect(third.text.texts.count).toBe(30);
});

test('a read that fails while the rest is loaded blocks nothing: the next one to ask has it read', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records));
  await fill(mailbox, 30);
  await mailbox.flush();
  const inner = memoryStore(records);
  let failing = true;
  const store: RecordStore = {
    ...inner,
    get: async (key) => {
      if (failing && key.startsWith('envelopes/')) throw new Error('The disk did not answer');
      return inner.get(key);
    },
  };
  await expect(openMailbox(store)).rejects.toThrow(/did not answer/);
  const { Mailbox } = await import('../service/mailbox');
  const again = await Mailbox.open(
    store,
    () => testTime,
    () => undefined,
    here,
  );
  await expect(again.ready()).rejects.toThrow(/did not answer/);
  failing = false;
  await again.ready();
  expect(again.envelopes.get(7).subject).toBe('Message 7');
});

/** Whether a text stands anywhere in storage. */
function standsIn(records: Map<string, unknown>, text: string): string[] {
  const bytes = new TextEncoder();
  const holds = (value: unknown): boolean => {
    if (typeof value === 'string') return value.toLowerCase().includes(text);
    if (value instanceof Uint8Array) return Buffer.from(value).toString('latin1').toLowerCase().includes(text);
    if (ArrayBuffer.isView(value) || typeof value !== 'object' || value === null) return false;
    return Object.values(value).some(holds);
  };
  expect(bytes.encode(text).length).toBeGreaterThan(3);
  return [...records].filter(([, value]) => holds(value)).map(([key]) => key);
}

/** A mailbox in whose Bin one message lies that nobody may ever read again. */
async function secret(records: Map<string, unknown>, clock: { now: number }) {
  const mailbox = await openMailbox(memoryStore(records), () => clock.now);
  const one = incoming(1);
  const bytes = new TextEncoder().encode(
    'From: Zephyrine <zephyrine@quayside.example>\r\nSubject: Xylograph\r\nMessage-ID: <x@y>\r\n\r\nThe word is quincunx\r\n',
  );
  const { parseEnvelope } = await import('../../core/mail/envelope');
  one.stored = { bytes, form: 'eml' };
  one.envelope = { ...parseEnvelope(bytes), key: 'a key' };
  await addMessages(mailbox, [incoming(0), one, incoming(2)], { command: 'fill', by: 'you', says: 'Filled' });
  await mailbox.text.ready(3);
  await act(mailbox, 'flag', { ids: [1] }, { do: 'flag', value: true });
  const binned = await act(mailbox, 'bin', { ids: [1] }, { do: 'move', place: 'bin' });
  await undo(mailbox, 'undo', binned.seq ?? 0);
  await act(mailbox, 'bin again', { ids: [1] }, { do: 'move', place: 'bin' });
  await mailbox.flush();
  return mailbox;
}

const words = ['xylograph', 'zephyrine', 'quincunx'];

test('deleted for good is gone: from bytes, envelopes, text index and Logbook', async () => {
  const records = new Map<string, unknown>();
  const clock = { now: testTime };
  const mailbox = await secret(records, clock);
  expect(words.map((word) => standsIn(records, word).length > 0)).toEqual([true, true, true]);
  for (let n = 0; n < 33; n++) {
    clock.now += day;
    await mailbox.exclusive(() => tidy(mailbox));
  }
  await mailbox.flush();
  expect(words.flatMap((word) => standsIn(records, word))).toEqual([]);
  const { entries } = await logbook(mailbox, wholeLog, 0, 20);
  expect(entries.map(({ says }) => says).join()).toContain('a message that was deleted for good');
  // The Logbook names it by subject and sender as long as the mailbox is open, and only then: it is in memory alone.
  const named = async (of: typeof mailbox) => (await logDetail(of, entries[0].seq))?.named;
  expect(entries[0].says).toMatch(/^Deleted 1 message for good/);
  expect(await named(mailbox)).toMatchObject([{ id: 1, from: 'Zephyrine', subject: 'Xylograph' }]);
  const again = await openMailbox(memoryStore(records), () => clock.now);
  expect(again.troubles).toEqual([]);
  expect(await named(again)).toEqual([]);
  expect(stateOf(again).messages.map(({ subject }) => subject)).toEqual(['Message 0', '', 'Message 2']);
});

test('a crash between the deletion and its carrying out: it is carried out at the next start', async () => {
  const records = new Map<string, unknown>();
  const clock = { now: testTime };
  const mailbox = await secret(records, clock);
  for (let n = 0; n < 29; n++) {
    clock.now += day;
    await mailbox.exclusive(() => tidy(mailbox));
  }
  await mailbox.flush();
  mailbox.close();
  // From the deletion on nothing but the journal is written.
  const inner = memoryStore(records);
  const onlyJournal = {
    ...inner,
    set: async (k: string, v: unknown) => void (k.startsWith('journal/') && (await inner.set(k, v))),
  };
  const crashing = await openMailbox(onlyJournal, () => clock.now);
  for (let n = 0; n < 4; n++) {
    clock.now += day;
    await crashing.exclusive(() => tidy(crashing));
  }
  crashing.close();
  expect(standsIn(records, 'quincunx')).not.toEqual([]);
  const again = await openMailbox(memoryStore(records), () => clock.now);
  await again.exclusive(() => tidy(again));
  await again.flush();
  expect(words.flatMap((word) => standsIn(records, word))).toEqual([]);
});
