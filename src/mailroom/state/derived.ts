// What is computed of each message once: its conversation, what it answers, its account and kind. Kept beside the state
// so that the first rows can be grouped before the envelopes are read, and computed anew from them where it is missing
// or was made for other accounts.
import { threadable } from '../../core/conversations/threadable';
import { Conversations } from '../../core/conversations/threading';
import { AccountIndex, type Account } from '../../core/mail/account';
import type { Envelope } from '../../core/mail/envelopeSchema';
import { groupsBy, type Groups } from '../../core/data/groups';
import { senderKind, senderKinds, type SenderKind } from '../../core/senders/kind';
import { grown } from '../../core/data/grown';
import type { Records } from '../storage/records';
import type { Writes } from '../storage/storing';
import { bytes, uint16, uint32 } from '../storage/schemas';
import { keyOf, statePackSize } from '../storage/keys';
import { turn } from '../time/turn';
import { Table } from './internedTables';
import { z } from 'zod';

/** The bits beside the kind, which takes the lowest two. */
const factBit = { attachments: 4, own: 8 } as const;

/** More different sets of accounts than are told apart: then the own one of a message alone counts. */
const mostSets = 60_000;

/** Messages threaded before whoever asks for rows gets a turn. */
const sliceSize = 2_000;

const derivedPackSchema = z.object({
  /** The accounts for which it was computed. */
  stamp: z.string(),
  /** How many of its messages there were; absent from what earlier versions wrote, which is taken for all. */
  count: z.number().int().nonnegative().optional(),
  conversation: uint32,
  above: uint32,
  account: bytes,
  /** The sets of accounts of its messages, and by its position there that of each. */
  sets: z.array(z.array(z.number().int().nonnegative())),
  under: uint16,
  facts: bytes,
});

type DerivedPack = z.infer<typeof derivedPackSchema>;

/** What is computed of so many messages. */
interface Threaded {
  count: number;
  threads: Conversations;
  account: Uint8Array;
  under: Uint16Array;
  facts: Uint8Array;
}

export class Derived {
  /** The lowest id of each message's conversation. */
  conversation = new Uint32Array(0);
  /** One more than the id of what a message answers; 0 for a beginning. */
  private above = new Uint32Array(0);
  /** One more than the position of a message's account; 0 for none. */
  private accountColumn = new Uint8Array(0);
  /** The sets of accounts under which messages are found, and by its position there that of each message. */
  private readonly sets = new Table<readonly number[]>([[]]);
  private under = new Uint16Array(0);
  private facts = new Uint8Array(0);
  private threads: Conversations | null = null;
  private index = new AccountIndex([]);
  private readonly dirty = new Set<number>();
  private members: Groups | null = null;
  count = 0;
  /** How often messages were forgotten again: their ids are then those of others. */
  drops = 0;
  /** Whether everything is known of all messages: not where the browser was closed before it was stored. */
  complete = true;

  constructor(private readonly records: Records) {}

  /** Whether messages can be added: the threads are in memory. */
  get ready(): boolean {
    return this.threads !== null;
  }

  get accounts(): AccountIndex {
    return this.index;
  }

  setAccounts(accounts: readonly Account[]): void {
    this.index = new AccountIndex(accounts);
  }

  private get stamp(): string {
    return this.index.accounts.map((a) => a.address).join(' ');
  }

  private grow(count: number): void {
    const was = this.count;
    this.count = count;
    if (count > this.conversation.length) {
      const size = Math.ceil(Math.max(count, was * 1.5) / statePackSize) * statePackSize;
      this.conversation = grown(this.conversation, new Uint32Array(size));
      this.above = grown(this.above, new Uint32Array(size));
      this.accountColumn = grown(this.accountColumn, new Uint8Array(size));
      this.under = grown(this.under, new Uint16Array(size));
      this.facts = grown(this.facts, new Uint8Array(size));
    }
    for (let id = was; id < count; id++) this.conversation[id] = id;
    this.members = null;
  }

  /** Fetches what is stored for the first `count` messages, while the rest of the mailbox is read. */
  fetch(count: number): Promise<(DerivedPack | null)[]> {
    const packs = Array.from({ length: Math.ceil(count / statePackSize) }, (_, pack) => pack);
    return Promise.all(packs.map((pack) => this.records.readDerived(keyOf.derived(pack), derivedPackSchema)));
  }

  /** Takes over what was fetched. What is missing or old is computed by {@link threaded}. */
  load(count: number, packs: readonly (DerivedPack | null)[]): void {
    this.grow(count);
    this.complete = count <= packs.length * statePackSize;
    for (const [pack, stored] of packs.entries()) {
      // Without it, it is computed anew in a moment from what is kept elsewhere.
      const at = pack * statePackSize;
      const here = Math.min(statePackSize, count - at);
      if (here <= 0) break;
      if (stored?.stamp !== this.stamp || (stored.count ?? here) < here) this.complete = false;
      if (stored?.stamp !== this.stamp) continue;
      this.conversation.set(stored.conversation.subarray(0, here), at);
      this.above.set(stored.above.subarray(0, here), at);
      this.accountColumn.set(stored.account.subarray(0, here), at);
      const sets = stored.sets.map((set) => this.sets.add(set));
      for (let n = 0; n < here; n++) this.under[at + n] = sets[stored.under[n]] ?? 0;
      this.facts.set(stored.facts.subarray(0, here), at);
    }
    // A pack written before a crash may name conversations of messages that never came to be.
    for (let id = 0; id < count; id++) if (this.conversation[id] >= count) this.conversation[id] = id;
  }

