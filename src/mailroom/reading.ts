// Reading a stored message: its envelope, and the key that tells it from every other.
import { z } from 'zod';
import { envelopeOf, envelopeSchema } from '../core/mail/envelope';
import { featuresOf } from '../core/junk/features';
import { readForJunk } from '../core/junk/reading';
import { messageOf, type Form } from '../core/mail/mbox';
import { parseStructure } from '../core/mail/structure';
import { bodyText } from '../core/mail/body';
import { TextBatchWriter, type TextBatch } from '../core/search/textBatch';

/** An envelope as the mailroom keeps it. */
export const keptEnvelopeSchema = envelopeSchema.extend({
  /** The first 128 bits of the raw message's SHA-256, in hex. */
  key: z.string(),
});
export type KeptEnvelope = z.infer<typeof keptEnvelopeSchema>;

/** The first 128 bits of some bytes' SHA-256, in hex. */
export async function digest(bytes: Uint8Array): Promise<string> {
  const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes as Uint8Array<ArrayBuffer>));
  return Array.from(hash.subarray(0, 16), (byte) => byte.toString(16).padStart(2, '0')).join('');
}

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
  const raws = stored.map((bytes) => messageOf(bytes, form));
  const keys = Promise.all(raws.map(messageKey));
  const features: ReadBatch['features'] = [];
  const text = new TextBatchWriter();
  const envelopes = raws.map((raw) => {
    const structure = parseStructure(raw);
    const body = bodyText(raw, structure);
    const envelope = envelopeOf(raw, structure, body);
    text.add(body, structure.fields);
    if (judged) features.push(featuresOf(readForJunk(raw, structure, envelope)));
    return envelope;
  });
  return { envelopes: (await keys).map((key, i) => ({ ...envelopes[i], key })), features, text: text.batch() };
}

/** The kept envelopes of stored messages, in their order. */
export async function readMessages(stored: readonly Uint8Array[], form: Form): Promise<KeptEnvelope[]> {
  return (await readBatch(stored, form, false)).envelopes;
}
