// The verdict: a score from 0 to 100, and the evidence behind it in words.
import type { JunkModel } from './model';
import { shapeWords } from './pieces';
import type { NamedFeature } from './slots';

/** How steep the score is around the middle: a clear case (a margin of ±1) has 98, or 2. */
const steepness = 4;

/** The score of a margin: 0 surely good, 50 no idea, 100 surely junk; with two decimals. */
export function scoreOf(margin: number): number {
  return Math.round(10_000 / (1 + Math.exp(-steepness * margin))) / 100;
}

/** One thing that speaks for or against a message. */
export interface Evidence {
  says: string;
  /** Points of margin; above zero: speaks for junk. */
  weight: number;
}

/** A word without what it ends with where it stands: “free.” is “free”. */
const plain = (word: string): string => word.replace(/^[.'’@-]+|[.'’@-]+$/g, '') || word;

const kindWords: Record<Exclude<NamedFeature['kind'], 'signal'>, (word: string) => string> = {
  text: (word) => `“${plain(word)}” in its text`,
  subject: (word) => `“${plain(word)}” in its subject`,
  sender: (word) => (word.includes('@') ? `the sender ${word}` : `a sender at ${word.includes('.') ? '' : '.'}${word}`),
  'sender name': (word) => `“${plain(word)}” in its sender’s name`,
  link: (word) => `a link to ${word.includes('.') ? '' : '.'}${word}`,
  // A piece is told by its word: what both weigh adds up.
  'subject piece': (word) => `“${plain(word)}” in its subject`,
  'sender piece': (word) => (word.includes('@') ? `the sender ${word}` : `“${plain(word)}” in its sender’s name`),
  marks: (word) => `“${word}” in its text`,
  shape: shapeWords,
  'text piece': (word) => `“${plain(word)}” in its text`,
  'address piece': (word) => `the sender ${word}`,
};

/** A feature in words: `“guaranteed” in its text`. */
export function featureWords({ kind, word, says }: Pick<NamedFeature, 'kind' | 'word' | 'says'>): string {
  return kind === 'signal' ? (says ?? word) : kindWords[kind](word);
}

/**
 * What weighs most among the features of a message, heaviest first, at most `most`; what weighs nothing is left out, and
 * what is said twice adds up.
 */
export function evidenceAmong(model: JunkModel, features: readonly NamedFeature[], most: number): Evidence[] {
  const shares = model.judgingShares(features.map(({ slot }) => slot));
  const out = new Map<string, number>();
  for (const feature of features) {
    const weight = model.weight(feature.slot, shares);
    if (weight === 0) continue;
    const says = featureWords(feature);
    out.set(says, (out.get(says) ?? 0) + weight);
  }
  return [...out]
    .map(([says, weight]) => ({ says, weight }))
    .sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight))
    .slice(0, most);
}
