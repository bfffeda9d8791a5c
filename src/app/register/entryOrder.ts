// The order of the Register’s table.
import type { Entry } from '../../core/senders/register';
import type { EntryUse } from '../../mailroom/border/junk';
import { kindWords } from './kinds';

export type Uses = Record<string, EntryUse>;
export type Order = 'about' | 'kind' | 'standing' | 'since' | 'decided' | 'last';

/** The columns, each with its word. */
export const columns: readonly (readonly [Order, string])[] = [
  ['about', 'About'],
  ['kind', 'Kind'],
  ['standing', 'Standing'],
  ['since', 'Since'],
  ['decided', 'Decided'],
  ['last', 'The last'],
];

/** What entries are ordered by; numbers and dates with the largest first. */
const keys: Record<Order, (entry: Entry, uses: Uses) => string | number> = {
  about: (entry) => entry.value,
  kind: (entry) => kindWords[entry.kind].name,
  standing: (entry) => entry.standing,
  since: (entry) => -entry.since,
  decided: ({ id }, uses) => -(uses[id]?.decided ?? 0),
  last: ({ id }, uses) => -(uses[id]?.last ?? 0),
};

/** Entries by a column; `turned`: the other way round. */
export function ordered(entries: readonly Entry[], uses: Uses, by: Order, turned: boolean): Entry[] {
  const key = keys[by];
  const sorted = entries.toSorted((a, b) => {
    const [x, y] = [key(a, uses), key(b, uses)];
    const order = typeof x === 'number' && typeof y === 'number' ? x - y : String(x).localeCompare(String(y));
    return order || a.value.localeCompare(b.value);
  });
  return turned ? sorted.reverse() : sorted;
}

/** How the entries are ordered; `turned`: the other way round. */
export interface Sorting {
  order: Order;
  turned: boolean;
}
