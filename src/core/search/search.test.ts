// RFC 9051, section 6.4.4: each key by what the RFC says of it; the second and third queries are the RFC's examples.
import fc from 'fast-check';
import { matches, type Searchable } from './match';
import { parseQuery, type Query } from './query';

const parsed = (text: string): Query => {
  const result = parseQuery(text);
  if (!result.ok) throw new Error(`${result.error} (${result.at})`);
  return result.query;
};

const message: Searchable = {
  envelope: {
    from: { name: 'Smith, A.', address: 'smith@harbour.test' },
    to: [{ name: '', address: 'desk@ferry.test' }],
    cc: [{ name: 'Crew', address: 'crew@ferry.test' }],
    subject: 'Fuel for “Solveig”',
    size: 4_000,
  },
  date: Date.UTC(2026, 8, 1, 12),
  read: false,
  flagged: true,
  labels: ['Engine'],
};

test.each([
  ['ALL', true],
  ['FLAGGED SINCE 1-Feb-1994 NOT FROM "Smith"', false],
  ['FLAGGED SINCE 1-Feb-1994 FROM "Smith"', true],
  ['unseen', true],
  ['SEEN', false],
  ['unflagged', false],
  ['to desk', true],
  ['to crew', false],
  ['cc crew', true],
  ['subject "fuel for"', true],
  ['keyword engine', true],
  ['unkeyword engine', false],
  ['before 1-Sep-2026', false],
  ['on 1-Sep-2026', true],
  ['on 2026-09-01', true],
  ['since 2-Sep-2026', false],
  ['larger 4000', false],
  ['larger 3999', true],
  ['smaller 4001', true],
  ['or seen flagged', true],
  ['or seen unflagged', false],
  ['not (seen) (flagged)', true],
  ['(unseen (flagged))', true],
  ['solveig', true],
  ['"smith, a."', true],
  ['"unseen"', false],
  ['"\\"solve\\\\"', false],
])('%s', (query, expected) => {
  expect(matches(parsed(query), message)).toBe(expected);
});

test.each([
  ['from "harbour', 5, 'never closed'],
  ['(unseen', 0, 'never closed'],
  ['unseen)', 6, 'closes none'],
  ['unseen from', 11, 'What from looks for is missing'],
  ['not', 3, 'A key is missing'],
  ['or seen', 7, 'the two keys that “or” takes'],
  ['seen or flagged', 15, 'the two keys that “or” takes'],
  ['since 31-Feb-2026', 6, 'is no date'],
  ['larger much', 7, 'is no size'],
  ['', 0, 'A key is missing'],
  ['()', 0, 'A key is missing'],
  ['x'.repeat(10_001), 10_000, 'at most 10,000'],
  ['('.repeat(200), 51, 'nested too deep'],
])('what is wrong with “%.20s”, and where', (query, at, error) => {
  const result = parseQuery(query);
  expect(result).toMatchObject({ ok: false, at });
  expect(result.ok ? '' : result.error).toContain(error);
});

test('NOT and OR obey logic', () => {
  const key = fc.constantFrom('seen', 'flagged', 'from smith', 'subject rope', 'larger 10', 'cc nobody');
  fc.assert(
    fc.property(key, key, (a, b) => {
      const is = (text: string) => matches(parsed(text), message);
      expect(is(`not (${a} ${b})`)).toBe(is(`or not ${a} not ${b}`));
      expect(is(`or ${a} ${b}`)).toBe(is(a) || is(b));
      expect(is(`not not ${a}`)).toBe(is(a));
    }),
  );
});
