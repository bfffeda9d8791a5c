// Rules in the mailroom: the dry run is what then happens, and Undo restores all; labels and folders dissolved; flags.
import fc from 'fast-check';
import { Random } from '../../../demo/random';
import type { Ink } from '../../core/mail/label';
import type { Condition, Rule } from '../../core/rules/rule';
import type { Action } from '../../core/effects/effects';
import { readScript, scriptOf } from '../../core/rules/sieve/read';
import { agenda, fallenDue, reminderOf } from './agenda';
import type { SetupEdit } from '../../core/line/setupEdit';
import { act } from '../commands/acts';
import { changeSetup } from '../commands/changeSetup';
import { dissolve } from '../commands/dissolve';
import { dryRun, ruleReach, ruleSetReport } from './dryRuns';
import { runRules } from '../commands/runRules';
import { ageMail } from '../commands/ageing';
import { habit, ruleProposals } from './habits';
import { addMessages } from '../intake/incoming';
import type { Mailbox } from '../service/mailbox';
import { fill, mailOf, openMailbox, stateOf, testTime } from '../testing/testing';
import { undo } from '../commands/undo';

const rule = (id: string, when: Condition[], then: Action[], part: Partial<Rule> = {}): Rule => ({
  id,
  name: '',
  on: true,
  when: { match: 'all', of: when },
  unless: null,
  then,
  ...part,
});
const subject = (text: string): Condition => ({ field: 'subject', how: 'contains', text });
const from = (text: string): Condition => ({ field: 'from', how: 'contains', text });

const base: SetupEdit[] = [
  { list: 'folders', id: 'f', item: { id: 'f', name: 'Fuel' } },
  { list: 'folders', id: 'g', item: { id: 'g', name: 'Oil', parent: 'f' } },
  { list: 'labels', id: 'l', item: { id: 'l', name: 'Later', ink: 'sea' } },
  { list: 'labels', id: 'm', item: { id: 'm', name: 'More', ink: 'moss', parent: 'l' } },
];
const put = (item: Rule): SetupEdit => ({ list: 'rules', id: item.id, item });

let commands = 0;
async function edit(mailbox: Mailbox, edits: SetupEdit[], runHere = false): Promise<number> {
  const result = await changeSetup(mailbox, `edit-${++commands}`, edits, 'Edited', runHere);
  if (!result.ok) throw new Error(result.error);
  return result.receipt.seq ?? -1;
}

async function filled(count: number, now?: () => number): Promise<Mailbox> {
  const mailbox = await openMailbox(undefined, now);
  await edit(mailbox, base);
  await fill(mailbox, count);
  return mailbox;
}

const someRules = fc.array(
  fc.record({
    condition: fc.oneof(
      fc.integer({ min: 0, max: 30 }).map((n) => subject(`Message ${n}`)),
      fc.integer({ min: 0, max: 6 }).map((n) => from(`sender${n}@`)),
      fc.integer({ min: 0, max: 30 }).map((n): Condition => ({ field: 'body', how: 'contains', text: `text of ${n}` })),
    ),
    none: fc.boolean(),
    action: fc.constantFrom<Action>(
      { do: 'move', place: 'folder:f' },
      { do: 'move', place: 'archive' },
      { do: 'label', label: 'l' },
      { do: 'ink', ink: 'plum' as Ink },
      { do: 'flag', due: 'today' },
      { do: 'read' },
    ),
  }),
  { minLength: 1, maxLength: 5 },
);

test('the dry run of some rules is what then happens, message by message, and Undo restores all', async () => {
  await fc.assert(
    fc.asyncProperty(someRules, fc.integer(), async (made, seed) => {
      const mailbox = await filled(31);
      const random = new Random(seed);
      // Some mail was placed by hand before: that stays.
      const ids = Array.from({ length: 31 }, (_, i) => i).filter(() => random.chance(0.2));
      if (ids.length) await act(mailbox, 'hand', { ids }, { do: 'move', place: 'archive' });
      const edits = made.map(({ condition, none, action }, i) =>
        put(rule(`r${i}`, [condition], [action], { when: { match: none ? 'none' : 'all', of: [condition] } })),
      );
      const before = stateOf(mailbox);
      const said = await dryRun(mailbox, edits, null);
      if (!said.ok) throw new Error(said.error);
      const seq = await edit(mailbox, edits, true);
      const after = stateOf(mailbox);
      const changed = after.messages.filter(
        (m, i) => JSON.stringify({ ...m, trace: 0 }) !== JSON.stringify({ ...before.messages[i], trace: 0 }),
      );
      expect(changed).toHaveLength(said.report.total);
      for (const { row, to } of said.report.sample) expect(after.messages[row.id].place).toBe(to);
      for (const id of ids) expect(after.messages[id].place).toBe('archive');
      // Once done there is nothing left to do.
      const again = await dryRun(mailbox, [], null);
      expect(again.ok && again.report.total).toBe(0);
      await undo(mailbox, 'back', seq);
      expect(stateOf(mailbox)).toEqual(before);
    }),
    { numRuns: 25 },
  );
});

