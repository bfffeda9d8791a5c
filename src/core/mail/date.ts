// Dates of messages (RFC 5322, sections 3.3 and 4.3).

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/** Zones of RFC 5322, section 4.3, in minutes east of UTC. Military letters count as -0000, as the RFC asks. */
const zones: Record<string, number> = {
  ut: 0,
  utc: 0,
  gmt: 0,
  z: 0,
  est: -300,
  edt: -240,
  cst: -360,
  cdt: -300,
  mst: -420,
  mdt: -360,
  pst: -480,
  pdt: -420,
};

const dateTime =
  /^(?:[a-z]{2,9}\.?\s*,?\s*)?(\d{1,2})[\s-]+([a-z]{3})[a-z]*\.?,?[\s-]+(\d{2,4})(?:\s*,?\s+(\d{1,2})[:.](\d{1,2})(?:[:.](\d{1,2}))?(?:\s*(am|pm)\b)?\s*(?:([+-])\s*(\d{1,2}):?(\d{2})|([a-z]+))?)?/i;
/** `Thu Aug 22 12:36:23 2002`, as C's asctime writes it: met in mbox From_ lines and in old mail. */
const asctime =
  /^(?:[a-z]{3,9},?\s+)?([a-z]{3})[a-z]*\s+(\d{1,2}),?\s+(\d{1,2}):(\d{2})(?::(\d{2}))?\s+(?:([+-]\d{4}|[a-z]{1,5})\s+)?(\d{4})/i;

function fullYear(text: string): number {
  const year = Number(text);
  if (text.length >= 4) return year;
  // RFC 5322, section 4.3: two digits below 50 are 2000 and on, the rest and three digits are 1900 and on.
  return text.length === 2 && year < 50 ? year + 2000 : year + 1900;
}

function utc(
  year: number,
  month: number,
  day: number,
  hour: number,
  minute: number,
  second: number,
  east: number,
): DateField | null {
  if (month < 0 || day < 1 || day > 31 || hour > 24 || minute > 59 || second > 60 || year < 1900) return null;
  return { time: Date.UTC(year, month, day, hour, minute, second) - east * 60_000, zone: east };
}

/** A Date field: its moment in UTC, milliseconds since 1970, and the zone that it names, in minutes east of UTC. */
export interface DateField {
  time: number;
  zone: number;
}

function comments(text: string): string {
  let out = text;
  for (let n = 0; n < 5 && out.includes('('); n++) out = out.replace(/\([^()]*\)/g, ' ');
  return out;
}

/**
 * A Date field as milliseconds since 1970 in UTC, or null where it can't be read. Takes the obsolete forms and the
 * loose ones of real mail; a zone that nobody knows counts as UTC (section 4.3).
 */
export const parseDate = (field: string): number | null => readDate(field)?.time ?? null;

/** The same with its zone. */
export function readDate(field: string): DateField | null {
  const text = comments(field).replace(/\s+/g, ' ').replace(/ ?: ?/g, ':').trim();
  const found = dateTime.exec(text);
  if (found) {
    const [, day, month, year, hour, minute, second, half, sign, zoneHour, zoneMinute, zone] = found;
    let h = Number(hour ?? 0);
    if (half) h = (h % 12) + (half.toLowerCase() === 'pm' ? 12 : 0);
    const east = sign
      ? (sign === '-' ? -1 : 1) * (Number(zoneHour) * 60 + Number(zoneMinute))
      : (zones[zone?.toLowerCase() ?? ''] ?? 0);
    return utc(
      fullYear(year),
      months.indexOf(month.toLowerCase()),
      Number(day),
      h,
      Number(minute ?? 0),
      Number(second ?? 0),
      east,
    );
  }
  const old = asctime.exec(text);
  if (old) {
    const [, month, day, hour, minute, second, zone, year] = old;
    const numeric = /^([+-])(\d\d)(\d\d)$/.exec(zone ?? '');
    const east = numeric
      ? (numeric[1] === '-' ? -1 : 1) * (Number(numeric[2]) * 60 + Number(numeric[3]))
      : (zones[zone?.toLowerCase() ?? ''] ?? 0);
    const at = months.indexOf(month.toLowerCase());
    return utc(Number(year), at, Number(day), Number(hour), Number(minute), Number(second ?? 0), east);
  }
  return null;
}

const dayNames = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];
const monthNames = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const two = (n: number) => String(n).padStart(2, '0');

/** A moment (milliseconds since 1970) as a Date field, in a zone given in minutes east of UTC (section 3.3). */
export function formatDate(time: number, east = 0): string {
  const d = new Date(time + east * 60_000);
  const zone = `${east < 0 ? '-' : '+'}${two(Math.floor(Math.abs(east) / 60))}${two(Math.abs(east) % 60)}`;
  const day = `${dayNames[d.getUTCDay()]}, ${d.getUTCDate()} ${monthNames[d.getUTCMonth()]} ${d.getUTCFullYear()}`;
  return `${day} ${two(d.getUTCHours())}:${two(d.getUTCMinutes())}:${two(d.getUTCSeconds())} ${zone}`;
}

/** A moment as an mbox From_ line writes it: `Thu Aug 22 12:36:23 2002`, in UTC (RFC 4155, appendix A). */
export function formatAsctime(time: number): string {
  const d = new Date(time);
  const day = `${dayNames[d.getUTCDay()]} ${monthNames[d.getUTCMonth()]} ${String(d.getUTCDate()).padStart(2)}`;
  return `${day} ${two(d.getUTCHours())}:${two(d.getUTCMinutes())}:${two(d.getUTCSeconds())} ${d.getUTCFullYear()}`;
}
