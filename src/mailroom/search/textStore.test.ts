// The text index in the mailroom: what it answers is what reading every message answers, also after a reload, damage,
// a full disk, and mail that came in meanwhile.
import { messageOfStored } from '../../core/mail/message';
import { DeepTexts } from '../../core/rules/deep';
import type { DeepCondition } from '../../core/rules/rule';
import { addMessages, type Incoming } from '../intake/incoming';
import type { Mailbox } from '../service/mailbox';
import { memoryStore } from '../storage/recordStore';
import { mailOf, openMailbox } from '../testing/testing';

const words = ['fuel', 'refuel,', 'Höchst', 'the', 'tide', 'is', 'high', 'berth', '4:', 'https://x.test/a?b=1'];
const mail = (n: number): Incoming => {
  const text = Array.from({ length: 12 }, (_, i) => words[(n * 7 + i * (1 + (n % 4))) % words.length]).join(
    n % 3 ? ' ' : '\n',
  );
  const fields = {
    From: `a${n}@x.test`,
    Subject: `Message ${n}`,
    'Message-ID': `<${n}@x>`,
    'Content-Type': 'text/plain; charset=utf-8',
  };
  return mailOf(n % 2 ? { ...fields, 'X-Kind': n % 4 === 1 ? 'bulk' : 'single  kind, of\tmail' } : fields, text);
};
const add = (mailbox: Mailbox, from: number, to: number) =>
  mailbox.exclusive(() =>
    addMessages(
      mailbox,
      Array.from({ length: to - from }, (_, i) => mail(from + i)),
      { command: `add-${from}`, by: 'you', says: 'Added' },
    ),
  );

const body = (text: string): DeepCondition => ({ field: 'body', how: 'contains', text });
const conditions: DeepCondition[] = [
  ...['fuel', 'refuel', 'HÖCHST', 'x.test/a', 'the tide', 'tide is high', 'h be', 'nowhere', '4: https'].map(body),
  { field: 'header', name: 'x-kind', how: 'there', text: '' },
  { field: 'header', name: 'X-Kind', how: 'is', text: 'BULK' },
  { field: 'header', name: 'X-Kind', how: 'contains', text: 'E  k' },
  { field: 'header', name: 'X-Kind', how: 'ends', text: 'of\tMAIL' },
  { field: 'header', name: 'x-kind', how: 'like', text: '*, of?mail' },
  // The text index does not keep what these say.
  { field: 'header', name: 'message-id', how: 'is', text: '<7@X>' },
  { field: 'header', name: 'Message-ID', how: 'there', text: '' },
  { field: 'header', name: 'X-None', how: 'there', text: '' },
];

const nowhere = new Set([conditions.findIndex((one) => one.text === 'nowhere'), conditions.length - 1]);

/** What the mailroom answers, and what reading every message does. */
async function both(mailbox: Mailbox) {
  await mailbox.deep.ready(conditions);
  const ours: boolean[][] = [];
  const read: boolean[][] = [];
  for (let id = 0; id < mailbox.columns.count; id++) {
    const stored = await mailbox.raws.readable(id);
    const texts = stored && new DeepTexts(() => messageOfStored(stored));
    ours.push(conditions.map((condition) => mailbox.deep.bits(condition).has(id)));
    read.push(conditions.map((condition) => texts?.holds(condition) ?? false));
  }
  return { ours, read };
}

async function same(mailbox: Mailbox): Promise<void> {
  const { ours, read } = await both(mailbox);
  expect(ours).toEqual(read);
  // Every condition but those that ask for nowhere and nothing holds for some.
  expect(conditions.map((_, i) => read.some((one) => one[i]))).toEqual(conditions.map((_, i) => !nowhere.has(i)));
}

test('the index answers as reading does: filled as mail comes in, and asked again after more came', async () => {
  const mailbox = await openMailbox();
  await add(mailbox, 0, 40);
  await same(mailbox);
  await add(mailbox, 40, 60);
  await same(mailbox);
});

test('after a reload it is read from storage, and what came in unasked is taken in', async () => {
  const records = new Map<string, unknown>();
  const first = await openMailbox(memoryStore(records));
  await add(first, 0, 30);
  await first.flush();
  first.close();
  const second = await openMailbox(memoryStore(records));
  await add(second, 30, 50);
  await same(second);
  await second.flush();
  second.close();
  let reads = 0;
  const store = memoryStore(records);
  const third = await openMailbox({ ...store, get: (key) => (key.startsWith('raw/') && reads++, store.get(key)) });
  await third.deep.ready([body('fuel')]);
  // Nothing was parsed again.
  expect(reads).toBe(0);
  await same(third);
});

test('a segment that is spoilt or gone is made anew from the messages', async () => {
  const records = new Map<string, unknown>();
  const first = await openMailbox(memoryStore(records));
  await add(first, 0, 30);
  await first.flush();
  first.close();
  const key = [...records.keys()].find((one) => one.startsWith('text/')) ?? '';
  const whole = records.get(key) as { units: Uint16Array; ends: Uint32Array; words: string };
  expect(whole.words).toContain('\ntide\n');
  for (const spoilt of [
    null,
    { ...whole, units: whole.units.slice(1) },
    { ...whole, units: whole.units.toReversed() },
    { ...whole, ends: whole.ends.map(() => 0) },
    { ...whole, words: 7 },
    { ...whole, words: whole.words.slice(0, 20) },
    { ...whole, words: whole.words.replace('\ntide\n', '\ntied\n') },
    // As an earlier version wrote it.
    { ...whole, form: 2 },
  ]) {
    if (spoilt) records.set(key, spoilt);
    else records.delete(key);
    const mailbox = await openMailbox(memoryStore(new Map(records)));
    await same(mailbox);
    expect(mailbox.troubles).toEqual([]);
  }
});

test('messages that could not be written leave no trace in it', async () => {
  const records = new Map<string, unknown>();
  const store = memoryStore(records);
  let full = false;
  const mailbox = await openMailbox({
    ...store,
    set: async (key, value) => {
      if (full && key.startsWith('journal/')) throw new Error('full');
      await store.set(key, value);
    },
  });
  await add(mailbox, 0, 20);
  full = true;
  await expect(add(mailbox, 20, 30)).rejects.toThrow();
  full = false;
  await add(mailbox, 30, 60);
  await same(mailbox);
});