  /** Computes everything from the envelopes, in slices; it holds once it is {@link take}n over. */
  async threaded(count: number, envelope: (id: number) => Envelope, date: (id: number) => number): Promise<Threaded> {
    const threads = new Conversations();
    this.grow(Math.max(count, this.count));
    const [account, under, facts] = [new Uint8Array(count), new Uint16Array(count), new Uint8Array(count)];
    for (let id = 0; id < count; id++) {
      const its = envelope(id);
      threads.add(threadable(its, date(id)));
      [account[id], under[id], facts[id]] = this.read(its);
      if (id % sliceSize === sliceSize - 1) await turn();
    }
    return { count, threads, account, under, facts };
  }

  /** Takes over what was computed. Returns whether anything was otherwise before. */
  take({ count, threads, account, under, facts }: Threaded): boolean {
    let changed = false;
    for (let id = 0; id < count; id++) {
      const same =
        this.setThread(threads, id) &&
        this.accountColumn[id] === account[id] &&
        this.under[id] === under[id] &&
        this.facts[id] === facts[id];
      this.accountColumn[id] = account[id];
      this.under[id] = under[id];
      this.facts[id] = facts[id];
      if (same) continue;
      changed = true;
      this.dirty.add(Math.floor(id / statePackSize));
    }
    this.count = count;
    this.threads = threads;
    this.members = null;
    this.complete = true;
    return changed;
  }

  private read(envelope: Envelope): [account: number, under: number, facts: number] {
    const own = envelope.from.address !== '' && this.index.isOwn(envelope.from.address);
    const facts =
      senderKinds.indexOf(senderKind(envelope, this.index)) |
      (envelope.attachments.length ? factBit.attachments : 0) |
      (own ? factBit.own : 0);
    const accounts = this.index.all(envelope);
    return [
      (accounts.at(0) ?? -1) + 1,
      this.sets.add(this.sets.items.length < mostSets ? accounts : accounts.slice(0, 1)),
      facts,
    ];
  }

  /** Takes over what the threads say of a message; whether it was so before. */
  private setThread(threads: Conversations, id: number): boolean {
    const conversation = threads.conversation(id);
    const above = threads.parent(id) + 1;
    const same = this.conversation[id] === conversation && this.above[id] === above;
    this.conversation[id] = conversation;
    this.above[id] = above;
    return same;
  }

  /** Adds the next message; only when {@link ready}. Takes as long as its own conversation is large, at most. */
  add(envelope: Envelope, date: number): void {
    if (!this.threads) throw new Error('Messages were added before the threads were in memory.');
    const id = this.count;
    const changed = this.threads.add(threadable(envelope, date));
    this.grow(id + 1);
    [this.accountColumn[id], this.under[id], this.facts[id]] = this.read(envelope);
    for (const other of changed) {
      this.setThread(this.threads, other);
      this.dirty.add(Math.floor(other / statePackSize));
    }
  }

  /** Forgets messages that were added and could not be written; everything must then be computed anew. */
  drop(count: number): void {
    this.drops++;
    this.count = count;
    this.threads = null;
    this.members = null;
  }

  /** The id of what a message answers; null for a beginning. */
  parent(id: number): number | null {
    return this.above[id] === 0 ? null : this.above[id] - 1;
  }

  /** Whether a message answers one of the person's own. */
  answersOwn(id: number): boolean {
    const above = this.parent(id);
    return above !== null && this.isOwn(above);
  }

  /** The position of a message's account, and whether it is the person's own: by its envelope, while not {@link complete}. */
  whose(id: number, envelope: Envelope): { account: number; own: boolean } {
    if (this.complete) return { account: this.account(id), own: this.isOwn(id) };
    const [account, , facts] = this.read(envelope);
    return { account: account - 1, own: (facts & factBit.own) !== 0 };
  }

  /** The position of a message's account; -1 for none. */
  account(id: number): number {
    return this.accountColumn[id] - 1;
  }

  /** Whether a message is found under an account, by its position; -1: under none. */
  isUnder(account: number): (id: number) => boolean {
    const holding = this.sets.items.map((set) => (account < 0 ? set.length === 0 : set.includes(account)));
    return (id) => holding[this.under[id]];
  }

  kind(id: number): SenderKind {
    return senderKinds[this.facts[id] & 3];
  }

  isOwn(id: number): boolean {
    return (this.facts[id] & factBit.own) !== 0;
  }

  hasAttachments(id: number): boolean {
    return (this.facts[id] & factBit.attachments) !== 0;
  }

  /** All messages of a message's conversation, also those that are gone, lowest id first. */
  membersOf(id: number): Uint32Array {
    // Grouped when first asked after a change.
    const { starts, members } = (this.members ??= groupsBy(this.conversation.subarray(0, this.count), this.count));
    const conversation = this.conversation[id];
    return members.subarray(starts[conversation], starts[conversation + 1]);
  }

  /** The packs that changed since the last call, ready to be stored. */
  takeDirty(): Writes {
    const packs = [...this.dirty];
    this.dirty.clear();
    return packs.map((pack) => {
      const [from, to] = [pack * statePackSize, (pack + 1) * statePackSize];
      const sets = [...new Set(this.under.subarray(from, to))];
      const place = new Map(sets.map((set, at) => [set, at]));
      const content = {
        stamp: this.stamp,
        count: Math.min(this.count - from, statePackSize),
        conversation: this.conversation.slice(from, to),
        above: this.above.slice(from, to),
        account: this.accountColumn.slice(from, to),
        sets: sets.map((set) => [...this.sets.items[set]]),
        under: this.under.slice(from, to).map((set) => place.get(set) ?? 0),
        facts: this.facts.slice(from, to),
      };
      return [keyOf.derived(pack), content];
    });
  }
}
