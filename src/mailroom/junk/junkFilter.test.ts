// The junk filter in the mailroom: marks teach it, undo makes it forget, and nothing of it is lost.
import { newContact } from '../../core/contacts/contact';
import type { JunkSettings } from '../../core/junk/settings';
import { act, mostMarked } from '../commands/acts';
import { tidy } from '../commands/retention';
import { changeSetup } from '../commands/changeSetup';
import { deletedOn } from '../state/retention';
import { dryRun } from '../questions/dryRuns';
import { entryGuards, registerUse, tookByEntry } from '../questions/registerUse';
import { judgement, filterReport, doubtfulJunk, secondLook } from '../questions/junkReport';
import { importSetup } from '../commands/setupFile';
import { exportSetup } from '../questions/setupFile';
import { memoryStore } from '../storage/recordStore';
import { mailOf, openMailbox, testTime } from '../testing/testing';
import { undo } from '../commands/undo';
import { whereWent } from '../questions/whereWent';
import { command, arrive, bad, begun, filter, good, junk, mail, markAll, next, placeOf } from '../testing/junkTesting';

const day = 86_400_000;

test('what is moved to Junk by hand is learned, and judges what arrives', async () => {
  const mailbox = await begun();
  await filter(mailbox, { strictness: 40 });
  await markAll(mailbox);
  const [prize, rota] = await arrive(
    mailbox,
    mail('A prize of guaranteed money', 'c@other.test', 1),
    mail('Rota for the evening boat', 'd@other.test', 2),
  );
  expect([placeOf(mailbox, prize), placeOf(mailbox, rota)]).toEqual(['junk', 'inbox']);
  const says = mailbox.tables.traces.items[mailbox.columns.trace[prize]].map((line) => line.says);
  expect(says).toEqual([
    'No entry for it.',
    expect.stringMatching(/^Score \d+ of 100: at or above your line at 60, so it went to Junk\.$/),
  ]);
  expect(doubtfulJunk(mailbox)).toEqual([prize]);
  const judged = await judgement(mailbox, prize);
  expect(judged?.evidence.some(({ says: words, weight }) => words.includes('prize') && weight > 0)).toBe(true);
  mailbox.close();
});

test('undo makes it forget', async () => {
  const mailbox = await begun();
  await markAll(mailbox);
  const before = await mailbox.junk.file();
  await act(mailbox, next(), { ids: [0] }, { do: 'mark', junk: true });
  expect(await mailbox.junk.file()).not.toEqual(before);
  const wrong = (await judgement(mailbox, 0))?.score ?? 0;
  const result = await undo(mailbox, next(), mailbox.seq);
  expect(result.ok).toBe(true);
  const again = await judgement(mailbox, 0);
  expect(again?.marked).toBe('good');
  expect(again?.score).toBeLessThan(wrong);
  expect(await mailbox.junk.taughtCounts()).toEqual({ junk: 6, good: 6 });
  mailbox.close();

  const other = await begun();
  const empty = await other.junk.file();
  await act(other, next(), { ids: [6] }, { do: 'move', place: 'junk' });
  expect(await other.junk.file()).not.toEqual(empty);
  await undo(other, next(), other.seq);
  // With no other mark to lean on, bit for bit.
  expect(await other.junk.file()).toEqual(empty);
  other.close();
});

test('it survives a reload, and is learned anew where its record is spoilt or missing', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await begun(records);
  await filter(mailbox, { strictness: 30 });
  await markAll(mailbox);
  await mailbox.junk.settle();
  const file = await mailbox.junk.file();
  await mailbox.flush();
  mailbox.close();
  expect(records.has('junk')).toBe(true);
  const again = await openMailbox(memoryStore(new Map(records)));
  expect(await again.junk.file()).toEqual(file);
  again.close();
  for (const record of [
    undefined,
    { v: 1, model: 'spoilt' },
    { ...(records.get('junk') as object), model: Uint8Array.of(1, 2, 3) },
  ]) {
    const copy = new Map(records);
    if (record) copy.set('junk', record);
    else copy.delete('junk');
    const learned = await openMailbox(memoryStore(copy));
    expect(await learned.junk.taughtCounts()).toEqual({ junk: 6, good: 6 });
    expect((await judgement(learned, 6))?.score).toBeGreaterThan(80);
    expect(learned.troubles).toEqual([]);
    learned.close();
  }
});

