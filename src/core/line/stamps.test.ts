// Stamps: what they say, what can't stand in one, as a file, and rules that run them.
import { effects } from '../effects/effects';
import { Line } from './decide';
import { dryRun } from './dryRun';
import { checkSetup, emptySetup, type Setup } from './setup';
import { parseEnvelope } from '../mail/envelope';
import { readyStamps } from '../stamps/ready';
import { readStampFile, stampFile } from '../stamps/stampFile';
import {
  isUnchosen,
  lastingWords,
  missingTarget,
  stampSchema,
  stampTrouble,
  stampWords,
  whyNoRule,
  type Stamp,
} from '../stamps/stamp';
import { contradictions, unreached } from '../rules/reach';
import type { Rule } from '../rules/rule';
import { readScript, scriptOf } from '../rules/sieve/read';
import { rulesRun } from '../rules/stampsRun';

const bills: Stamp = {
  id: 's1',
  name: 'Bills',
  icon: 'money',
  ink: 'ochre',
  acts: [
    { do: 'label', label: 'l1' },
    { do: 'flag', due: 'next week' },
    { do: 'ink', ink: 'moss' },
    { do: 'move', place: 'folder:f1' },
  ],
};
const rule = (id: string, text: string, then: Rule['then']): Rule => ({
  id,
  name: id,
  on: true,
  when: { match: 'all', of: [{ field: 'subject', how: 'contains', text }] },
  unless: null,
  then,
});
const setup = (rules: Rule[], stamps: Stamp[] = [bills]): Setup => ({
  ...emptySetup,
  folders: [{ id: 'f1', name: 'Bills' }],
  labels: [{ id: 'l1', name: 'Bills', ink: 'ochre' }],
  blocks: [{ id: 'b1', name: 'thanks', html: '<p>Thanks</p>' }],
  stamps,
  rules,
});
const envelope = parseEnvelope(
  new TextEncoder().encode(
    'From: a@x.example\r\nSubject: The invoice\r\nDate: Fri, 27 Nov 2026 09:00:00 +0000\r\n\r\nText',
  ),
);

test('in words: all that it does, what lasts, what is missing', () => {
  const names = setup([]);
  expect(stampWords(bills, names)).toBe(
    'label it Bills, flag it for next week, ink its row in moss and move it to Bills',
  );
  const sends: Stamp = { ...bills, acts: [{ do: 'answer', block: 'b1' }, { do: 'delete' }] };
  expect(lastingWords(sends)).toBe('sends and deletes for good');
  expect(missingTarget(bills, names)).toBeNull();
  expect(missingTarget({ acts: [{ do: 'move', place: 'folder:gone' }] }, names)).toMatchObject({
    at: 0,
    field: 'place',
  });
  expect(
    missingTarget({ acts: [{ do: 'forward', to: '', whom: { by: 'role', role: 'manager' }, form: 'text' }] }, names)
      ?.says,
  ).toMatch(/Nobody is my manager yet/);
});

test('a stamp within a stamp, or what only rules do, is none', () => {
  expect(stampSchema.safeParse({ ...bills, acts: [{ do: 'stop' }] }).success).toBe(false);
  expect(stampSchema.safeParse({ ...bills, acts: [{ do: 'stamp', stamp: 's1' }] }).success).toBe(false);
});

test.each<[Stamp['acts'], RegExp | null]>([
  [bills.acts, null],
  [[{ do: 'move', place: 'bin' }, { do: 'delete' }], /one place only/],
  [[{ do: 'read' }, { do: 'unread' }], /read and unread/],
  [[{ do: 'flag', due: 'none' }, { do: 'done' }], /flagged and done/],
  [[{ do: 'delete' }, { do: 'read' }], /deleted last/],
  [[{ do: 'appointment' }, { do: 'task', due: 'ask' }], /Only one thing can open/],
])('what can’t all have its way: %#', (acts, says) => {
  if (says) expect(stampTrouble({ acts })).toMatch(says);
  else expect(stampTrouble({ acts })).toBeNull();
});

test('the ready ones are stamps, and ask for what they lack', () => {
  for (const { says, ...ready } of readyStamps([])) {
    expect(says).not.toBe('');
    expect(stampTrouble(stampSchema.parse({ id: 'x', ...ready }))).toBeNull();
  }
  expect(readyStamps([]).flatMap(({ acts }) => acts.filter(isUnchosen))).toHaveLength(2);
  expect(readyStamps(setup([]).labels).flatMap(({ acts }) => acts.filter(isUnchosen))).toHaveLength(1);
});

