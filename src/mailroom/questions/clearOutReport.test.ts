// Clearing out: what is said is what is done, and one Undo brings all of it back.
import { everythingGoes, type ClearOut } from '../../core/clearout/clearOut';
import { act } from '../commands/acts';
import { clearOutReport } from './clearOutReport';
import type { Incoming } from '../intake/incoming';
import type { Mailbox } from '../service/mailbox';
import { mailOf, openWith, stateOf, testTime } from '../testing/testing';
import { undo } from '../commands/undo';
import type { View } from '../border/views';

const inbox: View = { kind: 'place', place: 'inbox' };
const day = 86_400_000;

const mail = (n: number, ago: number, fields: Record<string, string> = {}, text = `Text ${n}`): Incoming =>
  mailOf(
    {
      From: `Sender ${n % 3} <s${n % 3}@x${n % 2}.test>`,
      To: 'me@y.test',
      'Message-ID': `<${n}@x.test>`,
      Subject: `Message ${n}`,
      Date: new Date(testTime - ago * day).toUTCString().replace('GMT', '+0000'),
      ...fields,
    },
    text,
  );

const report = async (mailbox: Mailbox, some: Partial<ClearOut>, of: View | null = inbox) => {
  const found = await clearOutReport(mailbox, { ...everythingGoes, ...some }, of, () => true);
  if (!found) throw new Error('Somebody waited.');
  return found;
};

const many = () => Array.from({ length: 120 }, (_, n) => mail(n, n * 3));

test.each<[string, Partial<ClearOut>, number]>([
  ['all but the newest 50', { keepNewest: 50 }, 70],
  ['older than six months', { older: { n: 6, unit: 'months' } }, 58],
  ['unread', { state: 'unread' }, 90],
  ['a sender', { from: { by: 'address', value: 's0@x0.test' } }, 20],
  ['a domain', { from: { by: 'domain', value: 'x1.test' } }, 60],
  ['those kept by id stay', { keep: [0, 1, 2, 500] }, 117],
])('%s: said, done, and undone as one', async (_what, some, expected) => {
  const mailbox = await openWith(many());
  await act(mailbox, 'read', { ids: Array.from({ length: 30 }, (_, id) => id) }, { do: 'read', value: true });
  const before = stateOf(mailbox);
  const said = await report(mailbox, some);
  expect([said.count, said.of]).toEqual([expected, 120]);
  expect(said.newest.concat(said.oldest).length).toBe(Math.min(10, expected));
  const choice = { ...everythingGoes, ...some };
  const done = await act(mailbox, 'clear', { clearOut: choice, of: inbox }, { do: 'move', place: 'bin' });
  expect(done.count).toBe(expected);
  expect(mailbox.views.list({ kind: 'place', place: 'bin' })).toHaveLength(expected);
  await undo(mailbox, 'undo', done.seq ?? 0);
  expect(stateOf(mailbox)).toEqual(before);
});

test('what stands out is counted and shown, and can be spared', async () => {
  const mailbox = await openWith([
    mail(1, 1),
    mail(2, 2, { To: 'me@y.test, other@z.test' }),
    mail(3, 3, { From: 'me@y.test', To: 's1@x1.test', 'In-Reply-To': '<1@x.test>' }),
    mail(4, 4, { 'Content-Type': 'application/pdf; name=a.pdf', 'Content-Disposition': 'attachment; filename=a.pdf' }),
    mail(5, 5, { 'List-Id': '<l.x.test>' }),
  ]);
  await act(mailbox, 'flag', { ids: [1] }, { do: 'flag', value: true });
  const said = await report(mailbox, {});
  // The first was answered; the person wrote to its sender, who wrote nothing else.
  expect(said.standsOut).toEqual({ flagged: 1, unanswered: 1, known: 1, attachments: 1 });
  expect(said.examples.unanswered.map((row) => row.id)).toEqual([3]);
  expect(said.examples.flagged.map((row) => row.id)).toEqual([1]);
  const spared = await report(mailbox, { spare: ['flagged', 'attachments'] });
  expect([spared.count, spared.spared]).toEqual([said.count - 2, 2]);
  expect(spared.examples.flagged).toEqual([]);
});

test('what is in the Archive already is said to stay when the rest is archived', async () => {
  const mailbox = await openWith(many());
  await act(mailbox, 'some', { ids: [0, 1, 2] }, { do: 'move', place: 'archive' });
  const said = await report(mailbox, {}, null);
  expect([said.count, said.already]).toEqual([120, { archive: 3, bin: 0 }]);
  const done = await act(mailbox, 'all', { clearOut: everythingGoes, of: null }, { do: 'move', place: 'archive' });
  expect(done.count).toBe(said.count - said.already.archive);
});

test('of all places: not of Junk, the Bin, Sent and Drafts; of what was found: only that', async () => {
  const mailbox = await openWith(many());
  for (const [id, place] of ['junk', 'bin', 'sent', 'drafts', 'archive'].entries())
    await act(mailbox, `move-${place}`, { ids: [id] }, { do: 'move', place: place as 'junk' });
  expect((await report(mailbox, {}, null)).count).toBe(116);
  const found: View = { kind: 'found', query: 'from s0 subject "message 1"', within: null };
  expect((await report(mailbox, {}, found)).count).toBe(9);
});

test('silenced conversations, and what stands whole in a later message', async () => {
  const long = 'The crane is out of order until Friday, and the berth is closed.';
  const mailbox = await openWith([
    mail(1, 9, {}, long),
    mail(2, 8, { References: '<1@x.test>' }, `I see.\n> ${long}`),
    mail(3, 7, { References: '<1@x.test> <2@x.test>' }, `And the ramp?\n> I see.\n>> ${long}`),
    mail(4, 6, {}, long),
    mail(5, 5, {}, 'Another thing'),
  ]);
  await act(mailbox, 'read', { ids: [0, 1, 2, 3, 4] }, { do: 'read', value: true });
  const said = await report(mailbox, { redundant: true });
  expect(said.newest.map((row) => row.subject)).toEqual(['Message 2', 'Message 1']);
  // Unread again, it stays: what was known of its conversation no longer holds.
  await act(mailbox, 'unread', { ids: [0] }, { do: 'read', value: false });
  expect((await report(mailbox, { redundant: true })).count).toBe(1);
  await act(mailbox, 'silence', { ids: [4] }, { do: 'silence', value: true, place: 'archive' });
  expect((await report(mailbox, { silenced: true }, null)).newest.map((row) => row.id)).toEqual([4]);
  const done = await act(
    mailbox,
    'clear',
    { clearOut: { ...everythingGoes, redundant: true }, of: inbox },
    { do: 'move', place: 'bin' },
  );
  expect(done.count).toBe(1);
});

test('a long look ends where nobody waits for it any more', async () => {
  const list = Array.from({ length: 3_000 }, (_, n) => ({
    ...mail(n, 1, n % 2 ? { References: `<${n - 1}@x.test>`, Subject: `Re: ${n - 1}` } : { Subject: `${n}` }),
    read: true,
  }));
  const mailbox = await openWith(list);
  const told: [number, number][] = [];
  const choice = { ...everythingGoes, redundant: true };
  const stopped = await clearOutReport(mailbox, choice, inbox, (done, total) => {
    told.push([done, total]);
    return false;
  });
  expect([stopped, told]).toEqual([null, [[32, 1_500]]]);
});
