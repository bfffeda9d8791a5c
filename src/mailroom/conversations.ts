// Questions about conversations: what a row for one shows, what it holds when opened, what thinning it out would do.
import { thin, type ThinCandidate, type ThinVerdict } from '../core/conversations/thinning';
import { bodyBlocks, bodyText, filesOf } from '../core/mail/body';
import type { Envelope } from '../core/mail/envelope';
import { linksOf } from '../core/mail/links';
import { messageOf } from '../core/mail/mbox';
import { parseStructure } from '../core/mail/structure';
import { textFromHtml } from '../core/mail/textFromHtml';
import type { ConversationCounts, OpenConversation, RowConversation, ThinLine } from './api';
import type { View } from './viewsApi';
import { bit } from './columns';
import type { Mailbox } from './mailbox';
import { digest } from './reading';
import { isLate, rowOf } from './rows';
import { gone } from './tables';

/** Names of a conversation's row: the last ones to write. */
const mostPeople = 4;

/** Whether a message counts in its conversation wherever that is seen from: not junk, not thrown away, not unsent. */
function countsEverywhere(mailbox: Mailbox): (id: number) => boolean {
  const { columns, tables } = mailbox;
  const left = new Set([gone, ...(['junk', 'bin', 'drafts'] as const).map((place) => tables.placeIndex(place))]);
  return (id) => !left.has(columns.place[id]);
}

/** The messages of a conversation as seen from a view, oldest first; `elsewhere`: with those in other places. */
export function seenFrom(mailbox: Mailbox, id: number, view: View, elsewhere: boolean): number[] {
  const { date, place } = mailbox.columns;
  const holds = mailbox.views.holding(view);
  const counts = countsEverywhere(mailbox);
  return [...mailbox.derived.membersOf(id)]
    .filter((member) => place[member] !== gone && (member === id || holds(member) || (elsewhere && counts(member))))
    .sort((a, b) => date[a] - date[b] || a - b);
}

function countsOf(mailbox: Mailbox, members: readonly number[]): ConversationCounts {
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
  mailbox: Mailbox,
  id: number,
  view: View,
  elsewhere: boolean,
): Promise<RowConversation> {
  const { columns, derived, envelopes } = mailbox;
  const members = seenFrom(mailbox, id, view, elsewhere);
  const holds = mailbox.views.holding(view);
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
    people: [...people].map(([name, unread]) => ({ name, unread })).reverse(),
  };
}

/** A conversation opened; null where the message is gone. */
export async function openConversation(
  mailbox: Mailbox,
  id: number,
  view: View,
  elsewhere: boolean,
): Promise<OpenConversation | null> {
  const { columns, derived, envelopes } = mailbox;
  if (id < 0 || id >= columns.count || columns.place[id] === gone) return null;
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

/** A message read whole for thinning. */
export async function thinCandidate(
  raw: Uint8Array,
  { from, damage }: Pick<Envelope, 'from' | 'damage'>,
  state: Pick<ThinCandidate, 'id' | 'date' | 'flagged' | 'unread'>,
): Promise<ThinCandidate> {
  const structure = parseStructure(raw);
  const html = bodyBlocks(raw, structure).filter((block) => block.kind === 'html');
  const files = filesOf(raw, structure).map(async ({ name, type, bytes }) => `${name} ${type} ${await digest(bytes)}`);
  return {
    ...state,
    from: from.address.toLowerCase(),
    // What is damaged may lack the rest of its text, and stays.
    texts: damage === null ? [bodyText(raw, structure), ...html.map((block) => textFromHtml(block.content))] : [],
    links: html.flatMap((block) => linksOf(block.content)),
    files: await Promise.all(files),
  };
}

/** A stored message for thinning; one whose bytes can't be read has no text, and so stays. */
async function candidate(mailbox: Mailbox, id: number): Promise<ThinCandidate> {
  const { columns, envelopes } = mailbox;
  const stored = await mailbox.raws.read(id).catch(() => null);
  return thinCandidate(stored ? messageOf(stored.bytes, stored.form) : new Uint8Array(0), envelopes.get(id), {
    id,
    date: columns.date[id],
    flagged: (columns.bits[id] & bit.flagged) !== 0,
    unread: !(columns.bits[id] & bit.read),
  });
}

/** What would go of a message's conversation, and what stays: oldest message first. */
export async function thinVerdicts(mailbox: Mailbox, id: number): Promise<ThinVerdict[]> {
  const { columns, derived, envelopes } = mailbox;
  const counts = countsEverywhere(mailbox);
  const members = [...derived.membersOf(id)].filter(counts).sort((a, b) => columns.date[a] - columns.date[b] || a - b);
  await envelopes.ensure(members, columns.count);
  const candidates: ThinCandidate[] = [];
  for (const member of members) candidates.push(await candidate(mailbox, member));
  return thin(candidates);
}

/** What thinning out a message's conversation would do, oldest message first. */
export async function thinning(mailbox: Mailbox, id: number): Promise<ThinLine[]> {
  if (id < 0 || id >= mailbox.columns.count) return [];
  return (await thinVerdicts(mailbox, id)).map(({ id: member, goes, standsIn, reason }) => ({
    row: rowOf(mailbox, member),
    goes,
    standsIn: standsIn === null ? null : rowOf(mailbox, standsIn),
    reason,
  }));
}
