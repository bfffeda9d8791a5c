// Putting off: the moments to which a message can be put off. Times are milliseconds since 1970; days and hours are those
// of the machine's time zone, over both changes of its clock.
import { addDays, addHours, endOfDay, isSameDay, nextMonday, set, startOfHour } from 'date-fns';
import { readDue } from '../agenda/due';

/** What is offered, in its order. */
export const putOffTimes = ['later today', 'tomorrow morning', 'next week'] as const;
export type PutOffTime = (typeof putOffTimes)[number];

/** So many hours are “later”. */
const later = 3;

/** The morning of a day: where its clock skips that hour, the first moment after it. */
const morningOf = (day: Date | number, morning: number): number =>
  set(day, { hours: morning, minutes: 0, seconds: 0, milliseconds: 0 }).getTime();

/** The moment that is offered; null where there is none any more today. `morning`: the hour at which it begins. */
export function putOffTo(time: PutOffTime, now: number, morning: number): number | null {
  switch (time) {
    case 'later today': {
      const at = startOfHour(addHours(now, later)).getTime();
      return isSameDay(at, now) ? at : null;
    }
    case 'tomorrow morning':
      return morningOf(addDays(now, 1), morning);
    case 'next week':
      return morningOf(nextMonday(now), morning);
  }
}

export type TypedMoment = { ok: true; at: number } | { ok: false; error: string };

/** Reads a typed moment as flags take their dates; a day without an hour is the morning of that day. */
export function readPutOff(text: string, now: number, morning: number): TypedMoment {
  const read = readDue(text, now);
  if (!read.ok) return read;
  const wholeDay = read.due === endOfDay(read.due).getTime();
  const at = wholeDay ? morningOf(read.due, morning) : read.due;
  return at > now ? { ok: true, at } : { ok: false, error: `“${text.trim()}” is past: name an hour still to come.` };
}
