// Finding in the mailroom: a query asked of all messages that are here.
import { pathsOf } from '../../core/mail/nesting';
import { Bits } from '../../core/data/bits';
import { InTurn } from '../../core/data/inTurn';
import { inSlices } from '../../core/data/slices';
import { keepNewest } from '../../core/data/memo';
import { find, findText, dayTest, leavesOf, type Leaf, type TextLeaf } from '../../core/search/find';
import { foldSearch } from '../../core/text/fold';
import type { Query } from '../../core/search/query';
import { bit } from '../state/columns';
import type { MailState, Loading } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { Correspondents } from '../state/correspondents';
import type { Readable } from '../reading/reader';
import { later, turn } from '../time/turn';
import { canTellEarly, EarlyLook } from './earlyLook';
import type { Indexed, Tabled } from './indexed';

/** Keys that are remembered; the ones asked longest ago go first. */
const mostKept = 200;
/** So long at most what nobody asked for waits until what a query needs is read, in milliseconds. */
const longest = 5_000;
/** Messages that are read at a time. */
const sliceSize = 64;

/** Of which message a number holds. */
type Test = (id: number) => boolean;

const hasText = (leaf: Leaf): leaf is TextLeaf => 'text' in leaf;
const needsIndex = new Set<Leaf['key']>(['words', 'body', 'text', 'header', 'bcc']);

/** What must have been read for a query: only envelopes, or texts as well. */
type Needs = 'envelopes' | 'texts';

const needsOf = (leaves: readonly Leaf[]): Needs =>
  leaves.some(({ key }) => needsIndex.has(key)) ? 'texts' : 'envelopes';

export class Finding {
  /** What keys with a text were found to hold for, for so many messages: no command changes what a message says. */
  private readonly kept = new Map<string, Bits>();

  private readonly reading = new InTurn();
  /** Queries that wait for what they need. */
  private readonly asked = new Set<Promise<void>>();
  /** What was read once as a whole, or could not be, and what is looked through until then. */
  private readonly whole = new Set<Needs>();
  private readonly early = new Map<Needs, EarlyLook>();

  constructor(
    private readonly mailbox: MailState &
      Readable &
      Pick<Loading, 'envelopesReady' | 'ready'> &
      Pick<Correspondents, 'senderIndex'> &
      Pick<Stored, 'envelopes'> &
      Indexed &
      Tabled,
    /** Hears that more can be told of what was asked. */
    private readonly more: () => void = () => undefined,
  ) {}

  /** Settled once {@link found} can answer for a query. */
  async ready(query: Query): Promise<void> {
    const { mailbox } = this;
    const leaves = leavesOf(query);
    // Only what follows from the conversations waits for them.
    const whole = leaves.some(({ key }) => key === 'answered');
    const needs = needsOf(leaves);
    const loaded = Promise.all([
      whole ? mailbox.ready() : mailbox.envelopesReady(),
      needs === 'texts' ? mailbox.text.ready(mailbox.columns.count) : undefined,
    ]).then(() => this.allRead(needs));
    if (!whole) {
      this.asked.add(loaded);
      void loaded.catch(() => undefined).finally(() => this.asked.delete(loaded));
    }
    await loaded;
    for (const leaf of leaves.filter(hasText)) {
      if (leaf.key !== 'header' && leaf.key !== 'bcc') continue;
      // One after another: what is still being read is not taken for all there is.
      await this.reading.do(() => this.read(leaf));
    }
  }

  /** Settled once nothing is read into memory that a query waits for, or that takes long. */
  async underWay(): Promise<void> {
    if (this.asked.size) await Promise.race([Promise.allSettled([...this.asked]), later(longest)]);
    // Whoever asked has its answer first.
    await turn();
  }

  private allRead(needs: Needs): void {
    for (const one of needs === 'texts' ? (['envelopes', 'texts'] as const) : (['envelopes'] as const))
      this.endEarly(one);
  }

  /** From now on queries are answered for all messages. Whoever has the first answers asks again. */
  private endEarly(needs: Needs): void {
    this.whole.add(needs);
    const look = this.early.get(needs);
    if (!look) return;
    this.early.delete(needs);
    look.end();
    this.more();
  }

  /**
   * Settled once {@link found} has something to tell for a query: all, or, as long as what it needs is still being read,
   * what was found so far.
   */
  async readySoFar(query: Query): Promise<void> {
    const leaves = leavesOf(query);
    const needs = needsOf(leaves);
    const ready = this.ready(query);
    if (this.whole.has(needs) || !canTellEarly(leaves)) return ready;
    let look = this.early.get(needs);
    if (!look) this.early.set(needs, (look = new EarlyLook(this.mailbox, needs === 'texts', this.more)));
    // Where nothing can be told early, it is told when all can.
    const begun = look.begun.then(() => (look.done > 0 ? undefined : ready));
    // What can't be read is told instead of what was found so far.
    ready.catch(() => this.endEarly(needs));
    await Promise.race([ready, begun]);
  }

