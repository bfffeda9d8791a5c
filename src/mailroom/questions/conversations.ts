// Questions about conversations: what a row for one shows, what it holds when opened, what thinning it out would do.
import type { OpenConversation, ThinLine } from '../border/conversations';
import type { ConversationCounts, RowConversation } from '../border/rows';
import type { View } from '../border/views';
import { bit } from '../state/columns';
import type { MailState } from '../state/mailState';
import type { Readable } from '../reading/reader';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import type { Viewing } from '../search/searching';
import { isLate, rowOf, type RowSource } from './row';
import { expunged } from '../state/internedTables';
import { countsEverywhere, membersInOrder, thinVerdicts } from '../search/thinning';

/** Names of a conversation's row: the last ones to write. */
const mostPeople = 4;

/** The messages of a conversation as seen from a view, oldest first; `elsewhere`: with those in other places. */
export function seenFrom(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'derived'> & Viewing,
  id: number,
  view: View,
  elsewhere: boolean,
): number[] {
  const { place } = mailbox.columns;
  const holds = mailbox.views.holding(view);
  const counts = countsEverywhere(mailbox);
  return membersInOrder(
    mailbox.columns,
    mailbox.derived.membersOf(id),
    (member) => place[member] !== expunged && (member === id || holds(member) || (elsewhere && counts(member))),
  );
}

function countsOf(
  mailbox: Pick<MailState, 'columns' | 'derived' | 'now'>,
  members: readonly number[],
): ConversationCounts {
  const { columns, derived } = mailbox;
  const now = mailbox.now();
  const counts = { received: 0, own: 0, unread: 0, flagged: 0, late: 0, attachments: 0 };
  for (const id of members) {
    if (derived.isOwn(id)) counts.own++;
    else counts.received++;
    if (!(columns.bits[id] & bit.read)) counts.unread++;
    if (columns.bits[id] & bit.flagged) counts.flagged++;
    if (isLate(mailbox, id, now)) counts.late++;
    if (derived.hasAttachments(id)) counts.attachments++;
  }
  return counts;
}

/** What a row shows of a whole conversation. Makes the envelopes ready that it needs. */
export async function rowConversation(
  mailbox: MailState & Pick<Stored, 'envelopes'> & Viewing,
  id: number,
  view: View,
  elsewhere: boolean,
): Promise<RowConversation> {
  const { columns, derived, envelopes } = mailbox;
  const members = seenFrom(mailbox, id, view, elsewhere);
  const holds = mailbox.views.holding(view);
  const listed = mailbox.views.listing(view);
  // What of it a tray has delivered stands in the tray’s row.
  const rowNumber = mailbox.views.rowOf(view, true);
  // Of a long conversation only its end: the last to write are seldom more than these.
  const last = members.slice(-2 * mostPeople);
  await envelopes.ensure(last, columns.count);
  const people = new Map<string, boolean>();
  for (const member of last.toReversed()) {
    const { from } = envelopes.get(member);
    const name = derived.isOwn(member) ? 'you' : from.name || from.address || 'nobody named';
    const unread = !(columns.bits[member] & bit.read);
    if (people.has(name) || people.size < mostPeople) people.set(name, (people.get(name) ?? false) || unread);
  }
  return {
    ...countsOf(mailbox, members),
    here: members.filter(holds).length,
    ids: members.filter((member) => listed(member) && rowNumber(member) === rowNumber(id)),
    people: [...people].map(([name, unread]) => ({ name, unread })).reverse(),
  };
}

/** A conversation opened; null where the message is gone. */
export async function openConversation(
  mailbox: RowSource & Viewing,
  id: number,
  view: View,
  elsewhere: boolean,
): Promise<OpenConversation | null> {
  const { columns, derived, envelopes } = mailbox;
  if (id < 0 || id >= columns.count || columns.place[id] === expunged) return null;
  await mailbox.views.ready(view);
  const members = seenFrom(mailbox, id, view, elsewhere);
  const all = elsewhere ? members.length : seenFrom(mailbox, id, view, true).length;
  await envelopes.ensure(members, columns.count);
  return {
    ...countsOf(mailbox, members),
    number: derived.conversation[id],
    members: members.map((member) => ({
      row: rowOf(mailbox, member),
      parent: derived.parent(member),
      attachments: envelopes.get(member).attachments,
    })),
    silenced: (columns.bits[id] & bit.silenced) !== 0,
    elsewhere: all - members.length,
  };
}

/** What thinning out a message's conversation would do, oldest message first. */
export async function thinning(mailbox: MailState & Stored & Readable & Judging, id: number): Promise<ThinLine[]> {
  if (id < 0 || id >= mailbox.columns.count) return [];
  return (await thinVerdicts(mailbox, id)).map(({ id: member, goes, standsIn, reason }) => ({
    row: rowOf(mailbox, member),
    goes,
    standsIn: standsIn === null ? null : rowOf(mailbox, standsIn),
    reason,
  }));
}
