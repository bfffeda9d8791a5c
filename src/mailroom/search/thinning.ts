// Thinning out: what of a conversation stands whole in a later message of it.
import { thin, type ThinCandidate, type ThinVerdict } from '../../core/conversations/thinning';
import type { Envelope } from '../../core/mail/envelopeSchema';
import { bit } from '../state/columns';
import type { MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';
import { inSlices } from '../../core/data/slices';
import type { Readable } from '../reading/reader';
import type { Read } from '../reading/readings';
import { placeTraits } from '../../core/mail/place';

/** Messages that are read at a time. */
const sliceSize = 64;

/** Whether a message counts in its conversation wherever that is seen from: not junk, not thrown away, not unsent. */
export function countsEverywhere(mailbox: Pick<MailState, 'columns' | 'tables'>): (id: number) => boolean {
  const { columns, tables } = mailbox;
  const counted = tables.places.items.map((place) => placeTraits(place).counted);
  return (id) => counted[columns.place[id]];
}

/** A message for thinning, of what was read of it; null: its bytes can't be read, and so it stays. */
export function thinCandidate(
  whole: Read<'whole'> | null,
  { from, damage }: Pick<Envelope, 'from' | 'damage'>,
  state: Pick<ThinCandidate, 'id' | 'date' | 'flagged' | 'unread'>,
): ThinCandidate {
  return {
    ...state,
    from: from.address.toLowerCase(),
    // What is damaged may lack the rest of its text, and stays.
    texts: damage === null ? (whole?.texts ?? []) : [],
    links: whole?.links ?? [],
    files: whole?.files ?? [],
  };
}

/** What would go of a message's conversation, and what stays: oldest message first. */
export async function thinVerdicts(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'derived'> & Stored & Readable,
  id: number,
): Promise<ThinVerdict[]> {
  const { columns, derived, envelopes } = mailbox;
  const counts = countsEverywhere(mailbox);
  const members = [...derived.membersOf(id)].filter(counts).sort((a, b) => columns.date[a] - columns.date[b] || a - b);
  await envelopes.ensure(members, columns.count);
  const candidates: ThinCandidate[] = [];
  for (const slice of inSlices(members, sliceSize)) {
    const wholes = await mailbox.reader.many(slice, 'whole', undefined);
    for (const [n, member] of slice.entries())
      candidates.push(
        thinCandidate(wholes[n], envelopes.get(member), {
          id: member,
          date: columns.date[member],
          flagged: (columns.bits[member] & bit.flagged) !== 0,
          unread: !(columns.bits[member] & bit.read),
        }),
      );
  }
  return thin(candidates);
}
