// The junk filter's model: a linear support vector machine with squared loss, learned one message at a time by dual
// coordinate descent (Hsieh, Chang, Lin, Keerthi, Sundararajan: A dual coordinate descent method for large-scale linear
// SVM, ICML 2008, algorithm 1).
//
// What a message taught is one number, its step: the weight of each of its features moved by that. So a message is
// forgotten by taking its step back, and because weights are whole numbers the model is then bit for bit what it was.
import { slots } from './slots';

/** One unit of weight. The largest sum of steps stays far below 2³¹. */
const unit = 2 ** 20;
/** How dear a mistake is. Chosen on the corpus: between 3 and 10 little changes (docs/junk.md). */
const cost = 5;
const give = 1 / (2 * cost);

/** What a message taught, in units of weight for each of its features; above zero: junk. */
export type Step = number;

/** The model. Weights below zero speak for good mail, above for junk. */
export class JunkModel {
  constructor(readonly weights = new Int32Array(slots)) {
    if (weights.length !== slots) throw new Error(`A model has ${slots} weights, not ${weights.length}.`);
  }

  copy(): JunkModel {
    return new JunkModel(this.weights.slice());
  }

  /** On which side of the middle a message lies, and how far: below zero good, above junk, ±1 is clear. */
  margin(features: Uint32Array): number {
    if (features.length === 0) return 0;
    let sum = 0;
    for (const slot of features) sum += this.weights[slot];
    return sum / unit / Math.sqrt(features.length);
  }

  private move(features: Uint32Array, by: number): void {
    for (const slot of features) this.weights[slot] += by;
  }

  /**
   * Learns that a message is junk, or is not; `was` is what it taught before. Returns what it teaches now, which
   * {@link forget} takes back.
   */
  learn(features: Uint32Array, junk: boolean, was: Step = 0): Step {
    if (features.length === 0) return 0;
    const y = junk ? 1 : -1;
    const root = Math.sqrt(features.length);
    const before = (was * y * root) / unit;
    const wrong = y * this.margin(features) - 1 + give * before;
    const alpha = Math.max(0, before - wrong / (1 + give));
    const step = y * Math.round((alpha / root) * unit);
    if (step !== was) this.move(features, step - was);
    return step;
  }

  /** Takes back what a message taught. */
  forget(features: Uint32Array, step: Step): void {
    if (step) this.move(features, -step);
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
