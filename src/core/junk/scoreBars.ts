// Messages by score, as bars: of each whole score so many, taken together five by five.

/** What of a score is counted by itself. */
export interface ScoreCounts {
  junk: number;
  good: number;
  inbox: number;
  unmarked: number;
}

/** Scores in one bar. */
export const scoresInBar = 5;
export const barCount = 100 / scoresInBar;

/** The bars of a spread over the scores 0 to 100; the last one also holds the score 100. */
export function scoreBars(spread: readonly ScoreCounts[]): Record<keyof ScoreCounts, number[]> {
  const of = (key: keyof ScoreCounts) =>
    Array.from({ length: barCount }, (_, bar) =>
      spread
        .slice(bar * scoresInBar, bar === barCount - 1 ? undefined : (bar + 1) * scoresInBar)
        .reduce((n, score) => n + score[key], 0),
    );
  return { good: of('good'), inbox: of('inbox'), unmarked: of('unmarked'), junk: of('junk') };
}
