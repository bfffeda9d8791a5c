// The week as trays and the timetable have it: its days, times of day, and the time zone in which they are meant.
import { z } from 'zod';
import { weekdays, type Weekday } from '../agenda/weekdays';

export { weekdays, type Weekday };
export const weekdaySchema = z.enum(weekdays);

/** A time of day, `07:00`. */
export const timeOfDaySchema = z
  .string()
  .regex(/^(?:[01]\d|2[0-3]):[0-5]\d$/, { error: 'must be a time of day, like 07:00' });

/** A time of day in minutes after midnight; `24:00` is the end of the day. */
export const minutesOf = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));

/** Minutes after midnight as a time of day. */
export const timeOfDay = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

/** Whether there is a time zone of that name (IANA time zone database). */
export function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    // Some take offsets for zones; to a person who moves with a clock that changes they are none.
    return /^[A-Za-z]/.test(zone);
  } catch {
    return false;
  }
}

/** The time zone of the machine. */
export const machineZone = (): string => new Intl.DateTimeFormat('en').resolvedOptions().timeZone;
