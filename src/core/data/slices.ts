/** A list in slices of `size`, in its order; the last may be shorter. */
export function* inSlices<T>(list: readonly T[], size: number): Generator<readonly T[]> {
  for (let from = 0; from < list.length; from += size) yield list.slice(from, from + size);
}
