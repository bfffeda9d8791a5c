// What lies in storage, by the keys alone: what should be there and is not can be told before it is asked for.
import { keyOf, rawPackSize } from './keys';

export interface Stock {
  /** Whether anything of a mailbox is there. */
  any: boolean;
  /** Whether an import was under way. */
  importing: boolean;
  /** The numbers of all records of the journal, ascending. */
  journal: number[];
  /** The numbers of the packs that are there. */
  state: ReadonlySet<number>;
  envelopes: ReadonlySet<number>;
  raw: ReadonlySet<number>;
  /** The messages that have a record of their own. */
  big: ReadonlySet<number>;
}

/** What does not belong to a mailbox's mail: copies of spoilt records, and an import that never began. */
const beside = (key: string): boolean => key.startsWith(keyOf.asides) || key === keyOf.importing;

export function stockOf(keys: readonly string[]): Stock {
  const numbers = (kind: string): number[] => {
    const out: number[] = [];
    for (const key of keys) if (key.startsWith(kind)) out.push(Number(key.slice(kind.length)));
    return out.filter((n) => Number.isInteger(n) && n >= 0).sort((a, b) => a - b);
  };
  return {
    any: keys.some((key) => !beside(key)),
    importing: keys.includes(keyOf.importing),
    journal: numbers(keyOf.journals),
    state: new Set(numbers('state/')),
    envelopes: new Set(numbers('envelopes/')),
    raw: new Set(numbers('raw/')),
    big: new Set(numbers('big/')),
  };
}

/** The numbers that are missing between the first and the last, as ranges `[from, to]`. */
export function gapsIn(numbers: readonly number[], first: number, last: number): [from: number, to: number][] {
  const gaps: [number, number][] = [];
  let next = first;
  for (const n of [...numbers, last + 1]) {
    if (n < next) continue;
    if (n > next && next <= last) gaps.push([next, Math.min(n - 1, last)]);
    next = n + 1;
  }
  return gaps;
}

/** The messages whose packs of raw messages should be there and are not. */
export const missingMessages = ({ raw }: Stock, count: number): number[] =>
  Array.from({ length: Math.ceil(count / rawPackSize) }, (_, pack) => pack)
    .filter((pack) => !raw.has(pack))
    .flatMap((pack) => {
      const first = pack * rawPackSize;
      return Array.from({ length: Math.min(rawPackSize, count - first) }, (_, i) => first + i);
    });
