// The text index in the mailroom: its segments in memory and in storage. It follows from the raw messages and can always
// be made anew; what is missing or spoilt is.
import { messageOfStored, type Message, type StoredMessage } from '../../core/mail/message';
import { TextBatchWriter, type TextBatch } from '../../core/search/textBatch';
import { TextSegments } from '../../core/search/segments';
import type { PackedSegment } from '../../core/search/textIndex';
import { segmentSize } from '../../core/search/units';
import { keyOf, NewerStorage, packText, readRecord, textSegmentSchema } from '../storage/records';
import type { RawStore } from '../storage/rawStore';
import type { RecordStore } from '../storage/recordStore';
import { turn } from '../time/turn';

/** Messages read before whoever else waits for the worker gets a turn. */
const sliceSize = 64;

/** What the index takes in of a message. */
export function textOf(message: Message): TextBatch {
  const writer = new TextBatchWriter();
  writer.add(message);
  return writer.batch();
}

/** A message on its way in, and where its text was read already. */
export interface IncomingText {
  stored: StoredMessage;
  text?: { batch: TextBatch; at: number };
}

export class TextStore {
  readonly texts = new TextSegments();
  private readonly dirty = new Set<number>();
  private filling: Promise<void> | null = null;

  constructor(
    private readonly store: RecordStore,
    private readonly raws: RawStore,
    /** Hears how many messages of how many are in the index, while it is read or made. */
    private readonly reading: (done: number, total: number) => void = () => undefined,
  ) {}

  /** Settled once the first `count` messages are in the index. */
  async ready(count: number): Promise<void> {
    // One after another: two that fill at once would take in a message twice.
    const filled = (this.filling ?? this.load(count)).then(() => this.fill(count));
    this.filling = filled.catch(() => undefined);
    await filled;
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
    for (let n = 0; this.texts.count < count; n++) {
      const message = await this.raws.message(this.texts.count);
      this.add(message && textOf(message));
      if (n % sliceSize < sliceSize - 1) continue;
      this.reading(this.texts.count, count);
      await turn();
    }
    this.reading(count, count);
  }

  private async load(count: number): Promise<void> {
    const wanted = Array.from({ length: Math.ceil(count / segmentSize) }, (_, at) => at);
    const records = await Promise.all(wanted.map((at) => this.store.get(keyOf.text(at))));
    for (const [at, record] of records.entries()) {
      // A hole is filled from the raw messages, and so is all that comes after it.
      if (record === null) return;
      try {
        const stored = readRecord(keyOf.text(at), record, textSegmentSchema);
        const expected = Math.min(stored.count, segmentSize, count - at * segmentSize);
        this.texts.attach(stored as PackedSegment, expected);
        if (expected < segmentSize) return;
        this.reading(this.texts.count, count);
        await turn();
      } catch (error) {
        if (error instanceof NewerStorage) throw error;
        return;
      }
    }
  }

  private add(batch: TextBatch | null, at?: number): void {
    this.dirty.add(this.texts.add(batch, at));
  }

  /** Takes in messages that came in with the ids from `first` on; only what follows on what is there. */
  append(first: number, messages: readonly IncomingText[]): void {
    // While it was never asked for, nothing is in memory: a later question reads what is missing.
    if (this.texts.count !== first) return;
    for (const { stored, text } of messages) this.add(text?.batch ?? textOf(messageOfStored(stored)), text?.at);
    this.filling ??= Promise.resolve();
  }

  /** Forgets messages that could not be written. */
  drop(count: number): void {
    if (count < this.texts.count) this.dirty.add(this.texts.drop(count));
  }

  /** The segments that changed since the last call, ready to be stored. */
  takeDirty(): [key: string, record: unknown][] {
    const out = [...this.dirty].map((at): [string, unknown] => [keyOf.text(at), packText(this.texts.pack(at))]);
    this.dirty.clear();
    return out;
  }
}
