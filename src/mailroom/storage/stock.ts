// What lies in storage, by the keys alone: what should be there and is not can be told before it is asked for.
import { keyOf, rawPackSize } from './keys';
import type { Records } from './records';

export interface Stock {
  /** Whether anything of a mailbox is there. */
  any: boolean;
  /** The numbers of the packs that are there. */
  state: ReadonlySet<number>;
  envelopes: ReadonlySet<number>;
  raw: ReadonlySet<number>;
  /** The messages that have a record of their own. */
  big: ReadonlySet<number>;
}

/** What does not belong to a mailbox's mail: copies of spoilt records, and an import that never began. */
const beside = (key: string): boolean => key.startsWith(keyOf.asides) || key === keyOf.importing;

/** The numbers of the records of a kind, ascending. */
function numbersOf(keys: readonly string[], kind: string): number[] {
  const out: number[] = [];
  for (const key of keys) if (key.startsWith(kind)) out.push(Number(key.slice(kind.length)));
  return out.filter((n) => Number.isInteger(n) && n >= 0).sort((a, b) => a - b);
}

/** The numbers of all records of the journal, ascending: quickly, also where a great deal of mail lies beside them. */
export const journalOf = async (records: Pick<Records, 'keys'>): Promise<number[]> =>
  numbersOf(await records.keys(keyOf.journals), keyOf.journals);

/** All that lies in storage. Of a large mailbox that takes a while: not before its first rows. */
export async function stockOf(records: Pick<Records, 'keys'>): Promise<Stock> {
  const keys = await records.keys();
  return {
    any: keys.some((key) => !beside(key)),
    state: new Set(numbersOf(keys, 'state/')),
    envelopes: new Set(numbersOf(keys, 'envelopes/')),
    raw: new Set(numbersOf(keys, 'raw/')),
    big: new Set(numbersOf(keys, 'big/')),
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
