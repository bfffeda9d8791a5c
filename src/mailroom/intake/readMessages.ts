// Reading a stored message: its envelope, and the key that tells it from every other.
import { envelopeOf } from '../../core/mail/envelope';
import { featuresOf } from '../../core/junk/features';
import { readForJunk } from '../../core/junk/junkReading';
import type { Form } from '../../core/mail/mbox';
import { messageOfStored } from '../../core/mail/message';
import { TextBatchWriter, type TextBatch } from '../../core/search/textBatch';
import type { KeptEnvelope } from '../storage/keptEnvelope';
import { digest } from '../storage/digest';

/** A raw message's key: of its bytes without the line breaks that end them. Hashed by the host, beside the parsing. */
export function messageKey(raw: Uint8Array): Promise<string> {
  let end = raw.length;
  while (end > 0 && (raw[end - 1] === 10 || raw[end - 1] === 13)) end--;
  return digest(raw.subarray(0, end));
}

/** What was read of stored messages, in their order. */
export interface ReadBatch {
  envelopes: KeptEnvelope[];
  /** What the junk filter goes by; empty where that was not asked for. */
  features: Uint32Array<ArrayBuffer>[];
  /** What the text index takes in. */
  text: TextBatch;
}

/** Reads stored messages; `judged`: for the junk filter too. */
export async function readBatch(stored: readonly Uint8Array[], form: Form, judged: boolean): Promise<ReadBatch> {
  const messages = stored.map((bytes) => messageOfStored({ bytes, form }));
  const keys = Promise.all(messages.map(({ raw }) => messageKey(raw)));
  const features: ReadBatch['features'] = [];
  const text = new TextBatchWriter();
  const envelopes = messages.map((message) => {
    const envelope = envelopeOf(message);
    text.add(message);
    if (judged) features.push(featuresOf(readForJunk(message, envelope)));
    return envelope;
  });
  return { envelopes: (await keys).map((key, i) => ({ ...envelopes[i], key })), features, text: text.batch() };
}

/** The kept envelopes of stored messages, in their order. */
export async function readMessages(stored: readonly Uint8Array[], form: Form): Promise<KeptEnvelope[]> {
  return (await readBatch(stored, form, false)).envelopes;
}
