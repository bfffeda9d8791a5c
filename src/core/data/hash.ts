// A hash of 32 bits (Fowler, Noll and Vo, “FNV-1a”), of bytes as it is published, or of characters.

/** Where it begins. */
export const hashSeed = 0x811c9dc5;

/** A hash with one more byte or character in it. Negative half the time: `>>> 0` makes a positive number of it. */
export const hashed = (hash: number, unit: number): number => Math.imul(hash ^ unit, 0x01000193);

/** The hash of bytes or other whole numbers, one after another. `seed`: the hash of what comes before them. */
export function hashOf(units: ArrayLike<number>, seed = hashSeed): number {
  let hash = seed;
  for (let at = 0; at < units.length; at++) hash = hashed(hash, units[at]);
  return hash >>> 0;
}

/** The same of a text, its characters one after another. */
export function hashOfText(text: string, seed = hashSeed): number {
  let hash = seed;
  for (let at = 0; at < text.length; at++) hash = hashed(hash, text.charCodeAt(at));
  return hash >>> 0;
}
