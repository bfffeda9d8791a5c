// Work on one thing while the next ones are on their way.

/**
 * Each of some things with what is fetched for it, in their order: the next ones, `deep` of them, are asked for before
 * whoever works on this one has it. What a fetch fails by is thrown when its turn comes.
 */
export async function* ahead<T, R>(
  list: readonly T[],
  fetch: (one: T) => Promise<R>,
  deep = 1,
): AsyncGenerator<[T, R]> {
  const coming: Promise<R>[] = [];
  for (const [at, one] of list.entries()) {
    while (coming.length <= deep && at + coming.length < list.length) {
      const asked = fetch(list[at + coming.length]);
      asked.catch(() => undefined);
      coming.push(asked);
    }
    const [first] = coming.splice(0, 1);
    yield [one, await first];
  }
}
