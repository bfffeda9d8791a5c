// The service as the page has it, over a post office that is a script.
import { demoSetup } from '../../../demo/setup';
import { everythingGoes } from '../../core/clearout/clearOut';
import { wholeLog } from '../border/log';
import type { Mailroom } from '../border/mailroom';
import type { MailroomEvent } from '../border/events';
import type { Act, Selection } from '../border/views';
import { openService } from './service';
import type { Changes, PostOffice } from '../post/postOffice';
import { memoryStore, type RecordStore } from '../storage/recordStore';
import { single, testTime } from '../testing/testing';
import { TestClock } from '../testing/testClock';
import { readBatch } from '../intake/readMessages';
import type { Parse } from '../intake/parsePool';
import { testPost } from '../testing/testPost';

const raw = (n: number, from = `a${n}@b.example`) =>
  Buffer.from(
    `From: ${from}\r\nTo: me@c.example\r\nSubject: Message ${n}\r\nMessage-ID: <${n}@b.example>\r\n\r\nText\r\n`,
  ).toString('base64');

/** A post office that gives out one batch after another, then nothing. */
function scripted(
  batches: Omit<Changes['arrived'][number], 'there'>[][],
): PostOffice & { asked: (string | null)[]; broken: boolean } {
  const office = {
    ...testPost({ submit: async () => ({ messageId: '' }), leave: async () => ({ left: true }) }),
    asked: [] as (string | null)[],
    broken: false,
    changes: async (cursor: string | null): Promise<Changes> => {
      if (office.broken) throw new Error('The post office does not answer. Is the server still running?');
      office.asked.push(cursor);
      const at = Number(cursor ?? 0);
      const messages = batches[at] ?? [];
      const arrived = messages.map((message, i) => ({ there: `${at}.${i}`, ...message }));
      return {
        cursor: String(Math.min(at + 1, batches.length)),
        more: at + 1 < batches.length,
        arrived,
        altered: [],
        expunged: [],
      };
    },
  };
  return office;
}

async function start(
  post: PostOffice,
  store: RecordStore = memoryStore(),
  parse: Parse = async (messages, form, judged) => ({ messages, ...(await readBatch(messages, form, judged)) }),
) {
  const told: MailroomEvent[] = [];
  const service: Mailroom = await openService({
    store,
    clock: new TestClock(testTime),
    pool: { size: 1, parse },
    post,
    demo: {
      rate: async () => ({ perMinute: 3, paused: false }),
      setRate: async (rate) => rate,
      setup: async () => demoSetup(testTime),
    },
    shippedModel: async () => null,
    sharedDomains: async () => new Set<string>(),
    tell: (event) => told.push(event),
  });
  return { service, told };
}

const inbox = { kind: 'place' as const, place: 'inbox' as const };

test('nothing has begun until it is begun; the demo brings its setup and its mail', async () => {
  const post = scripted([
    [{ raw: raw(1), place: 'inbox', seen: false, flagged: true }],
    [{ raw: raw(2), place: 'archive', seen: true, flagged: false }],
  ]);
  const { service } = await start(post);
  expect(await service.begun()).toBe(false);
  expect((await service.overview()).post.on).toBe(false);
  expect(await service.begin('demo')).toMatchObject({ ok: true });
  expect(await service.checkNow()).toMatchObject({ on: true, lastChecked: testTime, error: null, perMinute: 3 });
  const overview = await service.overview();
  expect(overview.setup.rules.length).toBeGreaterThan(3);
  expect(overview.places.find((p) => p.place === 'archive')).toEqual({ place: 'archive', total: 1, unread: 0 });
  expect((await service.rows(inbox, single, 0, 9)).rows).toMatchObject([
    { subject: 'Message 1', flagged: true, unread: true },
  ]);
  expect((await service.logbook(wholeLog, 0, 9)).entries.map((e) => [e.by, e.says])).toEqual([
    ['post office', '2 messages arrived'],
    ['Wide Sort', 'Began with the demo mailbox'],
  ]);
  expect((await service.logbook({ ...wholeLog, who: 'you' }, 0, 9)).total).toBe(0);
});

test('mail that arrives rides the line, and is asked for only once also after a restart', async () => {
  const post = scripted([[{ raw: raw(1, 'x@pill-harbour.example'), place: 'inbox', seen: false, flagged: false }]]);
  const store = memoryStore();
  const { service } = await start(post, store);
  await service.begin('demo');
  await service.checkNow();
  const why = await service.whyHere(0);
  expect(why.map((l) => l.says)).toEqual(['The domain pill-harbour.example is Blocked, so it went to Junk.']);
  expect(why[0].setting).toBe('entry:pills');
  const again = await start(post, store);
  await again.service.checkNow();
  expect((await again.service.overview()).total).toBe(1);
  expect(post.asked.at(-1)).toBe('1');
});

