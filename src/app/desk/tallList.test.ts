// A list that is taller than an element can be is scrolled from its first row to its last.
import { scaleOf } from './tallList';

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
