// What a line comes to, against counting by hand; and the curve over all of them.
import { atLine, caughtAndLost } from './atLine';

const scores = [
  { score: 99, junk: true },
  { score: 80, junk: true },
  { score: 60, junk: false },
  { score: 40, junk: true },
  { score: 5, junk: false },
];

test('a line, counted by hand', () => {
  expect(atLine(scores, 50)).toEqual({ caught: (100 * 2) / 3, lost: 50, lostCount: 1, good: 2 });
  expect(atLine(scores, 61)).toEqual({ caught: (100 * 2) / 3, lost: 0, lostCount: 0, good: 2 });
  expect(atLine([], 50)).toEqual({ caught: null, lost: null, lostCount: 0, good: 0 });
});

test('the curve says for each strictness what its line does, begins with nothing, and never falls', () => {
  const curve = caughtAndLost(scores, 95);
  expect(curve).toHaveLength(96);
  expect(curve[0]).toEqual({ strictness: 0, caught: 0, lost: 0 });
  expect(curve[50]).toEqual({ strictness: 50, caught: (100 * 2) / 3, lost: 50 });
  expect(curve[95]).toEqual({ strictness: 95, caught: 100, lost: 100 });
  for (const [n, { caught, lost }] of curve.slice(1).entries()) {
    expect(caught).toBeGreaterThanOrEqual(curve[n].caught);
    expect(lost).toBeGreaterThanOrEqual(curve[n].lost);
  }
});