test('the set of rules: what each matches and takes, what it loses to which, and the run over the mail here', async () => {
  const mailbox = await filled(28);
  await edit(mailbox, [
    put(rule('one', [from('sender1@')], [{ do: 'move', place: 'folder:f' }])),
    put(rule('two', [subject('Message 1')], [{ do: 'move', place: 'archive' }])),
    put(rule('never', [from('sender1@'), subject('Message 8')], [{ do: 'read' }])),
  ]);
  const report = await ruleSetReport(mailbox, []);
  expect(report.rules).toEqual([
    { id: 'one', matches: 4, acts: 4, lostTo: [], never: null },
    { id: 'two', matches: 11, acts: 9, lostTo: [{ rule: 'one', count: 2 }], never: null },
    { id: 'never', matches: 1, acts: 0, lostTo: [{ rule: 'one', count: 1 }], never: { why: 'shadowed', by: ['one'] } },
  ]);
  expect(report.here.total).toBe(13);
  const before = stateOf(mailbox);
  const { count, seq } = await runRules(mailbox, 'run');
  expect(count).toBe(13);
  expect((await runRules(mailbox, 'again')).says).toMatch(/would change nothing/);
  await undo(mailbox, 'back', seq ?? 0);
  expect(stateOf(mailbox)).toEqual(before);
});

test('a rule to a folder that is gone is refused, and nothing is changed', async () => {
  const mailbox = await filled(3);
  const bad = put(rule('bad', [subject('x')], [{ do: 'move', place: 'folder:gone' }]));
  expect(await changeSetup(mailbox, 'bad', [bad], 'Bad', true)).toEqual({
    ok: false,
    error: 'rules[0].then[0].place: there is no folder with the id “gone”',
  });
  expect(mailbox.setup.rules).toEqual([]);
});

test('labels and folders dissolved: no message is lost, what spoke of them follows, and Undo restores all', async () => {
  const mailbox = await filled(6);
  await edit(mailbox, [
    put(rule('labels', [subject('x')], [{ do: 'label', label: 'l' }])),
    put(
      rule(
        'both',
        [subject('y')],
        [
          { do: 'label', label: 'l' },
          { do: 'label', label: 'm' },
        ],
      ),
    ),
    put(rule('moves', [subject('z')], [{ do: 'move', place: 'folder:f' }])),
  ]);
  await act(mailbox, 'a', { ids: [0, 1] }, { do: 'label', label: 'l', value: true });
  await act(mailbox, 'b', { ids: [1, 2] }, { do: 'label', label: 'm', value: true });
  await act(mailbox, 'c', { ids: [3, 4] }, { do: 'move', place: 'folder:f' });
  const before = stateOf(mailbox);
  const labels = () => stateOf(mailbox).messages.map((m) => m.labels.join());

  const merged = await dissolve(mailbox, 'merge', { of: 'label', id: 'l', into: 'm' });
  expect(merged.says).toBe('Merged the label Later into More (2 messages)');
  expect(labels().slice(0, 3)).toEqual(['m', 'm', 'm']);
  expect(mailbox.setup.labels).toEqual([{ id: 'm', name: 'More', ink: 'moss' }]);
  expect(mailbox.setup.rules.map(({ then }) => then)).toEqual([
    [{ do: 'label', label: 'm' }],
    [{ do: 'label', label: 'm' }],
    [{ do: 'move', place: 'folder:f' }],
  ]);
  await undo(mailbox, 'back-1', merged.seq ?? 0);
  expect(stateOf(mailbox)).toEqual(before);

  const off = await dissolve(mailbox, 'off', { of: 'label', id: 'l', into: null });
  expect(labels().slice(0, 3)).toEqual(['', 'm', 'm']);
  // A rule that did nothing else goes with it.
  expect(mailbox.setup.rules.map(({ id }) => id)).toEqual(['both', 'moves']);
  await undo(mailbox, 'back-2', off.seq ?? 0);
  expect(stateOf(mailbox)).toEqual(before);

  const folder = await dissolve(mailbox, 'folder', { of: 'folder', id: 'f', into: 'archive' });
  expect(folder.says).toBe('Took the folder Fuel off, its mail to Archive (2 messages)');
  expect(stateOf(mailbox).messages.map((m) => m.place)).toEqual([
    'inbox',
    'inbox',
    'inbox',
    'archive',
    'archive',
    'inbox',
  ]);
  expect(mailbox.setup.folders).toEqual([{ id: 'g', name: 'Oil' }]);
  expect(mailbox.setup.rules[2].then).toEqual([{ do: 'move', place: 'archive' }]);
  await undo(mailbox, 'back-3', folder.seq ?? 0);
  expect(stateOf(mailbox)).toEqual(before);
});

