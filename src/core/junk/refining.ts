// Marks as they come: each is learned at once, and with it some of the newest are gone through again, each in its turn.
import type { JunkModel, Step } from './model';

/** Of this many of the newest marks each is learned again when so many others have come: two milliseconds a mark. */
const mostRefined = 1_000;
const turns = 10;

/** A message that taught the model, and what. */
export interface Taught {
  features: Uint32Array;
  junk: boolean;
  step: Step;
}

/** More marks at once are gone through several times, and all: none has been when others were known. */
const fewMarks = 20;
const manyRefiningRounds = 3;

/** Which of `count` marks, by their position, are gone through again after `marks` more came: at most the newest thousand. */
export function refinedOf(count: number, marks: number): number[] {
  const out: number[] = [];
  for (let at = Math.max(0, count - mostRefined); at < count; at++)
    if (marks > fewMarks || at % turns === count % turns) out.push(at);
  return out;
}

/**
 * Goes through marks again: each was learned when others were not known yet, and a row of one kind alone would leave the
 * model leaning to its side. `some`: as {@link refinedOf} says; their steps are changed. `marks`: how many came since the
 * last time.
 */
export function refine(model: JunkModel, some: readonly Taught[], marks: number): void {
  for (let round = 0; round < (marks > fewMarks ? manyRefiningRounds : 1); round++)
    for (const taught of some) taught.step = model.learn(taught.features, taught.junk, taught.step);
}
