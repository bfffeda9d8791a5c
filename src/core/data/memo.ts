// What is kept of answers, so that what is asked again and again is worked out once.

/** Does the work once for each text, and remembers what it gave; all is forgotten once there are too many. */
export function remembering<T>(work: (text: string) => T, most = 20_000): (text: string) => T {
  const known = new Map<string, T>();
  return (text) => {
    let its = known.get(text);
    if (its === undefined) {
      its = work(text);
      if (known.size >= most) known.clear();
      known.set(text, its);
    }
    return its;
  };
}

/** Keeps something under a key, as the newest; of more than `most` the oldest go. */
export function keepNewest<K, T>(kept: Map<K, T>, key: K, value: T, most: number): void {
  kept.delete(key);
  kept.set(key, value);
  for (const oldest of kept.keys()) {
    if (kept.size <= most) break;
    kept.delete(oldest);
  }
}
