// Rounds: when a tray is delivered to the Inbox.
import { z } from 'zod';
import { andWords } from '../text/sentences';
import { timeOfDaySchema, weekdays, weekdaySchema, type Weekday } from './week';

/** As mail comes, at hours of some days of the week, or never by itself. */
export const roundSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('coming') }),
  z.object({
    by: z.literal('hours'),
    days: z.array(weekdaySchema).min(1, 'needs a day').max(7),
    times: z.array(timeOfDaySchema).min(1, 'needs an hour').max(96),
  }),
  z.object({ by: z.literal('never') }),
]);
export type Round = z.infer<typeof roundSchema>;

export const weekdayNames: Record<Weekday, string> = {
  MO: 'Monday',
  TU: 'Tuesday',
  WE: 'Wednesday',
  TH: 'Thursday',
  FR: 'Friday',
  SA: 'Saturday',
  SU: 'Sunday',
};

/** Some days of the week in words: `every day`, `Monday to Friday`, `Monday and Thursday`. */
export function daysWords(days: readonly Weekday[]): string {
  const at = weekdays.flatMap((day, i) => (days.includes(day) ? [i] : []));
  if (at.length === 7) return 'every day';
  const names = at.map((i) => weekdayNames[weekdays[i]]);
  const inRow = at.every((one, i) => one === at[0] + i);
  return inRow && at.length > 2 ? `${names[0]} to ${names[names.length - 1]}` : andWords(names);
}

/** A round in words: `Monday at 07:00`. */
export function roundWords(round: Round): string {
  if (round.by === 'coming') return 'as mail comes';
  if (round.by === 'never') return 'never by itself';
  return `${daysWords(round.days)} at ${andWords([...new Set(round.times)].sort())}`;
}