test('people written to and contacts are not asked about, each by its switch', async () => {
  const mailbox = await begun();
  await markAll(mailbox);
  await arrive(mailbox, {
    ...mailOf({ From: 'me@ferry.example', To: 'friend@other.test', Subject: 'Hello', 'Message-ID': '<s@x>' }),
    place: 'sent',
  });
  const card = newContact('c', 'Card', 'card@other.test');
  await changeSetup(mailbox, next(), [{ list: 'contacts', id: 'c', item: card }], 'Added', false);
  const sendTo = async (part: Partial<JunkSettings>) => {
    await filter(mailbox, { strictness: 60, ...part });
    const ids = await arrive(
      mailbox,
      mail('Prize money guaranteed', 'friend@other.test', command),
      mail('Prize money guaranteed', 'card@other.test', command),
    );
    return ids.map((id) => placeOf(mailbox, id));
  };
  expect(await sendTo({})).toEqual(['inbox', 'inbox']);
  expect(await sendTo({ writtenToSafe: false })).toEqual(['junk', 'inbox']);
  expect(await sendTo({ contactsSafe: false })).toEqual(['inbox', 'junk']);
  mailbox.close();
});

test('moving the line moves what the dry run said, and back by one Undo', async () => {
  const mailbox = await begun();
  await act(mailbox, next(), { ids: bad.slice(0, 4) }, { do: 'move', place: 'junk' });
  await act(mailbox, next(), { ids: good.slice(0, 4) }, { do: 'mark', junk: false });
  const report = await filterReport(mailbox, () => undefined);
  expect(report).toMatchObject({ judged: 12, marked: { junk: 4, good: 4 }, validated: [] });
  expect(report.spread.reduce((n, one) => n + one.junk + one.good + one.inbox + one.unmarked, 0)).toBe(12);
  const done = await filter(mailbox, { strictness: 45 }, true);
  expect(done).toMatchObject({ ok: true, receipt: { count: 2 } });
  expect([10, 11].map((id) => placeOf(mailbox, id))).toEqual(['junk', 'junk']);
  await undo(mailbox, next(), mailbox.seq);
  expect([10, 11].map((id) => placeOf(mailbox, id))).toEqual(['inbox', 'inbox']);
  expect(mailbox.setup.junk.strictness).toBe(0);
  mailbox.close();
});

test('a dry run of the line judges all that it may decide about, and saving does just that', async () => {
  const mailbox = await begun();
  await act(mailbox, next(), { ids: bad.slice(0, 4) }, { do: 'move', place: 'junk' });
  await act(mailbox, next(), { ids: good.slice(0, 4) }, { do: 'mark', junk: false });
  // Nobody has looked at the page yet: nothing is judged.
  const edits = [{ list: 'junk' as const, id: 'junk' as const, item: { ...mailbox.setup.junk, strictness: 45 } }];
  const said = await dryRun(mailbox, edits, null);
  expect(said).toMatchObject({ ok: true, report: { total: 2 } });
  const done = await changeSetup(mailbox, next(), edits, 'Drew the line', true);
  expect(done).toMatchObject({ ok: true, receipt: { count: 2 } });
  mailbox.close();
});

test('with five marks of each kind it says how good it is, by messages that it had not seen', async () => {
  const mailbox = await begun();
  await markAll(mailbox);
  const { validated, figures } = await filterReport(mailbox, () => undefined);
  expect(validated).toHaveLength(12);
  expect(figures?.auc1).toBeLessThan(20);
  mailbox.close();
});

test('the second look begins with what is least like junk, one of each sender, and leaves out what was marked', async () => {
  const mailbox = await begun();
  await markAll(mailbox);
  await filter(mailbox, { strictness: 40 });
  const ids = await arrive(
    mailbox,
    ...junk.map((s, i) => mail(s, `e${i}@else.test`, i, 'junk')),
    mail('Tide table and berth plan', 'f@else.test', 9, 'junk'),
    mail('Tide table and berth plan', 'f@else.test', 8, 'junk'),
  );
  const { rows, total } = await secondLook(mailbox, 50, []);
  expect(total).toBe(8);
  expect(rows[0].id).toBe(ids[7]);
  const scores = rows.map(({ score }) => score ?? 0);
  expect(scores.slice(0, 7)).toEqual(scores.slice(0, 7).sort((a, b) => a - b));
  // More of a sender comes once all have been seen.
  expect(rows[7]).toMatchObject({ id: ids[6], from: { address: 'f@else.test' } });
  await act(mailbox, next(), { ids: [ids[0]] }, { do: 'mark', junk: true });
  expect((await secondLook(mailbox, 50, [])).total).toBe(7);
  mailbox.close();
});

