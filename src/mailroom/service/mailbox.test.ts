import { act } from '../commands/acts';
import { tidy } from '../commands/retention';
import { changeSetup } from '../commands/changeSetup';
import { dissolve } from '../commands/dissolve';
import { undo } from '../commands/undo';
import { addMessages } from '../intake/incoming';
import { Duplicates } from '../intake/duplicates';
import { Mailbox } from './mailbox';
import { logbook } from '../questions/logbook';
import { wholeLog } from '../border/log';
import { open } from '../questions/message';
import { overview } from '../questions/overview';
import { whyHere } from '../questions/whyHere';
import { rows } from '../questions/rows';
import { memoryStore } from '../storage/recordStore';
import { fill, hearsReads, incoming, openMailbox, stateOf, testTime, single } from '../testing/testing';
import type { View } from '../border/views';
import { here } from '../reading/here';

const inbox: View = { kind: 'place', place: 'inbox' };
const archive: View = { kind: 'place', place: 'archive' };
const post = { on: false, lastChecked: null, arrived: 0, error: null, perMinute: 0, paused: false };
const block = (value: string) => [
  {
    list: 'register' as const,
    id: value,
    item: { id: value, kind: 'address' as const, value, standing: 'blocked' as const, since: 0, why: '' },
  },
];

test('closed before all was stored, the first rows are there before all is read; conversations follow', async () => {
  const records = new Map<string, unknown>();
  const item = { id: 'me', name: 'Me', address: 'sender3@harbour.example' };
  const before = await openMailbox(memoryStore(records));
  await changeSetup(before, 'account', [{ list: 'accounts', id: item.id, item }], 'Set up', false);
  await fill(before, 1_500);
  await before.flush();
  before.close();
  // What was computed of the last of them did not come to be stored.
  for (const key of records.keys()) if (key.startsWith('derived/')) records.delete(key);
  const { store, read } = hearsReads(memoryStore(records), 'envelopes/');
  const mailbox = await Mailbox.open(
    store,
    () => testTime,
    () => undefined,
    here,
  );
  const first = await rows(mailbox, inbox, single, 0, 6);
  expect(new Set(read).size).toBeLessThan(3);
  await mailbox.ready();
  expect(new Set(read).size).toBe(3);
  expect(first.total).toBe(1_500);
  expect(first.rows).toEqual((await rows(mailbox, inbox, single, 0, 6)).rows);
  expect(first.rows.some(({ own }) => own)).toBe(true);
  expect(mailbox.derived.complete).toBe(true);
});

