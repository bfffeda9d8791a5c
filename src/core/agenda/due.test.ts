// Facts of the trade: common practice, no source. The clock of these tests: Wednesday 25 November 2026, 10:00.
import { dueOn, readDue } from './due';

const now = new Date(2026, 10, 25, 10).getTime();
const at = (...args: [number, number, number, number?, number?]) => new Date(...args).getTime();
const endOf = (year: number, month: number, day: number) => new Date(year, month, day, 23, 59, 59, 999).getTime();

test('the days that are offered', () => {
  expect(dueOn('today', now)).toBe(endOf(2026, 10, 25));
  expect(dueOn('tomorrow', now)).toBe(endOf(2026, 10, 26));
  expect(dueOn('this week', now)).toBe(endOf(2026, 10, 27));
  expect(dueOn('next week', now)).toBe(endOf(2026, 11, 4));
  // On a Saturday the working week is over.
  const saturday = new Date(2026, 10, 28, 10).getTime();
  expect(dueOn('this week', saturday)).toBe(endOf(2026, 10, 28));
  expect(dueOn('next week', saturday)).toBe(endOf(2026, 11, 4));
});

test.each<[string, number]>([
  ['fri 3pm', at(2026, 10, 27, 15)],
  ['Friday', endOf(2026, 10, 27)],
  ['tomorrow', endOf(2026, 10, 26)],
  ['tomorrow at 9', at(2026, 10, 26, 9)],
  ['3 Dec', endOf(2026, 11, 3)],
  ['2026-12-03', endOf(2026, 11, 3)],
  ['2026-12-03 09:30', at(2026, 11, 3, 9, 30)],
  ['in two weeks', endOf(2026, 11, 9)],
  ['due on Monday', endOf(2026, 10, 30)],
  ['1.12.', endOf(2026, 11, 1)],
  ['1.12', endOf(2026, 11, 1)],
  ['24.11.', endOf(2027, 10, 24)],
  ['24.12.26', endOf(2026, 11, 24)],
  ['1.12. 14:00', at(2026, 11, 1, 14)],
  ['tomorrow 9', at(2026, 10, 26, 9)],
  ['fri 9', at(2026, 10, 27, 9)],
  ['3 dec 9', at(2026, 11, 3, 9)],
  ['dec 3', endOf(2026, 11, 3)],
  ['wed', endOf(2026, 10, 25)],
  ['wed 3pm', at(2026, 10, 25, 15)],
  ['next wed', endOf(2026, 11, 2)],
])('“%s” is read', (text, due) => {
  expect(readDue(text, now)).toEqual({ ok: true, due });
});

test.each<[string, RegExp]>([
  ['', /Type a date/],
  ['someday soon', /is no date/],
  ['fri 3pm and bring cake', /only “fri 3pm” is a date/],
  ['yesterday', /is past/],
  // The same Wednesday as without the hour.
  ['wed 9am', /is past/],
  ['99.99.', /is no date/],
  ['2020-01-01', /is past/],
])('“%s” is refused in words', (text, error) => {
  const read = readDue(text, now);
  expect(read.ok ? '' : read.error).toMatch(error);
});
