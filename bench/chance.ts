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

/**
 * How many cases of chance a test goes through: so many on every run, `CASES=20` times as many where somebody wants to know
 * more (docs/safety.md says what ran last).
 */
export const cases = (few: number): number => Math.ceil(few * Number(process.env.CASES ?? 1));