describe('commands', () => {
  test('an act on many is one command, one entry, one Undo', async () => {
    const mailbox = await openMailbox();
    await fill(mailbox, 186);
    const before = stateOf(mailbox);
    const receipt = await act(mailbox, 'a', { view: inbox }, { do: 'move', place: 'archive' });
    expect(receipt).toMatchObject({ count: 186, says: 'Archived 186 messages' });
    expect((await rows(mailbox, inbox, single, 0, 10)).total).toBe(0);
    expect((await rows(mailbox, archive, single, 0, 10)).total).toBe(186);
    await undo(mailbox, 'u', receipt.seq ?? 0);
    expect(stateOf(mailbox)).toEqual(before);
  });

  test('the same command id is never done twice', async () => {
    const mailbox = await openMailbox();
    await fill(mailbox, 3);
    const first = await act(mailbox, 'a', { ids: [0] }, { do: 'flag', value: true });
    const again = await act(mailbox, 'a', { ids: [1] }, { do: 'flag', value: true });
    expect(again).toEqual(first);
    expect((await rows(mailbox, inbox, single, 0, 9)).rows.filter((r) => r.flagged)).toHaveLength(1);
  });

  test('nor by the mailbox that opens after a crash', async () => {
    const records = new Map<string, unknown>();
    const mailbox = await openMailbox(memoryStore(records));
    await fill(mailbox, 3);
    await act(mailbox, 'a', { ids: [0] }, { do: 'move', place: 'archive' });
    await mailbox.flush();
    const again = await Mailbox.open(
      memoryStore(records),
      () => testTime,
      () => undefined,
      here,
    );
    expect(await act(again, 'a', { ids: [0] }, { do: 'move', place: 'archive' })).toMatchObject({ seq: 2, count: 1 });
    expect(again.seq).toBe(2);
  });

  test('an act that changes nothing is no entry', async () => {
    const mailbox = await openMailbox();
    await fill(mailbox, 1);
    expect(await act(mailbox, 'a', { ids: [0, 0, 99] }, { do: 'read', value: false })).toMatchObject({
      seq: null,
      count: 0,
    });
  });

  test('Undo gives back only what no later command touched, and says how much stayed', async () => {
    const mailbox = await openMailbox();
    await fill(mailbox, 4);
    const { seq } = await act(mailbox, 'a', { view: inbox }, { do: 'move', place: 'archive' });
    await act(mailbox, 'b', { ids: [2] }, { do: 'move', place: 'bin' });
    await act(mailbox, 'c', { ids: [3] }, { do: 'flag', value: true });
    const result = await undo(mailbox, 'u', seq ?? 0);
    expect(result).toMatchObject({
      ok: true,
      receipt: { count: 3, says: expect.stringMatching(/one thing changed since/) },
    });
    expect(stateOf(mailbox).messages.map((m) => m.place)).toEqual(['inbox', 'inbox', 'bin', 'inbox']);
    expect((await rows(mailbox, inbox, single, 0, 1)).rows[0].flagged).toBe(true);
  });

  test('Undo into a folder that was dissolved since brings the mail to the Inbox, and says so', async () => {
    const mailbox = await openMailbox();
    await fill(mailbox, 3);
    const item = { id: 'f', name: 'Fuel' };
    const label = { id: 'l', name: 'Later', ink: 'sea' as const };
    await changeSetup(mailbox, 's', [{ list: 'folders', id: 'f', item }], 'Made', false);
    await changeSetup(mailbox, 't', [{ list: 'labels', id: 'l', item: label }], 'Made', false);
    await act(mailbox, 'a', { ids: [0, 1] }, { do: 'move', place: 'folder:f' });
    await act(mailbox, 'b', { ids: [0] }, { do: 'label', label: 'l', value: true });
    const { seq } = await act(mailbox, 'c', { ids: [0, 1] }, { do: 'move', place: 'archive' });
    const off = await act(mailbox, 'd', { ids: [0] }, { do: 'label', label: 'l', value: false });
    expect(await dissolve(mailbox, 'e', { of: 'folder', id: 'f', into: 'archive' })).toMatchObject({ count: 0 });
    expect(await dissolve(mailbox, 'g', { of: 'label', id: 'l', into: null })).toMatchObject({ count: 0 });
    expect(await undo(mailbox, 'u', seq ?? 0)).toMatchObject({
      ok: true,
      receipt: { count: 2, says: expect.stringMatching(/2 messages to the Inbox, because their folder is gone/) },
    });
    expect(stateOf(mailbox).messages.map((m) => m.place)).toEqual(['inbox', 'inbox', 'inbox']);
    await undo(mailbox, 'v', off.seq ?? 0);
    expect(stateOf(mailbox).messages[0].labels).toEqual([]);
  });

  test('an undone entry can be done again, and not undone twice', async () => {
    const mailbox = await openMailbox();
    await fill(mailbox, 2);
    const { seq } = await act(mailbox, 'a', { view: inbox }, { do: 'move', place: 'archive' });
    const first = await undo(mailbox, 'u', seq ?? 0);
    expect(await undo(mailbox, 'v', seq ?? 0)).toEqual({ ok: false, error: 'That was undone already.' });
    const again = await undo(mailbox, 'w', (first.ok && first.receipt.seq) || 0);
    expect(again).toMatchObject({ receipt: { says: 'Did again: Archived 2 messages' } });
    const back = await undo(mailbox, 'x', (again.ok && again.receipt.seq) || 0);
    expect(back).toMatchObject({ receipt: { says: 'Undid: Archived 2 messages' } });
    await undo(mailbox, 'y', (back.ok && back.receipt.seq) || 0);
    expect((await rows(mailbox, archive, single, 0, 9)).total).toBe(2);
  });

  test('blocking sorts the mail here, tells why, and is undone with the mail', async () => {
    const mailbox = await openMailbox();
    await fill(mailbox, 14);
    const before = stateOf(mailbox);
    const result = await changeSetup(mailbox, 's', block('sender3@harbour.example'), 'Blocked sender3', true);
    expect(result).toMatchObject({
      ok: true,
      receipt: { count: 2, says: 'Blocked sender3, and sorted 2 messages here by it' },
    });
    const why = await whyHere(mailbox, 3);
    expect(why.map((l) => [l.who, l.setting])).toEqual([
      ['Register', 'entry:sender3@harbour.example'],
      ['You', null],
    ]);
    await undo(mailbox, 'u', (result.ok && result.receipt.seq) || 0);
    expect(stateOf(mailbox)).toEqual(before);
  });

  test('a setup that would contradict itself is refused, and nothing is changed', async () => {
    const mailbox = await openMailbox();
    const rule = {
      list: 'rules' as const,
      id: 'r',
      item: {
        id: 'r',
        name: '',
        on: true,
        when: { match: 'all' as const, of: [{ field: 'subject' as const, how: 'contains' as const, text: 'x' }] },
        unless: null,
        then: [{ do: 'move' as const, place: 'folder:none' as const }],
      },
    };
    expect(await changeSetup(mailbox, 's', [rule], 'Made', false)).toMatchObject({ ok: false });
    expect(mailbox.seq).toBe(0);
  });

  test('labels are put on and taken off; a label’s view shows them', async () => {
    const mailbox = await openMailbox();
    await fill(mailbox, 5);
    await changeSetup(
      mailbox,
      's',
      [{ list: 'labels', id: 'l', item: { id: 'l', name: 'Later', ink: 'sea' } }],
      'Made',
      false,
    );
    await act(mailbox, 'a', { ids: [1, 3] }, { do: 'label', label: 'l', value: true });
    expect((await rows(mailbox, { kind: 'label', label: 'l' }, single, 0, 9)).rows.map((r) => r.id)).toEqual([3, 1]);
    await act(mailbox, 'b', { ids: [3] }, { do: 'label', label: 'l', value: false });
    expect(overview(mailbox, post, 0).labels).toEqual([{ label: 'l', total: 1, unread: 1 }]);
  });

  test('the Bin keeps a message for 30 days with the date on it, then deletes it for good and says so (practice)', async () => {
    let now = testTime;
    const mailbox = await openMailbox(memoryStore(), () => now);
    await fill(mailbox, 3);
    await act(mailbox, 'a', { ids: [1] }, { do: 'move', place: 'bin' });
    const day = 86_400_000;
    expect((await rows(mailbox, { kind: 'place', place: 'bin' }, single, 0, 1)).rows[0].deletedOn).toBe(
      testTime + 30 * day,
    );
    // Each day is seen, as while the page is open.
    for (let seen = 1; seen < 30; seen++) {
      now += day;
      expect(await tidy(mailbox)).toBe(0);
    }
    now += day - 1;
    expect(await tidy(mailbox)).toBe(0);
    now += 1;
    expect(await tidy(mailbox)).toBe(1);
    expect(await open(mailbox, 1, false)).toBeNull();
    expect(await mailbox.raws.read(1)).toBeNull();
    expect((await mailbox.raws.read(0))?.bytes.length).toBeGreaterThan(0);
    const [entry] = (await logbook(mailbox, wholeLog, 0, 1)).entries;
    expect(entry).toMatchObject({
      by: 'Wide Sort',
      says: 'Deleted 1 message for good, after 30 days in the Bin',
      undoable: false,
    });
    expect(await undo(mailbox, 'u', entry.seq)).toMatchObject({ ok: false });
  });

  test('a clock that is wrong never shortens the time in the Bin', async () => {
    const day = 86_400_000;
    let now = testTime;
    const records = new Map<string, unknown>();
    const mailbox = await openMailbox(memoryStore(records), () => now);
    await fill(mailbox, 4);
    const bin = (id: number) => act(mailbox, `bin-${id}`, { ids: [id] }, { do: 'move', place: 'bin' });
    for (let seen = 0; seen < 40; seen++) {
      now += day;
      await tidy(mailbox);
    }
    await bin(0);
    // Forty days ahead: one day more was seen, no more.
    now += 40 * day;
    expect(await tidy(mailbox)).toBe(0);
    // Binned there, and then right again; binned a year back, and then right again.
    await bin(1);
    now -= 40 * day;
    expect(await tidy(mailbox)).toBe(0);
    now -= 365 * day;
    await bin(2);
    now += 365 * day;
    expect(await tidy(mailbox)).toBe(0);
    // The row says when at the earliest.
    const [row] = (await rows(mailbox, { kind: 'place', place: 'bin' }, single, 0, 9)).rows;
    expect(row.deletedOn).toBeGreaterThanOrEqual(now + 29 * day);
    // What was seen stays seen after a reload.
    now += day;
    await tidy(mailbox);
    await mailbox.flush();
    const later = await Mailbox.open(
      memoryStore(records),
      () => now,
      () => undefined,
      here,
    );
    expect(later.daysSeen.list).toEqual(mailbox.daysSeen.list);
    for (let seen = 0; seen < 27; seen++) {
      now += day;
      expect(await tidy(later)).toBe(0);
    }
    now += 2 * day;
    expect(await tidy(later)).toBe(1);
  });

  test('the parts of one job are one entry, undone as one', async () => {
    const mailbox = await openMailbox();
    for (const part of [1, 2, 3])
      await addMessages(mailbox, [incoming(part), incoming(part + 10)], {
        command: `job/${part}`,
        by: 'you',
        says: `Brought in ${part * 2}`,
      });
    const { entries } = await logbook(mailbox, { ...wholeLog, who: 'you' }, 0, 9);
    expect(entries).toMatchObject([{ says: 'Brought in 6', count: 6 }]);
    await undo(mailbox, 'u', entries[0].seq);
    expect((await rows(mailbox, inbox, single, 0, 9)).total).toBe(0);
  });

  test('duplicates: as many copies as the file with most of them', async () => {
    const mailbox = await openMailbox();
    await addMessages(mailbox, [incoming(1), incoming(2)], { command: 'a', by: 'you', says: '' });
    const again = new Duplicates(mailbox);
    expect([1, 1, 2, 3].map((n) => again.isNew(incoming(n).envelope))).toEqual([false, true, false, true]);
  });
});

test('an import of several parts is undone as one, and none of its parts offers Undo again', async () => {
  const mailbox = await openMailbox();
  const part = (n: number) =>
    mailbox.exclusive(() =>
      addMessages(mailbox, [incoming(n)], { command: `job/${n}`, by: 'you', says: 'Brought in' }),
    );
  await part(1);
  // Something between them: the Logbook then lists them apart.
  await act(mailbox, 'between', { ids: [0] }, { do: 'flag', value: true });
  await part(2);
  const [first, , second] = mailbox.heads;
  expect((await undo(mailbox, 'u', second.seq)).ok).toBe(true);
  expect(await undo(mailbox, 'v', first.seq)).toEqual({ ok: false, error: 'That was undone already.' });
  const { entries } = await logbook(mailbox, wholeLog, 0, 9);
  expect(entries.filter(({ says }) => says === 'Brought in').map(({ undoneBy }) => undoneBy)).toEqual([4, 4]);
});
