// Recurrence: on which days and at which times something comes again (RFC 5545, section 3.3.10). Written here since a rule
// may be a stranger's: libraries that were tried look for February 30 for seconds, or for ever. This looks only at the
// stretch that is asked for, or, where a rule counts, at no more than so many days.
import { dayLong, wallNumber } from './wallTime';
import { weekdays, type Weekday } from './weekdays';

const frequencies = ['DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'] as const;
export type Frequency = (typeof frequencies)[number];

export interface Recurrence {
  freq: Frequency;
  interval: number;
  count: number | null;
  /** The last wall number at which it may come; `utc`: meant by UTC's clock. */
  until: { number: number; utc: boolean; day: boolean } | null;
  months: number[];
  weeks: number[];
  yearDays: number[];
  monthDays: number[];
  /** `nth`: 0 for each, 1 the first, -1 the last of its month or year. */
  days: { day: number; nth: number }[];
  hours: number[];
  minutes: number[];
  seconds: number[];
  positions: number[];
  /** The first day of the week, 0 for Monday. */
  weekStart: number;
}

export type ReadRecurrence = { ok: true; rule: Recurrence } | { ok: false; says: string };

const bounds: Record<string, [least: number, most: number]> = {
  BYMONTH: [1, 12],
  BYWEEKNO: [-53, 53],
  BYYEARDAY: [-366, 366],
  BYMONTHDAY: [-31, 31],
  BYHOUR: [0, 23],
  BYMINUTE: [0, 59],
  BYSECOND: [0, 60],
  BYSETPOS: [-366, 366],
};

/** A list of numbers; null where one is none or out of bounds. */
function numbers(part: string, value: string): number[] | null {
  const [least, most] = bounds[part];
  const read = value.split(',').slice(0, 400).map(Number);
  const fine = read.every((n) => Number.isInteger(n) && n >= least && n <= most && (n !== 0 || least >= 0));
  return fine && value !== '' ? [...new Set(read)].sort((a, b) => a - b) : null;
}

function weekdaysOf(value: string): Recurrence['days'] | null {
  const days: Recurrence['days'] = [];
  for (const one of value.split(',').slice(0, 400)) {
    const [, nth = '', name = ''] = /^([+-]?\d{1,2})?(MO|TU|WE|TH|FR|SA|SU)$/i.exec(one) ?? [];
    const day = weekdays.indexOf(name.toUpperCase() as Weekday);
    if (day < 0 || Math.abs(Number(nth)) > 53 || (nth !== '' && Number(nth) === 0)) return null;
    days.push({ day, nth: Number(nth) });
  }
  return days;
}

function untilOf(value: string): Recurrence['until'] {
  const [, y, m, d, time, utc] = /^(\d{4})(\d{2})(\d{2})(?:T(\d{6})(Z?))?$/.exec(value) ?? [];
  if (!y) return null;
  const clock = time ? `T${time.slice(0, 2)}:${time.slice(2, 4)}:${time.slice(4)}` : '';
  const number = wallNumber(`${y}-${m}-${d}${clock}`);
  return number === null ? null : { number, utc: utc === 'Z', day: !time };
}

const empty = (): Recurrence => ({
  freq: 'DAILY',
  interval: 1,
  count: null,
  until: null,
  months: [],
  weeks: [],
  yearDays: [],
  monthDays: [],
  days: [],
  hours: [],
  minutes: [],
  seconds: [],
  positions: [],
  weekStart: 0,
});

const listed: Record<
  string,
  'months' | 'weeks' | 'yearDays' | 'monthDays' | 'hours' | 'minutes' | 'seconds' | 'positions'
> = {
  BYMONTH: 'months',
  BYWEEKNO: 'weeks',
  BYYEARDAY: 'yearDays',
  BYMONTHDAY: 'monthDays',
  BYHOUR: 'hours',
  BYMINUTE: 'minutes',
  BYSECOND: 'seconds',
  BYSETPOS: 'positions',
};

/** Takes one part of a rule; what is wrong with it, or null. */
function take(rule: Recurrence, part: string, value: string): string | null {
  const wrong = `“${part}=${value.slice(0, 40)}” means nothing in a recurrence`;
  if (part in listed) {
    const read = numbers(part, value);
    if (!read) return wrong;
    rule[listed[part]] = read;
    return null;
  }
  switch (part) {
    case 'FREQ': {
      const freq = frequencies.find((one) => one === value.toUpperCase());
      if (!freq)
        return /^(SECOND|MINUTE|HOUR)LY$/i.test(value)
          ? `it comes again ${value.toLowerCase()}, more often than a day has room for`
          : wrong;
      rule.freq = freq;
      return null;
    }
    case 'INTERVAL':
    case 'COUNT': {
      if (!/^\d{1,9}$/.test(value) || Number(value) < 1) return wrong;
      if (part === 'COUNT') rule.count = Number(value);
      else rule.interval = Number(value);
      return null;
    }
    case 'UNTIL':
      rule.until = untilOf(value);
      return rule.until ? null : wrong;
    case 'BYDAY': {
      const days = weekdaysOf(value);
      if (!days) return wrong;
      rule.days = days;
      return null;
    }
    case 'WKST': {
      const day = weekdays.indexOf(value.toUpperCase() as Weekday);
      if (day < 0) return wrong;
      rule.weekStart = day;
      return null;
    }
    default:
      // Parts of later standards (RFC 7529) change what is meant: better not at all than on wrong days.
      return wrong;
  }
}

