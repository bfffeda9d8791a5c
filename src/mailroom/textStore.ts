// The text index in the mailroom: its segments in memory and in storage. It follows from the raw messages and can always
// be made anew; what is missing or spoilt is.
import { bodyText } from '../core/mail/body';
import { messageOf } from '../core/mail/mbox';
import { parseStructure } from '../core/mail/structure';
import { TextBatchWriter, type TextBatch } from '../core/search/textBatch';
import { segmentSize, TextSegment, type PackedSegment } from '../core/search/textIndex';
import { keyOf, NewerStorage, readRecord, recordVersion, textSegmentSchema } from './records';
import type { RawStore, StoredMessage } from './rawStore';
import type { RecordStore } from './storage';

/** Messages read before whoever else waits for the worker gets a turn. */
const sliceSize = 64;

/** What the index takes in of a stored message. */
export function textOfStored({ bytes, form }: StoredMessage): TextBatch {
  const raw = messageOf(bytes, form);
  const structure = parseStructure(raw);
  const writer = new TextBatchWriter();
  writer.add(bodyText(raw, structure), structure.fields);
  return writer.batch();
}

/** A message on its way in, and where its text was read already. */
export interface IncomingText {
  stored: StoredMessage;
  text?: { batch: TextBatch; at: number };
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
      this.add(stored && textOfStored(stored));
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
        this.segments[at] = TextSegment.of(stored as PackedSegment, Math.min(stored.count, expected));
        this.count = at * segmentSize + this.segments[at].count;
        if (this.segments[at].count < segmentSize) return;
      } catch (error) {
        if (error instanceof NewerStorage) throw error;
        return;
      }
    }
  }

  private add(batch: TextBatch | null, which = 0): void {
    const at = Math.floor(this.count / segmentSize);
    const segment = (this.segments[at] ??= new TextSegment());
    segment.add(batch, which);
    // A full one is put into its small form.
    if (segment.count === segmentSize) segment.pack();
    this.dirty.add(at);
    this.count++;
  }

  /** Takes in messages that came in with the ids from `first` on; only what follows on what is there. */
  append(first: number, messages: readonly IncomingText[]): void {
    // While it was never asked for, nothing is in memory: a later question reads what is missing.
    if (this.count !== first) return;
    for (const { stored, text } of messages) this.add(text?.batch ?? textOfStored(stored), text?.at);
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

  /** Tells of each message that has a text in its body: folded, each run of blanks one space. */
  eachHolding(text: string, visit: (id: number) => void): void {
    for (const [segment, first] of this.eachSegment()) {
      const messages = segment.holding(text);
      for (let at = 0; at < messages.length; at++) if (messages[at]) visit(first + at);
    }
  }

  /** Tells of each header field of a name what it says, folded; null where only the message itself tells. */
  eachField(name: string, visit: (id: number, value: string | null) => void): void {
    for (const [segment, first] of this.eachSegment())
      segment.eachField(name, (message, value) => visit(first + message, value));
  }

  private *eachSegment(): Generator<[segment: TextSegment, first: number]> {
    for (const [at, segment] of this.segments.entries()) yield [segment, at * segmentSize];
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
