// The service as the page has it, over a post office that is a script.
import { demoSetup } from '../../../demo/setup';
import { wholeLog } from '../border/log';
import type { Act, Selection } from '../border/views';
import type { Changes } from '../post/postOffice';
import { keyOf } from '../storage/keys';
import { memoryStore, type RecordStore } from '../storage/recordStore';
import { single, testTime } from '../testing/testing';
import { Mailbox } from './mailbox';
import { here } from '../reading/here';
import { readBatch } from '../reading/readMessages';
import type { ReadStored } from '../reading/readings';
import type { Parse } from '../reading/parsePool';
import { testPost } from '../testing/testPost';

import { raw, scripted, starter } from '../testing/serviceTesting';
const start = starter(() => demoSetup(testTime));
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

test('what a mailbox is filled with is no news; what arrives later is', async () => {
  const post = scripted([
    [{ raw: raw(1), place: 'inbox', seen: false, flagged: false }],
    [{ raw: raw(2), place: 'inbox', seen: false, flagged: false }],
  ]);
  const { service } = await start(post);
  const seen: [total: number, filling: boolean][] = [];
  const look = async () => {
    const { total, filling } = await service.rows(inbox, single, 0, 9);
    seen.push([total, filling]);
  };
  const { changes } = post;
  post.changes = async (cursor) => {
    await look();
    return changes(cursor);
  };
  await service.begin('demo');
  await service.checkNow();
  await look();
  await service.checkNow();
  expect(seen).toEqual([
    [0, true],
    [1, true],
    [2, false],
    [2, false],
  ]);
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

test('drafts that can’t be read are told of, and hold up nothing else', async () => {
  const post = scripted([[{ raw: raw(1), place: 'inbox', seen: false, flagged: false }]]);
  const store = memoryStore();
  const first = await start(post, store);
  await first.service.begin('demo');
  await first.service.checkNow();
  let broken = false;
  const failing: RecordStore = {
    ...store,
    keys: (prefix) =>
      broken && prefix === keyOf.drafts ? Promise.reject(new Error('The disk failed.')) : store.keys(prefix),
  };
  const { service, clock } = await start(post, failing);
  broken = true;
  await service.checkNow();
  const asked = post.asked.length;
  for (let n = 0; n < 100 && post.asked.length === asked; n++) await clock.pass(20_000);
  expect(post.asked.length).toBeGreaterThan(asked);
  let troubles: string[] = [];
  for (let n = 0; n < 100 && troubles.length === 0; n++) {
    await new Promise((resolve) => setTimeout(resolve, 20));
    ({ troubles } = await service.overview());
  }
  expect(troubles).toEqual(['Drafts could not be read: The disk failed.']);
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
  expect(await service.undo('u1', 'last')).toMatchObject({ ok: true, receipt: { says: 'Undid: Binned “Message 1”' } });
  expect((await service.rows(inbox, single, 0, 9)).rows.map((r) => r.unread)).toEqual([false, true]);
  const arrived = (await service.logbook(wholeLog, 0, 9)).entries.find((e) => e.by === 'post office');
  expect(arrived?.undoable).toBe(false);
  expect(await service.undo('u2', arrived?.seq ?? 0)).toEqual({
    ok: false,
    error: 'Mail that arrived stays: move it to the Bin instead.',
  });
});

test('started afresh, no revision comes again: rows that were asked for before are not taken for those of now', async () => {
  const { service } = await start(scripted([[{ raw: raw(1), place: 'inbox', seen: false, flagged: false }]]));
  await service.begin('demo');
  await service.checkNow();
  const before = await service.rows(inbox, single, 0, 9);
  expect(before.total).toBe(1);
  await service.eraseAll();
  const after = await service.rows(inbox, single, 0, 9);
  expect(after.total).toBe(0);
  expect(after.revision).toBeGreaterThan(before.revision);
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
  // The first batch is read at once, the others once they are let go.
  let batches = 0;
  let letGo: () => void = () => undefined;
  const held = new Promise<void>((done) => (letGo = done));
  const parse: Parse = async (messages, form, judged) => {
    if (batches++ > 0) await held;
    return { messages, ...(await readBatch(messages, form, judged)) };
  };
  let answer: ((changes: Changes) => void) | null = null as ((changes: Changes) => void) | null;
  const post = {
    ...testPost({}),
    changes: () => new Promise<Changes>((done) => (answer = done)),
  };
  const { service } = await start(post, store, parse);
  await service.begin('demo');
  const asking = service.checkNow();
  const importing = service.importFiles('job', [mboxOf(2_000)], 'line');
  while (!answer || (await service.overview()).total < 512) await new Promise((done) => setTimeout(done, 5));
  await service.eraseAll();
  answer({
    cursor: '1',
    more: false,
    arrived: [{ there: '1', raw: raw(1), place: 'inbox', seen: false, flagged: false }],
    altered: [],
    expunged: [],
  });
  letGo();
  const report = await importing;
  expect(report.error).toMatch(/deleted meanwhile/);
  expect(await asking).toMatchObject({ on: false, error: null });
  expect((await service.overview()).total).toBe(0);
  // What was stored behind the journal some seconds later would have come back, too.
  await new Promise((done) => setTimeout(done, 600));
  const { service: later } = await start(post, store);
  expect(await later.begun()).toBe(false);
  expect((await later.overview()).total).toBe(0);
});

test('once an import has ended, nothing of it need be computed anew at the next opening', async () => {
  const store = memoryStore();
  const { service } = await start(testPost({}), store);
  await service.begin('own');
  expect(await service.importFiles('job', [mboxOf(700)], 'line')).toMatchObject({ added: 700, error: null });
  const again = await Mailbox.open(
    store,
    () => testTime,
    () => undefined,
    here,
  );
  expect([again.columns.count, again.derived.complete]).toEqual([700, true]);
  await again.ready();
});

test('a message that nobody can take apart is shown as it came, and everything else is answered', async () => {
  // The reader gives up, as it does when a worker dies or stays.
  const read: ReadStored = async (stored) => stored.map(() => null);
  const { service } = await start(testPost({}), memoryStore(), undefined, read);
  await service.begin('own');
  await service.importFiles('job', [mboxOf(3)], 'line');
  const opened = await service.open(1, false);
  expect(opened).toMatchObject({ blocks: [{ kind: 'text' }], dead: true, attachments: [] });
  expect(opened?.blocks[0].content).toMatch(/^From: a@b\.test\nSubject: S1\n/);
  expect(await service.attachment(1, 0)).toBeNull();
  expect(await service.judgement(1)).toBeNull();
});

test('a draft is sent once, however often and however fast that is asked; the page hears of it', async () => {
  let sent = 0;
  const post = {
    ...scripted([[{ raw: raw(1), place: 'inbox', seen: false, flagged: false }]]),
    submit: async () => {
      await new Promise((done) => setTimeout(done, 5));
      sent++;
      return { messageId: '' };
    },
  };
  const { service, told, clock } = await start(post);
  await service.begin('demo');
  await service.checkNow();
  const begun = await service.beginDraft({ id: 'd', how: 'reply', answers: [0], rich: true, given: {} });
  if (!begun.ok) throw new Error(begun.error);
  const { id, ...content } = begun.draft;
  expect(await service.keepDraft(id, { ...content, html: '<p>Yes</p>', at: testTime })).toEqual({ ok: true });
  expect(await service.drafts()).toMatchObject([{ id: 'd', words: 'Yes', due: null }]);
  const send = () => service.sendDraft('d', testTime, 0);
  await Promise.all([send(), send()]);
  await send();
  while (!told.some(({ kind }) => kind === 'sent')) {
    await clock.pass(1_000);
    await new Promise((done) => setTimeout(done, 5));
  }
  expect(sent).toBe(1);
  expect(await service.drafts()).toEqual([]);
  expect(await service.draft('d')).toBeNull();
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