test('junk is deleted for good after its days, with the date on its row and a line in the Logbook', async () => {
  let now = testTime;
  const mailbox = await openMailbox(memoryStore(), () => now);
  await arrive(mailbox, mail('Prize', 'b@junk.test', 1, 'junk'));
  // Never decided: nothing is deleted, and no row has a date.
  now += 400 * day;
  expect(await tidy(mailbox)).toBe(0);
  expect(deletedOn(mailbox, 0)).toBeNull();
  // Decided now, the days count from now, also for what is older.
  await filter(mailbox, { keepDays: 10, keepFrom: now });
  expect(deletedOn(mailbox, 0)).toBe(now + 10 * day);
  for (let seen = 1; seen < 10; seen++) {
    now += day;
    expect(await tidy(mailbox)).toBe(0);
  }
  now += day;
  expect(await tidy(mailbox)).toBe(1);
  expect(mailbox.heads.at(-1)?.says).toBe('Deleted 1 message for good, after 10 days in Junk');
  mailbox.close();
});

test('a move of very many teaches by the newest of them alone', async () => {
  const mailbox = await openMailbox();
  const list = Array.from({ length: mostMarked + 50 }, (_, i) => mail(`Prize ${i}`, 'b@junk.test', i, 'inbox'));
  await arrive(mailbox, ...list);
  await act(mailbox, next(), { view: { kind: 'place', place: 'inbox' } }, { do: 'move', place: 'junk' });
  expect(await mailbox.junk.taughtCounts()).toEqual({ junk: mostMarked, good: 0 });
  expect(mailbox.junk.markOf(0)).toBeNull();
  mailbox.close();
});

test('each entry of the Register knows what it decided, and what comes back without it', async () => {
  const mailbox = await begun();
  const item = {
    id: 'e',
    kind: 'domain' as const,
    value: 'junk.test',
    standing: 'blocked' as const,
    since: 0,
    why: '',
  };
  await changeSetup(mailbox, next(), [{ list: 'register', id: 'e', item }], 'Blocked', true);
  expect(await registerUse(mailbox)).toEqual({ e: { decided: 6, last: mailbox.columns.date[6] } });
  expect(await entryGuards(mailbox, [item], new Set())).toEqual([]);
  expect(await tookByEntry(mailbox, 'e')).toBe(6);
  mailbox.close();
});

test('Where did my mail go? names what took it, and what stands there for such mail', async () => {
  const mailbox = await begun();
  const entry = {
    id: 'e',
    kind: 'domain' as const,
    value: 'harbour.example',
    standing: 'blocked' as const,
    since: 0,
    why: '',
  };
  await changeSetup(mailbox, next(), [{ list: 'register', id: 'e', item: entry }], 'Blocked', true);
  await act(mailbox, next(), { ids: [0] }, { do: 'move', place: 'archive' });
  const byDomain = await whereWent(mailbox, 'harbour.example');
  expect(byDomain).toMatchObject({ found: 6, inInbox: 0 });
  expect(byDomain.suspects.map(({ setting, took }) => [setting, took])).toEqual([
    ['entry:e', 5],
    [null, 1],
  ]);
  expect(byDomain.suspects[1].says).toBe('You moved it; now in Archive.');
  const bySubject = await whereWent(mailbox, 'berth plan');
  expect(bySubject.suspects[0].rows.map(({ subject }) => subject)).toEqual(['Berth plan and tide table']);
  const unseen = await whereWent(mailbox, 'nobody@harbour.example');
  expect(unseen.found).toBe(0);
  expect(unseen.suspects).toMatchObject([{ setting: 'entry:e', took: 0 }]);
  expect(await whereWent(mailbox, '  ')).toEqual({ found: 0, inInbox: 0, suspects: [] });
  mailbox.close();
});

test('the setup goes out with what the filter learned, and comes in elsewhere; what is wrong changes nothing', async () => {
  const mailbox = await begun();
  await markAll(mailbox);
  await filter(mailbox, { strictness: 25 });
  const document = await exportSetup(mailbox);
  const elsewhere = await openMailbox();
  expect(await importSetup(elsewhere, next(), document)).toMatchObject({ ok: true });
  expect(elsewhere.setup.junk.strictness).toBe(25);
  const [id] = await arrive(elsewhere, mail('Guaranteed prize money', 'z@z.test', 1));
  expect(placeOf(elsewhere, id)).toBe('junk');
  await undo(elsewhere, next(), elsewhere.heads.find((head) => head.says.startsWith('Took up a setup'))?.seq ?? 0);
  expect(elsewhere.setup.junk.strictness).toBe(0);
  const before = JSON.stringify(elsewhere.setup);
  const spoilt = JSON.parse(document) as { junk: { carried: string } };
  for (const wrong of [
    '{',
    '{}',
    JSON.stringify({ ...spoilt, junk: { ...spoilt.junk, carried: spoilt.junk.carried.slice(0, 400) } }),
  ])
    expect(await importSetup(elsewhere, next(), wrong)).toMatchObject({
      ok: false,
      error: expect.stringMatching(/Nothing was changed\.$/),
    });
  expect(JSON.stringify(elsewhere.setup)).toBe(before);
  mailbox.close();
  elsewhere.close();
});

