// Time zones as files of calendars name them: by the IANA database, by names of a widespread system of offices, by paths, or
// by nothing but their offsets; and as we write them for whoever has no database (RFC 5545, section 3.6.5).
import { Temporal } from 'temporal-polyfill';
import { findIana } from 'windows-iana';
import { folded } from '../text/contentLines';
import { isClock } from './wallTime';

/** What a file says of a zone besides its name: how far ahead of UTC its clocks are, in minutes, outside and in summer. */
export interface ZoneSaid {
  standard: number[];
  daylight: number[];
}

/** The zone of the database that a name means; null where it means none. */
export function zoneNamed(name: string): string | null {
  const bare = name.trim().replace(/^"|"$/g, '');
  if (/^(UTC|Z|GMT|Etc\/UTC|Etc\/GMT)$/i.test(bare)) return 'UTC';
  if (bare.length > 200) return null;
  // Some put a path of their own before it: /example.org/2020/Europe/Berlin.
  const parts = bare.split('/').filter(Boolean);
  for (let from = 0; from < parts.length; from++) {
    const rest = parts.slice(from).join('/');
    if ((rest.includes('/') || from === 0) && isClock(rest))
      return Intl.DateTimeFormat('en', { timeZone: rest }).resolvedOptions().timeZone === 'UTC' ? 'UTC' : rest;
  }
  return findIana(bare)[0] ?? null;
}

const [january, july] = [Date.UTC(2026, 0, 15), Date.UTC(2026, 6, 15)];
const offsetAt = (zone: string, moment: number): number =>
  Temporal.Instant.fromEpochMilliseconds(moment).toZonedDateTimeISO(zone).offsetNanoseconds / 60e9;

let byOffsets: Map<string, string> | null = null;
/** Places that many zones share are called by the best known (common practice, no source). */
const preferred = [
  'Europe/Berlin',
  'Europe/London',
  'Europe/Helsinki',
  'America/New_York',
  'America/Chicago',
  'America/Denver',
  'America/Los_Angeles',
  'Asia/Tokyo',
  'Asia/Kolkata',
  'Asia/Shanghai',
  'Australia/Sydney',
];

/** A zone of the database whose clocks are as far ahead; null where none is. */
export function zoneLike({ standard, daylight }: ZoneSaid): string | null {
  const [winter] = standard.slice(-1);
  if (winter === undefined) return null;
  const summer = daylight.at(-1) ?? winter;
  if (!byOffsets) {
    byOffsets = new Map();
    for (const zone of [...preferred, ...Intl.supportedValuesOf('timeZone')]) {
      const key = `${offsetAt(zone, january)} ${offsetAt(zone, july)}`;
      if (!byOffsets.has(key)) byOffsets.set(key, zone);
    }
  }
  return byOffsets.get(`${winter} ${summer}`) ?? byOffsets.get(`${summer} ${winter}`) ?? null;
}

const two = (n: number): string => String(Math.abs(n)).padStart(2, '0');
const offsetText = (minutes: number): string =>
  `${minutes < 0 ? '-' : '+'}${two(Math.trunc(minutes / 60))}${two(minutes % 60)}`;

/** The most changes of a clock that are written of one zone. */
const mostChanges = 400;

/** A zone as a calendar has it, for the years from `from` up to `to`: each change of its clocks. */
export function zoneLines(zone: string, from: number, to: number): string {
  const offset = (at: Temporal.ZonedDateTime): number => at.offsetNanoseconds / 60e9;
  const before = Temporal.PlainDateTime.from({ year: from, month: 1, day: 1 }).toZonedDateTime(zone);
  const lines = ['BEGIN:VTIMEZONE', `TZID:${zone}`];
  const observance = (kind: string, start: string, was: number, is: number) =>
    lines.push(
      `BEGIN:${kind}`,
      `DTSTART:${start}`,
      `TZOFFSETFROM:${offsetText(was)}`,
      `TZOFFSETTO:${offsetText(is)}`,
      `END:${kind}`,
    );
  const least = Math.min(offsetAt(zone, Date.UTC(from, 0, 15)), offsetAt(zone, Date.UTC(from, 6, 15)));
  const kindOf = (is: number) => (is > least ? 'DAYLIGHT' : 'STANDARD');
  observance(kindOf(offset(before)), `${String(from).padStart(4, '0')}0101T000000`, offset(before), offset(before));
  let at: Temporal.ZonedDateTime | null = before;
  for (let n = 0; n < mostChanges; n++) {
    const next: Temporal.ZonedDateTime | null = at.getTimeZoneTransition('next');
    if (!next || next.year > to) break;
    const was = offset(next.subtract({ nanoseconds: 1 }));
    // The change is at what the clock showed before it.
    const shown = next
      .toInstant()
      .add({ minutes: Math.round(was) })
      .toString({ smallestUnit: 'second' });
    observance(kindOf(offset(next)), shown.replace(/[-:Z]/g, ''), was, offset(next));
    at = next;
  }
  lines.push('END:VTIMEZONE');
  return lines.map(folded).join('');
}
