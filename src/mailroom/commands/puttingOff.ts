// Putting off: messages leave for Held until a moment, or until somebody answers, and come back on top of the Inbox.
import { filled } from '../../core/data/rows';
import { didTo } from '../../core/text/sentences';
import { exactTime } from '../../core/text/time';
import { canBePutOff, placeTraits } from '../../core/mail/place';
import type { Act } from '../border/views';
import { bit } from '../state/columns';
import { expunged } from '../state/internedTables';
import type { MailState } from '../state/mailState';
import { placedNow } from '../state/retention';
import type { Committing } from '../storage/committing';
import type { Columns } from '../storage/stateRecords';
import type { Stored } from '../storage/stored';

type Held = Pick<MailState, 'columns' | 'tables'>;

/** What putting messages off comes to: those of places where mail waits for the person, and what is put off already. */
export function putOffPlan(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'now' | 'daysSeen'>,
  ids: Int32Array,
  { until }: Extract<Act, { do: 'putOff' }>,
): { ids: Int32Array; after: Columns; done: string; where: string } {
  const { columns, tables } = mailbox;
  const held = tables.placeIndex('held');
  const waits = tables.places.items.map((_, index) => canBePutOff(tables.place(index)));
  const touched = ids.filter(
    (id) => waits[columns.place[id]] && (columns.place[id] !== held || columns.until[id] !== until),
  );
  return {
    ids: touched,
    after: {
      place: held,
      placedAt: placedNow(mailbox),
      bits: filled(Uint8Array, touched, (id) => columns.bits[id] | bit.byHand),
      until,
      // Whatever comes from now on has a higher number.
      waitsFrom: columns.count,
      ...(touched.some((id) => columns.tray[id] > 0) ? { tray: 0 } : {}),
    },
    done: 'Put off',
    where: ` until ${exactTime(until)}`,
  };
}

/** What is put off. */
function putOffIds({ columns, tables }: Held): number[] {
  const held = tables.places.items.indexOf('held');
  const ids: number[] = [];
  if (held >= 0)
    for (let id = 0; id < columns.count; id++) if (columns.place[id] === held && columns.until[id] > 0) ids.push(id);
  return ids;
}

/**
 * Whether somebody has answered in the conversation of a message since it was put off; in one that is silenced, answers are
 * none of the person's business. Only once all is in memory.
 */
function isAnswered({ columns, tables, derived }: Held & Pick<MailState, 'derived'>, id: number): boolean {
  if (columns.bits[id] & bit.silenced) return false;
  for (const member of derived.membersOf(id)) {
    if (member < columns.waitsFrom[id] || derived.isOwn(member) || columns.place[member] === expunged) continue;
    if (placeTraits(tables.place(columns.place[member])).counted) return true;
  }
  return false;
}

/** When the next message comes back, milliseconds since 1970: at once where it was answered; null where none is put off. */
export function nextReturn(mailbox: Held & Pick<MailState, 'derived'>, now: number): number | null {
  const ids = putOffIds(mailbox);
  if (ids.length === 0) return null;
  if (mailbox.derived.complete && ids.some((id) => isAnswered(mailbox, id))) return now;
  return ids.reduce((next, id) => Math.min(next, mailbox.columns.until[id]), Infinity);
}

/**
 * Brings back what is due at a moment, each as of the moment at which it fell due, and what was answered since, as of now.
 * Only within `exclusive`. Returns those that came back.
 */
export async function bringBack(
  mailbox: MailState & Pick<Stored, 'envelopes'> & Committing,
  now: number,
): Promise<number[]> {
  const { columns } = mailbox;
  const ids = putOffIds(mailbox);
  const due = ids.filter((id) => columns.until[id] <= now).sort((a, b) => columns.until[a] - columns.until[b] || a - b);
  const answered = mailbox.derived.complete
    ? ids.filter((id) => columns.until[id] > now && isAnswered(mailbox, id))
    : [];
  await back(
    mailbox,
    due,
    'Back in the Inbox, as put off:',
    filled(Float64Array, due, (id) => columns.until[id]),
  );
  await back(mailbox, answered, 'Back in the Inbox, as an answer came:', now);
  return [...due, ...answered];
}

async function back(
  mailbox: MailState & Pick<Stored, 'envelopes'> & Committing,
  list: readonly number[],
  done: string,
  delivered: Float64Array | number,
): Promise<void> {
  if (list.length === 0) return;
  const ids = Int32Array.from(list);
  await mailbox.envelopes.ensure(list.slice(0, 1), mailbox.columns.count);
  await mailbox.commit({
    command: `back-${mailbox.seq + 1}`,
    by: 'Wide Sort',
    says: didTo(done, ids.length, ids.length === 1 ? mailbox.envelopes.get(ids[0]).subject : null),
    // Undone, it would come back at once.
    final: true,
    ids,
    after: {
      place: mailbox.tables.placeIndex('inbox'),
      placedAt: placedNow(mailbox),
      // That it waited from some message on stays: by that it is known to have come back.
      until: 0,
      delivered,
    },
  });
}
