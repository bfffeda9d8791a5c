// How times are written, everywhere the same.
import { addDays, endOfDay, format, isSameDay, isSameYear, subDays } from 'date-fns';
import { count } from './sentences';

/** The last moment that there is, before or after 1970 (ECMA-262, section 21.4.1.1). */
const lastMoment = 8.64e15;

/** Whether a number is a moment, milliseconds since 1970. */
export const isMoment = (time: number): boolean => Math.abs(time) <= lastMoment;

/** A moment in a form of date-fns; what is no moment is said to be none, whoever wrote it down. */
const written = (time: number, form: string): string => (Math.abs(time) <= lastMoment ? format(time, form) : 'no date');

/** A time in short, as a row shows it: `14:05` today, `Tue` in the last six days, `3 Sep`, `3 Sep 2002`. */
export function shortTime(time: number, now: number): string {
  if (isSameDay(time, now)) return written(time, 'HH:mm');
  if (time < now && time > subDays(now, 6).getTime()) return written(time, 'EEE');
  return written(time, isSameYear(time, now) ? 'd MMM' : 'd MMM yyyy');
}

/** A time exactly: `Tue 3 Sep 2026, 14:05`. */
export const exactTime = (time: number): string => written(time, 'EEE d MMM yyyy, HH:mm');

/** When something is due, in short: `today 15:00`, `tomorrow`, `Fri 27 Nov`, and `late since …` once it is past. */
export function dueWords(due: number, now: number): string {
  const day = isSameDay(due, now)
    ? 'today'
    : isSameDay(due, addDays(now, 1))
      ? 'tomorrow'
      : written(due, isSameYear(due, now) ? 'EEE d MMM' : 'd MMM yyyy');
  // The last moment of a day stands for the whole of it.
  const words = due === endOfDay(due).getTime() ? day : `${day} ${written(due, 'HH:mm')}`;
  return due < now ? `late since ${words}` : words;
}

/** A day without its year: `3 Sep`. */
export const dayOfYear = (time: number): string => written(time, 'd MMM');

/** A moment as ISO 8601 has it, for machines. */
export const isoTime = (time: number): string => (Math.abs(time) <= lastMoment ? new Date(time).toISOString() : '');

/** A day: `3 Sep 2026`. */
export const dayOf = (time: number): string => written(time, 'd MMM yyyy');

/** Bytes in words: `412 bytes`, `18 KB`, `2.4 MB`. */
export function sizeWords(bytes: number): string {
  if (bytes < 1_000) return `${bytes} bytes`;
  if (bytes < 1_000_000) return `${Math.round(bytes / 1_000)} KB`;
  return `${(bytes / 1_000_000).toFixed(1)} MB`;
}

const minute = 60_000;

/** A length of time in words: `40 minutes`, `3 hours`, `2 days`. */
export function lengthWords(milliseconds: number): string {
  const units = [
    ['day', 1_440 * minute],
    ['hour', 60 * minute],
    ['minute', minute],
  ] as const;
  const [unit, length] = units.find(([, one]) => milliseconds >= 2 * one) ?? units[2];
  const n = Math.max(1, Math.round(milliseconds / length));
  return `${count(n)} ${unit}${n === 1 ? '' : 's'}`;
}
