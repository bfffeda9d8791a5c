// Matching a query against one message.
import type { Address } from '../mail/address';
import type { Envelope } from '../mail/envelope';
import type { Query } from './query';

/** A message as a query sees it. */
export interface Searchable {
  envelope: Pick<Envelope, 'from' | 'to' | 'cc' | 'subject' | 'size'>;
  /** The moment by which it is sorted, milliseconds since 1970. */
  date: number;
  read: boolean;
  flagged: boolean;
  /** The names of its labels. */
  labels: readonly string[];
}

const day = 86_400_000;

const has = (people: readonly Address[], text: string): boolean =>
  people.some(({ name, address }) => name.toLowerCase().includes(text) || address.toLowerCase().includes(text));

/** Whether a message is what the query asks for (RFC 9051, section 6.4.4). Texts match anywhere, whatever their case. */
export function matches(query: Query, message: Searchable): boolean {
  const { envelope, date } = message;
  switch (query.key) {
    case 'all':
      return true;
    case 'seen':
      return message.read === query.value;
    case 'flagged':
      return message.flagged === query.value;
    case 'from':
      return has([envelope.from], query.text);
    case 'to':
      return has(envelope.to, query.text);
    case 'cc':
      return has(envelope.cc, query.text);
    case 'subject':
      return envelope.subject.toLowerCase().includes(query.text);
    case 'words':
      return (
        envelope.subject.toLowerCase().includes(query.text) ||
        has([envelope.from, ...envelope.to, ...envelope.cc], query.text)
      );
    case 'keyword':
      return message.labels.some((label) => label.toLowerCase() === query.text);
    case 'before':
      return date < query.day;
    case 'on':
      return date >= query.day && date < query.day + day;
    case 'since':
      return date >= query.day;
    case 'larger':
      return envelope.size > query.bytes;
    case 'smaller':
      return envelope.size < query.bytes;
    case 'not':
      return !matches(query.of, message);
    case 'and':
      return query.of.every((part) => matches(part, message));
    case 'or':
      return query.of.some((part) => matches(part, message));
  }
}
