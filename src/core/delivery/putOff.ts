// Putting off: the moments to which a message can be put off. Times are milliseconds since 1970; days and hours are those
// of the person's time zone, over both changes of its clock.
import { endOfDay } from 'date-fns';
import { readDue } from '../agenda/due';
import type { PutOffTime } from '../agenda/putOffTimes';
import { machineZone } from './week';
import { clockOf, momentOn } from './weekly';

/** So many hours are “later”. */
const later = 3;

/**
 * The moment that is offered; null where there is none any more today. `morning`: the hour at which it begins; where the
 * clock skips that hour, the first moment after it. `zone`: the person’s time zone.
 */
export function putOffTo(time: PutOffTime, now: number, morning: number, zone = machineZone()): number | null {
  const clock = clockOf(zone, now);
  switch (time) {
    case 'later today': {
      const at = clock.add({ hours: later }).round({ smallestUnit: 'hour', roundingMode: 'floor' });
      return at.toPlainDate().equals(clock.toPlainDate()) ? at.epochMilliseconds : null;
    }
    case 'tomorrow morning':
      return momentOn(zone, clock.toPlainDate().add({ days: 1 }), morning * 60);
    case 'next week':
      return momentOn(zone, clock.toPlainDate().add({ days: 8 - clock.dayOfWeek }), morning * 60);
  }
}

export type TypedMoment = { ok: true; at: number } | { ok: false; error: string };

/** A moment of which the machine’s clock shows what a zone’s clock shows at another. */
function onMachine(zone: string, moment: number): number {
  const { year, month, day, hour, minute, second, millisecond } = clockOf(zone, moment);
  return new Date(year, month - 1, day, hour, minute, second, millisecond).getTime();
}

/** The moment at which a zone’s clock shows what the machine’s shows at another. */
function onZone(zone: string, moment: number): number {
  const clock = clockOf(machineZone(), moment);
  return momentOn(zone, clock.toPlainDate(), clock.hour * 60 + clock.minute);
}

/** Reads a typed moment as flags take their dates; a day without an hour is the morning of that day. */
export function readPutOff(text: string, now: number, morning: number, zone = machineZone()): TypedMoment {
  // Dates are read by the machine’s clock: where the person’s is another, it is as if that were here.
  const own = zone === machineZone();
  const read = readDue(text, own ? now : onMachine(zone, now));
  if (!read.ok) return read;
  const wholeDay = read.due === endOfDay(read.due).getTime();
  const due = own ? read.due : onZone(zone, read.due);
  const at = wholeDay ? momentOn(zone, clockOf(zone, due).toPlainDate(), morning * 60) : due;
  return at > now ? { ok: true, at } : { ok: false, error: `“${text.trim()}” is past: name an hour still to come.` };
}
