// Clopper and Pearson’s one-sided bounds of 95 %; the values are from memory, those of no loss by their formula 1 − 0.05^(1/n).
import { atMost } from './margin';

test.each([
  [0, 10, 25.89],
  [1, 10, 39.42],
  [2, 10, 50.69],
  [0, 100, 2.951],
  // At most one of two is lost with the chance 1 − p², which is 0.05 where p is √0.95 (by hand).
  [1, 2, 97.468],
])('%i of %i', (lost, n, bound) => {
  expect(atMost(lost, n)).toBeCloseTo(bound, 1);
});

test('of none lost it is 1 − 0.05^(1/n), about three in n', () => {
  for (const n of [1, 7, 400, 3_000, 100_000]) {
    expect(atMost(0, n)).toBeCloseTo(100 * (1 - 0.05 ** (1 / n)), 6);
    if (n > 100) expect((atMost(0, n) / 100) * n).toBeCloseTo(3, 0);
  }
});

test('more lost is a larger share, more counted a closer one; nothing counted says nothing', () => {
  for (let lost = 1; lost < 50; lost++) expect(atMost(lost, 50)).toBeGreaterThan(atMost(lost - 1, 50));
  expect(atMost(10, 1_000)).toBeLessThan(atMost(1, 100));
  expect(atMost(10, 1_000)).toBeGreaterThan(1);
  expect([atMost(0, 0), atMost(5, 5)]).toEqual([100, 100]);
});
