// The first answers to a query: of what was looked through so far they are what the whole answer is, and say no more.
import { parseQuery, type Query } from '../../core/search/query';
import { addMessages } from '../intake/incoming';
import { rows } from '../questions/rows';
import { Mailbox } from '../service/mailbox';
import { memoryStore } from '../storage/recordStore';
import { keyOf } from '../storage/keys';
import { act } from '../commands/acts';
import { here } from '../reading/here';
import { mailOf, openMailbox, testTime } from '../testing/testing';

const count = 5_000;
const words = ['fuel', 'Höchst', 'the tide', 'is high', 'berth', 'engine'];
const records = new Map<string, unknown>();

beforeAll(async () => {
  const mailbox = await openMailbox(memoryStore(records));
  const mails = Array.from({ length: count }, (_, n) =>
    mailOf(
      { From: `a${n % 7}@x.test`, Subject: n % 3 ? `Rope ${n}` : `Tide ${n}`, 'Message-ID': `<${n}@x>` },
      `${words[n % 6]} ${words[(n >> 3) % 6]}`,
    ),
  );
  await mailbox.exclusive(() => addMessages(mailbox, mails, { command: 'add', by: 'you', says: 'Added' }));
  await mailbox.text.ready(count);
  await mailbox.exclusive(() => act(mailbox, 'read', { ids: [1, 2, 4_999] }, { do: 'read', value: true }));
  await mailbox.flush();
  mailbox.close();
}, 60_000);

/** A mailbox just opened, of which not all is in memory: what came in first is stored on a slow disk until `go()`. */
async function opened(from: Map<string, unknown>) {
  const inner = memoryStore(new Map(from));
  let free: () => void = () => undefined;
  let fail: (error: Error) => void = () => undefined;
  const gate = new Promise<void>((resolve, reject) => ([free, fail] = [resolve, reject]));
  gate.catch(() => undefined);
  const slow = new Set([keyOf.text(0), keyOf.envelopes(0)]);
  const get = async (key: string) => {
    if (slow.has(key)) await gate;
    return inner.get(key);
  };
  const mailbox = await Mailbox.open(
    { ...inner, get },
    () => testTime,
    () => undefined,
    here,
  );
  const go = async () => {
    free();
    await mailbox.ready();
  };
  return { mailbox, go, breakDown: () => fail(new Error('the disk is gone')) };
}

const parsed = (text: string): Query => {
  const result = parseQuery(text);
  if (!result.ok) throw new Error(result.error);
  return result.query;
};

const idsOf = (mailbox: Mailbox, query: Query): number[] => {
  const bits = mailbox.finding.found(query);
  return Array.from({ length: mailbox.columns.count }, (_, id) => id).filter((id) => bits.has(id));
};

test.each(['tide', 'body tide', 'from a3', 'subject rope', 'not "the tide"', 'fuel unseen', 'unseen hochst', 'all'])(
  'so far it is what all of it will be: %s',
  async (text) => {
    const query = parsed(text);
    const told: { looked: number; ids: number[] }[] = [];
    const { mailbox, go } = await opened(records);
    const more = () => {
      const looked = mailbox.finding.lookedThrough(query);
      if (looked !== null) told.push({ looked, ids: idsOf(mailbox, query) });
    };
    // The mailbox hears it first, as the page does.
    const { changed } = mailbox.views;
    mailbox.views.changed = () => (changed.call(mailbox.views), more());
    await mailbox.finding.readySoFar(query);
    expect(told.map(({ looked }) => looked)).toEqual([904]);
    await Promise.all([mailbox.finding.ready(query), go()]);
    expect(mailbox.finding.lookedThrough(query)).toBeNull();
    const all = idsOf(mailbox, query);
    expect(all.length).toBeGreaterThan(100);
    for (const { looked, ids } of told) expect(ids).toEqual(all.filter((id) => id >= count - looked));
  },
);

test('rows say how far it was looked, and are all in the end; a count that is not final is not kept', async () => {
  const { mailbox, go } = await opened(records);
  const view = { kind: 'found', query: 'body engine', within: null, applied: 'x' } as const;
  const grouping = { grouped: false, elsewhere: false };
  const first = await rows(mailbox, view, grouping, 0, 10);
  expect(first.looked).toEqual({ done: 904, of: count });
  expect(first.rows).toHaveLength(10);
  await Promise.all([mailbox.views.ready(view), go()]);
  const whole = await rows(mailbox, view, grouping, 0, 10);
  expect(whole.looked).toBeNull();
  expect(whole.total).toBeGreaterThan(first.total);
  // Whoever ticks all of it waits for all of it.
  expect(mailbox.views.list(view)).toHaveLength(whole.total);
});

test('where the text index has a hole all is told at once, once all is known', async () => {
  const spoilt = new Map(records);
  spoilt.delete(keyOf.text(1));
  const { mailbox, go } = await opened(spoilt);
  const query = parsed('body engine');
  await Promise.all([mailbox.finding.readySoFar(query), go()]);
  expect(mailbox.finding.lookedThrough(query)).toBeNull();
  const whole = await opened(records);
  await Promise.all([whole.mailbox.finding.ready(query), whole.go()]);
  expect(idsOf(mailbox, query)).toEqual(idsOf(whole.mailbox, query));
}, 60_000);

test('where the rest can’t be read that is said, and not that it is still looked for', async () => {
  const { mailbox, breakDown } = await opened(records);
  const view = { kind: 'found', query: 'body engine', within: null } as const;
  const grouping = { grouped: false, elsewhere: false };
  expect((await rows(mailbox, view, grouping, 0, 10)).looked).not.toBeNull();
  let told = 0;
  const { changed } = mailbox.views;
  mailbox.views.changed = () => (changed.call(mailbox.views), told++);
  breakDown();
  await expect(mailbox.views.ready(view)).rejects.toThrow('the disk is gone');
  // The page hears that it is worth asking again.
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(told).toBe(1);
  await expect(rows(mailbox, view, grouping, 0, 10)).rejects.toThrow('the disk is gone');
});
