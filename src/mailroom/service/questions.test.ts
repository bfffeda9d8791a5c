// What the page asks of the service: dry runs, finding, senders, clear-outs, how far it is.
import { demoSetup } from '../../../demo/setup';
import { everythingGoes } from '../../core/clearout/clearOut';
import { wholeLog } from '../border/log';
import { memoryStore } from '../storage/recordStore';
import { single, testTime } from '../testing/testing';

import { raw, scripted, starter } from '../testing/serviceTesting';
const start = starter(() => demoSetup(testTime));
const inbox = { kind: 'place' as const, place: 'inbox' as const };

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
    expect((await service.logDetail(outcome.ok ? (outcome.receipt.seq ?? 0) : 0, null))?.total).toBe(3);
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
