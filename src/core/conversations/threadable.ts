// What threading needs of a message, from its envelope.
import { addressKey } from '../mail/address';
import type { Envelope } from '../mail/envelopeSchema';
import { mostRecipients, type Threadable } from './threading';

/**
 * Whether what stands where a Message-ID should is somebody's address: “In-Reply-To: message from Ann <ann@x.example>”
 * would tie everything that was ever answered to Ann. Message-IDs have digits, or are long (common practice, no source;
 * on the corpus of corpus.test.ts it holds for all 1,997 references).
 */
const isAddress = (id: string): boolean => /^[^@\d]{1,19}@/.test(id);

/** A message ready to be threaded; `date` is the moment by which it is sorted, milliseconds since 1970. */
export function threadable(envelope: Envelope, date: number): Threadable {
  const recipients = [...envelope.to, ...envelope.cc].slice(0, mostRecipients).map((a) => addressKey(a.address));
  return {
    messageId: envelope.messageId,
    references: envelope.references.filter((id) => !isAddress(id)),
    subject: envelope.subject,
    date,
    from: addressKey(envelope.from.address),
    recipients,
    listId: envelope.listId,
  };
}
