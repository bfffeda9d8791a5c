// The text index in the mailroom: its segments in memory and in storage. It follows from the raw messages and can always
// be made anew; what is missing or spoilt is.
import type { StoredMessage } from '../../core/mail/message';
import type { TextBatch } from '../../core/search/textBatch';
import { TextSegments } from '../../core/search/segments';
import { without, type PackedSegment } from '../../core/search/textIndex';
import { segmentSize } from '../../core/search/units';
import type { Parse } from '../reading/parsePool';
import type { Records } from '../storage/records';
import type { Writes } from '../storage/storing';
import { keyOf } from '../storage/keys';
import type { RawStore } from '../storage/rawStore';
import { ahead } from '../../core/data/ahead';
import { turn } from '../time/turn';
import { z } from 'zod';
import { uint16, uint32 } from '../storage/schemas';

/** How segments of the text index are written now; one that is written otherwise is made anew. */
const textForm = 3;
const segmentSchema = z.object({
  form: z.literal(textForm),
  count: z.number().int().min(0).max(segmentSize),
  words: z.string(),
  units: uint16,
  ends: uint32,
});

/** Messages read before whoever else waits for the worker gets a turn. */
const sliceSize = 64;
/** And so many bytes, about. */
const sliceBytes = 8 << 20;

/** Messages by their segment, numbered from 0 within it. */
function bySegment(ids: Iterable<number>): Map<number, Set<number>> {
  const out = new Map<number, Set<number>>();
  for (const id of ids) {
    const at = Math.floor(id / segmentSize);
    const messages = out.get(at) ?? new Set();
    out.set(at, messages.add(id % segmentSize));
  }
  return out;
}

/** A message on its way in: its text, where that was read already. */
export interface IncomingText {
  text?: { batch: TextBatch; at: number };
}

export class TextStore {
  readonly texts = new TextSegments();
  private readonly dirty = new Set<number>();
  private filling: Promise<void> | null = null;
  private readers = 0;
  /** From this segment on all are here early; who waits for one; and from which message on none is wanted any more. */
  private reachedTo = Infinity;
  private over = false;
  private readonly waiting: { which: number; tell: (there: boolean) => void }[] = [];
  private limit = Infinity;

  constructor(
    private readonly records: Records,
    private readonly raws: RawStore,
    /** Takes messages apart, away from the mailroom's own worker. */
    private readonly parse: Parse,
    /** Hears how many messages of how many are in the index, while it is read or made. */
    private readonly reading: (done: number, total: number) => void = () => undefined,
  ) {}

  /** Settled once the first `count` messages are in the index. */
  async ready(count: number): Promise<void> {
    this.readers++;
    // One after another: two that fill at once would take in a message twice.
    const filled = (this.filling ?? this.load(count)).then(() => this.fill(count)).finally(() => this.readers--);
    this.filling = filled.catch(() => undefined);
    await filled;
  }

  /** Whether texts are being read: how far that is is told then, and not how far anything else is. */
  get isReading(): boolean {
    return this.readers > 0;
  }

  /** Has what the first question needs made beforehand, while nobody asks. */
  async warm(count: number): Promise<void> {
    await this.ready(count);
    // Whoever else waits for the worker gets a turn after each segment.
    for (const step of this.texts.warming()) {
      step();
      await turn();
    }
  }

  private async fill(count: number): Promise<void> {
    while (this.texts.count < count) {
      const from = this.texts.count;
      const stored = await this.nextStored(from, count);
      const texts = await this.textsOf(stored);
      // Messages were taken back meanwhile: what was read of them is not taken in.
      if (this.texts.count !== from) continue;
      for (const text of texts) this.add(text?.batch ?? null, text?.at);
      this.reading(this.texts.count, count);
      await turn();
    }
    this.reading(count, count);
  }

  /** The next messages that are not in the index, as many as are read at a time; null for one that can't be read. */
  private async nextStored(from: number, count: number): Promise<(StoredMessage | null)[]> {
    const out: (StoredMessage | null)[] = [];
    let bytes = 0;
    for (let id = from; id < count && out.length < sliceSize && bytes < sliceBytes; id++) {
      const stored = await this.raws.readable(id);
      bytes += stored?.bytes.length ?? 0;
      out.push(stored);
    }
    return out;
  }

