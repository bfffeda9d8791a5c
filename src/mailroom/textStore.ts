// The text index in the mailroom: its segments in memory and in storage. It follows from the raw messages and can always
// be made anew; what is missing or spoilt is.
import { bodyText } from '../core/mail/body';
import { messageOf } from '../core/mail/mbox';
import { parseStructure } from '../core/mail/structure';
import { indexedWords, segmentSize, TextSegment } from '../core/search/textIndex';
import { keyOf, NewerStorage, readRecord, recordVersion, textSegmentSchema } from './records';
import type { RawStore, StoredMessage } from './rawStore';
import type { RecordStore } from './storage';

/** Messages read before whoever else waits for the worker gets a turn. */
const sliceSize = 64;

/** What the index takes in of a stored message. */
export function wordsOfStored({ bytes, form }: StoredMessage): string {
  const raw = messageOf(bytes, form);
  const structure = parseStructure(raw);
  return indexedWords(
    bodyText(raw, structure),
    structure.fields.map(({ key }) => key),
  );
}

export class TextStore {
  private readonly segments: TextSegment[] = [];
  private readonly dirty = new Set<number>();
  private count = 0;
  private loading: Promise<void> | null = null;

  constructor(
    private readonly store: RecordStore,
    private readonly raws: RawStore,
  ) {}

  /** Settled once the first `count` messages are in the index. */
  async ready(count: number): Promise<void> {
    this.loading ??= this.load(count);
    await this.loading;
    for (let n = 0; this.count < count; n++) {
      const stored = await this.raws.read(this.count).catch(() => null);
      this.add(stored ? wordsOfStored(stored) : '');
      if (n % sliceSize === sliceSize - 1) await new Promise((resolve) => setTimeout(resolve));
    }
  }

  private async load(count: number): Promise<void> {
    const wanted = Array.from({ length: Math.ceil(count / segmentSize) }, (_, at) => at);
    const records = await Promise.all(wanted.map((at) => this.store.get(keyOf.text(at))));
    for (const [at, record] of records.entries()) {
      // A hole is filled from the raw messages, and so is all that comes after it.
      if (record === null) return;
      try {
        const stored = readRecord(keyOf.text(at), record, textSegmentSchema);
        const expected = Math.min(segmentSize, count - at * segmentSize);
        this.segments[at] = TextSegment.of(stored, Math.min(stored.count, expected));
        this.count = at * segmentSize + this.segments[at].count;
        if (this.segments[at].count < segmentSize) return;
      } catch (error) {
        if (error instanceof NewerStorage) throw error;
        return;
      }
    }
  }

  private add(words: string): void {
    const at = Math.floor(this.count / segmentSize);
    const segment = (this.segments[at] ??= new TextSegment());
    segment.add(words);
    // A full one is put into its small form.
    if (segment.count === segmentSize) segment.pack();
    this.dirty.add(at);
    this.count++;
  }

  /** Takes in messages that came in with the ids from `first` on; only what follows on what is there. */
  append<T>(first: number, messages: readonly T[], wordsOf: (message: T) => string): void {
    // While it was never asked for, nothing is in memory: a later question reads what is missing.
    if (this.count !== first) return;
    for (const message of messages) this.add(wordsOf(message));
    this.loading ??= Promise.resolve();
  }

  /** Forgets messages that could not be written. */
  drop(count: number): void {
    if (count >= this.count) return;
    const at = Math.floor(count / segmentSize);
    this.segments.length = Math.min(this.segments.length, at + 1);
    this.segments[at]?.drop(count - at * segmentSize);
    this.dirty.add(at);
    this.count = count;
  }

  /** For each segment the first id, and the messages that have a folded text, or a word, in them. */
  *holding(text: string): Generator<{ first: number; messages: Uint8Array; sure: boolean }> {
    for (const [at, segment] of this.segments.entries()) yield { first: at * segmentSize, ...segment.holding(text) };
  }

  *having(word: string): Generator<{ first: number; messages: Uint8Array }> {
    for (const [at, segment] of this.segments.entries())
      yield { first: at * segmentSize, messages: segment.having(word) };
  }

  /** The segments that changed since the last call, ready to be stored. */
  takeDirty(): [key: string, record: unknown][] {
    const out = [...this.dirty].map((at): [string, unknown] => [
      keyOf.text(at),
      { v: recordVersion, ...this.segments[at].pack() },
    ]);
    this.dirty.clear();
    return out;
  }
}
