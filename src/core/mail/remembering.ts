// Functions of a text that are asked about the same few thousand texts again and again.

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
