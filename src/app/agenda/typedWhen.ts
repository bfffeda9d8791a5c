// Days, hours and lengths as a person types them.
import type { FoundDate } from '../../core/agenda/foundDates';
import type { Item } from '../../core/agenda/item';
import { dayIn, isDay, numberOf, timeIn, wallText, type When } from '../../core/agenda/wallTime';

export const hour = 3_600_000;
export const day = 24 * hour;

/** A day or time as it is typed. */
export const typedOf = (when: When | null): string => (when ? when.at.slice(0, 16).replace('T', ' ') : '');

/** How long something lasts, as it is typed; null where that can’t be read. In milliseconds. */
export function readLength(typed: string): number | null {
  const text = typed.trim().toLowerCase().replace(',', '.');
  const [, minutes] = /^(\d{1,4})\s*(?:m|min|minutes?)$/.exec(text) ?? [];
  if (minutes) return Number(minutes) * 60_000;
  const [, hours] = /^(\d{1,3}(?:\.\d{1,2})?)\s*(?:h|hours?)$/.exec(text) ?? [];
  if (hours) return Math.round(Number(hours) * 60) * 60_000;
  const [, h, m] = /^(\d{1,3})\s*h\s*(\d{1,2})(?:\s*m(?:in)?)?$/.exec(text) ?? [];
  if (h) return Number(h) * hour + Number(m) * 60_000;
  const [, days] = /^(\d{1,3})\s*(?:d|days?)$/.exec(text) ?? [];
  return days ? Number(days) * day : null;
}

/** A length as it would be typed. */
export function lengthTyped(milliseconds: number): string {
  if (milliseconds > 0 && milliseconds % day === 0)
    return milliseconds === day ? '1 day' : `${milliseconds / day} days`;
  const minutes = Math.round(milliseconds / 60_000);
  if (minutes < 60) return `${minutes} min`;
  return minutes % 60 === 0 ? `${minutes / 60} h` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

/** How long an item lasts, in milliseconds; what a new one would where it says nothing. */
export function lastsOf({ start, end }: Pick<Item, 'start' | 'end'>): number {
  if (start && end) return numberOf(end.at) - numberOf(start.at);
  return start && isDay(start) ? day : hour;
}

/** An item that is due, or begins, then, and lasts so long. */
export function timesOf(item: Item, at: When | null, lasts: number): Pick<Item, 'start' | 'end'> {
  if (item.kind === 'task') {
    const { start } = item;
    const fits = start && at && isDay(start) === isDay(at) && numberOf(start.at) <= numberOf(at.at);
    return { start: fits ? start : null, end: at };
  }
  if (!at) return { start: null, end: null };
  const long = isDay(at) ? Math.max(1, Math.round(lasts / day)) * day : lasts;
  return { start: at, end: { at: wallText(numberOf(at.at) + long, isDay(at)), zone: at.zone } };
}

/** A typed moment, milliseconds since 1970, as a day or time of a zone: the end of a day stands for the whole of it. */
export function whenOf(moment: number, zone: string): When {
  const date = new Date(moment);
  return date.getHours() === 23 && date.getMinutes() === 59 ? dayIn(moment, zone) : timeIn(moment, zone);
}

/** A length that fits a day or a time: days for days, an hour where there was none. */
export const fitting = (at: When, long: number): number =>
  isDay(at) === (long > 0 && long % day === 0) ? long : isDay(at) ? day : hour;

/** A date that was found, as a day or time, and how long it lasts. */
export function foundWhen(date: FoundDate, zone: string): { at: When; lasts: number } {
  const at = date.wholeDay ? dayIn(date.start, zone) : timeIn(date.start, zone);
  return { at, lasts: date.end !== null ? date.end - date.start : date.wholeDay ? day : hour };
}
