import { barCount, scoreBars, type ScoreCounts } from './scoreBars';

/** A spread with one message of a kind at each of some scores. */
function spread(at: Partial<Record<keyof ScoreCounts, number[]>>): ScoreCounts[] {
  const out = Array.from({ length: 101 }, (): ScoreCounts => ({ junk: 0, good: 0, inbox: 0, unmarked: 0 }));
  for (const [key, scores] of Object.entries(at)) for (const score of scores) out[score][key as keyof ScoreCounts]++;
  return out;
}

test('each message stands in one bar: the first of its five scores begins it', () => {
  const { inbox } = scoreBars(spread({ inbox: [0, 4, 5, 9, 10] }));
  expect(inbox.slice(0, 4)).toEqual([2, 2, 1, 0]);
});

test('the score 100 stands in the last bar', () => {
  const bars = scoreBars(spread({ junk: [95, 99, 100], good: [0], unmarked: [94] }));
  expect(bars.junk).toHaveLength(barCount);
  expect(bars.junk.at(-1)).toBe(3);
  expect(bars.unmarked.at(-2)).toBe(1);
});

test('no message is lost or counted twice', () => {
  const all = Array.from({ length: 101 }, (_, score) => score);
  const { junk, good, inbox, unmarked } = scoreBars(spread({ junk: all, good: all, inbox: all, unmarked: all }));
  for (const bars of [junk, good, inbox, unmarked]) expect(bars.reduce((n, one) => n + one, 0)).toBe(101);
});
