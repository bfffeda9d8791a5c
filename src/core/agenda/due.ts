// Due dates: the days that are offered, and typed ones. Times are milliseconds since 1970; days are those of the machine's
// time zone, since “tomorrow” is the person's.
import * as chrono from 'chrono-node';
import { addDays, endOfDay, endOfISOWeek, set, subDays } from 'date-fns';

import { dueDays, type DueDay } from './dueDays';

export { dueDays, type DueDay };

/** The end of a day that is offered: the working week ends on Friday; at a weekend “this week” is today. */
export function dueOn(day: DueDay, now: number): number {
  const friday = subDays(endOfISOWeek(now), 2);
  switch (day) {
    case 'today':
      return endOfDay(now).getTime();
    case 'tomorrow':
      return endOfDay(addDays(now, 1)).getTime();
    case 'this week':
      return (friday.getTime() < now ? endOfDay(now) : friday).getTime();
    case 'next week':
      return addDays(friday, 7).getTime();
  }
}

export type TypedDue = { ok: true; due: number } | { ok: false; error: string };

const parse = (text: string, now: number) => chrono.en.GB.parse(text, new Date(now), { forwardDate: true });

/** A day and month with dots, as much of Europe writes them, in the form of ISO 8601: the coming one where no year stands. */
function withoutDots(text: string, now: number): string {
  return text.replace(/(^|\s)(\d{1,2})\.(\d{1,2})(?:\.(\d{4}|\d{2})?)?(?=\s|$)/, (all, before: string, d, m, y) => {
    const [day, month, typed] = [Number(d), Number(m), y === undefined ? null : Number(y)];
    if (day < 1 || day > 31 || month < 1 || month > 12) return all;
    const today = new Date(now);
    const over = endOfDay(new Date(today.getFullYear(), month - 1, day)).getTime() < now;
    const year = typed === null ? today.getFullYear() + (over ? 1 : 0) : typed < 100 ? 2000 + typed : typed;
    return `${before}${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
  });
}

/** An hour alone behind a day: “tomorrow 9”, “fri 14”. */
function withHour(text: string, now: number): string {
  const [, day, hour] = /^(.*\S)\s+(\d{1,2})$/.exec(text) ?? [];
  if (day === undefined || Number(hour) > 23) return text;
  const found = parse(day, now).at(0);
  const whole = found?.text.length === day.length && !found.start.isCertain('hour');
  const named = found?.start.isCertain('day') === true || found?.start.isCertain('weekday') === true;
  return whole && named ? `${day} ${hour}:00` : text;
}

/**
 * Reads a typed date: “fri 3pm”, “3 Dec”, “1.12.”, “tomorrow 9”, “in two weeks”, “2026-12-03 09:30”. Without a time it is
 * the end of that day. A weekday is the coming one, today among them; a date that is past is refused.
 */
export function readDue(text: string, now: number): TypedDue {
  const typed = text.trim();
  if (!typed) return { ok: false, error: 'Type a date, such as fri 3pm or 3 Dec.' };
  const plain = withHour(withoutDots(typed.slice(0, 100), now), now);
  const [found, second] = parse(plain, now);
  if (!found) return { ok: false, error: `“${typed}” is no date: write fri 3pm, 3 Dec or 2026-12-03.` };
  const left = (plain.slice(0, found.index) + plain.slice(found.index + found.text.length)).replace(
    /\b(?:on|by|at|the|due)\b|[\s,.]+/gi,
    '',
  );
  if (second || left) return { ok: false, error: `In “${typed}” only “${found.text}” is a date.` };
  let date = found.start.date();
  // “fri” and “fri 3pm” are one Friday: with an hour that is past it is past, not a week ahead.
  const weekday = found.start.get('weekday');
  if (weekday !== null && found.start.isCertain('weekday') && !found.start.isCertain('day') && !/\bnext\b/i.test(plain))
    date = set(date, dayParts(addDays(now, (weekday - new Date(now).getDay() + 7) % 7)));
  const due = found.start.isCertain('hour') ? date.getTime() : endOfDay(date).getTime();
  return due < now ? { ok: false, error: `“${typed}” is past.` } : { ok: true, due };
}

const dayParts = (day: Date) => ({ year: day.getFullYear(), month: day.getMonth(), date: day.getDate() });
