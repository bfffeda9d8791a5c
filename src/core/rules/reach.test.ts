import { cases } from '../../../bench/chance';
import fc from 'fast-check';
import { AccountIndex } from '../mail/account';
import { parseEnvelope } from '../mail/envelope';
import { RuleSet } from './match';
import { contradictions, unreached } from './reach';
import type { Condition, Group, Rule } from './rule';
import { messageFor } from './ruleTesting';

const rule = (id: string, when: Group, part: Partial<Rule> = {}): Rule => ({
  id,
  name: '',
  on: true,
  when,
  unless: null,
  then: [{ do: 'move', place: 'archive' }],
  ...part,
});
const all = (...of: Condition[]): Group => ({ match: 'all', of });
const subject = (text: string, how: 'contains' | 'is' | 'begins' | 'ends' = 'contains'): Condition => ({
  field: 'subject',
  how,
  text,
});

test.each<[string, Group, Group, boolean]>([
  ['the same', all(subject('fuel')), all(subject('FUEL')), true],
  ['a longer text holds the shorter', all(subject('fuel')), all(subject('fuel price')), true],
  ['a shorter text may be without the longer', all(subject('fuel price')), all(subject('fuel')), false],
  ['fewer conditions take what more would', all(subject('a')), all(subject('a'), subject('b')), true],
  [
    'an address is of its domain',
    all({ field: 'from', how: 'domain', text: 'x.test' }),
    all({ field: 'from', how: 'is', text: 'a@x.test' }),
    true,
  ],
  [
    'To is one way of being a recipient',
    all({ field: 'recipient', how: 'contains', text: 'a' }),
    all({ field: 'to', how: 'contains', text: 'ab' }),
    true,
  ],
  [
    'over 10 KB is over 5 KB',
    all({ field: 'size', how: 'over', bytes: 5_000 }),
    all({ field: 'size', how: 'over', bytes: 10_000 }),
    true,
  ],
  [
    'a field that says something is there',
    all({ field: 'header', name: 'X-A', how: 'there', text: '' }),
    all({ field: 'header', name: 'x-a', how: 'contains', text: 'b' }),
    true,
  ],
  ['every message', all({ field: 'every' }), all(subject('a')), true],
])('%s', (_, first, second, shadowed) => {
  const found = unreached([rule('one', first), rule('two', second)]);
  expect(found.get('two')).toEqual(shadowed ? { why: 'shadowed', by: ['one'] } : undefined);
  // What lets messages go on shadows nothing.
  expect(unreached([rule('one', first, { then: [{ do: 'read' }] }), rule('two', second)]).size).toBe(0);
  expect(unreached([rule('one', first, { on: false }), rule('two', second)]).size).toBe(0);
});

test('several rules together take all of a later one, and only those are named', () => {
  const rules = [
    rule('other', all(subject('z'))),
    rule('small', all({ field: 'size', how: 'under', bytes: 100 })),
    rule('large', all({ field: 'size', how: 'over', bytes: 99 })),
    rule('late', all(subject('a'))),
  ];
  expect(unreached(rules)).toEqual(new Map([['late', { why: 'shadowed', by: ['small', 'large'] }]]));
});

test('conditions that exclude each other', () => {
  const never = all({ field: 'size', how: 'over', bytes: 10 }, { field: 'size', how: 'under', bytes: 11 });
  expect(unreached([rule('x', never)])).toEqual(new Map([['x', { why: 'impossible' }]]));
  const unless = rule('y', all(subject('ab')), { unless: all(subject('b')) });
  expect(unreached([unless])).toEqual(new Map([['y', { why: 'impossible' }]]));
});

test('contradictions: two inks for one row, where both rules are asked', () => {
  const ink = (id: string, text: string, colour: 'sea' | 'moss', stop = false) =>
    rule(id, all(subject(text)), { then: [{ do: 'ink', ink: colour }, ...(stop ? [{ do: 'stop' as const }] : [])] });
  expect(contradictions([ink('a', 'x', 'sea'), ink('b', 'y', 'moss')])).toEqual([
    { first: 'a', second: 'b', about: 'ink' },
  ]);
  expect(contradictions([ink('a', 'x', 'sea', true), ink('b', 'y', 'moss')])).toEqual([]);
  expect(contradictions([ink('a', 'x', 'sea'), ink('b', 'y', 'sea')])).toEqual([]);
});