  /** What the index takes in of messages, in their order. */
  private async textsOf(
    stored: readonly (StoredMessage | null)[],
  ): Promise<({ batch: TextBatch; at: number } | null)[]> {
    const out: ({ batch: TextBatch; at: number } | null)[] = stored.map(() => null);
    for (const form of ['mbox', 'eml'] as const) {
      const which = stored.flatMap((one, n) => (one?.form === form ? [n] : []));
      if (which.length === 0) continue;
      const { text: batch } = await this.parse(
        which.map((n) => stored[n]?.bytes ?? new Uint8Array(0)),
        form,
        false,
      );
      for (const [at, n] of which.entries()) out[n] = { batch, at };
    }
    return out;
  }

  /** Reads what is stored, the last segment first: what came in last is mostly looked for. */
  private async load(count: number): Promise<void> {
    const last = Math.ceil(count / segmentSize) - 1;
    const wanted = Array.from({ length: last + 1 }, (_, n) => last - n);
    this.limit = Infinity;
    let without = false;
    try {
      const fetch = (at: number) => this.records.fetchDerived(keyOf.text(at), segmentSchema);
      for await (const [at, segment] of ahead(wanted, fetch)) {
        const stored = segment();
        const expected = Math.min(stored?.count ?? 0, segmentSize, count - at * segmentSize);
        if (stored) this.texts.attachEarly(at, stored as PackedSegment, expected);
        // A hole is filled from the raw messages, and so is all that comes after it.
        without ||= expected < Math.min(segmentSize, count - at * segmentSize);
        this.reach(without ? Infinity : at);
        this.reading(count - at * segmentSize, count);
        await turn();
      }
    } finally {
      this.texts.join();
      if (this.texts.count > this.limit) this.dirty.add(this.texts.drop(this.limit));
      this.over = true;
      for (const { tell } of this.waiting.splice(0)) tell(false);
    }
  }

  private reach(which: number): void {
    this.reachedTo = which;
    for (const one of this.waiting.splice(0))
      if (one.which < which && which !== Infinity) this.waiting.push(one);
      else one.tell(which !== Infinity);
  }

  /**
   * Settled once the texts of a segment can be asked early, while {@link ready} is still reading; false where they can't,
   * or no longer.
   */
  early(which: number): Promise<boolean> {
    if (which >= this.reachedTo || this.over) return Promise.resolve(which >= this.reachedTo);
    return new Promise((tell) => void this.waiting.push({ which, tell }));
  }

  private add(batch: TextBatch | null, at?: number): void {
    this.dirty.add(this.texts.add(batch, at));
  }

  /** Takes in messages that came in with the ids from `first` on; only what follows on what is there. */
  append(first: number, messages: readonly IncomingText[]): void {
    // While it was never asked for, nothing is in memory: a later question reads what is missing.
    if (this.texts.count !== first) return;
    for (const { text } of messages) {
      // What was not read yet, and all after it, is read from storage when it is asked for.
      if (!text) break;
      this.add(text.batch, text.at);
    }
    this.filling ??= Promise.resolve();
  }

  /** Forgets messages that could not be written. */
  drop(count: number): void {
    this.limit = Math.min(this.limit, count);
    if (count < this.texts.count) this.dirty.add(this.texts.drop(count));
  }

  /** Takes what the index has of messages out of memory and storage. */
  async erase(ids: Iterable<number>): Promise<void> {
    await this.filling?.catch(() => undefined);
    for (const [at, messages] of bySegment(ids)) {
      const key = keyOf.text(at);
      if (at * segmentSize < this.texts.count) {
        this.texts.erase(at, messages);
        this.dirty.delete(at);
        await this.records.write(key, { form: textForm, ...this.texts.pack(at) });
      } else {
        const stored = await this.records.readDerived(key, segmentSchema);
        // One that can't be read is made anew, without them.
        if (stored === null) await this.records.remove(key);
        else await this.records.write(key, { form: textForm, ...without(stored as PackedSegment, messages) });
      }
    }
  }

  /** The segments that changed since the last call, ready to be stored. */
  takeDirty(): Writes {
    const out = [...this.dirty].map((at) => [keyOf.text(at), { form: textForm, ...this.texts.pack(at) }] as const);
    this.dirty.clear();
    return out;
  }
}
