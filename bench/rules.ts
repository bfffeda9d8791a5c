// Rules over a mailbox: a dry run of 10, 50 and 200 rules of mixed kinds, one message decided, and the live preview while
// one of 50 is edited. All in Node.js, over the mailbox as the mailroom holds it.
import { AccountIndex } from '../src/core/mail/account';
import { DeepTexts } from '../src/core/rules/deep';
import { RuleSet } from '../src/core/rules/match';
import type { Rule } from '../src/core/rules/rule';
import { messageFor } from '../src/core/rules/ruleTesting';
import { Line } from '../src/core/line/decide';
import { messageOf } from '../src/core/mail/mbox';
import type { SetupEdit } from '../src/core/line/setupEdit';
import { candidates } from '../src/mailroom/search/candidates';
import { changeSetup } from '../src/mailroom/commands/changeSetup';
import { dryRun } from '../src/mailroom/questions/dryRuns';
import type { Mailbox } from '../src/mailroom/service/mailbox';
import { someFolders, someLabels, someRules, wordsOf } from './someRules';
import { Message } from '../src/core';

/** Milliseconds; `decide` in microseconds. */
export interface RuleFigures {
  dryRun: Record<10 | 50 | 200, number>;
  decide: number;
  preview: number;
  phrase: number;
}

async function timed(work: () => Promise<unknown>): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < 3; i++) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[1];
}

/** Measures on a mailbox that was filled. */
export async function measureRules(mailbox: Mailbox): Promise<RuleFigures> {
  const some: { envelope: ReturnType<Mailbox['envelopes']['get']>; raw: Uint8Array }[] = [];
  const { count } = mailbox.columns;
  for (let id = 0; id < count; id += Math.ceil(count / 400)) {
    const stored = await mailbox.raws.read(id);
    if (stored) some.push({ envelope: mailbox.envelopes.get(id), raw: messageOf(stored.bytes, stored.form) });
  }
  const words = wordsOf(some);
  // What only reading tells (a phrase, the value of a header field) is measured by itself.
  const indexed = { ...words, bodies: words.bodies.flatMap((text) => text.split(' ').filter((w) => w.length > 3)) };
  // Rules as people write them: each for a small part of the mail, up to a tenth of it.
  const accounts = new AccountIndex(mailbox.setup.accounts);
  const rules: Rule[] = [];
  for (let seed = 1_000; rules.length < 200 && seed < 20_000; seed++) {
    const [rule] = someRules(seed, indexed, 1, false);
    if (JSON.stringify(rule).includes('"header"')) continue;
    const set = new RuleSet([{ ...rule, on: true }]);
    const share = some.filter(({ envelope, raw }) =>
      set.any(messageFor(envelope, accounts, { deep: new DeepTexts(() => new Message(raw)).holds })),
    ).length;
    if (share > 0 && share <= some.length / 10) rules.push({ ...rule, on: true });
  }
  const base: SetupEdit[] = [
    ...someFolders.map((item): SetupEdit => ({ list: 'folders', id: item.id, item })),
    ...someLabels.map((item): SetupEdit => ({ list: 'labels', id: item.id, item })),
  ];
  await changeSetup(mailbox, 'bench-base', base, 'Bench', false);
  const edits = (n: number) =>
    Array.from({ length: n }, (_, i): SetupEdit => {
      const item = { ...rules[i % rules.length], id: `bench-${i}` };
      return { list: 'rules', id: item.id, item };
    });
  const run = async (n: 10 | 50 | 200) => {
    await dryRun(mailbox, edits(n), null);
    return timed(() => dryRun(mailbox, edits(n), null));
  };
  const figures = { 10: await run(10), 50: await run(50), 200: await run(200) };
  await changeSetup(mailbox, 'bench-rules', edits(50), 'Bench', false);
  const line = new Line(mailbox.setup);
  const list = [...candidates(mailbox)].slice(0, 20_000);
  const decide = await timed(async () => {
    for (const candidate of list) line.decide(candidate.envelope, candidate);
  });
  let typed = 0;
  const preview = (text: () => string) =>
    timed(() => {
      const item = {
        ...rules[7],
        id: 'bench-7',
        when: { match: 'all' as const, of: [{ field: 'body' as const, how: 'contains' as const, text: text() }] },
      };
      return dryRun(mailbox, [{ list: 'rules', id: 'bench-7', item }], 'bench-7');
    });
  // A text that was not asked for before, as when it is being typed.
  const word = await preview(() => indexed.bodies[typed++ * 37] ?? 'nothing');
  const phrase = await preview(() => words.bodies.filter((text) => text.includes(' '))[typed++] ?? 'no phrase');
  return { dryRun: figures, decide: (decide / list.length) * 1_000, preview: word, phrase };
}
