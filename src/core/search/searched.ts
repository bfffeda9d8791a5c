// Messages made ready for searching, one after another, and a query asked of them: the search without a mailbox around it.
import { envelopeOf } from '../mail/envelope';
import { type Envelope } from '../mail/envelopeSchema';
import { Message } from '../mail/message';
import { Bits } from '../data/bits';
import { DeepTexts } from '../rules/deep';
import { MessageTable } from '../rules/messageTable';
import { dayTest, find, findText, sentClock, type Leaf } from './find';
import type { Query } from './query';
import { TextSegments } from './segments';
import { TextBatchWriter } from './textBatch';

/** Messages, numbered from 0; only their bytes are held. */
export class SearchedMessages {
  readonly envelopes: Envelope[] = [];
  private readonly raws: Uint8Array[] = [];
  private readonly texts = new TextSegments();
  private readonly table = new MessageTable((index) => this.envelopes[index]);

  /** Takes in the next message. */
  add(message: Message, envelope: Envelope = envelopeOf(message)): void {
    const writer = new TextBatchWriter();
    writer.add(message);
    this.texts.add(writer.batch());
    this.envelopes.push(envelope);
    this.raws.push(message.raw);
  }

  /** The indexes of the messages that a query asks for, in their order. */
  search(query: Query): number[] {
    this.table.grow(this.envelopes.length);
    const bits = find(query, (leaf) => this.ask(leaf));
    return [...this.envelopes.keys()].filter((index) => bits.has(index));
  }

  private ask(leaf: Leaf): Bits {
    const count = this.envelopes.length;
    if ('text' in leaf) {
      const toRead: number[] = [];
      const bits = findText(leaf, this.table, this.texts, (index) => toRead.push(index));
      const name = 'name' in leaf ? leaf.name : leaf.key;
      for (const index of toRead)
        if (new DeepTexts(() => new Message(this.raws[index])).says(name, leaf.text)) bits.set(index);
      return bits;
    }
    const bits = new Bits(count);
    for (const [index, envelope] of this.envelopes.entries()) if (holds(leaf, envelope)) bits.set(index);
    return bits;
  }
}

/** A key that asks for no text. A raw message says nothing of what was read, flagged, answered or labelled: it was not. */
function holds(leaf: Exclude<Leaf, { text: string }>, envelope: Envelope): boolean {
  const { date, size } = envelope;
  switch (leaf.key) {
    case 'all':
      return true;
    case 'seen':
    case 'flagged':
    case 'answered':
    case 'draft':
    case 'deleted':
      return !leaf.value;
    case 'keyword':
      return false;
    case 'larger':
      return size > leaf.bytes;
    case 'smaller':
      return size < leaf.bytes;
  }
  return dayTest(leaf)(leaf.key.startsWith('sent') ? sentClock(envelope) : date);
}
