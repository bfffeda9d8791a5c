// Conversations in the mailroom: threading as mail arrives, grouping, silence, thinning, and the filters that keep what
// was read in sight.
import type { SetupEdit } from '../../core/line/setupEdit';
import type { Grouping, View } from '../border/views';
import { act } from '../commands/acts';
import { changeSetup } from '../commands/changeSetup';
import { thinOut } from '../commands/thinOut';
import { openConversation, thinning } from './conversations';
import { addMessages, type Incoming } from '../intake/incoming';
import { Mailbox } from '../service/mailbox';
import { keyOf } from '../storage/keys';
import { position, rows } from './rows';
import { memoryStore, type RecordStore } from '../storage/recordStore';
import { fill, mailOf, openMailbox, single, stateOf, testTime } from '../testing/testing';
import { undo } from '../commands/undo';
import { here } from '../reading/here';

const inbox = { kind: 'place', place: 'inbox' } as const;
const archive = { kind: 'place', place: 'archive' } as const;
const grouped = { grouped: true, elsewhere: true };
let commands = 0;
const command = () => `c${++commands}`;

function mail(id: string, answers: string[] = [], more: Record<string, string> = {}, text?: string): Incoming {
  const minute = String(Number(/\d+/.exec(id)?.[0] ?? 0)).padStart(2, '0');
  return mailOf(
    {
      From: 'Ann <ann@x.test>',
      To: 'me@y.test',
      Subject: answers.length ? 'Re: Berth' : 'Berth',
      'Message-ID': `<${id}>`,
      ...(answers.length ? { References: answers.map((a) => `<${a}>`).join(' ') } : {}),
      Date: `Tue, 24 Nov 2026 10:${minute}:00 +0000`,
      ...more,
    },
    text ?? `Text of ${id}`,
  );
}
const add = (mailbox: Mailbox, ...list: Incoming[]) =>
  mailbox.exclusive(() => addMessages(mailbox, list, { command: command(), by: 'post office', says: 'Arrived' }));
const ids = async (mailbox: Mailbox, view: View, grouping: Grouping = single) =>
  (await rows(mailbox, view, grouping, 0, 99)).rows.map((row) => row.id);
const me: SetupEdit = { list: 'accounts', id: 'me', item: { id: 'me', name: 'Me', address: 'me@y.test' } };

