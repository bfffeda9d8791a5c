// Work on one thing while the next is on its way.

/**
 * Each of some things with what is fetched for it, in their order: the next is asked for before whoever works on this one
 * has it. What a fetch fails by is thrown when its turn comes.
 */
export async function* ahead<T, R>(list: readonly T[], fetch: (one: T) => Promise<R>): AsyncGenerator<[T, R]> {
  const asked = (at: number): Promise<R> | null => {
    if (at >= list.length) return null;
    const coming = fetch(list[at]);
    coming.catch(() => undefined);
    return coming;
  };
  let next = asked(0);
  for (let at = 0; next; at++) {
    const coming = next;
    next = asked(at + 1);
    yield [list[at], await coming];
  }
}
