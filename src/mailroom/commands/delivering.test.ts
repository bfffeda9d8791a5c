// Trays, the hold and the timetable in the mailroom: what waits, when it comes, and what is said of it.
import { weekdays } from '../../core/delivery/week';
import type { Tray } from '../../core/delivery/tray';
import { addMessages } from '../intake/incoming';
import { deliveryDryRun, holdDryRun } from '../questions/deliveryDryRun';
import { held as heldRows, heldCounts } from '../questions/held';
import { overview } from '../questions/overview';
import { position, rows } from '../questions/rows';
import { whereWent } from '../questions/whereWent';
import { whyHere } from '../questions/whyHere';
import { memoryStore } from '../storage/recordStore';
import { openMailbox, testTime } from '../testing/testing';
import {
  type Box,
  boxOf,
  come,
  day,
  from,
  held,
  hour,
  id,
  inbox,
  minute,
  monday,
  mondayAt,
  set,
  singly,
  tray,
  wake,
} from '../testing/deliveryTesting';
import { act } from './acts';
import { changeSetup } from './changeSetup';
import { hold, lift, nextDelivery } from './delivering';
import { dissolve } from './dissolve';
import { gather, gatherChoices } from './gathering';
import { bringBack } from './puttingOff';
import { undo } from './undo';

const post = { on: false, lastChecked: null, arrived: 0, error: null, perMinute: 0, paused: false };
const counts = (mailbox: Box) => {
  const { places, trays, waiting, stations } = overview(mailbox, post, testTime - day);
  return { inbox: places.find(({ place }) => place === 'inbox'), tray: trays[0], waiting, stations };
};

