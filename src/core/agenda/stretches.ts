// The Agenda by stretches of time: what is late, today, tomorrow, this week, next week, later.
import { addDays, endOfDay, endOfISOWeek } from 'date-fns';

/** The stretches in their order, each up to a moment: the first that a due date falls into has it. */
const stretches = (now: number): [title: string, until: number][] => [
  ['Late', now],
  ['Today', endOfDay(now).getTime()],
  ['Tomorrow', endOfDay(addDays(now, 1)).getTime()],
  ['This week', endOfISOWeek(now).getTime()],
  ['Next week', endOfISOWeek(addDays(now, 7)).getTime()],
  ['Later', Infinity],
];

/**
 * What is flagged by stretches, each in the order given, at last what has no date. `due` and `now` in milliseconds since
 * 1970; days are the person’s own, weeks begin on Monday (ISO 8601). What is past and can't be late, as an appointment, is
 * today's.
 */
export function inStretches<T extends { due: number | null }>(
  rows: readonly T[],
  now: number,
  canBeLate: (row: T) => boolean = () => true,
): { title: string; rows: T[] }[] {
  const all = stretches(now);
  const groups = all.map(([title]) => ({ title, rows: [] as T[] }));
  const undated: T[] = [];
  for (const row of rows) {
    const { due } = row;
    if (due === null) undated.push(row);
    else groups[all.findIndex(([, until], n) => due <= until && (n > 0 || canBeLate(row)))].rows.push(row);
  }
  return [...groups, { title: 'Without a date', rows: undated }];
}