const [ofX, ofY] = [
  ['p@x.test', 'o@x.test'],
  ['q@y.test', 'o@y.test'],
];
const senders = ['', ...ofX, ...ofY, ...ofX.flatMap((x) => ofY.map((y) => `${x}, ${y}`))];

/** All that subjects, senders, sizes and addressing can be where conditions speak of so little. */
const universe = (() => {
  const texts = [''];
  for (let length = 0, from = 0; length < 4; length++) {
    const to = texts.length;
    for (; from < to; from++) for (const letter of 'abc') texts.push(texts[from] + letter);
  }
  const accounts = new AccountIndex([{ id: 'me', name: 'Me', address: 'me@m.test' }]);
  const encoder = new TextEncoder();
  return texts.flatMap((text) =>
    senders.flatMap((from) =>
      ['me@m.test', 'me@m.test, z@z.test', 'z@z.test'].flatMap((to) => {
        const envelope = parseEnvelope(encoder.encode(`From: ${from}\nTo: ${to}\nSubject: ${text}\n\n`));
        return [0, 1, 2, 3, 4].map((size) => messageFor({ ...envelope, size }, accounts));
      }),
    ),
  );
})();

const condition: fc.Arbitrary<Condition> = fc.oneof(
  fc.record({
    field: fc.constant('subject' as const),
    how: fc.constantFrom('contains' as const, 'is' as const, 'begins' as const, 'ends' as const),
    text: fc.constantFrom('a', 'b', 'ab', 'ba'),
  }),
  fc.constantFrom<Condition>(
    { field: 'from', how: 'is', text: 'p@x.test' },
    { field: 'from', how: 'is', text: 'q@y.test' },
    { field: 'from', how: 'domain', text: 'x.test' },
    { field: 'from', how: 'domain', text: 'y.test' },
  ),
  fc.record({
    field: fc.constant('size' as const),
    how: fc.constantFrom('over' as const, 'under' as const),
    bytes: fc.constantFrom(1, 2, 3),
  }),
  fc.record({
    field: fc.constant('addressed' as const),
    is: fc.constantFrom('alone' as const, 'among' as const, 'not' as const),
  }),
);
const match = fc.constantFrom('all' as const, 'any' as const, 'none' as const);
const inner = fc.record({ match, of: fc.array(condition, { minLength: 1, maxLength: 2 }) });
const group = fc.record({
  match,
  of: fc.array(fc.oneof({ weight: 3, arbitrary: condition }, { weight: 1, arbitrary: inner }), {
    minLength: 1,
    maxLength: 2,
  }),
});

test('reach agrees with trying all messages there can be, on small sets', () => {
  const some = fc.array(fc.record({ when: group, unless: fc.option(group, { freq: 4 }), moves: fc.boolean() }), {
    minLength: 1,
    maxLength: 4,
  });
  fc.assert(
    fc.property(some, (made) => {
      const rules = made.map(({ when, unless, moves }, i) =>
        rule(`r${i}`, when, { unless, then: [moves ? { do: 'move', place: 'bin' } : { do: 'read' }] }),
      );
      const set = new RuleSet(rules);
      const reached = new Set(universe.flatMap((message) => set.matching(message).map(({ id }) => id)));
      const never = unreached(rules);
      expect(rules.filter(({ id }) => !reached.has(id)).map(({ id }) => id)).toEqual([...never.keys()]);
      // The rules that are named take all of it by themselves.
      for (const [id, found] of never) {
        const named = new Set(found.why === 'shadowed' ? [...found.by, id] : [id]);
        const alone = new RuleSet(rules.filter((one) => named.has(one.id)));
        expect(universe.some((message) => alone.matching(message).some((one) => one.id === id))).toBe(false);
      }
    }),
    { numRuns: cases(50) },
  );
});
