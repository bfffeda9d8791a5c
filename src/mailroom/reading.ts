// Reading a stored message: its envelope, and the key that tells it from every other.
import { z } from 'zod';
import { envelopeSchema, parseEnvelope } from '../core/mail/envelope';
import { messageOf, type Form } from '../core/mail/mbox';

/** An envelope as the mailroom keeps it. */
export const keptEnvelopeSchema = envelopeSchema.extend({
  /** The first 128 bits of the raw message's SHA-256, in hex. */
  key: z.string(),
});
export type KeptEnvelope = z.infer<typeof keptEnvelopeSchema>;

/** A raw message's key: of its bytes without the line breaks that end them. Hashed by the host, beside the parsing. */
export async function messageKey(raw: Uint8Array): Promise<string> {
  let end = raw.length;
  while (end > 0 && (raw[end - 1] === 10 || raw[end - 1] === 13)) end--;
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', raw.subarray(0, end) as Uint8Array<ArrayBuffer>));
  return Array.from(digest.subarray(0, 16), (byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** The kept envelopes of stored messages, in their order. */
export async function readMessages(stored: readonly Uint8Array[], form: Form): Promise<KeptEnvelope[]> {
  const raws = stored.map((bytes) => messageOf(bytes, form));
  const keys = Promise.all(raws.map(messageKey));
  const envelopes = raws.map(parseEnvelope);
  return (await keys).map((key, i) => ({ ...envelopes[i], key }));
}
