// The fields by which an answer belongs to its conversation.
import type { Envelope } from '../mail/envelopeSchema';
import type { MessageToWrite } from '../mail/writing';

/** Longest References field that is written: the first and the last ones tell the conversation. */
const mostReferences = 40;

/** In-Reply-To and References of an answer (RFC 5322, section 3.6.4). */
export function threadFields(
  message: Pick<Envelope, 'messageId' | 'references'>,
): Pick<MessageToWrite, 'inReplyTo' | 'references'> {
  if (!message.messageId) return {};
  const chain = [...message.references.filter((id) => id !== message.messageId), message.messageId];
  const references =
    chain.length > mostReferences ? [chain[0], ...chain.slice(chain.length - mostReferences + 1)] : chain;
  return { inReplyTo: message.messageId, references };
}
