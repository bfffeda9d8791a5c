// Thinning out: what of a conversation stands whole in a later message of it.
import { thin, type ThinCandidate, type ThinVerdict } from '../../core/conversations/thinning';
import type { Envelope } from '../../core/mail/envelopeSchema';
import { bit } from '../state/columns';
import type { MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';
import { ahead } from '../../core/data/ahead';
import { inSlices } from '../../core/data/slices';
import type { Readable } from '../reading/reader';
import type { Read } from '../reading/readings';
import { placeTraits } from '../../core/mail/place';

/** Messages that are read at a time, and how many times so many are on their way beside those that are waited for. */
const [sliceSize, atOnce] = [64, 2];

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

type Thinned = Pick<MailState, 'columns' | 'tables' | 'derived'> & Stored & Readable;

/** Those members of a conversation that `counts` says, the oldest first. */
export const membersInOrder = (
  { date }: Pick<MailState['columns'], 'date'>,
  members: Uint32Array,
  counts: (id: number) => boolean,
): number[] => [...members].filter(counts).sort((a, b) => date[a] - date[b] || a - b);

/** What would go of a message's conversation, and what stays: oldest message first. */
export async function thinVerdicts(mailbox: Thinned, id: number): Promise<ThinVerdict[]> {
  const members = membersInOrder(mailbox.columns, mailbox.derived.membersOf(id), countsEverywhere(mailbox));
  const [verdicts] = await thinVerdictsOf(mailbox, [members]);
  return verdicts;
}

/**
 * The same of several conversations, in their order, each given by its members. Their messages are read together, as they
 * lie in storage: what is read one conversation after another is mostly waited for.
 */
export async function thinVerdictsOf(
  mailbox: Thinned,
  conversations: readonly (readonly number[])[],
): Promise<ThinVerdict[][]> {
  const { columns, envelopes } = mailbox;
  const all = conversations.flat().sort((a, b) => a - b);
  await envelopes.ensure(all, columns.count);
  const wholes = new Map<number, Read<'whole'> | null>();
  const slices = ahead(
    [...inSlices(all, sliceSize)],
    (slice) => mailbox.reader.many(slice, 'whole', undefined),
    atOnce,
  );
  for await (const [slice, read] of slices) for (const [n, whole] of read.entries()) wholes.set(slice[n], whole);
  return conversations.map((members) =>
    thin(
      members.map((member) =>
        thinCandidate(wholes.get(member) ?? null, envelopes.get(member), {
          id: member,
          date: columns.date[member],
          flagged: (columns.bits[member] & bit.flagged) !== 0,
          unread: !(columns.bits[member] & bit.read),
        }),
      ),
    ),
  );
}
