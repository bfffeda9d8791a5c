// Questions about trays: their rows in the Inbox, what waits in them, and when the next is delivered.
import { deliveriesOf } from '../../core/delivery/delivery';
import { addressKey } from '../../core/mail/address';
import type { Row } from '../border/rows';
import type { TrayCounts, WaitingCounts } from '../border/trays';
import type { View } from '../border/views';
import type { Viewing } from '../search/searching';
import { bit } from '../state/columns';
import type { MailState } from '../state/mailState';
import { releaseOf, waitingIds } from '../state/waiting';
import { rowOf, type RowSource } from './row';

/** Names in a tray’s row: of those who wrote last. */
const mostPeople = 4;
/** Of more messages a tray’s row does not say from how many senders they are: that would have all of them read first. */
const mostNamed = 200;

/** A tray as one row shows it; `number` is its row’s, below 0, `newest` its newest message, whose envelope is ready. */
export async function trayRow(mailbox: RowSource & Viewing, view: View, number: number, newest: number): Promise<Row> {
  const { columns, derived, envelopes, tables, setup } = mailbox;
  const ids = mailbox.views.ofTray(view, number);
  const tray = tables.trays.items[-number];
  const isUnread = (id: number) => !(columns.bits[id] & bit.read);
  const fresh = ids.filter(isUnread);
  // Of the new ones it is told from whom they are; of all, where there is none.
  const named = fresh.length > 0 ? fresh : ids;
  const some = named.subarray(0, mostNamed);
  await envelopes.ensure(some, columns.count);
  const people = new Map<string, boolean>();
  for (const id of some) {
    const { from } = envelopes.get(id);
    const name = from.name || from.address || 'nobody named';
    if (people.has(name) || people.size < mostPeople) people.set(name, (people.get(name) ?? false) || isUnread(id));
  }
  const count = (which: (id: number) => boolean) => ids.reduce((n, id) => n + Number(which(id)), 0);
  const unread = fresh.length;
  const row = rowOf(mailbox, newest);
  return {
    ...row,
    id: number,
    conversation: number,
    // When it was delivered: by that it stands in the Inbox.
    date: columns.stands(newest),
    unread: unread > 0,
    flagged: false,
    done: false,
    due: null,
    late: false,
    labels: [],
    ink: null,
    attachments: 0,
    back: null,
    delivered: null,
    tray: {
      id: tray,
      name: setup.trays.find(({ id }) => id === tray)?.name ?? tray,
      senders:
        ids.length > mostNamed
          ? null
          : new Set(Array.from(ids, (id) => addressKey(envelopes.get(id).from.address))).size,
    },
    whole: {
      received: ids.length,
      own: 0,
      unread,
      flagged: count((id) => (columns.bits[id] & bit.flagged) !== 0),
      late: 0,
      attachments: count((id) => derived.hasAttachments(id)),
      here: ids.length,
      ids: [...ids],
      people: [...people].map(([name, unread]) => ({ name, unread })),
    },
  };
}

/** What each tray holds, and when it is next delivered. */
export function trayCounts({ columns, tables, setup }: MailState, now: number): TrayCounts[] {
  const [inbox, held] = ['inbox', 'held'].map((place) => tables.places.items.indexOf(place));
  const [waits, here, unread] = [0, 0, 0].map(() => new Int32Array(tables.trays.items.length));
  for (let id = 0; id < columns.count; id++) {
    const tray = columns.tray[id];
    if (tray === 0) continue;
    if (columns.place[id] === held) waits[tray]++;
    if (columns.place[id] !== inbox) continue;
    here[tray]++;
    if (!(columns.bits[id] & bit.read)) unread[tray]++;
  }
  const deliveries = deliveriesOf(setup);
  return setup.trays.map(({ id }) => {
    const number = tables.trays.items.indexOf(id);
    const next = deliveries.nextRound(id, now);
    return {
      tray: id,
      waits: waits[number] ?? 0,
      here: here[number] ?? 0,
      unread: unread[number] ?? 0,
      next: next === null || next === Infinity ? null : next,
    };
  });
}

/** What is held back, not by a tray alone, and when mail is next delivered. */
export function waitingCounts(mailbox: MailState, now: number): WaitingCounts {
  const { setup } = mailbox;
  const deliveries = deliveriesOf(setup);
  const release = releaseOf(mailbox, now);
  const ids = waitingIds(mailbox);
  // What waits for its tray’s round is kept by that alone.
  const kept = ids.filter((id) => release(id).round <= now).length;
  const next = ids.reduce((soonest, id) => Math.min(soonest, release(id).at), Infinity);
  const keeper = deliveries.keeper(now);
  return {
    zone: deliveries.zone,
    waits: kept,
    inTrays: ids.length - kept,
    by: keeper.by,
    until: keeper.by === null || keeper.until === Infinity ? null : keeper.until,
    next: next === Infinity ? null : next,
  };
}
