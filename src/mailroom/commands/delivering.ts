// Delivering: what waits in trays, and what is held back, comes to the Inbox when its moment is there; a hold is put on and
// lifted. What is put off has its own moment (puttingOff.ts).
import { filled } from '../../core/data/rows';
import { deliveriesOf } from '../../core/delivery/delivery';
import type { Hold } from '../../core/delivery/settings';
import type { SetupEdit } from '../../core/line/setupEdit';
import { canBePutOff } from '../../core/mail/place';
import { andWords, messages } from '../../core/text/sentences';
import { exactTime } from '../../core/text/time';
import type { Receipt } from '../border/outcome';
import { bit } from '../state/columns';
import type { Loading, Logged, MailState } from '../state/mailState';
import { placedNow } from '../state/retention';
import { cameOf, releaseOf, waitingIds, type Waiting } from '../state/waiting';
import type { Committing } from '../storage/committing';
import type { Columns } from '../storage/stateRecords';
import { doneBefore, nothing, Refused } from './once';

/** When the next delivery is due, milliseconds since 1970; null where nothing waits and no hold ends. */
export function nextDelivery(mailbox: Waiting, now: number): number | null {
  const release = releaseOf(mailbox, now);
  const ends = mailbox.setup.delivery.hold?.until ?? Infinity;
  const next = waitingIds(mailbox).reduce((soonest, id) => Math.min(soonest, release(id).at), ends);
  return next === Infinity ? null : next;
}

/** What delivering some messages that wait comes to: each stands as of the moment at which it fell due. */
function delivered(mailbox: MailState, ids: Int32Array, now: number): Columns {
  const release = releaseOf(mailbox, now);
  return {
    place: mailbox.tables.placeIndex('inbox'),
    placedAt: placedNow(mailbox),
    delivered: filled(Float64Array, ids, (id) => {
      const { stands } = release(id);
      // What a hold alone kept back stands as if there had been none.
      return stands > cameOf(mailbox, id, now) && stands < Infinity ? stands : 0;
    }),
  };
}

/** From which trays some messages come, in words; empty where any of them comes from none. */
function fromTrays({ columns, tables, setup }: Waiting, ids: Int32Array): string {
  const trays = new Set(Array.from(ids, (id) => columns.tray[id]));
  if (trays.has(0)) return '';
  const named = setup.trays.filter(({ id }) => [...trays].some((tray) => tables.trays.items[tray] === id));
  return named.length > 0 && named.length < 4 ? ` from ${andWords(named.map(({ name }) => name))}` : '';
}

/** Delivers what is due at a moment, and ends a hold whose time is over. Only within `exclusive`. Returns what was delivered. */
export async function deliver(mailbox: MailState & Committing, now: number): Promise<number[]> {
  const { delivery } = mailbox.setup;
  const release = releaseOf(mailbox, now);
  const due = waitingIds(mailbox).filter((id) => release(id).at <= now);
  due.sort((a, b) => release(a).at - release(b).at || a - b);
  const over = (delivery.hold?.until ?? Infinity) <= now;
  if (due.length === 0 && !over) return [];
  const ids = Int32Array.from(due);
  const came = due.length > 0 ? `delivered ${messages(due.length)}${fromTrays(mailbox, ids)}` : 'nothing had come';
  await mailbox.commit({
    command: `deliver-${mailbox.seq + 1}`,
    by: 'Wide Sort',
    says: over ? `The hold ended: ${came}` : `D${came.slice(1)}`,
    // Undone, it would be delivered again at once.
    final: true,
    ...(due.length > 0 ? { ids, after: delivered(mailbox, ids, now) } : {}),
    ...(over ? { setup: [holdEdit(mailbox, null)] } : {}),
  });
  return due;
}

const holdEdit = ({ setup }: Pick<MailState, 'setup'>, hold: Hold | null): SetupEdit => ({
  list: 'delivery',
  id: 'delivery',
  item: { ...setup.delivery, hold },
});

type Commanding = MailState & Pick<Loading, 'journalReady'> & Pick<Logged, 'heads' | 'commands'> & Committing;

/** Stops delivery to the Inbox until a moment, milliseconds since 1970, or until it is lifted (null). */
export async function hold(mailbox: Commanding, command: string, until: number | null): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  const now = mailbox.now();
  if (until !== null && until <= now) throw new Refused('That moment is past. Nothing was changed.');
  const since = mailbox.setup.delivery.hold?.since ?? now;
  const says = `Held the mail that comes, until ${until === null ? 'it is lifted' : exactTime(until)}`;
  const seq = await mailbox.commit({ command, by: 'you', says, setup: [holdEdit(mailbox, { since, until })] });
  return { seq, count: 0, says };
}

/** Lifts the hold: what it kept back is delivered at once, and stands as if there had been none. */
export async function lift(mailbox: Commanding, command: string): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  const { setup } = mailbox;
  if (!setup.delivery.hold) return nothing('No hold is on.');
  const now = mailbox.now();
  const { columns, tables } = mailbox;
  const without = { ...setup, delivery: { ...setup.delivery, hold: null } };
  const release = releaseOf({ columns, tables, setup: without }, now);
  const due = waitingIds(mailbox).filter((id) => release(id).at <= now);
  const ids = Int32Array.from(due);
  const says = `Lifted the hold: ${due.length > 0 ? `delivered ${messages(due.length)}` : 'nothing had come'}`;
  const seq = await mailbox.commit({
    command,
    by: 'you',
    says,
    ...(due.length > 0 ? { ids, after: delivered(mailbox, ids, now) } : {}),
    setup: [holdEdit(mailbox, null)],
  });
  return { seq, count: due.length, says };
}

/** What putting messages into a tray comes to: they wait there for its round; in one delivered as mail comes they stay. */
export function trayPlan(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'now' | 'daysSeen' | 'setup'>,
  ids: Int32Array,
  id: string | null,
): { ids: Int32Array; after: Columns; done: string; where: string } {
  const { columns, tables, setup } = mailbox;
  const [inbox, held] = [tables.placeIndex('inbox'), tables.placeIndex('held')];
  const tray = id === null ? null : setup.trays.find((one) => one.id === id);
  const index = tables.trayIndex(id);
  const now = placedNow(mailbox);
  const waits = tray !== undefined && tray !== null && deliveriesOf(setup).release(now, tray.id, true).at > now;
  const place = waits ? held : inbox;
  const may = tables.places.items.map((_, at) => canBePutOff(tables.place(at)));
  const touched = ids.filter(
    (one) => may[columns.place[one]] && (columns.tray[one] !== index || (waits && columns.place[one] !== held)),
  );
  return {
    ids: touched,
    after: {
      place,
      placedAt: now,
      bits: filled(Uint8Array, touched, (one) => columns.bits[one] | bit.byHand),
      tray: index,
      until: 0,
      waitsFrom: 0,
      // What waited comes now, on top; what is in the Inbox stays where it stands there.
      delivered: filled(Float64Array, touched, (one) => {
        if (waits) return 0;
        return columns.place[one] === held ? mailbox.now() : columns.delivered[one];
      }),
    },
    done: tray ? 'Put' : 'Took',
    where: tray ? ` into the tray ${tray.name}` : ' out of the tray',
  };
}
