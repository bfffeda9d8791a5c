// Days and hours in texts, as messages of the trade write them (common practice, no source).
import { datesIn } from './foundDates';

// Saturday 28 November 2026, 10:00 of the machine's own time.
const written = new Date(2026, 10, 28, 10).getTime();
const at = (month: number, day: number, hour = 0, minute = 0) => new Date(2026, month - 1, day, hour, minute).getTime();
const found = (text: string) =>
  datesIn(text, written).map(({ start, end, wholeDay }) => (wholeDay ? [start] : [start, end]));

test.each([
  ['Can we meet on Friday 4 December at 14:30?', [[at(12, 4, 14, 30), null]]],
  ['The survey is on 3 Dec 2026 from 9:00 to 11:30.', [[at(12, 3, 9), at(12, 3, 11, 30)]]],
  ['Please send the figures by 2026-12-02 17:00', [[at(12, 2, 17), null]]],
  [
    'tomorrow at 8am, or Monday 10am',
    [
      [at(11, 29, 8), null],
      [at(11, 30, 10), null],
    ],
  ],
])('%s', (text, dates) => {
  expect(found(text)).toEqual(dates);
});

test('what names no day, is over, or is quoted is not offered', () => {
  expect(found('Ten minutes ago, in March, by 2020-01-01.\n> on Friday at 9:00\nBerth 12 has 3 cleats')).toEqual([]);
});

test('a text that goes on for ever takes no longer than its first lines', () => {
  const text = `${'on 4 December at 14:30, 3 or 4 or 5 may '.repeat(20_000)}\n`.repeat(3);
  expect(datesIn(text, written).length).toBeLessThanOrEqual(12);
});
