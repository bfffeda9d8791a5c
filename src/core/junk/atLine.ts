// What a line through the scores comes to.

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
  return { caught: junk ? (100 * caught) / junk : null, lost: good ? (100 * lost) / good : null, lostCount: lost };
}
