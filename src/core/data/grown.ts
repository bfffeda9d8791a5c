/** A row of numbers copied into a longer one: `row = grown(row, new Uint32Array(2 * row.length))`. */
export function grown<T extends { set(from: T): void }>(old: T, next: T): T {
  next.set(old);
  return next;
}
