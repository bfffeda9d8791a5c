// The timetable: at which hours of the week mail comes as it comes, and at which fixed times what waited is delivered.
import { z } from 'zod';
import { andWords } from '../text/sentences';
import { daysWords } from './rounds';
import { minutesOf, timeOfDay, timeOfDaySchema, weekdays, weekdaySchema, type Weekday } from './week';

/** A week is painted in stretches of so many minutes. */
export const cellMinutes = 30;
/** So many of them a day has. */
export const cellsOfDay = 1_440 / cellMinutes;

const endOfStretch = z
  .string()
  .regex(/^(?:(?:[01]\d|2[0-3]):[0-5]\d|24:00)$/, { error: 'must be a time of day, like 17:00 or 24:00' });

export const timetableSchema = z.object({
  on: z.boolean(),
  /** Hours in which mail comes as it comes. */
  open: z
    .array(
      z
        .object({ day: weekdaySchema, from: timeOfDaySchema, to: endOfStretch })
        .refine(({ from, to }) => minutesOf(from) < minutesOf(to), { error: 'must end after it begins' })
        .refine(({ from, to }) => [from, to].every((time) => minutesOf(time) % cellMinutes === 0), {
          error: 'must begin and end at half and full hours',
        }),
    )
    .max(7 * cellsOfDay),
  /** Fixed times at which all that waits is delivered. */
  times: z.array(z.object({ day: weekdaySchema, at: timeOfDaySchema })).max(7 * 96),
});
export type Timetable = z.infer<typeof timetableSchema>;

export const freshTimetable: Timetable = { on: false, open: [], times: [] };

/** Which of a day’s cells are open, the first begins at midnight. */
export function cellsOf({ open }: Pick<Timetable, 'open'>, day: Weekday): boolean[] {
  const cells = Array<boolean>(cellsOfDay).fill(false);
  for (const one of open)
    if (one.day === day)
      cells.fill(true, Math.floor(minutesOf(one.from) / cellMinutes), Math.ceil(minutesOf(one.to) / cellMinutes));
  return cells;
}

/** The stretches that a day’s cells come to. */
export function stretchesOf(day: Weekday, cells: readonly boolean[]): Timetable['open'] {
  const out: Timetable['open'] = [];
  for (let at = 0; at < cells.length; at++) {
    if (!cells[at]) continue;
    const from = at;
    while (cells[at + 1]) at++;
    out.push({ day, from: timeOfDay(from * cellMinutes), to: timeOfDay((at + 1) * cellMinutes) });
  }
  return out;
}

/** A timetable with some cells of a day open or not. */
export function painted(timetable: Timetable, day: Weekday, from: number, to: number, open: boolean): Timetable {
  const cells = cellsOf(timetable, day);
  cells.fill(open, from, to + 1);
  return {
    ...timetable,
    open: inOrder([...timetable.open.filter((one) => one.day !== day), ...stretchesOf(day, cells)]),
  };
}

/** A timetable in which some days are as one is. */
export function copied(timetable: Timetable, day: Weekday, to: readonly Weekday[]): Timetable {
  const days = to.filter((one) => one !== day);
  const kept = (list: { day: Weekday }[]) => list.filter((one) => !days.includes(one.day));
  const asThere = <T extends { day: Weekday }>(list: readonly T[]): T[] =>
    days.flatMap((one) => list.filter((its) => its.day === day).map((its) => ({ ...its, day: one })));
  return {
    ...timetable,
    open: inOrder([...(kept(timetable.open) as Timetable['open']), ...asThere(timetable.open)]),
    times: inOrder([...(kept(timetable.times) as Timetable['times']), ...asThere(timetable.times)]),
  };
}

const inOrder = <T extends { day: Weekday; from?: string; at?: string }>(list: T[]): T[] =>
  list.sort(
    (a, b) =>
      weekdays.indexOf(a.day) - weekdays.indexOf(b.day) || (a.from ?? a.at ?? '').localeCompare(b.from ?? b.at ?? ''),
  );

/** With a fixed time of delivery on some days. */
export const withTime = (timetable: Timetable, days: readonly Weekday[], at: string): Timetable => ({
  ...timetable,
  times: inOrder([
    ...timetable.times.filter((one) => one.at !== at || !days.includes(one.day)),
    ...days.map((day) => ({ day, at })),
  ]),
});

/** A timetable in words, a line for each kind of day: `Monday to Friday: 09:00 to 12:00, and at 16:00`. */
export function timetableWords(timetable: Timetable): string[] {
  const ofDay = (day: Weekday): string => {
    const open = stretchesOf(day, cellsOf(timetable, day)).map(({ from, to }) => `${from} to ${to}`);
    const times = timetable.times.filter((one) => one.day === day).map(({ at }) => at);
    const parts = [...(open.length ? [andWords(open)] : []), ...(times.length ? [`at ${andWords(times)}`] : [])];
    return parts.join(', and ') || 'nothing';
  };
  const kinds = new Map<string, Weekday[]>();
  for (const day of weekdays) kinds.set(ofDay(day), [...(kinds.get(ofDay(day)) ?? []), day]);
  return [...kinds].map(([words, days]) => `${daysWords(days)}: ${words}`);
}
