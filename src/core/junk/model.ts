// The junk filter's model: a linear support vector machine with squared loss, learned one message at a time by dual
// coordinate descent (Hsieh, Chang, Lin, Keerthi, Sundararajan: A dual coordinate descent method for large-scale linear
// SVM, ICML 2008, algorithm 1).
//
// The features of a message are two blocks, words and pieces of letters. A block counts the same however many features it has:
// joined as they are, letters would crowd the words out. In judging, letters count less where few of the words are known: in a
// message of a new kind, what its letters have in common with the old ones is chance.
//
// What a message taught is one number, its step: the weight of each of its features moved by its share of that. So a message
// is forgotten by taking its step back, and because weights are whole numbers the model is then bit for bit what it was.
import { firstLetterSlot, slots } from './slots';

/** One unit of weight. The largest sum of steps stays far below 2³¹; a finer one changes no figure (docs/junk.md). */
const unit = 2 ** 13;
/** How dear a mistake is. Chosen on the corpus: between 3 and 10 little changes (docs/junk.md). */
const cost = 5;
const give = 1 / (2 * cost);
/** Finer than this no step is changed: whole numbers round, and what is known already says nothing new. */
const finest = unit / 4_096;

/** From this share of known words on, letters count as much as words; below it the less, the fewer are known. */
const knownEnough = 0.8;

/** What a message taught, in units of weight for a block of one feature; above zero: junk. */
export type Step = number;

/** What each feature of a block counts for, by how many the block has. */
const shareOf = (count: number): number => (count > 0 ? 1 / Math.sqrt(count) : 0);

/** What each word and each piece of letters of a message counts for. */
export interface Shares {
  word: number;
  letters: number;
}

/** The shares of a message that is learned, by the slots of its features; 0 of a block that has none. */
export function sharesOf(features: ArrayLike<number>): Shares {
  let words = 0;
  for (let at = 0; at < features.length; at++) if (features[at] < firstLetterSlot) words++;
  return { word: shareOf(words), letters: shareOf(features.length - words) };
}

/** The model. Weights below zero speak for good mail, above for junk. */
export class JunkModel {
  constructor(readonly weights = new Int32Array(slots)) {
    if (weights.length !== slots) throw new Error(`A model has ${slots} weights, not ${weights.length}.`);
  }

  copy(): JunkModel {
    return new JunkModel(this.weights.slice());
  }

  /** What this model has learned beyond another, as a model; {@link beyond} puts it back. */
  without(base: JunkModel): JunkModel {
    return new JunkModel(this.weights.map((weight, slot) => weight - base.weights[slot]));
  }

  /** This model on top of another. */
  beyond(base: JunkModel): JunkModel {
    return new JunkModel(this.weights.map((weight, slot) => weight + base.weights[slot]));
  }

  /** What a feature adds to the margin of a message with these shares. */
  weight(slot: number, shares: Shares): number {
    return (this.weights[slot] / unit) * (slot < firstLetterSlot ? shares.word : shares.letters);
  }

  /** On which side of the middle a message lies, and how far: below zero good, above junk, ±1 is clear. */
  margin(features: Uint32Array): number {
    return this.marginOf(features, this.judgingShares(features));
  }

  /** The shares of a message that is judged: of its letters by how many of its words are known here. */
  judgingShares(features: ArrayLike<number>): Shares {
    let [words, known] = [0, 0];
    for (let at = 0; at < features.length; at++)
      if (features[at] < firstLetterSlot) {
        words++;
        if (this.weights[features[at]] !== 0) known++;
      }
    const { word, letters } = sharesOf(features);
    return { word, letters: words > 0 ? letters * Math.min(1, known / (knownEnough * words)) : letters };
  }

  private marginOf(features: Uint32Array, shares: Shares): number {
    let [words, letters] = [0, 0];
    for (const slot of features)
      if (slot < firstLetterSlot) words += this.weights[slot];
      else letters += this.weights[slot];
    return (words * shares.word + letters * shares.letters) / unit;
  }

  private move(features: Uint32Array, shares: Shares, from: Step, to: Step): void {
    const movedBy = (share: number) => Math.round(to * share) - Math.round(from * share);
    const [word, letters] = [movedBy(shares.word), movedBy(shares.letters)];
    for (const slot of features) this.weights[slot] += slot < firstLetterSlot ? word : letters;
  }

  /**
   * Learns that a message is junk, or is not; `was` is what it taught before. Returns what it teaches now, which
   * {@link forget} takes back.
   */
  learn(features: Uint32Array, junk: boolean, was: Step = 0): Step {
    if (features.length === 0) return 0;
    const y = junk ? 1 : -1;
    const shares = sharesOf(features);
    const counts = (shares.word > 0 ? 1 : 0) + (shares.letters > 0 ? 1 : 0);
    const before = (was * y) / unit;
    const wrong = y * this.marginOf(features, shares) - 1 + give * before;
    const step = y * Math.round(Math.max(0, before - wrong / (counts + give)) * unit);
    if (Math.abs(step - was) < finest && step !== 0) return was;
    if (step !== was) this.move(features, shares, was, step);
    return step;
  }

  /** Takes back what a message taught. */
  forget(features: Uint32Array, step: Step): void {
    if (step) this.move(features, sharesOf(features), step, 0);
  }
}

/** A message to learn from. */
export interface Example {
  features: Uint32Array;
  junk: boolean;
}

/** A row of numbers from 0 up to, not including, 1, from a seed (mulberry32, public domain). */
export function randomFrom(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** The list in another order; the same seed gives the same. */
export function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const out = [...list];
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [out[i], out[j]] = [out[j], out[i]];
  }
  return out;
}

/** How often all is gone through, when there is time for it. */
export const manyRounds = 12;

/** Learns from many at once, going through them several times. Returns what each taught. */
export function learnAll(model: JunkModel, examples: readonly Example[], rounds: number, seed: number): Step[] {
  const random = randomFrom(seed);
  const steps: Step[] = examples.map(() => 0);
  const order = examples.map((_, i) => i);
  for (let round = 0; round < rounds; round++) {
    let moved = false;
    for (const i of shuffled(order, random)) {
      const { features, junk } = examples[i];
      const step = model.learn(features, junk, steps[i]);
      if (step === steps[i]) continue;
      steps[i] = step;
      moved = true;
    }
    if (!moved) break;
  }
  return steps;
}
