// What a person does to tasks and appointments: done, put to another day, one of a series left out; and who has to hear of it.
import { addressKey } from '../mail/address';
import { cancelOf, requestOf, type Sent } from './inviting';
import { anchorOf, itemTitle, standsAt, type ChangedOccurrence, type Invited, type Item } from './item';
import { occurrencesOf } from './occurrences';
import { dayLong, isDay, numberOf, wallOfMoment, wallText, type When } from './wallTime';

const moved = (when: When | null, by: number): When | null =>
  when && { at: wallText(numberOf(when.at) + by, isDay(when)), zone: when.zone };

/** A task that is done, or is not. Of a series the one that is meant (`on`) is done, and the next stands. */
export function withDone(item: Item, on: string | null, done: boolean, now: number): Item {
  if (on === null || item.repeats === null) return { ...item, done: done ? now : null, edited: now };
  const except = done ? [...new Set([...item.except, on])] : item.except.filter((one) => one !== on);
  const left = occurrencesOf({ ...item, except }, -Infinity, Infinity, 'UTC').length;
  // With the last of a series all of it is done.
  return left === 0 ? { ...item, done: now, edited: now } : { ...item, except, edited: now };
}

/** An occurrence as it stands in its series now. */
export function occurrenceOf(item: Item, on: string): ChangedOccurrence {
  const known = item.changed.find((one) => one.on === on);
  if (known) return known;
  const anchor = anchorOf(item);
  const by = anchor ? numberOf(on) - numberOf(anchor.at) : 0;
  const start = moved(item.start, by) ?? { at: on, zone: anchor?.zone ?? null };
  const { title, place, note, sequence } = item;
  return { on, title, place, note, start, end: moved(item.end, by), cancelled: false, sequence };
}

/** With one of its series as it is said. */
const withOne = (item: Item, one: ChangedOccurrence, now: number): Item => ({
  ...item,
  changed: [...item.changed.filter(({ on }) => on !== one.on), one],
  edited: now,
});

/**
 * An item, or one of its series, so much later by the clock on the wall, in milliseconds; of whole days so many days.
 */
function withShift(item: Item, on: string | null, by: number, now: number): Item {
  const shift = isDay(standsAt(item) ?? { at: '' }) ? Math.round(by / dayLong) * dayLong : by;
  if (on === null || (item.repeats === null && item.besides.length === 0))
    return { ...item, start: moved(item.start, shift), end: moved(item.end, shift), edited: now };
  const one = occurrenceOf(item, on);
  return withOne(item, { ...one, start: moved(one.start, shift) ?? one.start, end: moved(one.end, shift) }, now);
}

/** An item put to another moment, milliseconds since 1970, keeping how long it lasts; `here`: the person's zone. */
export function withStart(
  item: Item,
  on: string | null,
  moment: number,
  wholeDay: boolean,
  here: string,
  now: number,
): Item {
  const stands =
    on === null
      ? standsAt(item)
      : item.kind === 'task'
        ? (occurrenceOf(item, on).end ?? occurrenceOf(item, on).start)
        : occurrenceOf(item, on).start;
  if (!stands) return { ...item, ...timeAt(item, moment, wholeDay, here), edited: now };
  if (isDay(stands) !== wholeDay) {
    // From an hour to a whole day, or the other way: it lasts a day, or an hour.
    const time = timeAt(item, moment, wholeDay, here);
    if (on === null) return { ...item, ...time, repeats: null, except: [], besides: [], changed: [], edited: now };
    const one = occurrenceOf(item, on);
    return withOne(
      item,
      { ...one, start: time.start ?? time.end ?? one.start, end: time.start ? time.end : null },
      now,
    );
  }
  const zone = wholeDay ? here : (stands.zone ?? here);
  return withShift(item, on, wallOfMoment(moment, zone) - numberOf(stands.at), now);
}

const hour = 3_600_000;

function timeAt({ kind }: Item, moment: number, wholeDay: boolean, here: string): Pick<Item, 'start' | 'end'> {
  const wall = wallOfMoment(moment, here);
  const when = (number: number): When => ({ at: wallText(number, wholeDay), zone: wholeDay ? null : here });
  if (kind === 'task') return { start: null, end: when(wall) };
  return { start: when(wall), end: when(wall + (wholeDay ? dayLong : hour)) };
}