describe('grouping', () => {
  test('common practice, no source: conversations of three and of two are two rows, or five; nothing is moved', async () => {
    const mailbox = await openMailbox();
    const other = { Subject: 'Re: Rope' };
    await add(
      mailbox,
      mail('1'),
      mail('2', ['1']),
      mail('11', [], other),
      mail('3', ['1', '2']),
      mail('12', ['11'], other),
    );
    const before = stateOf(mailbox);
    expect(await ids(mailbox, inbox, grouped)).toEqual([4, 3]);
    expect(await ids(mailbox, inbox)).toEqual([4, 2, 3, 1, 0]);
    expect((await rows(mailbox, inbox, grouped, 0, 9)).rows.map((r) => r.whole?.received)).toEqual([2, 3]);
    expect(stateOf(mailbox)).toEqual(before);
    expect(await position(mailbox, inbox, grouped, 0)).toBe(1);
    expect(await position(mailbox, inbox, single, 0)).toBe(4);
  });
  test('what stands in Sent and the Archive counts, own and received apart; in Junk and the Bin it does not', async () => {
    const mailbox = await openMailbox();
    await changeSetup(mailbox, command(), [me], 'Account', false);
    await add(
      mailbox,
      mail('1'),
      { ...mail('2', ['1'], { From: 'me@y.test', To: 'ann@x.test' }), place: 'sent', read: true },
      { ...mail('3', ['2']), place: 'archive' },
      { ...mail('4', ['2']), place: 'bin' },
      mail('5', ['2']),
    );
    const [row] = (await rows(mailbox, inbox, grouped, 0, 9)).rows;
    expect(row.whole).toMatchObject({
      received: 3,
      own: 1,
      unread: 3,
      here: 2,
      people: [{ name: 'you' }, { name: 'Ann' }],
    });
    const alone = (await rows(mailbox, inbox, { grouped: true, elsewhere: false }, 0, 9)).rows[0];
    expect(alone.whole).toMatchObject({ received: 2, own: 0, here: 2 });
    expect((await openConversation(mailbox, 0, inbox, false))?.elsewhere).toBe(2);
    expect((await openConversation(mailbox, 0, inbox, true))?.members.map((m) => [m.row.id, m.parent])).toEqual([
      [0, null],
      [1, 0],
      [2, 1],
      [4, 1],
    ]);
  });
  test('an act on a conversation’s row goes to what of it the place holds, and is undone as one', async () => {
    const mailbox = await openMailbox();
    await add(
      mailbox,
      mail('1'),
      { ...mail('2', ['1']), place: 'archive' },
      mail('3', ['1']),
      mail('9', [], { Subject: 'Other' }),
    );
    const selection = { conversationsOf: [2], within: inbox };
    const { count, seq } = await act(mailbox, command(), selection, { do: 'move', place: 'bin' });
    expect(count).toBe(2);
    expect(await ids(mailbox, inbox)).toEqual([3]);
    expect(await ids(mailbox, archive)).toEqual([1]);
    await undo(mailbox, command(), seq ?? 0);
    expect(await ids(mailbox, inbox)).toEqual([3, 2, 0]);
  });
  test('flagged and late are counted apart', async () => {
    const mailbox = await openMailbox();
    await add(mailbox, mail('1'), mail('2', ['1']), mail('3', ['1']));
    await act(mailbox, command(), { ids: [0] }, { do: 'flag', value: true });
    await act(mailbox, command(), { ids: [1] }, { do: 'flag', value: true, due: testTime - 1 });
    const { seq } = await act(mailbox, command(), { ids: [2] }, { do: 'flag', value: true, due: testTime + 1 });
    expect((await rows(mailbox, inbox, grouped, 0, 1)).rows[0].whole).toMatchObject({ flagged: 3, late: 1 });
    await act(mailbox, command(), { ids: [2] }, { do: 'flag', value: true, due: testTime - 9 });
    expect((await rows(mailbox, inbox, single, 0, 9)).rows.map((r) => [r.due, r.late])).toEqual([
      [testTime - 9, true],
      [testTime - 1, true],
      [null, false],
    ]);
    await undo(mailbox, command(), seq ?? 0);
    // The later date stays; clearing takes the date along, and Undo brings it back.
    const cleared = await act(mailbox, command(), { ids: [1] }, { do: 'flag', value: false });
    expect((await rows(mailbox, inbox, single, 1, 2)).rows[0]).toMatchObject({ flagged: false, due: null });
    await undo(mailbox, command(), cleared.seq ?? 0);
    expect((await rows(mailbox, inbox, single, 1, 2)).rows[0]).toMatchObject({ flagged: true, due: testTime - 1 });
  });
});

describe('the threads survive', () => {
  const threads = (mailbox: Mailbox) =>
    Array.from({ length: mailbox.columns.count }, (_, id) => [
      mailbox.derived.conversation[id],
      mailbox.derived.parent(id),
    ]);
  const filled = async (store: RecordStore) => {
    const mailbox = await openMailbox(store);
    await changeSetup(mailbox, command(), [me], 'Account', false);
    await add(mailbox, mail('3', ['1', '2']), mail('1'), mail('9', ['8'], { Subject: 'Other' }), mail('2', ['1']));
    await mailbox.flush();
    return mailbox;
  };
  test('a reload: from what is stored at once, and computed anew the same', async () => {
    const store = memoryStore();
    const before = threads(await filled(store));
    expect(before).toEqual([
      [0, 3],
      [0, null],
      [2, null],
      [0, 1],
    ]);
    const again = await Mailbox.open(
      store,
      () => testTime,
      () => undefined,
      here,
    );
    expect(threads(again)).toEqual(before);
    expect(await ids(again, inbox, grouped)).toHaveLength(2);
    await again.ready();
    expect(threads(again)).toEqual(before);
  });
  test.each([
    ['lost', null],
    ['spoilt', { v: 1, stamp: 'me@y.test', conversation: 'x' }],
    [
      'of other accounts',
      {
        v: 1,
        stamp: '',
        conversation: new Uint32Array(9),
        above: new Uint32Array(9),
        account: new Uint8Array(9),
        facts: new Uint8Array(9),
      },
    ],
  ])('the stored ones are %s: computed anew, and nobody need be told', async (_what, record) => {
    const store = memoryStore();
    const before = threads(await filled(store));
    if (record === null) await store.remove(keyOf.derived(0));
    else await store.set(keyOf.derived(0), record);
    const again = await openMailbox(store);
    expect(threads(again)).toEqual(before);
    expect(again.derived.isOwn(0)).toBe(false);
    expect(again.troubles).toEqual([]);
  });
  test('a full disk while mail comes in: what was threaded is forgotten, and the next mail comes in whole', async () => {
    let full = false;
    const inner = memoryStore();
    const store: RecordStore = {
      ...inner,
      set: (key, value) => (full ? Promise.reject(new DOMException('', 'QuotaExceededError')) : inner.set(key, value)),
    };
    const mailbox = await openMailbox(store);
    await add(mailbox, mail('1'));
    full = true;
    await expect(add(mailbox, mail('2', ['1']), mail('3', ['1']))).rejects.toThrow(/full/);
    full = false;
    await add(mailbox, mail('4', ['1']));
    expect(threads(mailbox)).toEqual([
      [0, null],
      [0, 0],
    ]);
  });
});

