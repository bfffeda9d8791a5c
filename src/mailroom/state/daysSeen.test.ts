import { DaysSeen } from './daysSeen';

const day = 86_400_000;
const seen = (...days: number[]) => {
  const all = new DaysSeen();
  for (const its of days) all.see(its * day + 1);
  return all;
};

test('each day once, in their order, however the clock went', () => {
  expect(seen(3, 3, 1, 9, 3, 2).list).toEqual([1, 2, 3, 9]);
  expect(seen(5).see(5 * day + day - 1)).toBe(false);
  expect(seen(5).see(6 * day)).toBe(true);
});

test('how many were seen after the day of a moment', () => {
  const all = seen(1, 2, 5, 6);
  expect([0, 1, 2, 4, 5, 6, 7].map((its) => all.since(its * day + 7))).toEqual([4, 3, 2, 2, 1, 0, 0]);
});

test('what is no moment is not seen; stored and taken up they are the same', () => {
  const all = seen(4, 8);
  expect(all.see(NaN)).toBe(false);
  expect(all.newest).toBe(8 * day);
  const again = new DaysSeen();
  again.takeUp(all.list);
  expect(again.list).toEqual(all.list);
  expect(new DaysSeen().newest).toBe(0);
});