/** A series without one of it. */
export const withoutOne = (item: Item, on: string, now: number): Item => ({
  ...item,
  except: [...new Set([...item.except, on])],
  changed: item.changed.filter((one) => one.on !== on),
  edited: now,
});

/** Something that is told to some people. */
export interface Told {
  to: Invited[];
  sent: Sent;
}

/** What of an appointment the invited plan by: another of these asks them anew (RFC 5546, section 2.1.4). */
const planned = (item: Item): string =>
  JSON.stringify([item.start, item.end, item.repeats, item.besides, item.place, item.title]);
const written = (item: Item): string => JSON.stringify([item.note, item.status]);

const others = (item: Item, own: (address: string) => boolean): Invited[] =>
  item.invited.filter(({ address }) => !own(address));
const key = ({ address }: { address: string }): string => addressKey(address);

/**
 * What the invited have to be told once an appointment is as it is said, and the item with the number of the version that
 * they are told of. `before`, `after`: null where there was, or is, none. Empty where nobody was invited, or somebody else
 * invites.
 */
export function toldOf(
  before: Item | null,
  after: Item | null,
  own: (address: string) => boolean,
): { item: Item | null; told: Told[] } {
  const one = after ?? before;
  if (!one || one.kind !== 'appointment' || !one.organizer || !own(one.organizer.address))
    return { item: after, told: [] };
  const was = before ? others(before, own) : [];
  if (!after || (after.status === 'cancelled' && before?.status !== 'cancelled')) {
    if (!before || was.length === 0 || before.status === 'cancelled') return { item: after, told: [] };
    const off = { ...(after ?? before), sequence: before.sequence + 1 };
    return { item: after && off, told: [{ to: was, sent: cancelOf(off) }] };
  }
  const is = others(after, own);
  if (!before) return { item: after, told: is.length ? [{ to: is, sent: requestOf(after, false) }] : [] };
  const changed = planned(before) !== planned(after);
  const sequence = before.sequence + (changed ? 1 : 0);
  // Asked anew, nobody has answered yet.
  const item: Item = changed
    ? {
        ...after,
        sequence,
        invited: after.invited.map((who) => (own(who.address) ? who : { ...who, answer: 'needs-action', at: 0 })),
      }
    : after;
  const [known, left] = [new Set(was.map(key)), new Set(is.map(key))];
  const told: Told[] = [];
  const [staying, added, gone] = [
    is.filter((who) => known.has(key(who))),
    is.filter((who) => !known.has(key(who))),
    was.filter((who) => !left.has(key(who))),
  ];
  if (staying.length > 0 && (changed || written(before) !== written(after)))
    told.push({ to: staying, sent: requestOf(item, true) });
  else if (staying.length > 0) told.push(...ofOccurrences(before, item, staying));
  if (added.length > 0) told.push({ to: added, sent: requestOf(item, false) });
  if (gone.length > 0) told.push({ to: gone, sent: cancelOf({ ...item, sequence: sequence + 1 }) });
  return { item, told };
}

/** What is told of single ones of a series. */
function ofOccurrences(before: Item, after: Item, to: Invited[]): Told[] {
  const was = new Map(before.changed.map((one) => [one.on, JSON.stringify(one)]));
  const out: Told[] = [];
  for (const one of after.changed)
    if (was.get(one.on) !== JSON.stringify(one))
      out.push({ to, sent: one.cancelled ? cancelOf(after, one) : requestOf(after, true, one) });
  const left = new Set(before.except);
  for (const on of after.except) if (!left.has(on)) out.push({ to, sent: cancelOf(after, occurrenceOf(before, on)) });
  return out;
}

/** Tells apart in words what becomes of an item: `Made the task “…”`. */
export function editWords(before: Item | null, after: Item | null): string {
  const item = after ?? before;
  if (!item) return 'Nothing changed';
  const name = `the ${item.kind} “${itemTitle(item).slice(0, 60)}”`;
  if (!after) return `Took ${name} off`;
  if (!before) return `Made ${name}`;
  if (before.done === null && after.done !== null) return `Done: ${name}`;
  if (before.done !== null && after.done === null) return `Not done after all: ${name}`;
  return `Changed ${name}`;
}