describe('trays', () => {
  test('what is gathered waits, is counted as no unread mail of the Inbox, and comes at its round as one row', async () => {
    const { mailbox, clock } = await boxOf();
    await come(mailbox, ['a@tray.test', 'ann@x.test', 'b@tray.test']);
    expect([...mailbox.views.list(inbox)]).toEqual([1]);
    expect([...mailbox.views.list({ ...held, tray: 't' })]).toEqual([2, 0]);
    expect(counts(mailbox)).toMatchObject({
      inbox: { total: 1, unread: 1 },
      tray: { waits: 2, here: 0, unread: 0, next: mondayAt },
      waiting: { by: null, waits: 0, inTrays: 2, next: mondayAt },
    });
    expect(nextDelivery(mailbox, clock.now)).toBe(mondayAt);
    clock.now = mondayAt - 1;
    expect(await wake(mailbox)).toEqual([]);
    clock.now = mondayAt + 3 * hour;
    expect(await wake(mailbox)).toEqual([0, 2]);
    expect(mailbox.heads.at(-1)).toMatchObject({ by: 'Wide Sort', says: 'Delivered 2 messages from T' });
    expect(nextDelivery(mailbox, clock.now)).toBeNull();
    // On top, as of its moment; one row, in either way of showing rows.
    expect([...mailbox.views.list(inbox)]).toEqual([2, 0, 1]);
    for (const grouped of [false, true]) {
      const window = await rows(mailbox, inbox, { ...singly, grouped }, 0, 10);
      expect(window).toMatchObject({ total: 2, trays: 1, messages: 3, unread: 3 });
      expect(window.rows[0]).toMatchObject({
        id: -1,
        date: mondayAt,
        unread: true,
        tray: { id: 't', name: 'T', senders: 2 },
        whole: { ids: [2, 0], unread: 2, here: 2 },
      });
      expect(await position(mailbox, inbox, { ...singly, grouped }, -1)).toBe(0);
      expect(await position(mailbox, inbox, { ...singly, grouped }, 0)).toBe(0);
      const all = await heldRows(mailbox, inbox, { ...singly, grouped }, 'all', 0, 10);
      expect([...all.keys]).toEqual([-1, 1]);
      expect([...all.ids]).toEqual([2, 0, 1]);
      expect((await heldCounts(mailbox, inbox, { ...singly, grouped })).all).toEqual({
        rows: 2,
        trays: 1,
        messages: 3,
      });
    }
    expect((await rows(mailbox, { ...inbox, tray: 't' }, singly, 0, 10)).rows.map((row) => row.id)).toEqual([2, 0]);
    // All acts go to its messages; one Undo.
    const { seq } = await act(mailbox, id(), { ids: [2, 0] }, { do: 'move', place: 'archive' });
    expect((await rows(mailbox, inbox, singly, 0, 10)).total).toBe(1);
    await undo(mailbox, id(), seq ?? 0);
    expect((await rows(mailbox, inbox, singly, 0, 10)).rows[0].tray?.id).toBe('t');
  });

  test('Why here and Where did my mail go? say so, and the station counts', async () => {
    const { mailbox } = await boxOf();
    await come(mailbox, ['a@tray.test']);
    expect((await whyHere(mailbox, 0)).at(-1)).toMatchObject({
      who: 'Trays',
      setting: 'tray:t',
      says: expect.stringMatching(/^Gathered in “T” \(.*tray\.test.*\), where it waits: .* Monday at 07:00\.$/),
    });
    expect((await whereWent(mailbox, 'tray.test')).suspects[0]).toMatchObject({
      setting: 'tray:t',
      took: 1,
      says: expect.stringMatching(/^The tray “T”/),
    });
    expect(counts(mailbox).stations.find((station) => station.id === 'trays')?.today).toBe(1);
  });

  test('what is brought in long after it came has had its round: it stands in the tray’s row as of then', async () => {
    const { mailbox } = await boxOf();
    const lastWeek = testTime - 5 * day;
    await mailbox.exclusive(() =>
      addMessages(mailbox, [from('a@tray.test', lastWeek)], { command: id(), by: 'you', says: 'Imported' }),
    );
    expect([...mailbox.views.list(inbox)]).toEqual([0]);
    expect(mailbox.columns.delivered[0]).toBe(mondayAt - 7 * day);
    expect((await rows(mailbox, inbox, singly, 0, 1)).rows[0].tray?.id).toBe('t');
  });

  test('so does what is brought in after its tray was made', async () => {
    const { mailbox } = await boxOf([]);
    await set(mailbox, { trays: [monday] });
    await mailbox.exclusive(() =>
      addMessages(mailbox, [from('a@tray.test', testTime - 5 * day)], { command: id(), by: 'you', says: 'Imported' }),
    );
    expect(mailbox.setup.trays[0].since).toBe(testTime);
    expect([...mailbox.views.list(inbox)]).toEqual([0]);
  });

  test('a round that is changed while mail waits carries it along; dissolved, it comes at once or waits in the other', async () => {
    const other = tray('o', 'other.test', { by: 'never' });
    const { mailbox, clock } = await boxOf([monday, other]);
    await come(mailbox, ['a@tray.test', 'b@tray.test', 'c@other.test']);
    expect(nextDelivery(mailbox, clock.now)).toBe(mondayAt);
    clock.now += 2 * hour;
    const round: Tray['round'] = { by: 'hours', days: [...weekdays], times: ['09:00', '13:00'] };
    await set(mailbox, { trays: [{ ...monday, round, since: clock.now }] });
    // 13:00 of today is past: the next is tomorrow, nothing is due in the past.
    expect(nextDelivery(mailbox, clock.now)).toBe(Date.UTC(2026, 10, 25, 9));
    const merged = await dissolve(mailbox, id(), { of: 'tray', id: 't', into: 'o' });
    expect(merged.says).toBe('Dissolved the tray T, its mail to O (2 messages)');
    expect([...mailbox.views.list({ ...held, tray: 'o' })]).toEqual([2, 1, 0]);
    expect(nextDelivery(mailbox, clock.now)).toBeNull();
    await undo(mailbox, id(), merged.seq ?? 0);
    expect([...mailbox.views.list({ ...held, tray: 't' })]).toEqual([1, 0]);
    await dissolve(mailbox, id(), { of: 'tray', id: 't', into: null });
    expect([...mailbox.views.list(inbox)]).toEqual([1, 0]);
    expect((await rows(mailbox, inbox, singly, 0, 9)).rows.every((row) => row.tray === null)).toBe(true);
  });

  test('put in from messages: this one, or whatever comes from the sender, with what else of it is in the Inbox', async () => {
    const { mailbox, clock } = await boxOf([monday]);
    await come(mailbox, ['ann@x.test', 'ann@x.test', 'bob@x.test', 'ann@x.test']);
    const one = await act(mailbox, id(), { ids: [0] }, { do: 'tray', tray: 't' });
    expect(one.says).toMatch(/^Put “Message \d+” into the tray T$/);
    expect([...mailbox.views.list(held)]).toEqual([0]);
    const choices = await gatherChoices(mailbox, { ids: [1] });
    expect(choices).toEqual([
      { of: 'sender', names: ['ann@x.test'], more: 1 },
      { of: 'domain', names: ['x.test'], more: 2 },
    ]);
    const gathered = await gather(mailbox, id(), { ids: [1] }, { tray: monday, of: 'sender', more: true });
    expect(gathered).toMatchObject({
      count: 2,
      says: 'Put 2 messages into the tray T, and from now on what comes from ann@x.test',
    });
    expect([...mailbox.views.list(inbox)]).toEqual([2]);
    await come(mailbox, ['ann@x.test', 'bob@x.test']);
    expect(mailbox.views.list(inbox).length).toBe(2);
    await undo(mailbox, id(), gathered.seq ?? 0);
    expect([...mailbox.views.list(inbox)]).toEqual([5, 3, 2, 1]);
    expect(mailbox.setup.trays[0].when?.of).toHaveLength(1);
    // Out of the tray it comes now; a tray that is gone is refused, and so is what is in the Bin.
    clock.now += minute;
    await act(mailbox, id(), { ids: [0] }, { do: 'tray', tray: null });
    expect(mailbox.views.list(inbox)[0]).toBe(0);
    await expect(act(mailbox, id(), { ids: [0] }, { do: 'tray', tray: 'x' })).rejects.toThrow(/not there any more/);
    await act(mailbox, id(), { ids: [0] }, { do: 'move', place: 'bin' });
    expect((await act(mailbox, id(), { ids: [0] }, { do: 'tray', tray: 't' })).count).toBe(0);
  });

  test('a rule sends to a tray, or puts off what comes; run over the mail here it leaves what a tray delivered', async () => {
    const { mailbox, clock } = await boxOf([monday]);
    await come(mailbox, ['ann@x.test']);
    const rule = {
      id: 'r',
      name: 'R',
      on: true,
      when: { match: 'any' as const, of: [{ field: 'from' as const, how: 'is' as const, text: 'ann@x.test' }] },
      unless: null,
      then: [{ do: 'tray' as const, tray: 't' }],
    };
    const made = await changeSetup(mailbox, id(), [{ list: 'rules', id: 'r', item: rule }], 'Made', true);
    expect(made).toMatchObject({ ok: true, receipt: { count: 1 } });
    expect([...mailbox.views.list({ ...held, tray: 't' })]).toEqual([0]);
    clock.now = mondayAt;
    await wake(mailbox);
    expect([...mailbox.views.list(inbox)]).toEqual([0]);
    // Saved again, it does not take away what was delivered.
    const again = await changeSetup(
      mailbox,
      id(),
      [{ list: 'rules', id: 'r', item: { ...rule, name: 'S' } }],
      'Made',
      true,
    );
    expect(again).toMatchObject({ ok: true, receipt: { count: 0 } });
    const off = { ...rule, then: [{ do: 'putOff' as const, until: 'tomorrow morning' as const }] };
    await changeSetup(mailbox, id(), [{ list: 'rules', id: 'r', item: off }], 'Made', true);
    expect([...mailbox.views.list(inbox)]).toEqual([0]);
    await come(mailbox, ['ann@x.test']);
    const tomorrow = Date.UTC(2026, 11, 1, 8);
    expect(mailbox.columns.until[1]).toBe(tomorrow);
    expect(await wake(mailbox)).toEqual([]);
    clock.now = tomorrow;
    expect(await mailbox.exclusive(() => bringBack(mailbox, clock.now))).toEqual([1]);
  });
});