describe('silence', () => {
  test('what is in the Inbox goes to the Archive, later answers pass it by, and lifting ends it', async () => {
    const mailbox = await openMailbox();
    await add(mailbox, mail('1'), mail('2', ['1']), mail('50', [], { Subject: 'Other' }));
    await act(mailbox, command(), { ids: [1] }, { do: 'silence', value: true, place: 'archive' });
    expect(await ids(mailbox, inbox)).toEqual([2]);
    await add(mailbox, mail('3', ['1', '2']), mail('4', ['3']), mail('51', ['50'], { Subject: 'Re: Other' }));
    expect(await ids(mailbox, inbox)).toEqual([5, 2]);
    expect(await ids(mailbox, archive)).toEqual([4, 3, 1, 0]);
    expect(mailbox.tables.traces.items[mailbox.columns.trace[3]].at(-1)?.says).toContain('silenced');
    await act(mailbox, command(), { ids: [4] }, { do: 'silence', value: false, place: 'archive' });
    await add(mailbox, mail('6', ['4']));
    expect(await ids(mailbox, inbox)).toEqual([5, 2, 6]);
  });
  test('one Undo brings back the messages and the answers to come; a blocked sender’s answer is still Junk', async () => {
    const mailbox = await openMailbox();
    await add(mailbox, mail('1'), mail('2', ['1']));
    const before = stateOf(mailbox);
    const { seq } = await act(mailbox, command(), { ids: [0] }, { do: 'silence', value: true, place: 'bin' });
    expect(await ids(mailbox, { kind: 'place', place: 'bin' })).toEqual([1, 0]);
    const entry = { id: 'e', kind: 'domain', value: 'spam.test', standing: 'blocked', since: 0, why: '' } as const;
    await changeSetup(mailbox, command(), [{ list: 'register', id: 'e', item: entry }], 'Blocked', false);
    await add(mailbox, mail('3', ['1'], { From: 'x@spam.test' }));
    expect(await ids(mailbox, { kind: 'place', place: 'junk' })).toEqual([2]);
    await undo(mailbox, command(), seq ?? 0);
    expect(stateOf(mailbox).messages.slice(0, 2)).toEqual(before.messages);
  });
});