test('a post office that does not answer is told in words, and asked again', async () => {
  const post = scripted([[{ raw: raw(1), place: 'inbox', seen: false, flagged: false }]]);
  const { service } = await start(post);
  post.broken = true;
  await service.begin('demo');
  expect((await service.checkNow()).error).toMatch(/does not answer/);
  post.broken = false;
  expect(await service.checkNow()).toMatchObject({ error: null });
  expect((await service.overview()).total).toBe(1);
});

test('one’s own mailbox has no post office', async () => {
  const post = scripted([[{ raw: raw(1), place: 'inbox', seen: false, flagged: false }]]);
  const { service } = await start(post);
  await service.begin('own');
  expect(await service.checkNow()).toMatchObject({ on: false, lastChecked: null });
  expect(post.asked).toEqual([]);
});

test('opening marks read without being what Undo takes back; Undo finds the last command by itself', async () => {
  const post = scripted([[1, 2].map((n) => ({ raw: raw(n), place: 'inbox' as const, seen: false, flagged: false }))]);
  const { service } = await start(post);
  await service.begin('demo');
  await service.checkNow();
  expect(await service.undo('u0', 'last')).toEqual({ ok: false, error: 'There is nothing left to undo.' });
  await service.act('a', { ids: [0] }, { do: 'move', place: 'bin' });
  await service.act('b', { ids: [1] }, { do: 'read', value: true, opened: true });
  expect((await service.overview()).undo?.says).toBe('Binned “Message 1”');
  expect(await service.undo('u1', 'last')).toMatchObject({ ok: true, receipt: { says: 'Undid: Binned “Message 1”' } });
  expect((await service.rows(inbox, single, 0, 9)).rows.map((r) => r.unread)).toEqual([false, true]);
  const arrived = (await service.logbook(wholeLog, 0, 9)).entries.find((e) => e.by === 'post office');
  expect(arrived?.undoable).toBe(false);
  expect(await service.undo('u2', arrived?.seq ?? 0)).toEqual({
    ok: false,
    error: 'Mail that arrived stays: move it to the Bin instead.',
  });
});

test('the dry run names wanted mail first: from people the person wrote to, and flagged', async () => {
  const post = scripted([
    [
      {
        raw: Buffer.from('From: me@c.example\r\nTo: a@b.example\r\n\r\nx').toString('base64'),
        place: 'sent',
        seen: true,
        flagged: false,
      },
      { raw: raw(1, 'a@b.example'), place: 'inbox', seen: false, flagged: false },
      { raw: raw(2, 'other@b.example'), place: 'inbox', seen: true, flagged: true },
      { raw: raw(3, 'third@b.example'), place: 'inbox', seen: true, flagged: false },
    ],
  ]);
  const { service } = await start(post);
  await service.begin('demo');
  await service.checkNow();
  const item = {
    id: 'e',
    kind: 'domain' as const,
    value: 'b.example',
    standing: 'blocked' as const,
    since: 0,
    why: '',
  };
  const result = await service.dryRun([{ list: 'register', id: 'e', item }], null);
  expect(result).toMatchObject({
    ok: true,
    report: {
      total: 3,
      moves: [{ from: 'inbox', to: 'junk', count: 3 }],
      wanted: { writtenTo: 1, flagged: 1, unread: 1 },
      matching: null,
    },
  });
  expect(result.ok && result.report.sample.map((s) => s.row.subject)).toEqual(['Message 1', 'Message 2', 'Message 3']);
  // What it said comes true.
  expect(await service.editSetup('s', [{ list: 'register', id: 'e', item }], 'Blocked b.example', true)).toMatchObject({
    receipt: { count: 3 },
  });
  expect((await service.rows({ kind: 'place', place: 'junk' }, single, 0, 9)).total).toBe(3);
});

test('a rule’s dry run counts what its conditions match, also what an earlier station takes', async () => {
  const post = scripted([
    [1, 2].map((n) => ({
      raw: raw(n, n === 1 ? 'x@pill-harbour.example' : 'y@b.example'),
      place: 'inbox' as const,
      seen: false,
      flagged: false,
    })),
  ]);
  const { service } = await start(post);
  await service.begin('demo');
  await service.checkNow();
  const item = {
    id: 'r',
    name: '',
    on: true,
    when: { match: 'all' as const, of: [{ field: 'subject' as const, how: 'contains' as const, text: 'message' }] },
    unless: null,
    then: [{ do: 'move' as const, place: 'archive' as const }],
  };
  expect(await service.dryRun([{ list: 'rules', id: 'r', item }], 'r')).toMatchObject({
    ok: true,
    report: { total: 1, matching: 2 },
  });
  expect(
    await service.dryRun(
      [{ list: 'rules', id: 'r', item: { ...item, then: [{ do: 'move', place: 'folder:none' }] } }],
      'r',
    ),
  ).toMatchObject({ ok: false, error: expect.stringMatching(/there is no folder/) });
});

