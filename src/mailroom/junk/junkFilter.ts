// The junk filter in the mailroom: the model, what each mark taught it, and the score of every message it judged.
//
// What the person marked is a bit of the message's state, so the journal has it and Undo takes it back. All that is here
// follows from those bits, the shipped model and the raw messages: it is stored only so that it need not be made anew.
import { ahead } from '../../core/data/ahead';
import { Bits } from '../../core/data/bits';
import { grown } from '../../core/data/grown';
import { hashOf, hashOfText } from '../../core/data/hash';
import { InTurn } from '../../core/data/inTurn';
import { inSlices } from '../../core/data/slices';
import { namedSender, withSender, type SenderSignal } from '../../core/junk/senderFeatures';
import { JunkModel } from '../../core/junk/model';
import { refine, refinedOf, type Taught } from '../../core/junk/refining';
import { readModel, writeModel } from '../../core/junk/modelFile';
import { evidenceAmong, scoreOf, type Evidence } from '../../core/junk/verdict';
import { decodeBase64 } from '../../core/mail/transfer';
import { bit } from '../state/columns';
import type { MailState, Loading } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Readable } from '../reading/reader';
import type { Stored, Keeping } from '../storage/stored';
import { bytes, int32, uint32 } from '../storage/schemas';
import { keyOf } from '../storage/keys';
import type { Writes } from '../storage/storing';
import { expunged } from '../state/internedTables';
import { turn } from '../time/turn';
import { KeptFeatures } from './keptFeatures';
import { z } from 'zod';

const junkRecordSchema = z.object({
  /** What is beneath it: the shipped model or one that was carried here, with its checksum, or `none`. */
  base: z.string(),
  /** What was learned beyond that, as a model file (core/junk/modelFile.ts). */
  model: bytes,
  /** The messages that taught it, what each was marked as (1 is junk), and what it taught. */
  ids: int32,
  marks: bytes,
  steps: int32,
  /** One more than the score of each message, 0 where it was not judged. */
  scores: bytes,
  /** A bit for each message: whether that is by the model as it is here. */
  fresh: uint32,
});

/** The lowest bits of each weight decide nothing, and would only make a setup long. */
const carriedShift = 6;

/** Lines of evidence for one message. */
const mostEvidence = 12;

/** Messages that are read and judged at a time. */
const sliceSize = 64;

/** So many slices are on their way at a time: enough for every worker, and for storage. */
const slicesAhead = 4;

/** What a message taught; its features are elsewhere. */
type Lesson = Omit<Taught, 'features'>;

export class JunkRoom {
  private shippedModel: JunkModel | null = null;
  private shippedHash = 0;
  /** What the model begins from, by name (null until it is loaded) and itself. */
  private base: string | null = null;
  private beneath = new JunkModel();
  private model = new JunkModel();
  private readonly taught = new Map<number, Lesson>();
  private readonly pending = new Set<number>();
  private readonly features = new KeptFeatures();
  /** One more than the score; 0: not judged. */
  private scores = new Uint8Array(0);
  /** Which were judged by the model as it is now. */
  private fresh = new Bits(0);
  private readonly judging = new InTurn();
  private loaded: Promise<void> | null = null;
  private carriedBy: { text: string; model: JunkModel | null } | null = null;
  private dirty = false;
  private readonly settling = new InTurn();
  /** Fetches the shipped model; null where there is none. */
  fetchShipped: () => Promise<Uint8Array | null> = () => Promise.resolve(null);

  constructor(
    private readonly mailbox: Pick<MailState, 'columns' | 'setup'> &
      Pick<Stored, 'envelopes'> &
      Readable &
      Keeping &
      Pick<Loading, 'ready'> &
      Pick<Correspondents, 'people'>,
  ) {}

  /** Bits of these messages changed: their marks may have. */
  changed(ids: Iterable<number>): void {
    for (const id of ids) if (this.markOf(id) !== (this.taught.get(id)?.junk ?? null)) this.pending.add(id);
  }

  /** What the person marked a message as; null where they did not. */
  markOf(id: number): boolean | null {
    const { bits, place } = this.mailbox.columns;
    if (place[id] === expunged) return null;
    return bits[id] & bit.markedJunk ? true : bits[id] & bit.markedGood ? false : null;
  }

  /** How many messages taught the model: as junk, and as good. */
  async taughtCounts(): Promise<{ junk: number; good: number }> {
    await this.settle();
    let junk = 0;
    for (const one of this.taught.values()) if (one.junk) junk++;
    return { junk, good: this.taught.size - junk };
  }

