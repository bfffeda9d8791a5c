// Due dates: the days that are offered, and typed ones. Times are milliseconds since 1970; days are those of the machine's
// time zone, since “tomorrow” is the person's.
import * as chrono from 'chrono-node';
import { addDays, endOfDay, endOfISOWeek, subDays } from 'date-fns';

export const dueDays = ['today', 'tomorrow', 'this week', 'next week'] as const;
export type DueDay = (typeof dueDays)[number];

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

/**
 * Reads a typed date: “fri 3pm”, “3 Dec”, “in two weeks”, “2026-12-03 09:30”. Without a time it is the end of that day.
 * A weekday is the coming one; a date that is past is refused.
 */
export function readDue(text: string, now: number): TypedDue {
  const typed = text.trim();
  if (!typed) return { ok: false, error: 'Type a date, such as fri 3pm or 3 Dec.' };
  const [found, second] = chrono.en.GB.parse(typed.slice(0, 100), new Date(now), { forwardDate: true });
  if (!found) return { ok: false, error: `“${typed}” is no date: write fri 3pm, 3 Dec or 2026-12-03.` };
  const left = (typed.slice(0, found.index) + typed.slice(found.index + found.text.length)).replace(
    /\b(?:on|by|at|the|due)\b|[\s,.]+/gi,
    '',
  );
  if (second || left) return { ok: false, error: `In “${typed}” only “${found.text}” is a date.` };
  const date = found.start.date();
  const due = found.start.isCertain('hour') ? date.getTime() : endOfDay(date).getTime();
  return due < now ? { ok: false, error: `“${typed}” is past.` } : { ok: true, due };
}
