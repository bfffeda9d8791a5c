// The order of the rows of a view: by date as views have it, or by sender, subject, size or score, as the person chose.
import { baseSubject } from '../../core/conversations/baseSubject';
import { foldSearch } from '../../core/text/fold';
import type { Grouping, Order, View } from '../border/views';
import type { Judging } from '../junk/junkFilter';
import type { Loading, MailState, Revised } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { Viewing } from './searching';

export type Ordering = Pick<MailState, 'derived'> &
  Pick<Stored, 'envelopes'> &
  Pick<Loading, 'ready'> &
  Revised &
  Viewing &
  Judging;

/** Rows in another order than by date, by the list that they were made from: when a view changes, it is another list. */
const ordered = new WeakMap<Int32Array, { name: string; rows: Int32Array }>();

/** What a message is ordered by: a text from A to Z, or a number, the greatest first. */
function keyOf(
  { envelopes, derived, junk }: Ordering,
  by: Exclude<Order['by'], 'date'>,
): (id: number) => string | number {
  switch (by) {
    // Of one's own mail a row shows to whom it went.
    case 'sender':
      return (id) => {
        const { from, to } = envelopes.get(id);
        const shown = derived.isOwn(id) ? (to.at(0) ?? from) : from;
        return foldSearch(shown.name || shown.address);
      };
    case 'subject':
      return (id) => foldSearch(baseSubject(envelopes.get(id).subject).base);
    case 'size':
      return (id) => envelopes.get(id).size;
    // What has no score yet comes last.
    case 'score':
      return (id) => junk.score(id) ?? -1;
  }
}

/** The ids of some rows by what they are ordered by; those that are alike stay as they were, the newest first. */
function sorted(list: Int32Array, key: (id: number) => string | number): Int32Array {
  const keys = Array.from(list, key);
  const places = Array.from(list, (_, at) => at);
  places.sort((a, b) => {
    const [one, other] = [keys[a], keys[b]];
    if (one === other) return a - b;
    const before = typeof one === 'number' ? one > Number(other) : one < other;
    return before ? -1 : 1;
  });
  return Int32Array.from(places, (at) => list[at]);
}

/** Settled once the rows of a view can be told in that order. */
export async function orderReady(mailbox: Ordering, view: View, { order }: Grouping): Promise<void> {
  await mailbox.views.ready(view);
  // Who sent it and what it is about stand in the envelopes.
  if (order && order.by !== 'date') await mailbox.ready();
}

/**
 * The rows of a view in the order that was asked for, each by the newest of its messages. Only after {@link orderReady}.
 */
export function rowList(mailbox: Ordering, view: View, { grouped, order }: Grouping): Int32Array {
  const list = grouped ? mailbox.views.heads(view) : mailbox.views.list(view);
  if (!order || (order.by === 'date' && !order.turned)) return list;
  // Scores change without the list: the mailbox's revision tells.
  const name = `${order.by} ${order.turned} ${order.by === 'score' ? mailbox.revision : ''}`;
  const known = ordered.get(list);
  if (known?.name === name) return known.rows;
  const rows = order.by === 'date' ? list.slice() : sorted(list, keyOf(mailbox, order.by));
  if (order.turned) rows.reverse();
  ordered.set(list, { name, rows });
  return rows;
}
