// The automatic answer through the mailroom: once to a person, remembered over reloads, and never twice for a crash.
import type { SetupEdit } from '../../core/line/setupEdit';
import { freshDelivery } from '../../core/delivery/settings';
import { wholeLog } from '../border/log';
import { memoryStore } from '../storage/recordStore';
import { scripted, starter } from '../testing/serviceTesting';
import { testTime } from '../testing/testing';
import { emptySetup } from '../../core/line/setup';

const day = 86_400_000;
let n = 0;
const mail = (from: string, extra = '') => {
  const id = ++n;
  const text =
    `From: ${from}\r\nTo: me@c.example\r\nSubject: Message ${id}\r\nMessage-ID: <${id}@b.example>\r\n` +
    `Date: ${new Date(testTime - day).toUTCString().replace('GMT', '+0000')}\r\n${extra}\r\nText\r\n`;
  return { raw: Buffer.from(text).toString('base64'), place: 'inbox' as const, seen: false, flagged: false };
};

const answer = {
  on: true,
  days: 7,
  texts: [{ account: 'me', subject: 'Away', text: 'I read mail again on Monday.' }],
};
const edits = (on: boolean): SetupEdit[] => [
  { list: 'accounts', id: 'me', item: { id: 'me', name: 'Me', address: 'me@c.example' } },
  { list: 'delivery', id: 'delivery', item: { ...freshDelivery, answer: { ...answer, on } } },
];

async function begun(
  on = true,
  batches = [[mail('a@b.example')], [mail('a@b.example')], [mail('c@b.example')]],
  fails = false,
) {
  const store = memoryStore(new Map());
  const sent: string[] = [];
  const script = scripted([[], ...batches]);
  const given = script.changes;
  const office = Object.assign(script, {
    // One batch at each check.
    changes: async (cursor: string | null) => ({ ...(await given(cursor)), more: false }),
    submit: async (raw: Uint8Array) => {
      if (fails) throw new Error('The post office does not answer.');
      sent.push(new TextDecoder().decode(raw));
      return { messageId: '' };
    },
  });
  const { service } = await starter(() => emptySetup)(office, store);
  await service.begin('demo');
  await service.checkNow();
  await service.editSetup('edit', edits(on), 'Set', false);
  return { service, store, office, sent };
}

test('once to a person, and again to another; it says that it is automatic, and the Logbook says that it went', async () => {
  const { service, sent } = await begun();
  await service.hold('hold', null);
  for (let i = 0; i < 3; i++) await service.checkNow();
  expect(sent).toHaveLength(2);
  expect(sent[0]).toMatch(/^From: Me <me@c\.example>\r$/m);
  expect(sent[0]).toMatch(/^To: a@b\.example\r$/m);
  expect(sent[0]).toMatch(/^Auto-Submitted: auto-replied\r$/m);
  expect(sent[0]).toMatch(/^Subject: Away\r$/m);
  expect(sent[0]).toMatch(/^In-Reply-To: <1@b\.example>\r$/m);
  expect(sent[0]).toContain('I read mail again on Monday.');
  expect(sent[1]).toMatch(/^To: c@b\.example\r$/m);
  const { entries } = await service.logbook(wholeLog, 0, 20);
  expect(entries.map(({ says }) => says)).toContain('Answered a@b.example automatically: “Away”');
});

test('not without a hold, not where it is off, not to lists; what fails is told and not tried again', async () => {
  const none = await begun();
  for (let i = 0; i < 3; i++) await none.service.checkNow();
  expect(none.sent).toEqual([]);
  const off = await begun(false);
  await off.service.hold('hold', null);
  for (let i = 0; i < 3; i++) await off.service.checkNow();
  expect(off.sent).toEqual([]);
  const lists = await begun(true, [[mail('a@b.example', 'List-Id: <x.b.example>\r\n')]]);
  await lists.service.hold('hold', null);
  await lists.service.checkNow();
  expect(lists.sent).toEqual([]);
  const broken = await begun(true, [[mail('a@b.example')], [mail('a@b.example')]], true);
  await broken.service.hold('hold', null);
  for (let i = 0; i < 2; i++) await broken.service.checkNow();
  expect((await broken.service.overview()).troubles).toEqual([
    'An automatic answer could not be sent: The post office does not answer.',
  ]);
});

test('the dry run names whom it would have gone to, and why not to the others', async () => {
  const { service } = await begun(true, [
    [mail('a@b.example'), mail('a@b.example'), mail('no-reply@b.example'), mail('c@b.example', 'List-Id: <x.y>\r\n')],
  ]);
  await service.checkNow();
  const report = await service.automaticAnswerDryRun(answer);
  expect(report).toMatchObject({ days: 7, held: 4, total: 1, answered: [{ to: 'a@b.example' }] });
  expect(report.not.map(({ why, count }) => `${why} ${count}`).sort()).toEqual([
    'it came by a mailing list 1',
    'it comes from a program, or from an address of a role 1',
    'they were answered before 1',
  ]);
});

test('a hundred people within a day and no more: whoever forges senders does not have the mailbox write to all the world', async () => {
  const many = Array.from({ length: 103 }, (_, i) => mail(`p${i}@b.example`));
  const { service, sent } = await begun(true, [many]);
  await service.hold('hold', null);
  await service.checkNow();
  expect(sent).toHaveLength(100);
  expect((await service.overview()).troubles).toEqual([
    '100 people were answered automatically within a day: no more are, until tomorrow.',
  ]);
});
