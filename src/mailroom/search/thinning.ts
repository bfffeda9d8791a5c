// Thinning out: what of a conversation stands whole in a later message of it.
import { thin, type ThinCandidate, type ThinVerdict } from '../../core/conversations/thinning';
import { bodyBlocks, filesOf } from '../../core/mail/body';
import type { Envelope } from '../../core/mail/envelopeSchema';
import { linksOf } from '../../core/mail/links';
import { textFromHtml } from '../../core/mail/textFromHtml';
import { bit } from '../state/columns';
import type { MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';
import { digest } from '../storage/digest';
import { Message } from '../../core';
import { placeTraits } from '../../core/mail/place';

/** Whether a message counts in its conversation wherever that is seen from: not junk, not thrown away, not unsent. */
export function countsEverywhere(mailbox: Pick<MailState, 'columns' | 'tables'>): (id: number) => boolean {
  const { columns, tables } = mailbox;
  const counted = tables.places.items.map((place) => placeTraits(place).counted);
  return (id) => counted[columns.place[id]];
}

/** A message read whole for thinning. */
export async function thinCandidate(
  { raw, structure, text }: Message,
  { from, damage }: Pick<Envelope, 'from' | 'damage'>,
  state: Pick<ThinCandidate, 'id' | 'date' | 'flagged' | 'unread'>,
): Promise<ThinCandidate> {
  const html = bodyBlocks(raw, structure).filter((block) => block.kind === 'html');
  const files = filesOf(raw, structure).map(async ({ name, type, bytes }) => `${name} ${type} ${await digest(bytes)}`);
  return {
    ...state,
    from: from.address.toLowerCase(),
    // What is damaged may lack the rest of its text, and stays.
    texts: damage === null ? [text, ...html.map((block) => textFromHtml(block.content))] : [],
    links: html.flatMap((block) => linksOf(block.content)),
    files: await Promise.all(files),
  };
}

/** A stored message for thinning; one whose bytes can't be read has no text, and so stays. */
async function candidate(mailbox: Pick<MailState, 'columns'> & Stored, id: number): Promise<ThinCandidate> {
  const { columns, envelopes } = mailbox;
  const message = await mailbox.raws.message(id);
  return thinCandidate(message ?? new Message(new Uint8Array(0)), envelopes.get(id), {
    id,
    date: columns.date[id],
    flagged: (columns.bits[id] & bit.flagged) !== 0,
    unread: !(columns.bits[id] & bit.read),
  });
}

/** What would go of a message's conversation, and what stays: oldest message first. */
export async function thinVerdicts(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'derived'> & Stored,
  id: number,
): Promise<ThinVerdict[]> {
  const { columns, derived, envelopes } = mailbox;
  const counts = countsEverywhere(mailbox);
  const members = [...derived.membersOf(id)].filter(counts).sort((a, b) => columns.date[a] - columns.date[b] || a - b);
  await envelopes.ensure(members, columns.count);
  const candidates: ThinCandidate[] = [];
  for (const member of members) candidates.push(await candidate(mailbox, member));
  return thin(candidates);
}
