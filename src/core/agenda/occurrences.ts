// What of tasks and appointments falls into a stretch of time: each of a series by itself, as it is then.
import { anchorOf, itemTitle, standsAt, type ChangedOccurrence, type Item } from './item';
import { comesAgain, readRecurrence, type Recurrence } from './recurrence';
import { dayLong, isClock, isDay, momentOfWall, numberOf, wallOfMoment, wallText, type When } from './wallTime';

/** One time at which something stands in the Agenda. Times in milliseconds since 1970. */
export interface Occurrence {
  item: Item;
  /** Which of a series, as RECURRENCE-ID names it; null for what comes once. */
  on: string | null;
  title: string;
  place: string;
  start: number;
  /** The first moment after it; of a task when it is due, which is `start`, too. */
  end: number;
  wholeDay: boolean;
}

/** Years 1 to 9999, within a day. */
const [firstMoment, lastMoment] = [-62_135_510_400_000, 253_402_214_400_000];

/** No series is shown more often than this in one stretch. */
const mostOfOne = 1_000;

const clockOf = ({ at, zone }: When, here: string): string =>
  at.length > 10 && zone !== null && isClock(zone) ? zone : here;

/** The wall number at which a recurrence ends, by the clock of its start; null for never. */
function lastOf({ until }: Recurrence, zone: string): number | null {
  if (!until) return null;
  if (until.day) return until.number + dayLong - 1;
  return until.utc ? wallOfMoment(until.number, zone) : until.number;
}

interface Series {
  rule: Recurrence | null;
  /** All wall numbers, where the rule counts: found once. */
  counted: number[] | null;
}
const series = new WeakMap<Item, Series>();

function seriesOf(item: Item): Series {
  let its = series.get(item);
  if (its) return its;
  const read = item.repeats === null ? null : readRecurrence(item.repeats);
  its = { rule: read?.ok ? read.rule : null, counted: null };
  const anchor = anchorOf(item);
  if (its.rule && its.rule.count !== null && anchor)
    its.counted = comesAgain(its.rule, numberOf(anchor.at), null, 0, Infinity, 5_000).at;
  series.set(item, its);
  return its;
}

/** The wall numbers at which something begins, or is due, in a stretch of wall time. */
function begins(item: Item, anchor: When, zone: string, from: number, to: number): number[] {
  const { rule, counted } = seriesOf(item);
  const first = numberOf(anchor.at);
  let at: number[];
  if (!rule) at = first >= from && first < to ? [first] : [];
  else if (counted) at = counted.filter((one) => one >= from && one < to);
  else at = comesAgain(rule, first, lastOf(rule, zone), from, to, mostOfOne).at;
  const more = item.besides.map(numberOf).filter((one) => one >= from && one < to && !at.includes(one));
  const gone = new Set(item.except.map(numberOf));
  const all = [...at, ...more].filter((one) => !gone.has(one));
  return more.length ? all.sort((a, b) => a - b) : all;
}

/** One that is otherwise than the rest of its series. */
function changedOccurrence(item: Item, one: ChangedOccurrence, here: string): Occurrence {
  const start = momentOfWall(numberOf(one.start.at), clockOf(one.start, here));
  const end = one.end ? momentOfWall(numberOf(one.end.at), clockOf(one.end, here)) : start;
  const due = item.kind === 'task' && one.end ? end : start;
  return {
    item,
    on: one.on,
    title: one.title || itemTitle(item),
    place: one.place,
    start: due,
    end: item.kind === 'task' ? due : end,
    wholeDay: isDay(one.start),
  };
}

/** What comes once, by the zone in which the person is: found once, since the Agenda asks for all of it again and again. */
const once = new WeakMap<Item, { here: string; one: Occurrence }>();

function onlyOccurrence(item: Item, anchor: When, stands: When, here: string): Occurrence {
  const known = once.get(item);
  if (known?.here === here) return known.one;
  const wholeDay = isDay(stands);
  const start = momentOfWall(numberOf(stands.at), wholeDay ? here : clockOf(stands, here));
  const lasts = item.kind === 'appointment' ? lengthOf(item, here) : 0;
  const end = lasts === 0 ? start : momentOfWall(numberOf(anchor.at) + lasts, wholeDay ? here : clockOf(anchor, here));
  const one: Occurrence = { item, on: null, title: itemTitle(item), place: item.place, start, end, wholeDay };
  once.set(item, { here, one });
  return one;
}

const falls = ({ start, end }: Occurrence, from: number, to: number): boolean =>
  start < to && (end > start ? end > from : start >= from);

/**
 * What of something falls into the stretch from `from` up to, not including, `to`, milliseconds since 1970, in order. `here`:
 * the zone in which the person is.
 */
export function occurrencesOf(item: Item, from: number, to: number, here: string): Occurrence[] {
  const [anchor, stands] = [anchorOf(item), standsAt(item)];
  [from, to] = [Math.max(from, firstMoment), Math.min(to, lastMoment)];
  if (!anchor || !stands) return [];
  if (item.repeats === null && item.besides.length + item.except.length + item.changed.length === 0) {
    const one = onlyOccurrence(item, anchor, stands, here);
    return falls(one, from, to) ? [one] : [];
  }
  const zone = clockOf(anchor, here);
  const wholeDay = isDay(stands);
  const first = numberOf(anchor.at);
  // By the clock on the wall an appointment is as long on every day.
  const lasts = item.kind === 'appointment' ? lengthOf(item, here) : 0;
  const shift = item.kind === 'task' ? numberOf(stands.at) - first : 0;
  const single = item.repeats === null && item.besides.length === 0;
  const [wallFrom, wallTo] = [
    wallOfMoment(from, zone) - lasts - shift - dayLong,
    wallOfMoment(to, zone) - shift + dayLong,
  ];
  const out: Occurrence[] = [];
  const changed = new Map(item.changed.map((one) => [numberOf(one.on), one]));
  const title = itemTitle(item);
  for (const at of begins(item, anchor, zone, wallFrom, wallTo)) {
    if (changed.has(at)) continue;
    const start = momentOfWall(at + shift, wholeDay ? here : clockOf(stands, here));
    const end = lasts === 0 ? start : momentOfWall(at + lasts, wholeDay ? here : zone);
    if (start >= to || (end > start ? end <= from : start < from)) continue;
    out.push({ item, on: single ? null : wallText(at, isDay(anchor)), title, place: item.place, start, end, wholeDay });
  }
  for (const one of changed.values()) {
    if (one.cancelled) continue;
    const its = changedOccurrence(item, one, here);
    if (its.start < to && (its.end > its.start ? its.end > from : its.start >= from)) out.push(its);
  }
  return out.sort((a, b) => a.start - b.start);
}

/** How long an appointment lasts by the clock on the wall, in milliseconds; one day where it is a day and says no end. */
function lengthOf({ start, end }: Item, here: string): number {
  if (!start) return 0;
  if (!end) return isDay(start) ? dayLong : 0;
  if (start.zone === end.zone) return Math.max(0, numberOf(end.at) - numberOf(start.at));
  const [a, b] = [start, end].map((one) => momentOfWall(numberOf(one.at), clockOf(one, here)));
  return Math.max(0, b - a);
}

/** The occurrences of many in a stretch, in order. */
export function occurrences(items: Iterable<Item>, from: number, to: number, here: string): Occurrence[] {
  const out: Occurrence[] = [];
  for (const item of items) out.push(...occurrencesOf(item, from, to, here));
  return out.sort((a, b) => a.start - b.start);
}
