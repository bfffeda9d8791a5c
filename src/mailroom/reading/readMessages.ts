// Reading a stored message: its envelope, and the key that tells it from every other.
import { envelopeOf, unreadable } from '../../core/mail/envelope';
import { featuresOf } from '../../core/junk/features';
import { readForJunk } from '../../core/junk/junkReading';
import type { Form } from '../../core/mail/mbox';
import type { Envelope } from '../../core/mail/envelopeSchema';
import { Message, messageOfStored } from '../../core/mail/message';
import { reasonOf } from '../../core/text/sentences';
import { TextBatchWriter, type TextBatch } from '../../core/search/textBatch';
import type { KeptEnvelope } from '../storage/keptEnvelope';
import { digest } from '../storage/digest';
import type { Steps } from './readings';

/** A raw message with LF for every CRLF: what differs in line ends alone is the same message. */
function withLineFeeds(raw: Uint8Array): Uint8Array {
  if (raw.indexOf(13) < 0) return raw;
  const out = new Uint8Array(raw.length);
  let to = 0;
  for (let at = 0; at < raw.length; at++) if (raw[at] !== 13 || raw[at + 1] !== 10) out[to++] = raw[at];
  return out.subarray(0, to);
}

/**
 * A raw message's key: of its bytes, however its lines end, without the line breaks that end them all. Hashed by the host,
 * beside the parsing.
 */
export function messageKey(raw: Uint8Array): Promise<string> {
  let end = raw.length;
  while (end > 0 && (raw[end - 1] === 10 || raw[end - 1] === 13)) end--;
  return digest(withLineFeeds(raw.subarray(0, end)));
}

/** What was read of stored messages, in their order. */
export interface ReadBatch {
  envelopes: KeptEnvelope[];
  /** What the junk filter goes by; empty where that was not asked for. */
  features: Uint32Array<ArrayBuffer>[];
  /** What the text index takes in. */
  text: TextBatch;
}

const nothing = new Message(new Uint8Array(0));

/** Reads stored messages; `judged`: for the junk filter too. No message stops another. */
export async function readBatch(
  stored: readonly Uint8Array[],
  form: Form,
  judged: boolean,
  { at, passed }: Steps = {},
): Promise<ReadBatch> {
  const messages = stored.map((bytes) => messageOfStored({ bytes, form }));
  const keys = Promise.all(messages.map(({ raw }) => messageKey(raw)));
  const features: ReadBatch['features'] = [];
  const text = new TextBatchWriter();
  const envelopes = messages.map((message, index) => {
    at?.(index);
    let read: { envelope: Envelope; features: Uint32Array<ArrayBuffer> | null } | null = null;
    let reason = 'it takes too long';
    try {
      if (!passed?.has(index)) {
        const envelope = envelopeOf(message);
        read = { envelope, features: judged ? featuresOf(readForJunk(message, envelope)) : null };
        text.add(message);
      }
    } catch (error) {
      read = null;
      reason = reasonOf(error);
    }
    if (!read) text.add(nothing);
    if (judged) features.push(read?.features ?? new Uint32Array(0));
    return read?.envelope ?? unreadable(message.raw.length, reason);
  });
  return { envelopes: (await keys).map((key, i) => ({ ...envelopes[i], key })), features, text: text.batch() };
}
