// Slots: where the model keeps what it weighs. Each feature is a kind and a word, hashed into one of a fixed number; pieces of
// letters (letters.ts) have slots of their own behind those.
import { hashed, hashSeed } from '../data/hash';

/** How many slots there are for words, and for pieces of letters: 2 to these powers. */
export const wordBits = 18;
export const letterBits = 16;
/** The slots from here on are those of pieces of letters. */
export const firstLetterSlot = 1 << wordBits;
export const slots = firstLetterSlot + (1 << letterBits);

/** How much of a word is read, in characters. */
export const longestWord = 30;

/** Where a feature was found. */
export const featureKinds = [
  'text',
  'subject',
  'sender',
  'sender name',
  'link',
  'signal',
  'subject piece',
  'sender piece',
  'marks',
  'shape',
  'text piece',
  'address piece',
] as const;
export type FeatureKind = (typeof featureKinds)[number];

/** A feature with its name, for the evidence. */
export interface NamedFeature {
  slot: number;
  kind: FeatureKind;
  word: string;
  /** What a signal says; for the other kinds null. */
  says: string | null;
}

/** A hash begun for a kind. */
export const begun = (kind: number): number => hashSeed ^ (kind * 0x9e3779b1);

/** A last mixing, so that the low bits of short words differ too. */
function mixed(hash: number): number {
  hash ^= hash >>> 15;
  hash = Math.imul(hash, 0x2c1b3c6d);
  return hash ^ (hash >>> 12);
}

/** The slot of a hash. */
export const slotOf = (hash: number): number => mixed(hash) & (firstLetterSlot - 1);

/** A hash begun for a piece of letters, and the slot of one: where it was found makes no difference. */
export const begunLetters = hashSeed;
export const slotOfLetters = (hash: number): number => firstLetterSlot + (mixed(hash) & ((1 << letterBits) - 1));

/** The slot of a whole word. */
export function slotOfWord(kind: number, word: string): number {
  let hash = begun(kind);
  for (let i = 0; i < word.length; i++) hash = hashed(hash, word.charCodeAt(i));
  return slotOf(hash);
}

/** Is told of a feature: its slot and kind, and the stretch of `source` that is its word; `says` for signals. */
export type Visit = (slot: number, kind: number, source: string, from: number, to: number, says?: string) => void;
