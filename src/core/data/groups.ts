// Many things put into groups by a number that each has.

/** The members of each group, one group after another. */
export interface Groups {
  /** Where each group begins among the members; one more at the end. */
  starts: Uint32Array;
  /** The positions of the things, in each group from the lowest on. */
  members: Uint32Array;
}

/**
 * Groups things by their keys, each at least 0 and below `count`: `groupsBy([1, 0, 1], 2)` has the groups `[1]` and
 * `[0, 2]`. A counting sort: a hundred thousand take a few milliseconds.
 */
export function groupsBy(keys: ArrayLike<number>, count: number): Groups {
  const starts = new Uint32Array(count + 1);
  for (let at = 0; at < keys.length; at++) starts[keys[at] + 1]++;
  for (let key = 0; key < count; key++) starts[key + 1] += starts[key];
  const next = starts.slice();
  const members = new Uint32Array(keys.length);
  for (let at = 0; at < keys.length; at++) members[next[keys[at]]++] = at;
  return { starts, members };
}