/** Reads a recurrence as RFC 5545 writes it, `FREQ=WEEKLY;BYDAY=MO`. What is wrong is said to be put behind a colon. */
export function readRecurrence(text: string): ReadRecurrence {
  if (text.length > 2_000) return { ok: false, says: 'it is too long' };
  const rule = empty();
  let freq = false;
  for (const piece of text.split(';')) {
    if (piece === '') continue;
    const at = piece.indexOf('=');
    const part = piece
      .slice(0, at < 0 ? undefined : at)
      .trim()
      .toUpperCase();
    const says =
      at < 0 ? `“${piece.slice(0, 40)}” means nothing in a recurrence` : take(rule, part, piece.slice(at + 1).trim());
    if (says !== null) return { ok: false, says };
    if (part === 'FREQ') freq = true;
  }
  if (!freq) return { ok: false, says: 'it does not say how often (FREQ)' };
  if (rule.hours.length * (rule.minutes.length || 1) * (rule.seconds.length || 1) > 1_440)
    return { ok: false, says: 'it comes again more often than a day has room for' };
  return { ok: true, rule };
}

/** A day by its number since 1970. */
interface Day {
  number: number;
  year: number;
  month: number;
  monthDay: number;
  /** 0 for Monday. */
  weekday: number;
}

const dayOf = (number: number): Day => {
  const date = new Date(number * dayLong);
  return {
    number,
    year: date.getUTCFullYear(),
    month: date.getUTCMonth() + 1,
    monthDay: date.getUTCDate(),
    weekday: (date.getUTCDay() + 6) % 7,
  };
};

function dayNumber(year: number, month: number, day: number): number {
  // Years below 100 are not those of the last century.
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  return date.getTime() / dayLong;
}
const mod = (a: number, b: number): number => ((a % b) + b) % b;

/** Which of its month, or of a stretch of days, a weekday is, counted from both ends. */
const isNth = (nth: number, at: number, length: number): boolean =>
  nth > 0 ? Math.floor(at / 7) === nth - 1 : Math.floor((length - 1 - at) / 7) === -nth - 1;

const within = (list: readonly number[], at: number, length: number): boolean =>
  list.some((n) => (n > 0 ? n === at + 1 : n === at - length));

/** The weeks of a year: the first that has four days of it begins them (RFC 5545, BYWEEKNO). */
function weekOneOf(year: number, weekStart: number): number {
  const first = dayNumber(year, 1, 1);
  const into = mod(dayOf(first).weekday - weekStart, 7);
  return into <= 3 ? first - into : first - into + 7;
}

/** A stretch of days that a rule looks at at once: a day, week, month or year. */
interface Period {
  from: number;
  to: number;
  year: number;
  month: number;
}

/** The periods of a rule, by their number from the one of the start. */
class Periods {
  private readonly start: Day;
  private readonly week: number;

  constructor(
    private readonly rule: Recurrence,
    startDay: number,
  ) {
    this.start = dayOf(startDay);
    this.week = startDay - mod(this.start.weekday - rule.weekStart, 7);
  }

  at(n: number): Period {
    const { freq, interval } = this.rule;
    const { number, year, month } = this.start;
    const by = n * interval;
    switch (freq) {
      case 'DAILY':
        return { from: number + by, to: number + by + 1, year: 0, month: 0 };
      case 'WEEKLY':
        return { from: this.week + 7 * by, to: this.week + 7 * by + 7, year: 0, month: 0 };
      case 'MONTHLY': {
        const all = year * 12 + month - 1 + by;
        const [y, m] = [Math.floor(all / 12), mod(all, 12) + 1];
        return { from: dayNumber(y, m, 1), to: dayNumber(y, m + 1, 1), year: y, month: m };
      }
      case 'YEARLY':
        return { from: dayNumber(year + by, 1, 1), to: dayNumber(year + by + 1, 1, 1), year: year + by, month: 0 };
    }
  }

  /** A period that begins at or before a day, as near to it as is known at once. */
  near(day: number): number {
    const { freq, interval } = this.rule;
    const days = day - this.start.number;
    const longest = { DAILY: 1, WEEKLY: 7, MONTHLY: 31, YEARLY: 366 }[freq];
    return Math.max(0, Math.floor(days / longest / interval) - 1);
  }
}

