// Marks as they come: each is learned at once, and with it the newest are gone through again.
import type { JunkModel, Step } from './model';

/** Of this many of the newest marks each is learned again when another comes: some milliseconds. */
export const mostRefined = 1_000;

/** A message that taught the model, and what. */
export interface Taught {
  features: Uint32Array;
  junk: boolean;
  step: Step;
}

/** More marks at once are gone through several times: none has been when others were known. */
const fewMarks = 20;
const manyRefiningRounds = 3;

/**
 * Goes through the newest marks again: each was learned when others were not known yet, and a row of one kind alone would
 * leave the model leaning to its side. `newest`: at most {@link mostRefined}; their steps are changed. `marks`: how many
 * came since the last time.
 */
export function refine(model: JunkModel, newest: readonly Taught[], marks: number): void {
  for (let round = 0; round < (marks > fewMarks ? manyRefiningRounds : 1); round++)
    for (const taught of newest) taught.step = model.learn(taught.features, taught.junk, taught.step);
}