test('starting afresh leaves nothing, not even what would be written later', async () => {
  const post = scripted([[{ raw: raw(1), place: 'inbox', seen: false, flagged: false }]]);
  const records = new Map<string, unknown>();
  const { service, told } = await start(post, memoryStore(records));
  await service.begin('demo');
  await service.checkNow();
  await service.eraseAll();
  expect(await service.begun()).toBe(false);
  expect(told).toContainEqual({ kind: 'revision', revision: -1 });
  // The state packs of before follow after 400 ms; they must not come any more.
  await new Promise((resolve) => setTimeout(resolve, 500));
  expect([...records.keys()]).toEqual([]);
});

describe('finding, senders and clearing out, as the page asks for them', () => {
  const everything = { ...everythingGoes };

  async function withMail() {
    const list = [1, 2, 3, 4].map((n) => ({
      raw: raw(n, n < 4 ? 'news@tides.example' : 'ann@x.example'),
      place: 'inbox' as const,
      seen: n === 1,
      flagged: n === 2,
    }));
    const post = scripted([list]);
    const { service, told } = await start(post);
    await service.begin('demo');
    await service.checkNow();
    return { service, told };
  }

  test('several views are counted in one question; people and senders are known by what came', async () => {
    const { service } = await withMail();
    const found = (query: string) => ({ kind: 'found' as const, query, within: null });
    expect(await service.counts([inbox, found('flagged'), found('from "'), found('subject message')])).toEqual([
      { total: 4, unread: 3 },
      { total: 1, unread: 1 },
      { total: 0, unread: 0 },
      { total: 4, unread: 3 },
    ]);
    expect(await service.people('tides', 5)).toMatchObject([{ address: 'news@tides.example' }]);
    const question = { by: 'address', only: 'all', words: '', order: 'messages', turned: false } as const;
    const { lines } = await service.senders(question, 0, 9);
    expect(lines.map(({ sender, messages }) => [sender.value, messages])).toEqual([
      ['news@tides.example', 3],
      ['ann@x.example', 1],
    ]);
    expect((await service.sender({ by: 'domain', value: 'tides.example' }))?.latest).toHaveLength(3);
    expect(await service.sender({ by: 'address', value: 'nobody@x.example' })).toBeNull();
    expect((await service.months(inbox, single)).reduce((n, { rows }) => n + rows, 0)).toBe(4);
    expect(await service.passages('message', [0])).toHaveLength(1);
  });

  test('clear-outs are counted, looked at, done and undone; what takes long is not counted beforehand', async () => {
    const { service } = await withMail();
    const choices = [
      everything,
      { ...everything, state: 'read' as const },
      { ...everything, spare: ['flagged' as const] },
      { ...everything, redundant: true },
    ];
    expect(await service.clearOutCounts(choices, inbox)).toEqual([4, 1, 3, null]);
    expect(await service.clearOutReport('me', choices[2], inbox)).toMatchObject({ count: 3, spared: 1 });
    const outcome = await service.act('c', { clearOut: choices[2], of: inbox }, { do: 'move', place: 'bin' });
    expect(outcome).toMatchObject({ ok: true, receipt: { count: 3 } });
    expect(await service.clearOutCounts([everything], inbox)).toEqual([1]);
    expect(await service.undo('u', 'last')).toMatchObject({ ok: true, receipt: { count: 3 } });
    expect((await service.logDetail(outcome.ok ? (outcome.receipt.seq ?? 0) : 0))?.total).toBe(3);
  });

  test('what is no clear-out, no sender and no filter is refused at the border', async () => {
    const { service } = await withMail();
    const wrong = { ...everything, keepNewest: -1 };
    await expect(async () => service.clearOutReport('me', wrong, inbox)).rejects.toThrow();
    await expect(async () => service.sender({ by: 'address', value: '' })).rejects.toThrow();
    await expect(async () => service.logbook({ ...wholeLog, who: 'eve' as never }, 0, 9)).rejects.toThrow();
    await expect(async () => service.drop('nobody')).not.toThrow();
  });
});

test('how far the mailbox is read is told, to the end: messages, then texts where they are asked for', async () => {
  const post = scripted([
    Array.from({ length: 5 }, (_, n) => ({ raw: raw(n), place: 'inbox' as const, seen: false, flagged: false })),
  ]);
  const store = memoryStore();
  const { service } = await start(post, store);
  await service.begin('demo');
  await service.checkNow();
  const again = await start(post, store);
  const found = { kind: 'found' as const, query: 'body text', within: null };
  expect((await again.service.rows(found, single, 0, 9)).total).toBe(5);
  const readings = again.told.flatMap((event) => (event.kind === 'reading' ? [event] : []));
  for (const what of ['rows', 'texts'])
    expect(readings.findLast((one) => one.what === what)).toEqual({ kind: 'reading', what, done: 5, total: 5 });
  expect(readings.every(({ done, total }) => done <= total)).toBe(true);
});