test('thinning: the reasons, the bin, and one Undo', async () => {
  const mailbox = await openMailbox();
  const read = { read: true };
  await add(
    mailbox,
    { ...mail('1', [], {}, 'Is berth 2 free on Tuesday?'), ...read },
    { ...mail('2', ['1'], { From: 'bob@x.test' }, 'Yes.\n\nAnn wrote:\n> Is berth 2 free on Tuesday?'), ...read },
    { ...mail('3', ['2'], {}, 'Thanks!\n\n> Yes.\n>\n> Ann wrote:\n>> Is berth 2 free on Tuesday?'), ...read },
    mail('4', ['3'], { From: 'bob@x.test' }, 'Ropes too?'),
  );
  const lines = await thinning(mailbox, 3);
  expect(lines.map((l) => [l.row.id, l.reason, l.standsIn?.id ?? null])).toEqual([
    [0, 'stands whole', 2],
    [1, 'stands whole', 2],
    [2, 'said only here', null],
    [3, 'unread', null],
  ]);
  const { count, seq } = await thinOut(mailbox, command(), 3);
  expect(count).toBe(2);
  expect(await ids(mailbox, inbox)).toEqual([3, 2]);
  expect((await thinOut(mailbox, command(), 3)).count).toBe(0);
  await undo(mailbox, command(), seq ?? 0);
  expect(await ids(mailbox, inbox)).toEqual([3, 2, 1, 0]);
});

describe('filters', () => {
  test('common practice, no source: 25 here, 9 unread; two are read and stay in sight until it is applied again', async () => {
    const mailbox = await openMailbox();
    await fill(mailbox, 25);
    await act(mailbox, command(), { ids: Array.from({ length: 16 }, (_, i) => i) }, { do: 'read', value: true });
    const unread = (applied: string): View => ({ ...inbox, filter: { by: 'unread', applied } });
    expect(await rows(mailbox, unread('a'), single, 0, 99)).toMatchObject({ total: 9, unread: 9 });
    await act(mailbox, command(), { ids: [20, 21] }, { do: 'read', value: true });
    expect(await rows(mailbox, unread('a'), single, 0, 99)).toMatchObject({ total: 9, unread: 7 });
    expect(await rows(mailbox, unread('b'), single, 0, 99)).toMatchObject({ total: 7, unread: 7 });
    // What arrives is seen at once, what leaves the place is gone at once.
    await fill(mailbox, 1, 90);
    await act(mailbox, command(), { ids: [24] }, { do: 'move', place: 'archive' });
    expect(await rows(mailbox, unread('a'), single, 0, 99)).toMatchObject({ total: 9, unread: 7 });
  });
  test('flagged, to me alone, with attachments, by account, by lane and what is in none', async () => {
    const mailbox = await openMailbox();
    const desk: SetupEdit = {
      list: 'accounts',
      id: 'desk',
      item: { id: 'desk', name: 'Desk', address: 'desk@y.test' },
    };
    await changeSetup(mailbox, command(), [me, desk], 'Accounts', false);
    await add(
      mailbox,
      mail('1'),
      mail('2', [], { To: 'desk@y.test', Cc: 'bob@x.test' }),
      mail('3', [], { 'List-Id': '<tides.z.test>' }),
      mail('4', [], { 'Auto-Submitted': 'auto-generated' }),
      mail('5', [], { 'Content-Disposition': 'attachment; filename=a.bin', 'Content-Type': 'application/x-a' }),
    );
    await act(mailbox, command(), { ids: [1] }, { do: 'flag', value: true });
    const by = (more: Partial<View>) => ids(mailbox, { ...inbox, ...more } as View);
    expect(await by({ filter: { by: 'flagged', applied: null } })).toEqual([1]);
    expect(await by({ filter: { by: 'alone', applied: null } })).toEqual([4, 0]);
    expect(await by({ filter: { by: 'attachments', applied: null } })).toEqual([4]);
    expect(await by({ account: 'desk' })).toEqual([1]);
    expect(await by({ account: 'gone' })).toEqual([]);
    const query = { by: 'query', query: 'subject berth not flagged cc bob' } as const;
    const lanes = [{ by: 'kind', kind: 'lists' }, { by: 'kind', kind: 'machines' }, query] as const;
    expect(await Promise.all(lanes.map((lane) => by({ lane })))).toEqual([[2], [3], []]);
    expect(await by({ lane: { by: 'rest', lanes: [...lanes] } })).toEqual([4, 1, 0]);
    expect(await by({ lane: { by: 'query', query: 'or flagged from ann larger 1' } })).toEqual([4, 3, 2, 1, 0]);
    // All that a narrowed view holds is what an act on it touches.
    const narrowed: View = { ...inbox, lane: { by: 'kind', kind: 'lists' } };
    expect((await act(mailbox, command(), { view: narrowed }, { do: 'move', place: 'archive' })).count).toBe(1);
  });
});