describe('the hold', () => {
  const through = {
    letThrough: {
      when: { match: 'any' as const, of: [{ field: 'from' as const, how: 'domain' as const, text: 'free.test' }] },
      labels: [],
      contacts: false,
    },
  };

  test('what comes is held but for what is let through; lifted, all is there as if there had been none, and nothing is left', async () => {
    const { mailbox, clock } = await boxOf([], through);
    await come(mailbox, ['before@x.test']);
    await hold(mailbox, id(), clock.now + hour);
    clock.now += 10 * minute;
    await come(mailbox, ['a@x.test', 'b@free.test', 'c@x.test']);
    expect([...mailbox.views.list(inbox)]).toEqual([2, 0]);
    expect(counts(mailbox).waiting).toMatchObject({ by: 'hold', waits: 2, until: testTime + hour });
    expect((await whyHere(mailbox, 1)).at(-1)).toMatchObject({ who: 'Hold', says: 'Held, because a hold is on.' });
    expect((await whyHere(mailbox, 2)).some(({ says }) => says === 'Let through, although a hold is on.')).toBe(true);
    clock.now += 10 * minute;
    const lifted = await lift(mailbox, id());
    expect(lifted).toMatchObject({ count: 2, says: 'Lifted the hold: delivered 2 messages' });
    expect([...mailbox.views.list(inbox)]).toEqual([3, 2, 1, 0]);
    expect(mailbox.setup.delivery.hold).toBeNull();
    expect([...mailbox.columns.delivered.subarray(0, 4)]).toEqual([0, 0, 0, 0]);
    expect(counts(mailbox).waiting).toMatchObject({ by: null, waits: 0, next: null });
    expect((await lift(mailbox, id())).seq).toBeNull();
    // Undone, it is on again with what it held.
    await undo(mailbox, id(), lifted.seq ?? 0);
    expect(counts(mailbox).waiting).toMatchObject({ by: 'hold', waits: 2 });
  });

  test('it ends by itself, also while the page is closed, and is said once', async () => {
    const { mailbox, records, clock } = await boxOf([]);
    await hold(mailbox, id(), clock.now + hour);
    clock.now += minute;
    await come(mailbox, ['a@x.test']);
    mailbox.close();
    clock.now += 5 * hour;
    const again = await openMailbox(memoryStore(records), () => clock.now);
    expect(nextDelivery(again, clock.now)).toBe(testTime + hour);
    expect(await wake(again)).toEqual([0]);
    expect(again.heads.at(-1)?.says).toBe('The hold ended: delivered 1 message');
    expect(again.setup.delivery.hold).toBeNull();
    expect(await wake(again)).toEqual([]);
    expect([...again.views.list(inbox)]).toEqual([0]);
  });

  test('extended, it is one hold; a moment that is past is refused', async () => {
    const { mailbox, clock } = await boxOf([]);
    await hold(mailbox, id(), clock.now + hour);
    clock.now += minute;
    await hold(mailbox, id(), null);
    expect(mailbox.setup.delivery.hold).toEqual({ since: testTime, until: null });
    await expect(hold(mailbox, id(), clock.now)).rejects.toThrow(/past/);
  });

  test('a file that is brought in during a hold: what came before it is not held', async () => {
    const { mailbox, clock } = await boxOf([]);
    await hold(mailbox, id(), clock.now + hour);
    clock.now += 30 * minute;
    await mailbox.exclusive(() =>
      addMessages(mailbox, [from('a@x.test', testTime - day), from('b@x.test', clock.now - minute)], {
        command: id(),
        by: 'you',
        says: 'Imported',
      }),
    );
    expect([...mailbox.views.list(inbox)]).toEqual([0]);
    expect([...mailbox.views.list(held)]).toEqual([1]);
  });
});