test('what a message suggests, and a third like move by hand', async () => {
  const mailbox = await filled(21);
  const proposals = await ruleProposals(mailbox, 1);
  expect(
    proposals.conditions.map(({ condition, count }) =>
      'text' in condition ? `${condition.field} ${condition.text} ${count}` : '',
    ),
  ).toEqual([
    'from sender1@harbour.example 3',
    'from harbour.example 21',
    'subject message 21',
    'recipient desk@ferry.example 21',
  ]);
  expect(proposals.place).toBe(null);
  await act(mailbox, 'a', { ids: [1] }, { do: 'move', place: 'folder:f' });
  await act(mailbox, 'b', { ids: [8] }, { do: 'move', place: 'folder:f' });
  expect(await habit(mailbox, [8], 'folder:f')).toBe(null);
  await act(mailbox, 'c', { ids: [15] }, { do: 'move', place: 'folder:f' });
  expect(await habit(mailbox, [15], 'folder:f')).toEqual({
    id: 15,
    of: 'sender1@harbour.example',
    place: 'folder:f',
    count: 3,
  });
  expect((await ruleProposals(mailbox, 1)).place).toBe('folder:f');
  // Moves of several senders at once are no habit, nor what a rule does already.
  expect(await habit(mailbox, [15, 2], 'folder:f')).toBe(null);
  await edit(mailbox, [put(rule('r', [from('sender1@')], [{ do: 'move', place: 'folder:f' }]))]);
  expect(await habit(mailbox, [15], 'folder:f')).toBe(null);
});

test('a rule on age acts once a message has come of age, not before, and not on what is younger', async () => {
  let time = testTime;
  const mailbox = await filled(3, () => time);
  await edit(mailbox, [
    put(
      rule(
        'old',
        [{ field: 'age', how: 'over', days: 2 }],
        [
          { do: 'move', place: 'archive' },
          { do: 'ink', ink: 'sand' },
        ],
      ),
    ),
  ]);
  expect(await ageMail(mailbox)).toBe(0);
  time += 86_400_000;
  expect(await ageMail(mailbox)).toBe(0);
  time += 86_400_000;
  expect(await ageMail(mailbox)).toBe(3);
  expect(stateOf(mailbox).messages.map(({ place, ink }) => `${place} ${ink}`)).toEqual([
    'archive 10',
    'archive 10',
    'archive 10',
  ]);
  time += 86_400_000;
  expect(await ageMail(mailbox)).toBe(0);
});

test('“answers me” and deep conditions hold on arrival as in a dry run', async () => {
  const mailbox = await openMailbox();
  await edit(mailbox, [
    ...base,
    { list: 'accounts', id: 'me', item: { id: 'me', name: 'Me', address: 'me@y.test' } },
    put(rule('answers', [{ field: 'answer' }], [{ do: 'label', label: 'l' }])),
    put(
      rule(
        'deep',
        [
          { field: 'header', name: 'X-Kind', how: 'is', text: 'bulk' },
          { field: 'body', how: 'contains', text: 'the tide' },
        ],
        [
          { do: 'ink', ink: 'teal' },
          { do: 'flag', due: 'today' },
        ],
      ),
    ),
  ]);
  const mail = [
    mailOf({ From: 'me@y.test', To: 'a@x.test', 'Message-ID': '<1@y>', Subject: 'Berth' }),
    mailOf(
      { From: 'a@x.test', To: 'me@y.test', 'Message-ID': '<2@x>', 'In-Reply-To': '<1@y>', 'X-Kind': 'Bulk' },
      'Of the\ntide',
    ),
  ];
  await mailbox.exclusive(() => addMessages(mailbox, mail, { command: 'in', by: 'you', says: 'In' }));
  const [, answer] = stateOf(mailbox).messages;
  expect(answer).toMatchObject({ labels: ['l'], ink: 8 });
  expect(answer.due).toBe(new Date(testTime).setHours(23, 59, 59, 999));
  expect((await runRules(mailbox, 'run')).count).toBe(0);
});