test('as a file: by their names, whatever their ids are', () => {
  const text = stampFile(bills, setup([]));
  const elsewhere = { ...setup([]), folders: [{ id: 'other', name: 'bills' }], labels: [] };
  expect(readStampFile(text, elsewhere, 'new')).toEqual({
    ok: true,
    stamp: {
      ...bills,
      id: 'new',
      acts: [{ do: 'label', label: 'unchosen' }, bills.acts[1], bills.acts[2], { do: 'move', place: 'folder:other' }],
    },
    unchosen: ['Bills'],
  });
  expect(readStampFile('{', elsewhere, 'new')).toMatchObject({
    ok: false,
    error: expect.stringMatching(/no file of a stamp/) as string,
  });
  expect(readStampFile('{"format":"wide-sort-stamp"}', elsewhere, 'new')).toMatchObject({ ok: false });
});

describe('rules run stamps', () => {
  const running = rule('r', 'invoice', [{ do: 'stamp', stamp: 's1' }]);
  test('as if its acts stood in the rule, traced and all', () => {
    const decision = new Line(setup([running])).decide(envelope);
    expect(decision).toMatchObject({ place: 'folder:f1', labels: ['l1'], ink: 'moss' });
    expect(decision.trace.at(-1)?.says).toMatch(
      /“r” labelled it Bills, flagged it for next week, inked its row in moss, moved it to Bills/,
    );
  });
  test('in a dry run, also where only the stamp changes', () => {
    const candidate = { id: 0, envelope, place: 'inbox' as const, labels: [], read: false, byHand: false };
    expect(dryRun([candidate], setup([]), setup([running]))).toMatchObject([{ from: 'inbox', to: 'folder:f1' }]);
    const other = { ...bills, acts: [{ do: 'move' as const, place: 'archive' as const }] };
    expect(dryRun([{ ...candidate, place: 'folder:f1' }], setup([running]), setup([running], [other]))).toMatchObject([
      { from: 'folder:f1', to: 'archive' },
    ]);
  });
  test('in reach and contradictions', () => {
    const below = rule('below', 'invoice', [{ do: 'label', label: 'l1' }]);
    expect(unreached(rulesRun(setup([running, below]))).get('below')).toEqual({ why: 'shadowed', by: ['r'] });
    const inking = { ...bills, acts: [{ do: 'ink' as const, ink: 'sea' as const }] };
    const moss = rule('moss', 'invoice', [{ do: 'ink', ink: 'moss' }]);
    expect(contradictions(rulesRun(setup([running, moss], [inking])))).toEqual([
      { first: 'r', second: 'moss', about: 'ink' },
    ]);
  });
  test('in Sieve: its acts for the server, and the stamp for us', () => {
    const { script } = scriptOf(setup([running]));
    expect(script).toMatch(/addflag \["Bills", "\\\\Flagged", "ink-moss"\]|addflag/);
    expect(script).toContain('fileinto "Bills";');
    const read = readScript(script, setup([]), () => 'x');
    expect(read.ok && read.read.rules).toEqual([running]);
  });
  test('one that asks no rule runs, and the setup says so', () => {
    for (const act of [
      { do: 'delete' as const },
      { do: 'thinOut' as const },
      { do: 'appointment' as const },
      { do: 'answer' as const, block: 'b1', open: true },
    ]) {
      const asking = { ...bills, acts: [act] };
      expect(whyNoRule(asking, setup([]))).toMatch(/A rule can’t run/);
      expect(checkSetup(setup([running], [asking]))).toMatchObject({
        ok: false,
        error: expect.stringMatching(/rules\[0\].then\[0\].stamp/) as string,
      });
    }
    expect(checkSetup(setup([running]))).toMatchObject({ ok: true });
  });
});

test('every act says why a rule can’t do it, where it is a stamp’s alone', () => {
  for (const kind of effects) {
    if (!('only' in kind) || kind.only !== 'stamp') continue;
    const fresh = kind.fresh({ folders: [], labels: [] }, 'x');
    expect((kind.asks as ((act: unknown) => string | null) | undefined)?.(fresh)).toBeTruthy();
  }
});