  /** The look by which a query is answered so far; null where it is answered for all messages. */
  private lookFor(query: Query): EarlyLook | null {
    const leaves = leavesOf(query);
    return canTellEarly(leaves) ? (this.early.get(needsOf(leaves)) ?? null) : null;
  }

  /** How many messages were looked through for a query so far; null for all. */
  lookedThrough(query: Query): number | null {
    return this.lookFor(query)?.done ?? null;
  }

  /**
   * Which of all messages a query asks for, also of those that are gone; of those only that were looked through, as long as
   * {@link lookedThrough} says so. Only after {@link ready} or {@link readySoFar}.
   */
  found(query: Query): Bits {
    const look = this.lookFor(query);
    const bits = find(query, (leaf) => (look && hasText(leaf) ? look.ask(leaf) : this.ask(leaf)));
    return look ? look.amongLooked(bits) : bits;
  }

  /** Has all made that the first question would have to wait for, while nobody asks. */
  async warm(): Promise<void> {
    const { mailbox } = this;
    await mailbox.ready();
    await mailbox.text.warm(mailbox.columns.count);
    const query: Query = { key: 'words', text: 'warm' };
    await this.ready(query);
    this.found(query);
  }

  /** Forgets what was found, when messages were taken back. */
  forget(): void {
    this.kept.clear();
  }

  private askText(leaf: TextLeaf, toRead?: (id: number) => void): Bits {
    const { mailbox } = this;
    const key = JSON.stringify(leaf);
    let bits = this.kept.get(key);
    if (bits?.length !== mailbox.columns.count)
      bits = findText(leaf, mailbox.envelopeTable(), mailbox.text.texts, toRead);
    keepNewest(this.kept, key, bits, mostKept);
    return bits;
  }

  /** Reads the messages in which only they themselves tell what a header field says. */
  private async read(leaf: TextLeaf): Promise<void> {
    const ids: number[] = [];
    const bits = this.askText(leaf, (id) => ids.push(id));
    const name = 'name' in leaf ? leaf.name : leaf.key;
    for (const slice of inSlices(ids, sliceSize)) {
      const says = await this.mailbox.reader.many(slice, 'says', { name, text: leaf.text });
      for (const [n, id] of slice.entries()) if (says[n]) bits.set(id);
    }
  }

  private ask(leaf: Leaf): Bits {
    const { count } = this.mailbox.columns;
    if (leaf.key === 'all') return Bits.all(count);
    if (hasText(leaf)) return this.askText(leaf);
    const bits = new Bits(count);
    const test = this.testOf(leaf);
    for (let id = 0; id < count; id++) if (test(id)) bits.set(id);
    return bits;
  }

  private testOf(leaf: Exclude<Leaf, TextLeaf | { key: 'all' }>): Test {
    const { columns, tables, setup } = this.mailbox;
    const sizes = () => this.mailbox.senderIndex.grow(columns.count).sizes;
    const state =
      (which: number, value: boolean): Test =>
      (id) =>
        ((columns.bits[id] & which) !== 0) === value;
    const inPlace = (name: string, value: boolean): Test => {
      const place = tables.places.items.indexOf(name);
      return (id) => (columns.place[id] === place) === value;
    };
    switch (leaf.key) {
      case 'seen':
        return state(bit.read, leaf.value);
      case 'flagged':
        return state(bit.flagged, leaf.value);
      case 'draft':
        return inPlace('drafts', leaf.value);
      case 'deleted':
        return inPlace('bin', leaf.value);
      case 'answered': {
        const answered = this.answered();
        return (id) => answered.has(id) === leaf.value;
      }
      case 'keyword': {
        const wanted = foldSearch(leaf.label);
        // By its name, or by all the names down to it, as lists show it where another has that name.
        const path = pathsOf(setup.labels);
        const named = setup.labels.filter(({ id, name }) => [name, path(id)].some((its) => foldSearch(its) === wanted));
        const label = new Set(named.map(({ id }) => id));
        const bears = tables.labelSets.items.map((set) => set.some((id) => label.has(id)));
        return (id) => bears[columns.labels[id]];
      }
      case 'before':
      case 'on':
      case 'since': {
        const holds = dayTest(leaf);
        return (id) => holds(columns.date[id]);
      }
      case 'sentbefore':
      case 'senton':
      case 'sentsince': {
        // Over columns: to fetch a hundred thousand envelopes takes longer than all the rest.
        const table = this.mailbox.envelopeTable();
        const holds = dayTest(leaf);
        return (id) => holds(table.sentClock(id));
      }
      case 'larger': {
        const its = sizes();
        return (id) => its[id] > leaf.bytes;
      }
      case 'smaller': {
        const its = sizes();
        return (id) => its[id] < leaf.bytes;
      }
    }
  }

  /** What a message of the person's own answers. */
  answered(): Bits {
    const { columns, derived } = this.mailbox;
    const bits = new Bits(columns.count);
    for (let id = 0; id < columns.count; id++) {
      const above = derived.isOwn(id) ? derived.parent(id) : null;
      if (above !== null) bits.set(above);
    }
    return bits;
  }
}
