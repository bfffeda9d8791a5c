// A list that is taller than an element can be is scrolled from its first row to its last.
import { inPage, scaleOf } from './tallList';

test('the end of the scroller is the end of the list, its beginning the beginning; a shorter list is as it is', () => {
  for (const [total, inSight, most] of [
    [58_000_000, 700, 33_000_000],
    [33_000_001, 700, 33_000_000],
    [40_000_000, 300, 15_000_000],
  ]) {
    const scale = scaleOf(total, inSight, most);
    expect((most - inSight) * scale).toBeCloseTo(total - inSight, 0);
    expect(scale).toBeGreaterThan(1);
  }
  expect(scaleOf(33_000_000, 700, 33_000_000)).toBe(1);
  expect(scaleOf(0, 0, 33_000_000)).toBe(1);
});

test('the rows in the page are those in sight and five beyond, never one that is not there', () => {
  for (let offset = 0; offset <= 58_000 - 700; offset += 7) {
    const [first, last] = inPage(1_000, 58, offset, 700);
    const inSight = [Math.floor(offset / 58), Math.ceil((offset + 700) / 58) - 1];
    expect([first, last]).toEqual([Math.max(0, inSight[0] - 5), Math.min(999, inSight[1] + 5)]);
  }
  // Scrolled past the end, as where rows have gone; nothing in it; half a million.
  expect(inPage(3, 58, 10_000, 700)).toEqual([2, 2]);
  expect(inPage(0, 58, 0, 700)).toEqual([0, -1]);
  expect(inPage(500_000, 58, 28_999_300, 700)).toEqual([499_982, 499_999]);
});
