// The first answers to a query, before all is in memory: what stands in storage is looked through from the newest on, one
// stretch after another, and what was found in it can be told at once.
import { Bits } from '../../core/data/bits';
import { findText, type Leaf, type TextLeaf } from '../../core/search/find';
import { segmentSize } from '../../core/search/units';
import { SomeEnvelopes } from '../../core/rules/messageTable';
import type { MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';
import { turn } from '../time/turn';
import type { Indexed } from './indexed';

/** Keys that can be answered of a message whose envelope and text are in memory, whatever all others say. */
const early = new Set<Leaf['key']>([
  'all',
  ...(['words', 'body', 'text', 'from', 'to', 'cc', 'subject'] as const),
  ...(['seen', 'flagged', 'draft', 'deleted', 'keyword', 'before', 'on', 'since'] as const),
]);

/** Whether a query can be answered early. */
export const canTellEarly = (leaves: readonly Leaf[]): boolean => leaves.every(({ key }) => early.has(key));

/**
 * So many messages are looked through before the first answer; after it, four times as many before each further one: each
 * takes time from what reads the rest.
 */
const firstMessages = 500;

export class EarlyLook {
  /** From this message on all were looked through, and may be told of. */
  private from: number;
  private readonly count: number;
  private ended = false;
  private first: () => void = () => undefined;
  /** Settled once there is something to tell, or nothing will be. */
  readonly begun = new Promise<void>((resolve) => (this.first = resolve));
  /** What keys with a text were found to hold for, from a message on. */
  private readonly kept = new Map<string, { from: number; bits: Bits }>();

  /** `withTexts`: with what messages say, which {@link TextStore.ready} must be reading; `told`: hears when there is more to tell. */
  constructor(
    private readonly mailbox: Pick<MailState, 'columns'> & Pick<Stored, 'envelopes'> & Indexed,
    private readonly withTexts: boolean,
    private readonly told: () => void,
  ) {
    this.count = this.from = mailbox.columns.count;
    void this.run()
      .catch(() => undefined)
      .finally(this.first);
  }

  /** How many messages were looked through. */
  get done(): number {
    return this.count - this.from;
  }

  /** Looks no further: all can be asked. */
  end(): void {
    this.ended = true;
  }

  private async run(): Promise<void> {
    const { envelopes, text } = this.mailbox;
    let next = firstMessages;
    for (let which = Math.ceil(this.count / segmentSize) - 1; which >= 0; which--) {
      const from = which * segmentSize;
      const ids = Array.from({ length: Math.min(segmentSize, this.count - from) }, (_, n) => from + n);
      const [there] = await Promise.all([this.withTexts ? text.early(which) : true, envelopes.ensure(ids, this.count)]);
      if (this.ended || !there) return;
      if (this.count - from >= next) {
        // Only now: how far it was looked is said with what was found there.
        this.from = from;
        next = 4 * this.done;
        this.told();
        this.first();
      }
      await turn();
    }
  }

  /** Takes those messages out that were not looked through: of them nothing can be told, not even that they don't fit. */
  amongLooked(bits: Bits): Bits {
    const looked = new Bits(bits.length);
    for (let id = this.from; id < Math.min(this.count, bits.length); id++) looked.set(id);
    return bits.and(looked);
  }

  /** Which of the messages that were looked through a key with a text asks for. */
  ask(leaf: TextLeaf): Bits {
    const { mailbox, from } = this;
    const { count } = mailbox.columns;
    // Some were taken back: all is asked anew before long.
    if (count < this.count) return new Bits(count);
    const key = JSON.stringify(leaf);
    const known = this.kept.get(key) ?? { from: this.count, bits: new Bits(this.count) };
    if (known.from > from) {
      let { bits } = known;
      for (let to = known.from; to > from;) {
        const which = Math.ceil(to / segmentSize) - 1;
        const some = new SomeEnvelopes(this.count, which * segmentSize, to, (id) => mailbox.envelopes.get(id));
        bits = bits.or(findText(leaf, some, mailbox.text.texts.earlyTexts(which)));
        to = which * segmentSize;
      }
      this.kept.set(key, { from, bits });
    }
    const { bits } = this.kept.get(key) ?? known;
    // What came in since is told of with all the rest.
    return bits.length === count ? bits : bits.grown(count);
  }
}
