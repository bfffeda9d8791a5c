// Answering: to whom, under which subject, and with what quoted (RFC 5322, section 3.6).
import { addressKey, type Address } from './address';
import type { Envelope } from './envelopeSchema';
import { quote } from './quoted';
import type { MessageToWrite } from './writing';

/** Who an answer goes to. */
export interface Recipients {
  to: Address[];
  cc: Address[];
}

/**
 * The recipients of an answer: whoever Reply-To names, else the sender; with `all`, everyone else who had it, too. One's
 * own addresses are left out; an answer to one's own message goes to those who had it (RFC 5322, section 3.6.3).
 */
export function recipientsOf(
  message: Pick<Envelope, 'from' | 'replyTo' | 'to' | 'cc'>,
  all: boolean,
  own: ReadonlySet<string>,
): Recipients {
  const mine = own.has(addressKey(message.from.address));
  const first = mine ? message.to : message.replyTo.length ? message.replyTo : [message.from];
  const seen = new Set<string>();
  const take = (list: readonly Address[], ownToo: boolean): Address[] =>
    list.filter(({ address }) => {
      const key = addressKey(address);
      if (!address.includes('@') || seen.has(key) || (!ownToo && own.has(key))) return false;
      seen.add(key);
      return true;
    });
  const to = take(first, false);
  // Whoever writes to themselves is answered by themselves.
  if (to.length === 0) to.push(...take(first, true));
  const cc = all ? take(mine ? message.cc : [...message.to, ...message.cc], false) : [];
  return { to, cc };
}

/** “Re: ” before a subject that has none yet (RFC 5322, section 3.6.5). */
export const answerSubject = (subject: string): string => (/^re:/i.test(subject) ? subject : `Re: ${subject}`.trim());

/** The text that an answer begins with: room to write, then what is answered, quoted. `when` is its time in words. */
export function answerText(from: Address, when: string, body: string): string {
  return `\n\n${from.name || from.address} wrote on ${when}:\n${quote(body)}\n`;
}

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
