// What the rows of a view hold: the messages that an act on a row goes to, as they are at this moment.
import { kept } from '../../core/data/rows';
import type { HeldCounts, Only, RowsHeld } from '../border/held';
import type { Grouping, View } from '../border/views';
import { bit } from '../state/columns';
import type { MailState } from '../state/mailState';
import { orderReady, rowList, type Ordering } from '../search/rowOrder';
import type { Viewing } from '../search/searching';

type Holding = Pick<MailState, 'columns'> & Ordering;

/** The rows of a view in their order, each with its messages that the view holds. */
function* rowsOf(
  mailbox: Holding,
  view: View,
  grouping: Grouping,
  from = 0,
  to = Infinity,
): Generator<{ key: number; ids: readonly number[] }> {
  const { views } = mailbox;
  const heads = rowList(mailbox, view, grouping);
  const row = views.rowOf(view, grouping.grouped);
  const members = new Map<number, number[]>();
  for (const id of views.list(view)) {
    const number = row(id);
    // A row of one message needs no list.
    if (number === id && !grouping.grouped) continue;
    const its = members.get(number);
    if (its) its.push(id);
    else members.set(number, [id]);
  }
  for (const head of heads.subarray(from, to === Infinity ? undefined : to)) {
    const key = row(head);
    yield { key, ids: members.get(key) ?? [head] };
  }
}

/** Those of a row's messages that are meant. */
function meant({ columns }: Holding, ids: readonly number[], only: Only): readonly number[] {
  if (only === 'all') return ids;
  return ids.filter((id) => !(columns.bits[id] & bit.read) === (only === 'unread'));
}

/**
 * What some rows of a view hold, in the view's order: those at `from` up to, not including, `to`. Of each only the messages
 * that are meant, and none of a row that has none of them.
 */
export async function held(
  mailbox: Holding,
  view: View,
  grouping: Grouping,
  only: Only,
  from: number,
  to: number,
): Promise<RowsHeld> {
  await orderReady(mailbox, view, grouping);
  const keys: number[] = [];
  const ends: number[] = [];
  const ids: number[] = [];
  for (const row of rowsOf(mailbox, view, grouping, Math.max(0, from), Math.max(0, to))) {
    const its = meant(mailbox, row.ids, only);
    if (its.length === 0) continue;
    for (const id of its) ids.push(id);
    keys.push(row.key);
    ends.push(ids.length);
  }
  return { keys: Int32Array.from(keys), ends: Int32Array.from(ends), ids: Int32Array.from(ids) };
}

/** How many rows of a view there are to tick, and how many messages they hold. */
export async function heldCounts(mailbox: Holding, view: View, grouping: Grouping): Promise<HeldCounts> {
  await orderReady(mailbox, view, grouping);
  const counts: HeldCounts = {
    all: { rows: 0, messages: 0 },
    unread: { rows: 0, messages: 0 },
    read: { rows: 0, messages: 0 },
  };
  for (const { key, ids } of rowsOf(mailbox, view, grouping))
    for (const only of ['all', 'unread', 'read'] as const) {
      const { length } = meant(mailbox, ids, only);
      if (length === 0) continue;
      const kind = counts[only];
      kind.rows++;
      if (key < 0) kind.trays = (kind.trays ?? 0) + 1;
      kind.messages += length;
    }
  return counts;
}

/** Those of some messages that a view still holds. */
export async function stillHeld(mailbox: Viewing, view: View, ids: Int32Array): Promise<Int32Array> {
  await mailbox.views.ready(view);
  return kept(ids, mailbox.views.listing(view));
}