test('a setup from an earlier version comes in; that its filter can’t be taken up is told', async () => {
  const mailbox = await begun();
  await markAll(mailbox);
  await filter(mailbox, { strictness: 25 });
  const document = JSON.parse(await exportSetup(mailbox)) as { junk: { carried: string } };
  const bytes = Buffer.from(document.junk.carried, 'base64');
  bytes[4] = 1;
  document.junk.carried = bytes.toString('base64');
  const elsewhere = await openMailbox();
  expect(await importSetup(elsewhere, next(), JSON.stringify(document))).toMatchObject({ ok: true });
  const [id] = await arrive(elsewhere, mail('Guaranteed prize money', 'z@z.test', 1));
  expect([placeOf(elsewhere, id), elsewhere.junk.score(id)]).toEqual(['inbox', 50]);
  expect(elsewhere.troubles).toEqual([
    'What the junk filter had learned elsewhere can’t be taken up: An earlier version made it, which read mail otherwise. It goes by your marks here.',
  ]);
  mailbox.close();
  elsewhere.close();
});

test('what is known of a sender counts: people one knows, and who imitates them', async () => {
  const mailbox = await begun();
  const friend = {
    ...mailOf({
      From: 'me@ferry.example',
      To: 'Eilif Marwick <e.marwick@stonness.test>',
      Subject: 'Hello',
      'Message-ID': '<s@x>',
    }),
    place: 'sent' as const,
  };
  await arrive(mailbox, friend);
  const of = (name: string, address: string, listId = '') =>
    mailbox.people.signalsOf({ from: { name, address }, listId });
  expect(of('Eilif Marwick', 'e.marwick@stonness.test')).toEqual(['known']);
  expect(of('Eilif Marwick', 'x@mailhaven.test')).toEqual(['imitates a name']);
  expect(of('Eilif Marwick', 'crew@lists.test', 'crew.lists.test')).toEqual([]);
  expect(of('', 'x@st0nness.test')).toEqual(['imitates a domain']);
  expect(of('Bo', 'bo@other.test')).toEqual([]);
  mailbox.close();
});

test('after a reload the scores are there before anything is sorted: turned off, the filter gives back what it took', async () => {
  const records = new Map<string, unknown>();
  const mailbox = await begun(records);
  await filter(mailbox, { strictness: 40 });
  await markAll(mailbox);
  const [id] = await arrive(mailbox, mail('A prize of guaranteed money', 'c@other.test', 1));
  expect(placeOf(mailbox, id)).toBe('junk');
  await mailbox.flush();
  mailbox.close();
  const again = await openMailbox(memoryStore(records));
  const item = { ...again.setup.junk, strictness: 0 };
  const result = await dryRun(again, [{ list: 'junk', id: 'junk', item }], null);
  expect(result).toMatchObject({ ok: true, report: { moves: [{ from: 'junk', to: 'inbox', count: 1 }] } });
  again.close();
});

test('an answer of the second look that is undone waits again, and is named among those that were answered', async () => {
  const mailbox = await begun();
  await filter(mailbox, { strictness: 40 });
  const [one, other] = await arrive(
    mailbox,
    mail('A prize of guaranteed money', 'c@other.test', 1, 'junk'),
    mail('Cheap pills', 'd@other.test', 2, 'junk'),
  );
  await act(mailbox, next(), { ids: [one] }, { do: 'mark', junk: true });
  const { seq } = mailbox;
  expect(await secondLook(mailbox, 50, [one])).toMatchObject({ total: 1, again: [], rows: [{ id: other }] });
  await undo(mailbox, next(), seq);
  expect(await secondLook(mailbox, 50, [one])).toMatchObject({ total: 2, again: [one] });
  expect(doubtfulJunk(mailbox)).toHaveLength(2);
  // What is read is still in doubt.
  await act(mailbox, next(), { ids: [other] }, { do: 'read', value: true });
  expect(doubtfulJunk(mailbox)).toHaveLength(2);
  mailbox.close();
});
