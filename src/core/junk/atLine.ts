// What a line through the scores comes to.
import { lineOf } from './settings';

/** What a line would come to: junk caught, and good mail lost, in per cent; null where there is none to judge. */
export function atLine(scores: readonly { score: number; junk: boolean }[], line: number) {
  let [junk, good, caught, lost] = [0, 0, 0, 0];
  for (const one of scores) {
    if (one.junk) junk++;
    else good++;
    if (one.score < line) continue;
    if (one.junk) caught++;
    else lost++;
  }
  return {
    caught: junk ? (100 * caught) / junk : null,
    lost: good ? (100 * lost) / good : null,
    lostCount: lost,
    good,
  };
}

/**
 * What every strictness from 0 (off) to `most` would come to: junk caught and good mail lost, in per cent; 0 where there is
 * none of a kind.
 */
export function caughtAndLost(
  scores: readonly { score: number; junk: boolean }[],
  most: number,
): { strictness: number; caught: number; lost: number }[] {
  return Array.from({ length: most + 1 }, (_, strictness) => {
    const line = lineOf(strictness);
    const { caught, lost } = line === null ? { caught: 0, lost: 0 } : atLine(scores, line);
    return { strictness, caught: caught ?? 0, lost: lost ?? 0 };
  });
}
