// What comes again every week at hours of the day: moments, and stretches between two of them, as the clock of a time zone
// shows them. Times are milliseconds since 1970, hours of the day are minutes after midnight. The arithmetic is Temporal’s:
// what falls into an hour that the clock skips is so much later as it skips, and of an hour that it strikes twice the first
// one counts (RFC 5545, section 3.3.5).
import { Temporal } from 'temporal-polyfill';
import { weekdays, type Weekday } from './week';

/** A moment as the clock of a zone shows it. */
export const clockOf = (zone: string, moment: number): Temporal.ZonedDateTime =>
  Temporal.Instant.fromEpochMilliseconds(Math.floor(moment)).toZonedDateTimeISO(zone);

/** The moment at which the clock of a zone shows so many minutes after midnight of a day. */
export function momentOn(zone: string, day: Temporal.PlainDate, minutes: number): number {
  const [date, rest] = minutes >= 1_440 ? [day.add({ days: 1 }), minutes - 1_440] : [day, minutes];
  const plainTime = new Temporal.PlainTime(Math.floor(rest / 60), rest % 60);
  return date.toZonedDateTime({ timeZone: zone, plainTime }).epochMilliseconds;
}

/** A moment as ISO 8601 has it, with the zone’s offset then: `2026-11-30T07:00:00+01:00`. */
export const isoIn = (zone: string, moment: number): string =>
  clockOf(zone, moment).toString({ timeZoneName: 'never', smallestUnit: 'second' });

/** Days are looked at a week at a time, each week once. */
const week = 7 * 86_400_000;
/** Weeks that are remembered. */
const mostWeeks = 4_000;
/** Beyond these years nothing comes again: no clock goes so far (ECMA-262, section 21.4.1.1). */
const farthest = 8e15;

/** What a rule of the week says of one day: pairs of minutes, from and to; a moment is a pair of the same. */
export type OfDay = (weekday: Weekday) => readonly (readonly [from: number, to: number])[];

/** Stretches of a week that come again, in their order. */
export class Weekly {
  private readonly weeks = new Map<number, [from: number, to: number][]>();
  private readonly never: boolean;

  constructor(
    private readonly zone: string,
    private readonly ofDay: OfDay,
  ) {
    this.never = weekdays.every((day) => ofDay(day).length === 0);
  }

  /** The first stretch that ends after a moment, or at it where it is but a moment; null where none ever comes. */
  at(moment: number): readonly [from: number, to: number] | null {
    if (this.never || !(Math.abs(moment) < farthest)) return null;
    // A stretch that began in the week before may still go on; every week has one.
    for (let n = Math.floor(moment / week) - 1; ; n++) {
      const found = this.weekOf(n).find(([from, to]) => to > moment || (from === to && to === moment));
      if (found) return found;
    }
  }

  /** The first moment after another at which a stretch begins; Infinity where none ever does. */
  after(moment: number): number {
    if (this.never || !(Math.abs(moment) < farthest)) return Infinity;
    for (let n = Math.floor(moment / week); ; n++) {
      const found = this.weekOf(n).find(([from]) => from > moment);
      if (found) return found[0];
    }
  }

  /** The stretches that begin within a week since 1970. */
  private weekOf(n: number): [from: number, to: number][] {
    let list = this.weeks.get(n);
    if (list) return list;
    list = [];
    const first = clockOf(this.zone, n * week).toPlainDate();
    for (let i = -1; i <= 8; i++) {
      const day = first.add({ days: i });
      for (const [from, to] of this.ofDay(weekdays[day.dayOfWeek - 1])) {
        const begins = momentOn(this.zone, day, from);
        const ends = from === to ? begins : momentOn(this.zone, day, to);
        // An hour that is skipped may leave nothing of a stretch.
        if (begins < n * week || begins >= (n + 1) * week || (from !== to && ends <= begins)) continue;
        list.push([begins, ends]);
      }
    }
    // Of two that the clock has made one, one is enough.
    list.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
    list = list.filter((one, i) => i === 0 || one[0] !== list?.[i - 1][0] || one[1] !== list[i - 1][1]);
    if (this.weeks.size >= mostWeeks) this.weeks.clear();
    this.weeks.set(n, list);
    return list;
  }
}