  private async load(): Promise<void> {
    const bytes = await this.fetchShipped().catch(() => null);
    const read = bytes ? readModel(bytes) : null;
    this.shippedHash = bytes ? hashOf(bytes) : 0;
    if (read?.ok) this.shippedModel = read.model;
    else if (read && !read.ok)
      this.mailbox.troubles.push(`The shipped junk filter model could not be read: ${read.error}`);
    // What can't be read is learned anew from the marks: nothing is lost.
    const stored = await this.mailbox.records.readDerived(keyOf.junk, junkRecordSchema);
    this.begin(this.baseOf());
    const model = stored && readModel(stored.model);
    if (model?.ok && stored?.base === this.base) {
      this.model = model.model.beyond(this.beneath);
      for (const [i, id] of stored.ids.entries())
        this.taught.set(id, { junk: stored.marks[i] === 1, step: stored.steps[i] });
      this.scores = stored.scores.slice();
      const { length } = this.scores;
      this.fresh =
        stored.fresh.length === (length + 31) >>> 5 ? new Bits(length, stored.fresh.slice()) : new Bits(length);
    }
    const { count } = this.mailbox.columns;
    for (let id = 0; id < count; id++)
      if (this.markOf(id) !== (this.taught.get(id)?.junk ?? null)) this.pending.add(id);
    for (const id of this.taught.keys()) if (id >= count) this.taught.delete(id);
  }

  /** What the model is to begin from, by the setup. */
  private baseOf(): string {
    const { carried, shipped } = this.mailbox.setup.junk;
    if (carried !== null && this.carriedModel(carried)) return `carried ${hashOfText(carried)}`;
    return shipped && this.shippedModel ? `shipped ${this.shippedHash}` : 'none';
  }

  /** The model that came with a setup; null, and told, where it can’t be read: then the filter begins as without it. */
  private carriedModel(carried: string): JunkModel | null {
    if (this.carriedBy?.text === carried) return this.carriedBy.model;
    const read = readModel(decodeBase64(new TextEncoder().encode(carried)));
    if (!read.ok)
      this.mailbox.troubles.push(
        `What the junk filter had learned elsewhere can’t be taken up: ${read.error} It goes by your marks here.`,
      );
    this.carriedBy = { text: carried, model: read.ok ? read.model : null };
    return this.carriedBy.model;
  }

  /** Begins anew, from what the setup says. */
  private begin(base: string): void {
    const { carried, shipped } = this.mailbox.setup.junk;
    this.base = base;
    this.beneath =
      (carried === null ? null : this.carriedModel(carried)) ?? (shipped ? this.shippedModel : null) ?? new JunkModel();
    this.model = this.beneath.copy();
  }

  /** Whether a shipped model is there to begin from. */
  get hasShipped(): boolean {
    return this.shippedModel !== null;
  }

  /** Brings the model up to what is marked now. */
  settle(): Promise<void> {
    // One after the other: no mark may be learned twice.
    return this.settling.do(() => this.settleNow());
  }

  private async settleNow(): Promise<void> {
    await (this.loaded ??= this.load());
    const base = this.baseOf();
    if (base !== this.base) {
      this.begin(base);
      for (const id of this.taught.keys()) this.pending.add(id);
      this.taught.clear();
      this.touch();
    }
    let marks = 0;
    while (this.pending.size) {
      const [id] = this.pending;
      this.pending.delete(id);
      await this.learn(id);
      if (++marks % sliceSize === 0) await turn();
    }
    if (marks > 0) await this.refine(marks);
    if (this.dirty) this.mailbox.storeSoon();
  }

  /** Goes through some of the newest marks again, after so many more. */
  private async refine(marks: number): Promise<void> {
    const some: { lesson: Lesson; taught: Taught }[] = [];
    const all = [...this.taught];
    const again = refinedOf(all.length, marks).map((at) => all[at]);
    for (const slice of inSlices(again, sliceSize)) {
      const list = await this.featuresFor(slice.map(([id]) => id));
      for (const [n, [, lesson]] of slice.entries()) {
        const features = list[n];
        if (features) some.push({ lesson, taught: { ...lesson, features } });
      }
      await turn();
    }
    refine(
      this.model,
      some.map(({ taught }) => taught),
      marks,
    );
    for (const { lesson, taught } of some) lesson.step = taught.step;
    this.touch();
  }

  private touch(): void {
    this.dirty = true;
    this.fresh = new Bits(this.fresh.length);
  }

  private async learn(id: number): Promise<void> {
    const mark = this.markOf(id);
    const was = this.taught.get(id);
    if (mark === (was?.junk ?? null)) return;
    const [features] = await this.featuresFor([id]);
    // Bytes that can't be read any more teach nothing, and what they taught stays.
    if (!features) return;
    if (was) this.model.forget(features, was.step);
    this.taught.delete(id);
    if (mark !== null) this.taught.set(id, { junk: mark, step: this.model.learn(features, mark) });
    this.touch();
  }

  /** The features of messages, in their order; null for one that can't be read. */
  private async featuresFor(ids: readonly number[]): Promise<(Uint32Array | null)[]> {
    const { reader, envelopes, columns } = this.mailbox;
    const out = ids.map((id) => this.features.get(id));
    const missing = [...ids.keys()].filter((n) => out[n] === null);
    const which = missing.map((n) => ids[n]);
    const [read] = await Promise.all([
      reader.many(which, 'features', undefined),
      envelopes.ensure(which, columns.count),
    ]);
    for (const [at, n] of missing.entries()) {
      const own = read[at];
      if (!own) continue;
      out[n] = withSender(own, await this.senderOf(ids[n]));
      this.features.set(ids[n], out[n]);
    }
    return out;
  }

