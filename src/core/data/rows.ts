// Rows of many numbers, gone through by plain loops. What typed arrays have of their own for it takes ten to a hundred times
// as long (`from` goes by an iterator, `filter` by a list of all that it keeps), and half a million messages are asked at once.

/** A row that numbers are written into. */
type Row = Uint8Array | Uint16Array | Uint32Array | Int32Array | Float64Array;

/** Written into by whoever needs a row for a moment. */
let scratch = new Int32Array(0);

function gathered(most: number, gather: (out: Int32Array) => number): Int32Array<ArrayBuffer> {
  const out = scratch.length < most ? new Int32Array(Math.ceil(most * 1.25)) : scratch;
  // Whoever is asked meanwhile takes another.
  scratch = new Int32Array(0);
  const length = gather(out);
  scratch = out;
  return out.slice(0, length);
}

/** Those of some numbers, each a whole one of 32 bits, for which a test holds, in their order: as `filter` does. */
export const kept = (list: ArrayLike<number>, test: (one: number, at: number) => boolean): Int32Array<ArrayBuffer> =>
  gathered(list.length, (out) => {
    let n = 0;
    for (let at = 0; at < list.length; at++) {
      const one = list[at];
      if (test(one, at)) out[n++] = one;
    }
    return n;
  });

/** The numbers from 0 up to, not including, `count` for which a test holds. */
export const numbersWhere = (count: number, test: (one: number) => boolean): Int32Array<ArrayBuffer> =>
  gathered(count, (out) => {
    let n = 0;
    for (let one = 0; one < count; one++) if (test(one)) out[n++] = one;
    return n;
  });

/** What is said of each of some things, as a row of that kind: `filled(Uint8Array, ids, bitsOf)`, as `from` does. */
export function filled<R extends Row, T>(
  kind: new (length: number) => R,
  list: ArrayLike<T>,
  say: (one: T, at: number) => number,
): R {
  const row = new kind(list.length);
  for (let at = 0; at < row.length; at++) row[at] = say(list[at], at);
  return row;
}
