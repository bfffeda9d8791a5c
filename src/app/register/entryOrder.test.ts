import type { Entry } from '../../core/senders/register';
import { columns, ordered, type Order } from './entryOrder';

const entry = (id: string, value: string, part: Partial<Entry> = {}): Entry => ({
  id,
  kind: 'domain',
  value,
  standing: 'blocked',
  since: 0,
  why: '',
  ...part,
});
const entries = [
  entry('a', 'zulu.example', { since: 3 }),
  entry('b', 'alfa.example', { standing: 'safe' }),
  entry('c', 'mike.example', { kind: 'list', since: 9 }),
];
const uses = { a: { decided: 2, last: 20 }, c: { decided: 7, last: null } };

test.each<[Order, string]>([
  ['about', 'bca'],
  ['kind', 'bac'],
  // Alike ones stand by what they are about.
  ['standing', 'cab'],
  // The newest, the busiest and the latest first.
  ['since', 'cab'],
  ['decided', 'cab'],
  ['last', 'abc'],
])('by %s', (by, order) => {
  expect(
    ordered(entries, uses, by, false)
      .map(({ id }) => id)
      .join(''),
  ).toBe(order);
  expect(
    ordered(entries, uses, by, true)
      .map(({ id }) => id)
      .join(''),
  ).toBe([...order].reverse().join(''));
});

test('every column has an order', () => {
  for (const [order] of columns) expect(ordered(entries, {}, order, false)).toHaveLength(3);
});
