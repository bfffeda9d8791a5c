// Slots: where the model keeps what it weighs. Each feature is a kind and a word, hashed into one of a fixed number.
import { hashed, hashSeed } from '../data/hash';

/** How many slots the model has: 2 to this power. */
export const slotBits = 18;
export const slots = 1 << slotBits;

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
] as const;
export type FeatureKind = (typeof featureKinds)[number];

/** A feature with its name, for the evidence. */
export interface NamedFeature {
  slot: number;
  kind: FeatureKind;
  word: string;
  /** What a signal or a shape says; for the other kinds null. */
  says: string | null;
}

/** A hash begun for a kind. */
export const begun = (kind: number): number => hashSeed ^ (kind * 0x9e3779b1);

/** The slot of a hash, after a last mixing, so that the low bits of short words differ too. */
export function slotOf(hash: number): number {
  hash ^= hash >>> 15;
  hash = Math.imul(hash, 0x2c1b3c6d);
  hash ^= hash >>> 12;
  return hash & (slots - 1);
}

/** The slot of a whole word. */
export function slotOfWord(kind: number, word: string): number {
  let hash = begun(kind);
  for (let i = 0; i < word.length; i++) hash = hashed(hash, word.charCodeAt(i));
  return slotOf(hash);
}

/** Is told of a feature: its slot and kind, and the stretch of `source` that is its word; `says` for signals and shapes. */
export type Visit = (slot: number, kind: number, source: string, from: number, to: number, says?: string) => void;
