// What stands whole in a later message of its conversation, over many conversations: each is read once, and again only
// when something of it has changed.
import { ahead } from '../../core/data/ahead';
import { bit } from '../state/columns';
import { countsEverywhere, membersInOrder, thinVerdictsOf } from './thinning';
import type { MailState, Loading } from '../state/mailState';
import type { Readable } from '../reading/reader';
import type { Stored } from '../storage/stored';
import { turn } from '../time/turn';

/** Hears how many of the conversations are read; says whether anybody still waits. */
export type Reading = (done: number, total: number) => boolean;

/**
 * Conversations are read together until they have so many messages, or bytes: an answer lies days, and so hundreds of
 * messages, behind what it answers, and what was read of storage for one conversation serves those around it.
 */
const [mostTogether, mostBytes] = [2_048, 16 << 20];

/** A conversation that is to be read: those of its messages that matter, their bytes, and where it stands. */
interface Wanted {
  conversation: number;
  members: readonly number[];
  bytes: number;
  stamp: string;
}

/** Conversations in groups of about as many messages, as they lie in storage. */
function grouped(wanted: readonly Wanted[]): Wanted[][] {
  const out: Wanted[][] = [];
  let [size, bytes] = [mostTogether, 0];
  for (const one of wanted.toSorted((a, b) => a.members[0] - b.members[0])) {
    if (size + one.members.length > mostTogether || bytes + one.bytes > mostBytes) {
      out.push([]);
      [size, bytes] = [0, 0];
    }
    out[out.length - 1].push(one);
    size += one.members.length;
    bytes += one.bytes;
  }
  return out;
}

export class Redundancy {
  /** Of each conversation what it was when it was read, and what of it may go. */
  private readonly known = new Map<number, { stamp: string; goes: readonly number[] }>();
  private readonly going = new Set<number>();

  constructor(
    private readonly mailbox: Pick<MailState, 'columns' | 'tables' | 'derived'> &
      Stored &
      Readable &
      Pick<Loading, 'ready'>,
  ) {}

  /** Where a conversation stands: who belongs to it, and all of their state that thinning goes by. */
  private stamp(members: Uint32Array): string {
    const { bits, place } = this.mailbox.columns;
    let stamp = '';
    for (const id of members) stamp += `${id}.${bits[id] & (bit.read | bit.flagged)}.${place[id]} `;
    return stamp;
  }

  /** The messages of a conversation that may go, and all in which they may stand: the rest need not be read. */
  private mattering(members: Uint32Array, counts: (id: number) => boolean): number[] {
    const { columns } = this.mailbox;
    const counted = membersInOrder(columns, members, counts);
    const oldest = counted.findIndex((id) => (columns.bits[id] & (bit.read | bit.flagged)) === bit.read);
    // Only the newest: nothing stands in a later one.
    return oldest < 0 || oldest === counted.length - 1 ? [] : counted.slice(oldest);
  }

  /** Settled once {@link has} can answer for these messages; false where nobody waited any more. */
  async ready(ids: Int32Array, reading: Reading = () => true): Promise<boolean> {
    const { derived, envelopes } = this.mailbox;
    await this.mailbox.ready();
    const wanted: Wanted[] = [];
    const seen = new Set<number>();
    const counts = countsEverywhere(this.mailbox);
    for (const id of ids) {
      const conversation = derived.conversation[id];
      if (seen.has(conversation)) continue;
      seen.add(conversation);
      const members = derived.membersOf(id);
      if (members.length < 2) continue;
      const stamp = this.stamp(members);
      if (this.known.get(conversation)?.stamp === stamp) continue;
      const some = this.mattering(members, counts);
      const bytes = some.reduce((sum, member) => sum + envelopes.get(member).size, 0);
      if (some.length) wanted.push({ conversation, members: some, bytes, stamp });
      else this.take({ conversation, stamp }, []);
    }
    const compared = (group: readonly Wanted[]) =>
      thinVerdictsOf(
        this.mailbox,
        group.map((one) => one.members),
      );
    let done = 0;
    for await (const [group, verdicts] of ahead(grouped(wanted), compared)) {
      for (const [at, one] of group.entries())
        this.take(
          one,
          verdicts[at].filter(({ goes }) => goes).map(({ id }) => id),
        );
      done += group.length;
      if (!reading(done, wanted.length)) return false;
      // Whoever else waits for the worker gets a turn.
      await turn();
    }
    return true;
  }

  private take({ conversation, stamp }: Pick<Wanted, 'conversation' | 'stamp'>, goes: readonly number[]): void {
    for (const gone of this.known.get(conversation)?.goes ?? []) this.going.delete(gone);
    for (const one of goes) this.going.add(one);
    this.known.set(conversation, { stamp, goes });
  }

  /** Whether a message stands whole in a later one. Only after {@link ready}. */
  has(id: number): boolean {
    return this.going.has(id);
  }

  /** Forgets all, when messages were taken back. */
  forget(): void {
    this.known.clear();
    this.going.clear();
  }
}