/** A file of `n` messages, each large enough that some batches are made of them. */
function mboxOf(n: number) {
  const one = (i: number) =>
    `From x@y.test Tue Nov 24 10:00:00 2026\nFrom: a@b.test\nSubject: S${i}\nMessage-ID: <${i}@b>\n\n${'x'.repeat(8)}\n\n`;
  return new File(
    Array.from({ length: n }, (_, i) => one(i)),
    'all.mbox',
  );
}

test('started afresh while files come in and the post office is asked: nothing of them comes back', async () => {
  const store = memoryStore();
  const waits: (() => void)[] = [];
  const parse: Parse = async (messages, form, judged) => {
    const read = await readBatch(messages, form, judged);
    await new Promise<void>((done) => waits.push(done));
    return { messages, ...read };
  };
  let answer: (changes: Changes) => void = () => undefined;
  const post = {
    ...testPost({}),
    changes: () => new Promise<Changes>((done) => (answer = done)),
  };
  const { service } = await start(post, store, parse);
  await service.begin('demo');
  const asking = service.checkNow();
  const importing = service.importFiles('job', [mboxOf(2_000)], 'line');
  while (waits.length < 2) await new Promise((done) => setTimeout(done, 5));
  waits.shift()?.();
  while ((await service.overview()).total < 512) await new Promise((done) => setTimeout(done, 5));
  await service.eraseAll();
  answer({
    cursor: '1',
    more: false,
    arrived: [{ there: '1', raw: raw(1), place: 'inbox', seen: false, flagged: false }],
    altered: [],
    expunged: [],
  });
  const freed = setInterval(() => waits.splice(0).forEach((done) => done()), 1);
  const report = await importing;
  clearInterval(freed);
  expect(report.error).toMatch(/deleted meanwhile/);
  expect(await asking).toMatchObject({ on: false, error: null });
  expect((await service.overview()).total).toBe(0);
  // What was stored behind the journal some seconds later would have come back, too.
  await new Promise((done) => setTimeout(done, 600));
  const { service: later } = await start(post, store);
  expect(await later.begun()).toBe(false);
  expect((await later.overview()).total).toBe(0);
});

test('a command that sends is sent once, however often and however fast it comes', async () => {
  let sent = 0;
  let refused = true;
  const post = {
    ...scripted([[{ raw: raw(1), place: 'inbox', seen: false, flagged: false }]]),
    submit: async () => {
      await new Promise((done) => setTimeout(done, 5));
      if (refused) throw new Error('The post office is closed.');
      sent++;
      return { messageId: '' };
    },
  };
  const { service } = await start(post);
  await service.begin('demo');
  await service.checkNow();
  const [account] = (await service.overview()).setup.accounts;
  const answer = { to: 0, account: account.id, recipients: 'a@b.test', copies: '', subject: 'Re', text: 'Yes' };
  const send = () => service.sendAnswer('cmd', answer, 0);
  expect(await send()).toMatchObject({ ok: false, error: 'The post office is closed.' });
  refused = false;
  expect(await Promise.all([send(), send()])).toMatchObject([{ ok: true }, { ok: true }]);
  expect(await send()).toMatchObject({ ok: true });
  expect(sent).toBe(1);
});

test('acts on what is not there are refused in words, and nothing is changed', async () => {
  const post = scripted([[{ raw: raw(1), place: 'inbox', seen: false, flagged: false }]]);
  const { service } = await start(post);
  await service.begin('demo');
  await service.checkNow();
  const one = { ids: [0] };
  const read: Act = { do: 'read', value: true };
  const odd: [Selection, Act][] = [
    [one, { do: 'move', place: 'folder:nowhere' }],
    [one, { do: 'label', label: 'nobody', value: true }],
    [{ ids: [-1] }, read],
    [{ ids: [1.5] }, read],
    [one, { do: 'explode' } as unknown as Act],
  ];
  for (const [selection, act] of odd)
    expect(await service.act('c', selection, act)).toMatchObject({ ok: false, error: expect.any(String) });
  expect(await service.act('c', { ids: [99] }, read)).toMatchObject({
    ok: true,
    receipt: { count: 0 },
  });
  const [row] = (await service.rows(inbox, single, 0, 9)).rows;
  expect(row).toMatchObject({ place: 'inbox', labels: [], unread: true });
});