test('the Agenda: by due date, then without one; done keeps that it was done; reminders at their time', async () => {
  const mailbox = await filled(5);
  const day = 86_400_000;
  await act(mailbox, 'a', { ids: [0] }, { do: 'flag', value: true });
  await act(mailbox, 'b', { ids: [1] }, { do: 'flag', value: true, due: testTime + day });
  await act(mailbox, 'c', { ids: [2] }, { do: 'flag', value: true, due: testTime + 60_000 });
  await act(mailbox, 'd', { ids: [3] }, { do: 'flag', value: true });
  await act(mailbox, 'e', { ids: [3] }, { do: 'done' });
  const { rows, done, total } = await agenda(mailbox);
  expect(rows.map(({ id }) => id)).toEqual([2, 1, 0]);
  expect(done.map(({ id, flagged, done: its }) => [id, flagged, its])).toEqual([[3, false, true]]);
  expect(total).toBe(3);
  expect((await fallenDue(mailbox, testTime, testTime + 30_000)).length).toBe(0);
  expect((await fallenDue(mailbox, testTime, testTime + 60_000)).map(({ id }) => id)).toEqual([2]);
  // A flag for a whole day is told of at nine in the morning.
  const wholeDay = new Date(2026, 10, 25, 23, 59, 59, 999).getTime();
  expect(reminderOf(wholeDay)).toBe(new Date(2026, 10, 25, 9).getTime());
  // Flagged again it is not done any more.
  await act(mailbox, 'f', { ids: [3] }, { do: 'flag', value: true });
  expect((await agenda(mailbox)).done).toEqual([]);
});

test('a script taken up in place of the rules is undone whole', async () => {
  const mailbox = await filled(1);
  await edit(mailbox, [
    put(rule('one', [subject('x')], [{ do: 'read' }])),
    put(rule('two', [subject('y')], [{ do: 'move', place: 'folder:f' }])),
  ]);
  const before = mailbox.setup;
  const script = scriptOf(before).script.replace('"x"', '"changed"');
  const result = readScript(`${script}if true { fileinto "New/Deep"; }\n`, before, () => `new-${++commands}`);
  if (!result.ok) throw new Error(result.error.says);
  const { rules, folders } = result.read;
  expect(rules.map(({ id }) => id)).toEqual(['one', 'two', expect.stringMatching(/^new-/)]);
  const seq = await edit(mailbox, [
    ...folders.map((item): SetupEdit => ({ list: 'folders', id: item.id, item })),
    ...rules.map((item, at): SetupEdit => ({ list: 'rules', id: item.id, item, at })),
  ]);
  expect(mailbox.setup.folders).toHaveLength(4);
  await undo(mailbox, 'undo-script', seq);
  expect(mailbox.setup).toEqual(before);
});

test('all of the messages are shown where that is asked for, in one order whatever the number', async () => {
  const mailbox = await filled(260);
  const edits = [put(rule('all', [subject('Message')], [{ do: 'move', place: 'archive' }]))];
  const shown = async (most?: number) => {
    const said = await dryRun(mailbox, edits, null, undefined, most);
    return said.ok ? said.report.sample.map(({ row }) => row.id) : [];
  };
  const all = await shown(700);
  expect(all).toHaveLength(260);
  expect(await shown()).toEqual(all.slice(0, 200));
  expect(await shown(10)).toEqual(all.slice(0, 10));
});

test('while a rule is edited it is said: impossible, never reached, contradicting, and what it would take from others', async () => {
  const mailbox = await filled(14);
  const archive: Action = { do: 'move', place: 'archive' };
  await edit(mailbox, [
    put(rule('plum', [from('sender1@')], [{ do: 'ink', ink: 'plum' }])),
    put(rule('narrow', [from('sender1@harbour'), subject('Message')], [archive])),
  ]);
  const reach = (made: Rule, at?: number) =>
    ruleReach(mailbox, [{ ...put(made), ...(at === undefined ? {} : { at }) } as SetupEdit], made.id);
  const is = (text: string): Condition => ({ field: 'subject', how: 'is', text });
  expect(reach(rule('x', [is('a'), is('b')], [archive]))).toMatchObject({ never: { why: 'impossible' } });
  expect(reach(rule('x', [from('sender1@harbour.example'), subject('Message 1')], [{ do: 'read' }]))).toEqual({
    never: { why: 'shadowed', by: ['narrow'] },
    contradictions: [],
    shadows: [],
  });
  expect(reach(rule('x', [subject('Message 1')], [{ do: 'ink', ink: 'moss' }]), 1)).toMatchObject({
    never: null,
    contradictions: [{ first: 'plum', second: 'x', about: 'ink' }],
  });
  expect(reach(rule('x', [from('sender')], [archive]), 1)).toMatchObject({ never: null, shadows: ['narrow'] });
  // What is off neither does nor hinders.
  expect(reach({ ...rule('x', [from('sender')], [archive]), on: false }, 1)).toBeNull();
});
