// A recurrence as a person reads it.
import { andWords } from '../text/sentences';
import { readRecurrence, type Frequency } from './recurrence';
import { wallText } from './wallTime';

const names = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const units: Record<Frequency, string> = { DAILY: 'day', WEEKLY: 'week', MONTHLY: 'month', YEARLY: 'year' };
const nths: Record<string, string> = { '1': 'first', '2': 'second', '3': 'third', '4': 'fourth', '-1': 'last' };

/** A recurrence in words: `every 2 weeks on Monday and Friday, until 3 Dec 2026`. */
export function recurrenceWords(text: string): string {
  const read = readRecurrence(text);
  if (!read.ok) return `again, in a way that can’t be shown here: ${read.says}`;
  const { freq, interval, days, monthDays, months, count, until, positions, weeks, yearDays, hours } = read.rule;
  const unit = units[freq];
  const every = interval === 1 ? `every ${unit}` : `every ${interval} ${unit}s`;
  const on = [
    ...days.map(({ day, nth }) => (nth === 0 ? names[day] : `the ${nths[nth] ?? `${nth}.`} ${names[day]}`)),
    ...monthDays.map((day) => (day === -1 ? 'the last day' : `day ${day}`)),
  ];
  const inMonths = months.map((month) =>
    new Date(Date.UTC(2000, month - 1)).toLocaleString('en', { month: 'long', timeZone: 'UTC' }),
  );
  const more = positions.length + weeks.length + yearDays.length + hours.length > 0 ? ', by a rule of its own' : '';
  const end = count !== null ? `, ${count} times` : until ? `, until ${wallText(until.number, true)}` : '';
  return `${every}${on.length ? ` on ${andWords(on)}` : ''}${inMonths.length ? ` in ${andWords(inMonths)}` : ''}${more}${end}`;
}