/** The days of a period on which a rule comes, in order. */
function daysOf(rule: Recurrence, period: Period, start: Day): number[] {
  const { freq, months, weeks, yearDays, monthDays, days } = rule;
  const out: number[] = [];
  // A week of a year may begin before it and end after it (RFC 5545 has BYWEEKNO in years alone).
  const reach = freq === 'YEARLY' && weeks.length > 0 ? 6 : 0;
  const weekOne = reach ? weekOneOf(period.year, rule.weekStart) : 0;
  const nextOne = reach ? weekOneOf(period.year + 1, rule.weekStart) : 0;
  const plain = days.length === 0 && monthDays.length === 0 && yearDays.length === 0;
  for (let number = period.from - reach; number < period.to + reach; number++) {
    const day = dayOf(number);
    if (months.length && !months.includes(day.month)) continue;
    if (reach) {
      const week = Math.floor((number - weekOne) / 7);
      const all = (nextOne - weekOne) / 7;
      if (number < weekOne || number >= nextOne || !within(weeks, week, all)) continue;
      if (plain && day.weekday !== start.weekday) continue;
    }
    const first = dayNumber(day.year, 1, 1);
    const length = dayNumber(day.year + 1, 1, 1) - first;
    if (yearDays.length && !within(yearDays, number - first, length)) continue;
    const monthFrom = number - day.monthDay + 1;
    const monthLength = dayNumber(day.year, day.month + 1, 1) - monthFrom;
    if (monthDays.length && !within(monthDays, day.monthDay - 1, monthLength)) continue;
    if (days.length) {
      const inYear = freq === 'YEARLY' && months.length === 0;
      const [at, all] = inYear ? [number - first, length] : [day.monthDay - 1, monthLength];
      const ordinal = freq === 'MONTHLY' || (freq === 'YEARLY' && weeks.length === 0);
      if (!days.some((one) => one.day === day.weekday && (one.nth === 0 || !ordinal || isNth(one.nth, at, all))))
        continue;
    }
    if (plain && !weeks.length && !byDefault(rule, day, start)) continue;
    out.push(number);
  }
  return out;
}

/** Where a rule names no day, those of its start count (RFC 5545, section 3.3.10: “information from DTSTART”). */
function byDefault({ freq, months }: Recurrence, day: Day, start: Day): boolean {
  switch (freq) {
    case 'DAILY':
      return true;
    case 'WEEKLY':
      return day.weekday === start.weekday;
    case 'MONTHLY':
      return day.monthDay === start.monthDay;
    case 'YEARLY':
      return day.monthDay === start.monthDay && (months.length > 0 || day.month === start.month);
  }
}

/** Milliseconds after midnight at which a rule comes on each of its days. */
function timesOf({ hours, minutes, seconds }: Recurrence, startTime: number): number[] {
  const [h, m, s] = [
    Math.floor(startTime / 3_600_000),
    Math.floor(startTime / 60_000) % 60,
    Math.floor(startTime / 1_000) % 60,
  ];
  const out: number[] = [];
  for (const hour of hours.length ? hours : [h])
    for (const minute of minutes.length ? minutes : [m])
      for (const second of seconds.length ? seconds : [s])
        out.push(hour * 3_600_000 + minute * 60_000 + Math.min(second, 59) * 1_000);
  return out;
}

/** No rule is looked at over more days than this: two hundred years. */
const mostDays = 73_500;
/** The last year that is looked at. */
const lastDay = 2_932_896;

/**
 * The wall numbers, in order, at which a rule comes from `from` up to, not including, `to`. `start`: the wall number of the
 * first, which counts also where the rule does not name it. `until`: the rule's own end as the wall clock of the start has
 * it. At most `most`. `cut`: that not all was looked at.
 */
export function comesAgain(
  rule: Recurrence,
  start: number,
  until: number | null,
  from: number,
  to: number,
  most: number,
): { at: number[]; cut: boolean } {
  const out: number[] = [];
  const startDay = Math.floor(start / dayLong);
  const startOf = dayOf(startDay);
  const periods = new Periods(rule, startDay);
  const times = timesOf(rule, mod(start, dayLong));
  const end = Math.min(to, until === null ? Infinity : until + 1, (lastDay + 1) * dayLong);
  if (start >= from && start < to) out.push(start);
  // Whoever counts begins at the first; else what is before the stretch is passed by.
  let n = rule.count === null ? periods.near(Math.floor(from / dayLong)) : 0;
  let counted = 1;
  let looked = 0;
  for (; ; n++) {
    const period = periods.at(n);
    if (period.from * dayLong >= end + 6 * dayLong || period.from > lastDay) return { at: out, cut: false };
    looked += period.to - period.from;
    if (looked > mostDays || out.length >= most) return { at: out, cut: true };
    const days = daysOf(rule, period, startOf);
    let all = days.flatMap((day) => times.map((time) => day * dayLong + time));
    if (rule.positions.length) all = all.filter((_, i) => within(rule.positions, i, all.length));
    for (const at of all) {
      if (at <= start) continue;
      if (rule.count !== null && ++counted > rule.count) return { at: out, cut: false };
      if (at >= end) {
        if (rule.count !== null) continue;
        return { at: out, cut: false };
      }
      if (at >= from && out.length < most) out.push(at);
    }
  }
}
