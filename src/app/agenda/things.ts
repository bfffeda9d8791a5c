// What stands in the Agenda, of whatever kind it is, in one form: flags, tasks, appointments, what is put off, rounds.
import type { DatedItem, DatedStretch } from '../../mailroom/border/agenda';
import type { Row } from '../../mailroom/border/rows';
import type { Agenda } from '../../mailroom/border/rules';
import { andWords, count } from '../../core/text/sentences';
import { day, hour, lengthTyped } from './typedWhen';

export const thingKinds = ['flag', 'task', 'appointment', 'put off', 'round'] as const;
export type ThingKind = (typeof thingKinds)[number];

export const thingWords: Record<ThingKind, string> = {
  flag: 'Flags',
  task: 'Tasks',
  appointment: 'Appointments',
  'put off': 'Put off',
  round: 'Rounds',
};

interface InTime {
  key: string;
  /** When it stands there, milliseconds since 1970; null for no date. */
  due: number | null;
  /** The first moment after it, where it lasts. */
  end: number;
  wholeDay: boolean;
  title: string;
}
interface OfRow<K extends ThingKind> extends InTime {
  kind: K;
  row: Row;
}
interface OfItem<K extends ThingKind> extends InTime {
  kind: K;
  item: DatedItem;
}

/** One thing of the Agenda. */
export type Thing =
  OfRow<'flag'> | OfRow<'put off'> | OfItem<'task'> | OfItem<'appointment'> | (InTime & { kind: 'round' });

const endsDay = (moment: number): boolean => {
  const date = new Date(moment);
  return date.getHours() === 23 && date.getMinutes() === 59;
};

function ofItem(item: DatedItem): Thing {
  const key = `${item.uid} ${item.on ?? ''}`;
  // A task for a whole day is due by its end.
  const due = item.at !== null && item.wholeDay && item.kind === 'task' ? item.at + day - 1 : item.at;
  return { kind: item.kind, key, due, end: item.end, wholeDay: item.wholeDay, title: item.title, item };
}

function ofRow(kind: 'flag' | 'put off', row: Row): Thing {
  const due = kind === 'flag' ? row.due : row.until;
  const wholeDay = due !== null && endsDay(due);
  return { kind, key: `${kind} ${row.id}`, due, end: due ?? 0, wholeDay, title: row.subject || 'No subject', row };
}

/** All of it, in the order of time; `late`: also what was due before and is not done. */
export function thingsOf(agenda: Agenda, stretch: DatedStretch, shown: ReadonlySet<ThingKind>, late: boolean): Thing[] {
  const all: Thing[] = [
    ...agenda.rows.map((row) => ofRow('flag', row)),
    ...agenda.putOff.map((row) => ofRow('put off', row)),
    ...(late ? [...stretch.late, ...stretch.undated] : []).map(ofItem),
    ...stretch.items.map(ofItem),
    ...stretch.rounds.map(({ at, name }): Thing => ({
      kind: 'round',
      key: `round ${at} ${name}`,
      due: at,
      end: at,
      wholeDay: false,
      title: name,
    })),
  ];
  return all.filter(({ kind }) => shown.has(kind)).sort((a, b) => (a.due ?? Infinity) - (b.due ?? Infinity));
}

/** Whether something is late once its time has come: what is asked of the person, and is neither done nor called off. */
export const canBeLate = (thing: Thing): boolean =>
  thing.kind === 'flag' || (thing.kind === 'task' && !thing.item.done && thing.item.status !== 'cancelled');

/** Whether something is done, or was over before now. */
export const isOver = (thing: Thing, now: number): boolean =>
  (thing.kind === 'task' && thing.item.done) ||
  (thing.kind === 'appointment' && thing.end > 0 && thing.end <= now && thing.due !== thing.end);

/** The hours of the day that a picture of a week has to have: those of work, and those in which anything else stands. */
export function hoursOf(things: readonly Thing[]): [first: number, last: number] {
  let [first, last] = [6, 22];
  for (const { due, end, wholeDay } of things) {
    if (due === null || wholeDay) continue;
    const midnight = new Date(due).setHours(0, 0, 0, 0);
    // What does not last takes an hour in the picture.
    const over = (Math.max(end, due + hour) - midnight) / hour;
    first = over > 24 ? 0 : Math.min(first, new Date(due).getHours());
    last = over > 24 ? 24 : Math.max(last, Math.ceil(over));
  }
  return [first, last];
}

/** What of a day has no room in a picture. */
export interface Rest {
  /** Midnight at which the day begins. */
  day: number;
  count: number;
}

/** The first of each day, at most so many, in their order; and how many more each day has. What lasts counts on its first. */
export function firstOfDays(things: readonly Thing[], most: number): [first: Thing[], rest: Rest[]] {
  const counts = new Map<number, number>();
  const first = things.filter(({ due }) => {
    if (due === null) return false;
    const midnight = new Date(due).setHours(0, 0, 0, 0);
    const n = (counts.get(midnight) ?? 0) + 1;
    counts.set(midnight, n);
    return n <= most;
  });
  return [first, [...counts].filter(([, n]) => n > most).map(([day, n]) => ({ day, count: n - most }))];
}

/**
 * What the week comes to, in words: `This week: 3 appointments and 1 task, 2 h 40 min of appointments; 2 late.`
 * `lateBefore`: so many more are late than there are things.
 */
export function weekWords(things: readonly Thing[], from: number, to: number, now: number, lateBefore = 0): string {
  const week = things.filter(({ due }) => due !== null && due >= from && due < to);
  const parts = (['appointment', 'task', 'flag'] as const).map((kind) => {
    const n = week.filter((thing) => thing.kind === kind).length;
    return n === 0 ? [] : [`${count(n)} ${kind}${n === 1 ? '' : 's'}`];
  });
  const words = parts.flat();
  const late = lateBefore + things.filter((thing) => thing.due !== null && thing.due < now && canBeLate(thing)).length;
  const lasts = week.reduce(
    (sum, thing) =>
      sum + (thing.kind === 'appointment' && !thing.wholeDay && thing.due !== null ? thing.end - thing.due : 0),
    0,
  );
  const head = words.length ? `This week: ${andWords(words)}` : 'This week nothing has a date';
  return `${head}${lasts > 0 ? `, ${lengthTyped(lasts)} of appointments` : ''}${late ? `; ${count(late)} late` : ''}.`;
}