  /** What is known of a message's sender. */
  private async senderOf(id: number): Promise<SenderSignal[]> {
    await this.mailbox.ready();
    return this.mailbox.people.signalsOf(this.mailbox.envelopes.get(id));
  }

  /** The score of features, by the model as it was last settled. */
  scoreOfFeatures(features: Uint32Array): number {
    return scoreOf(this.model.margin(features));
  }

  /** Notes the score of a message that came in. */
  note(id: number, features: Uint32Array, score: number): void {
    this.features.set(id, features);
    this.setScore(id, score);
  }

  /** `score` null: it can't be read, and nobody tries again. */
  private setScore(id: number, score: number | null): void {
    if (id >= this.scores.length) {
      const size = Math.max(4_096, Math.ceil((id + 1) * 1.5));
      this.scores = grown(this.scores, new Uint8Array(size));
      this.fresh = this.fresh.grown(size);
    }
    // Rounded down, so that what is shown as 90 is at or above the line at 90.
    this.scores[id] = score === null ? 0 : Math.floor(score) + 1;
    this.fresh.set(id);
    this.dirty = true;
  }

  /** The score that a message was last given, a whole number from 0 to 100; null where it was not judged. */
  score(id: number): number | null {
    const kept = this.scores[id] ?? 0;
    return kept === 0 ? null : kept - 1;
  }

  /**
   * Judges messages by the model as it is, those that it has judged already left out. `told` hears how many are done. Ends
   * early where `wanted` says that nobody waits any more.
   */
  judge(
    ids: Iterable<number>,
    told: (done: number, total: number) => void = () => undefined,
    wanted: () => boolean = () => true,
  ): Promise<void> {
    // One after the other: what two ask for is judged once.
    return this.judging.do(() => this.judgeNow(ids, told, wanted));
  }

  private async judgeNow(
    ids: Iterable<number>,
    told: (done: number, total: number) => void,
    wanted: () => boolean,
  ): Promise<void> {
    await this.settle();
    // In the order in which they lie in storage: each pack of them is read once.
    const list = [...ids].filter((id) => !this.fresh.has(id)).sort((a, b) => a - b);
    let done = 0;
    // The next messages are on their way through the workers while these are judged.
    const coming = ahead([...inSlices(list, sliceSize)], (slice) => this.featuresFor(slice), slicesAhead);
    for await (const [slice, found] of coming) {
      if (!wanted()) return;
      for (const [n, id] of slice.entries()) {
        const features = found[n];
        this.setScore(id, features && this.scoreOfFeatures(features));
      }
      told((done += slice.length), list.length);
      await turn();
    }
    if (list.length > 0) this.mailbox.storeSoon();
  }

  /** The score of a message now, to two decimals, and what speaks for and against it; null where it can't be read. */
  async judgement(id: number): Promise<{ score: number; evidence: Evidence[] } | null> {
    await this.settle();
    const { reader, envelopes, columns } = this.mailbox;
    const [signs] = await Promise.all([reader.one(id, 'junkSigns', undefined), envelopes.ensure([id], columns.count)]);
    if (!signs) return null;
    const sender = await this.senderOf(id);
    return {
      score: scoreOf(this.model.margin(withSender(signs.features, sender))),
      evidence: evidenceAmong(this.model, [...signs.named, ...namedSender(sender)], mostEvidence),
    };
  }

  /** The messages that were marked, with their features, and the model beneath them. */
  async examples(): Promise<{ base: JunkModel; examples: { id: number; features: Uint32Array; junk: boolean }[] }> {
    await this.settle();
    const examples: { id: number; features: Uint32Array; junk: boolean }[] = [];
    for (const slice of inSlices([...this.taught], sliceSize)) {
      const list = await this.featuresFor(slice.map(([id]) => id));
      for (const [n, [id, { junk }]] of slice.entries()) {
        const features = list[n];
        if (features) examples.push({ id, features, junk });
      }
    }
    return { base: this.beneath, examples };
  }

  /** The model as a file, to be carried elsewhere. */
  async file(): Promise<Uint8Array<ArrayBuffer>> {
    await this.settle();
    return writeModel(this.model, carriedShift);
  }

  /** What has changed since the last call, ready to be stored. */
  takeDirty(): Writes {
    if (!this.dirty || this.base === null) return [];
    this.dirty = false;
    const ids = [...this.taught.keys()];
    const taught = [...this.taught.values()];
    const { count } = this.mailbox.columns;
    const content = {
      base: this.base,
      model: writeModel(this.model.without(this.beneath)),
      ids: Int32Array.from(ids),
      marks: Uint8Array.from(taught, ({ junk }) => (junk ? 1 : 0)),
      steps: Int32Array.from(taught, ({ step }) => step),
      scores: this.scores.slice(0, count),
      fresh: this.fresh.words.slice(0, (count + 31) >>> 5),
    };
    return [[keyOf.junk, content]];
  }
}

/** The junk filter, as the rooms above ask for it. */
export interface Judging {
  readonly junk: JunkRoom;
}
