// What stands whole in a later message of its conversation, over many conversations: each is read once, and again only
// when something of it has changed.
import { thin, type ThinVerdict } from '../../core/conversations/thinning';
import { bit } from '../state/columns';
import { HeldConversations } from './heldConversations';
import { candidatesOf, countsEverywhere, membersInOrder, thinVerdictsOf } from './thinning';
import type { MailState, Loading } from '../state/mailState';
import type { Readable } from '../reading/reader';
import type { Stored } from '../storage/stored';
import { turn } from '../time/turn';

/** Hears how many of the conversations are read; says whether anybody still waits. */
export type Reading = (done: number, total: number) => boolean;

/** So many characters are held of conversations that are read in part. */
const mostHeldAtOnce = 32_000_000;

/** A conversation that is to be read: those of its messages that matter, and where it stands. */
interface Wanted {
  conversation: number;
  members: readonly number[];
  stamp: string;
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
    private readonly mostHeld = mostHeldAtOnce,
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
    const { derived } = this.mailbox;
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
      if (some.length) wanted.push({ conversation, members: some, stamp });
      else this.take({ conversation, stamp }, []);
    }
    return this.compare(wanted, reading);
  }

  /**
   * All are read as they lie in storage, each pack of them once: an answer lies days, and so hundreds of messages, behind what
   * it answers. What reaches too far to be held meanwhile is read by itself in the end.
   */
  private async compare(wanted: readonly Wanted[], reading: Reading): Promise<boolean> {
    const of = new Map<number, Wanted>();
    for (const one of wanted) for (const id of one.members) of.set(id, one);
    const held = new HeldConversations<Wanted>(this.mostHeld);
    let done = 0;
    const settle = (one: Wanted, verdicts: readonly ThinVerdict[]) => {
      this.take(
        one,
        verdicts.filter(({ goes }) => goes).map(({ id }) => id),
      );
      done++;
    };
    for await (const candidates of candidatesOf(this.mailbox, of.keys())) {
      for (const candidate of candidates) {
        const one = of.get(candidate.id);
        const whole = one && held.add(one, candidate);
        if (whole) settle(one, thin(whole));
      }
      held.shed();
      if (!reading(done, wanted.length)) return false;
      // Whoever else waits for the worker gets a turn.
      await turn();
    }
    for (const one of held.left) {
      settle(one, await thinVerdictsOf(this.mailbox, one.members));
      if (!reading(done, wanted.length)) return false;
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
