import { dayOf, dueWords, exactTime, isoTime, shortTime, sizeWords } from './time';

const at = (year: number, month: number, day: number, hour = 0, minute = 0) =>
  new Date(year, month - 1, day, hour, minute).getTime();
const now = at(2026, 11, 24, 14, 0);

test.each([
  ['today', at(2026, 11, 24, 9, 5), '09:05'],
  ['later today', at(2026, 11, 24, 23, 59), '23:59'],
  ['yesterday', at(2026, 11, 23, 23, 59), 'Mon'],
  ['five days ago', at(2026, 11, 19, 12), 'Thu'],
  ['a week ago: the day of the week would be today’s', at(2026, 11, 17, 12), '17 Nov'],
  ['last year', at(2025, 11, 24, 12), '24 Nov 2025'],
  ['the future', at(2026, 12, 3, 12), '3 Dec'],
])('%s', (_what, time, short) => {
  expect(shortTime(time, now)).toBe(short);
});

test('exactly', () => {
  expect(exactTime(at(2026, 9, 3, 14, 5))).toBe('Thu 3 Sep 2026, 14:05');
  expect(dayOf(at(2026, 9, 3))).toBe('3 Sep 2026');
});

test.each([
  [0, '0 bytes'],
  [999, '999 bytes'],
  [1_000, '1 KB'],
  [999_499, '999 KB'],
  [2_400_000, '2.4 MB'],
])('%i bytes are %s', (bytes, words) => {
  expect(sizeWords(bytes)).toBe(words);
});

test.each([1e300, -1e300, NaN, Infinity])('%p is no moment, and says so', (time) => {
  expect([dayOf(time), exactTime(time), shortTime(time, now)]).toEqual(['no date', 'no date', 'no date']);
  expect(isoTime(time)).toBe('');
  expect(() => dueWords(time, now)).not.toThrow();
});
