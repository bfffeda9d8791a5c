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

/**
 * Messages read for thinning, some at a time, as they lie in storage: what is read one conversation after another is mostly
 * waited for, and read several times.
 */
export async function* candidatesOf(
  { columns, envelopes, reader }: Thinned,
  ids: Iterable<number>,
): AsyncGenerator<ThinCandidate[]> {
  const slices = inSlices(
    [...ids].sort((a, b) => a - b),
    sliceSize,
  );
  const read = async (slice: readonly number[]) => {
    const [wholes] = await Promise.all([
      reader.many(slice, 'whole', undefined),
      envelopes.ensure(slice, columns.count),
    ]);
    return wholes;
  };
  for await (const [slice, wholes] of ahead([...slices], read, atOnce))
    yield slice.map((id, n) =>
      thinCandidate(wholes[n], envelopes.get(id), {
        id,
        date: columns.date[id],
        flagged: (columns.bits[id] & bit.flagged) !== 0,
        unread: !(columns.bits[id] & bit.read),
      }),
    );
}

/** What would go of messages, and what stays, in their order. */
export async function thinVerdictsOf(mailbox: Thinned, members: readonly number[]): Promise<ThinVerdict[]> {
  const candidates = new Map<number, ThinCandidate>();
  for await (const some of candidatesOf(mailbox, members)) for (const one of some) candidates.set(one.id, one);
  return thin(members.map((member) => candidates.get(member)).filter((one) => one !== undefined));
}

/** What would go of a message's conversation, and what stays: oldest message first. */
export function thinVerdicts(mailbox: Thinned, id: number): Promise<ThinVerdict[]> {
  const { columns, derived } = mailbox;
  return thinVerdictsOf(mailbox, membersInOrder(columns, derived.membersOf(id), countsEverywhere(mailbox)));
}
