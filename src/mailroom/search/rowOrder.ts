// The order of the rows of a view: by date as views have it, or by sender, subject, size or score, as the person chose.
import { filled } from '../../core/data/rows';
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

/** What orders rows and never changes of a message: by it all messages are ranked once, not anew with every act. */
type Lasting = Exclude<Order['by'], 'date' | 'score'>;

/** What a message is ordered by: a text from A to Z, or a number, the greatest first. */
function keyOf({ envelopes, derived }: Ordering, by: Lasting): (id: number) => string | number {
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
  }
}

const ranked = new WeakMap<object, Map<Lasting, { name: string; ranks: Uint32Array }>>();

/** The rank of each message among all, those that are alike at one rank. */
function ranksOf(mailbox: Ordering, by: Lasting): Uint32Array {
  const { count, drops, accounts } = mailbox.derived;
  // Whose mail is own, and so whom a row shows, goes by the accounts.
  const own = by === 'sender' ? accounts.accounts.map(({ address }) => address).join(' ') : '';
  const name = `${count} ${drops} ${own}`;
  let its = ranked.get(mailbox);
  if (!its) ranked.set(mailbox, (its = new Map()));
  const known = its.get(by);
  if (known?.name === name) return known.ranks;
  const ids = Array.from({ length: count }, (_, id) => id);
  const keys = ids.map(keyOf(mailbox, by));
  ids.sort((a, b) => {
    const [one, other] = [keys[a], keys[b]];
    if (one === other) return 0;
    return (typeof one === 'number' ? one > Number(other) : one < other) ? -1 : 1;
  });
  const ranks = new Uint32Array(count);
  for (let at = 1; at < count; at++) ranks[ids[at]] = ranks[ids[at - 1]] + Number(keys[ids[at]] !== keys[ids[at - 1]]);
  its.set(by, { name, ranks });
  return ranks;
}

/** More rows than a list has (mailboxSize.ts): with the rank above it, the number is still exact. */
const span = 2 ** 21;

/** The ids of some rows by their ranks, the lowest first; those at one rank stay as they were, the newest first. */
function sorted(list: Int32Array, rank: (id: number) => number): Int32Array {
  const keys = filled(Float64Array, list, (id, at) => rank(id) * span + at).sort();
  return filled(Int32Array, keys, (key) => list[key % span]);
}

/** The rank of a message, the lowest first. What has no score yet comes last. */
function rankBy(mailbox: Ordering, by: Exclude<Order['by'], 'date'>): (id: number) => number {
  if (by === 'score') return (id) => 100 - (mailbox.junk.score(id) ?? -1);
  const ranks = ranksOf(mailbox, by);
  return (id) => ranks[id];
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
  const list = mailbox.views.heads(view, grouped);
  if (!order || (order.by === 'date' && !order.turned)) return list;
  // Scores change without the list: the mailbox's revision tells.
  const name = `${order.by} ${order.turned} ${order.by === 'score' ? mailbox.revision : ''}`;
  const known = ordered.get(list);
  if (known?.name === name) return known.rows;
  const rows = order.by === 'date' ? list.slice() : sorted(list, rankBy(mailbox, order.by));
  if (order.turned) rows.reverse();
  ordered.set(list, { name, rows });
  return rows;
}