test('mail that came while the clock was ahead waits no longer than from now on', async () => {
  const { mailbox, records, clock } = await boxOf();
  clock.now = testTime + 400 * day;
  await come(mailbox, ['a@tray.test']);
  clock.now = testTime;
  const again = await openMailbox(memoryStore(records), () => clock.now);
  expect(nextDelivery(again, clock.now)).toBe(mondayAt);
  clock.now = mondayAt;
  expect(await wake(again)).toEqual([0]);
});

test('dry runs: what would have waited where, when it would have come, and what was answered or flagged before that', async () => {
  const { mailbox, clock } = await boxOf([]);
  await come(mailbox, ['a@tray.test', 'b@tray.test', 'c@x.test']);
  clock.now += hour;
  await act(mailbox, id(), { ids: [0] }, { do: 'flag', value: true });
  const edits = [{ list: 'trays' as const, id: 't', item: monday }];
  const run = await deliveryDryRun(mailbox, edits, { in: 'tray', tray: 't' });
  expect(run).toMatchObject({
    ok: true,
    report: {
      came: 3,
      waits: 2,
      never: 0,
      deliveries: [{ at: mondayAt, count: 2 }],
      soonerTotal: 1,
      sooner: [{ row: { id: 0 }, did: 'flagged', after: hour, until: mondayAt }],
    },
  });
  const rule = {
    id: 'r',
    name: '',
    on: true,
    when: { match: 'any' as const, of: [{ field: 'from' as const, how: 'is' as const, text: 'c@x.test' }] },
    unless: null,
    then: [{ do: 'putOff' as const, until: 'tomorrow morning' as const }],
  };
  const putOff = await deliveryDryRun(mailbox, [{ list: 'rules', id: 'r', item: rule }], { in: 'put off' });
  expect(putOff).toMatchObject({ ok: true, report: { waits: 1, longest: [{ row: { id: 2 } }] } });
  const never = { ...monday, round: { by: 'never' as const } };
  const none = await deliveryDryRun(mailbox, [{ list: 'trays', id: 't', item: never }], { in: 'tray', tray: 't' });
  expect(none).toMatchObject({ ok: true, report: { waits: 2, never: 2, soonerTotal: 1 } });
  expect(await deliveryDryRun(mailbox, [], { in: 'hold' })).toMatchObject({ ok: true, report: { came: 3, waits: 0 } });
  clock.now = testTime + 7 * day - minute;
  expect(await holdDryRun(mailbox, hour)).toMatchObject({ came: 3, waits: 3, soonerTotal: 0 });
});
