// Days and times as the clock on a wall shows them, and the moments that they are. Tasks and appointments are meant by such
// clocks: “Friday at 9” stays at 9 when the clocks change.
import { Temporal } from 'temporal-polyfill';
import { z } from 'zod';

/** A whole day, `2026-11-28`, or a time, `2026-11-28T09:30:00`. */
const wallSchema = z.string().refine((text) => wallNumber(text) !== null, {
  error: 'must be a day, like 2026-11-28, or a time, like 2026-11-28T09:30:00',
});

/** A day or a time, and by which clock: the zone's (IANA, or `UTC`); null for the one that hangs where the person is. */
export const whenSchema = z.object({ at: wallSchema, zone: z.string().max(100).nullable() });
export type When = z.infer<typeof whenSchema>;

export const dayLong = 86_400_000;

/** Whether it is a whole day. */
export const isDay = ({ at }: Pick<When, 'at'>): boolean => at.length === 10;

/**
 * A wall time as a number that goes up with it: milliseconds since 1970 as if the clock were UTC's. Null where the text is
 * no such time, or of a year beyond 1 to 9999.
 */
export function wallNumber(text: string): number | null {
  if (!/^\d{4}-\d{2}-\d{2}(?:T\d{2}:\d{2}:\d{2})?$/.test(text)) return null;
  const number = Date.parse(text.length === 10 ? `${text}T00:00:00Z` : `${text}Z`);
  // A day that its month has not is another day to some readers.
  return Number.isNaN(number) || wallText(number, text.length === 10) !== text ? null : number;
}

/** The text of such a number. */
export const wallText = (number: number, day: boolean): string =>
  new Date(number).toISOString().slice(0, day ? 10 : 19);

/** {@link wallNumber} of what is known to be a time. */
export const numberOf = (at: string): number => Date.parse(at.length === 10 ? `${at}T00:00:00Z` : `${at}Z`);

/** Whether there is a clock of that name here. */
const known = new Map<string, boolean>();
export function isClock(zone: string): boolean {
  let is = known.get(zone);
  if (is === undefined) {
    try {
      new Intl.DateTimeFormat('en', { timeZone: zone });
      is = /^[A-Za-z]/.test(zone);
    } catch {
      is = false;
    }
    if (known.size > 2_000) known.clear();
    known.set(zone, is);
  }
  return is;
}

/** How far ahead of UTC a clock is, day by day, as far as it does not change on that day; found once. */
class Offsets {
  private readonly zones = new Map<string, Map<number, number | null>>();

  /** `exact`: the offset at a number of the days by which it is looked up. */
  constructor(private readonly exact: (zone: string, number: number) => number) {}

  at(number: number, zone: string): number {
    let days = this.zones.get(zone);
    if (!days) this.zones.set(zone, (days = new Map()));
    const day = Math.floor(number / dayLong);
    let offset = days.get(day);
    if (offset === undefined) {
      const [from, to] = [this.exact(zone, day * dayLong), this.exact(zone, (day + 1) * dayLong)];
      offset = from === to ? from : null;
      if (days.size > 20_000) days.clear();
      days.set(day, offset);
    }
    return offset ?? this.exact(zone, number);
  }
}

const byWall = new Offsets((zone, number) => {
  const wall = Temporal.PlainDateTime.from(wallText(number, false));
  // What falls into an hour that the clock skips is so much later, and of an hour that it strikes twice the first counts
  // (RFC 5545, section 3.3.5).
  return number - wall.toZonedDateTime(zone, { disambiguation: 'compatible' }).epochMilliseconds;
});

const byMoment = new Offsets(
  (zone, moment) =>
    Temporal.Instant.fromEpochMilliseconds(Math.floor(moment)).toZonedDateTimeISO(zone).offsetNanoseconds / 1e6,
);

/** The moment at which a clock shows a wall number, milliseconds since 1970. */
export const momentOfWall = (number: number, zone: string): number =>
  zone === 'UTC' ? number : number - byWall.at(number, zone);

/** What a clock shows at a moment, as a wall number. */
export const wallOfMoment = (moment: number, zone: string): number =>
  zone === 'UTC' ? moment : moment + byMoment.at(moment, zone);

/**
 * The moment of a day or time; of a whole day its beginning, where the person is. `here`: the zone in which the person is. A
 * zone that nobody knows is taken for that one.
 */
export const momentOf = ({ at, zone }: When, here: string): number =>
  momentOfWall(numberOf(at), at.length > 10 && zone !== null && isClock(zone) ? zone : here);

/** A moment as a time of a zone. */
export const timeIn = (moment: number, zone: string): When => ({
  at: wallText(wallOfMoment(moment, zone), false),
  zone,
});

/** The day on which a moment falls in a zone. */
export const dayIn = (moment: number, zone: string): When => ({
  at: wallText(wallOfMoment(moment, zone), true),
  zone: null,
});
