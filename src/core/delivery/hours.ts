// Rounds and the timetable as moments of a time zone.
import type { Round } from './rounds';
import { cellsOf, stretchesOf, type Timetable } from './timetable';
import { minutesOf, weekdays } from './week';
import { Weekly } from './weekly';

/** The moments of a round in a time zone; null where it has none. */
export function momentsOf(round: Round, zone: string): Weekly | null {
  if (round.by !== 'hours') return null;
  const times = round.times.map((time) => [minutesOf(time), minutesOf(time)] as const);
  return new Weekly(zone, (day) => (round.days.includes(day) ? times : []));
}

/** A timetable’s open hours, and its fixed times, in a time zone. */
export function hoursOf(timetable: Timetable, zone: string): { open: Weekly; times: Weekly } {
  const open = new Map(weekdays.map((day) => [day, stretchesOf(day, cellsOf(timetable, day))]));
  return {
    open: new Weekly(zone, (day) => (open.get(day) ?? []).map(({ from, to }) => [minutesOf(from), minutesOf(to)])),
    times: new Weekly(zone, (day) =>
      timetable.times.filter((one) => one.day === day).map(({ at }) => [minutesOf(at), minutesOf(at)]),
    ),
  };
}
