// How good a model is: cross-validation, and the figures that the trade compares by (Cormack and Lynam, TREC 2005 spam
// track overview: 1-AUC in per cent; junk caught where so many good messages are lost).
import { learnAll, JunkModel, manyRounds, randomFrom, shuffled, type Example } from './model';
import { refine, refinedOf, type Taught } from './refining';

/** A message that was judged: its margin, and what it is. */
export interface Judged {
  margin: number;
  junk: boolean;
}

export interface Figures {
  good: number;
  junk: number;
  /** The chance in per cent that a good message looks more like junk than a junk one; null without both kinds. */
  auc1: number | null;
  /** Share of junk caught, in per cent, where none, 0.1 % and 0.5 % of the good mail is lost; null without both kinds. */
  recall0: number | null;
  recall01: number | null;
  recall05: number | null;
}

/** The figures of judged messages. Equal margins count half for the area, and against the filter for the shares. */
export function figuresOf(judged: readonly Judged[]): Figures {
  const junk = judged.reduce((n, one) => n + (one.junk ? 1 : 0), 0);
  const good = judged.length - junk;
  if (junk === 0 || good === 0) return { good, junk, auc1: null, recall0: null, recall01: null, recall05: null };
  const sorted = [...judged].sort((a, b) => b.margin - a.margin);
  const limits = [0, Math.floor(good * 0.001), Math.floor(good * 0.005)];
  const caught = [0, 0, 0];
  let [junkAbove, goodAbove, pairs] = [0, 0, 0];
  for (let at = 0; at < sorted.length;) {
    let [junkHere, goodHere, end] = [0, 0, at];
    for (; end < sorted.length && sorted[end].margin === sorted[at].margin; end++)
      if (sorted[end].junk) junkHere++;
      else goodHere++;
    pairs += junkHere * (goodAbove + goodHere / 2);
    goodAbove += goodHere;
    junkAbove += junkHere;
    for (const [i, limit] of limits.entries()) if (goodAbove <= limit) caught[i] = junkAbove;
    at = end;
  }
  const share = (n: number) => (100 * n) / junk;
  return {
    good,
    junk,
    auc1: (100 * pairs) / (junk * good),
    recall0: share(caught[0]),
    recall01: share(caught[1]),
    recall05: share(caught[2]),
  };
}

/** The fold of each example: junk and good mail are dealt out evenly, in an order from the seed. */
export function foldsOf(examples: readonly { junk: boolean }[], folds: number, seed: number): Int32Array {
  const random = randomFrom(seed);
  const fold = new Int32Array(examples.length);
  for (const junk of [true, false]) {
    const which = examples.map((_, i) => i).filter((i) => examples[i].junk === junk);
    for (const [k, i] of shuffled(which, random).entries()) fold[i] = k % folds;
  }
  return fold;
}

/**
 * Judges every example by a model that has not seen it: learned from the other folds, on top of `base`. `turn` is
 * awaited after each fold, so that whoever shares the thread gets theirs.
 */
export async function crossValidate(
  examples: readonly Example[],
  folds: number,
  seed: number,
  base = new JunkModel(),
  rounds = manyRounds,
  turn: (done: number) => Promise<void> | void = () => undefined,
): Promise<Judged[]> {
  const fold = foldsOf(examples, folds, seed);
  const out: Judged[] = examples.map(({ junk }) => ({ margin: 0, junk }));
  for (let f = 0; f < folds; f++) {
    const model = base.copy();
    learnAll(
      model,
      examples.filter((_, i) => fold[i] !== f),
      rounds,
      seed,
    );
    for (const [i, { features }] of examples.entries()) if (fold[i] === f) out[i].margin = model.margin(features);
    await turn(f + 1);
  }
  return out;
}

/** Within this of the middle a message is in doubt: a score of 12 to 88. */
const doubt = 0.5;

/**
 * Judges messages in their order as one lives with the filter (Cormack and Lynam, TREC 2005 spam track: on-line): each is
 * judged by what came before it, then marked. `errorsOnly`: marked only where the judgement was wrong or in doubt, as people
 * do. `turn` is awaited after each thousand, so that whoever shares the thread gets theirs.
 */
export async function judgeOnline(
  examples: readonly Example[],
  errorsOnly = false,
  base = new JunkModel(),
  turn: (done: number) => Promise<void> | void = () => undefined,
): Promise<{ judged: Judged[]; marks: number }> {
  const model = base.copy();
  const taught: Taught[] = [];
  const judged: Judged[] = [];
  for (const { features, junk } of examples) {
    const margin = model.margin(features);
    judged.push({ margin, junk });
    if (judged.length % 1_000 === 0) await turn(judged.length);
    if (errorsOnly && margin > 0 === junk && Math.abs(margin) > doubt) continue;
    taught.push({ features, junk, step: model.learn(features, junk) });
    refine(
      model,
      refinedOf(taught.length, 1).map((at) => taught[at]),
      1,
    );
  }
  return { judged, marks: taught.length };
}
