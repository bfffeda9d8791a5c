// One source of chance, from a seed, so that a failure can be seen again.

/** A whole number below its argument. */
export type Random = (below: number) => number;

export function chance(seed: number): Random {
  let state = seed >>> 0;
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 4294967296) * below);
  };
}
