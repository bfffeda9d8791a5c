// What waits in trays or is held back, and when each of it is delivered. What is put off is held, too, but has its own moment.
import { Deliveries, deliveriesOf, type Release } from '../../core/delivery/delivery';
import type { Setup } from '../../core/line/setup';
import type { MailState } from './mailState';

export type Waiting = Pick<MailState, 'columns' | 'tables' | 'setup'>;

/** What waits in trays or is held back, by its number. */
export function waitingIds({ columns, tables }: Pick<MailState, 'columns' | 'tables'>): number[] {
  const held = tables.places.items.indexOf('held');
  const ids: number[] = [];
  if (held >= 0)
    for (let id = 0; id < columns.count; id++) if (columns.place[id] === held && columns.until[id] === 0) ids.push(id);
  return ids;
}

/** Of mail that seems to have come later than now, when it was first looked at: the clock was ahead when it came. */
const seen = new WeakMap<object, Map<number, number>>();

/** When a message came that waits, milliseconds since 1970; never later than now. */
export function cameOf({ columns }: Pick<MailState, 'columns'>, id: number, now: number): number {
  const came = columns.placedAt[id];
  if (came <= now) return came;
  let firsts = seen.get(columns);
  if (!firsts) seen.set(columns, (firsts = new Map()));
  const first = Math.min(firsts.get(id) ?? now, now);
  firsts.set(id, first);
  return first;
}

/** The same of rounds that seem to have been set later than now. */
const setAt = new WeakMap<object, Map<string, number>>();

/** The trays, none of whose rounds was set later than now. */
function traysNow({ columns, setup }: Waiting, now: number): Setup['trays'] {
  if (setup.trays.every(({ since }) => since <= now)) return setup.trays;
  let firsts = setAt.get(columns);
  if (!firsts) setAt.set(columns, (firsts = new Map()));
  const known = firsts;
  return setup.trays.map((tray) => {
    if (tray.since <= now) return tray;
    const first = Math.min(known.get(tray.id) ?? now, now);
    known.set(tray.id, first);
    return { ...tray, since: first };
  });
}

/** When what waits is delivered, by its number. */
export function releaseOf(mailbox: Waiting, now: number): (id: number) => Release {
  const { columns, tables, setup } = mailbox;
  const trays = traysNow(mailbox, now);
  const deliveries = trays === setup.trays ? deliveriesOf(setup) : new Deliveries({ delivery: setup.delivery, trays });
  // Much of what waits came with others to the same tray.
  const known = new Map<string, Release>();
  return (id) => {
    const came = cameOf(mailbox, id, now);
    const tray = tables.trays.items[columns.tray[id]] || null;
    const key = `${came} ${tray ?? ''}`;
    let release = known.get(key);
    if (!release) known.set(key, (release = deliveries.release(came, tray, false)));
    return release;
  };
}
