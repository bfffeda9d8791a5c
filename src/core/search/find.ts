// Finding: a query asked of all messages at once. The result is one bit for each.
import { blanksAsOne } from '../text/blanks';
import { Bits } from '../data/bits';
import type { Source } from '../rules/match';
import type { EnvelopeTexts } from '../rules/messageTable';
import type { Envelope } from '../mail/envelopeSchema';
import { boundsOfDay } from '../text/day';
import { foldSearch } from '../text/fold';
import { normalDomain, unicodeDomain } from '../senders/normal';
import type { Query } from './query';
import type { Part } from './units';

type Branch = Extract<Query, { key: 'not' | 'and' | 'or' }>;
/** A key that has no others in it. */
export type Leaf = Exclude<Query, Branch>;
/** A key that looks for a text. */
export type TextLeaf = Extract<Leaf, { text: string }>;

const isBranch = (query: Query): query is Branch => query.key === 'not' || query.key === 'and' || query.key === 'or';

/** The messages that a query asks for (RFC 9051, section 6.4.4). `ask`: those of a single key. */
export function find(query: Query, ask: (leaf: Leaf) => Bits): Bits {
  if (!isBranch(query)) return ask(query);
  if (query.key === 'not') return find(query.of, ask).not();
  const parts = query.of.map((part) => find(part, ask));
  return parts.reduce((a, b) => (query.key === 'and' ? a.and(b) : a.or(b)));
}

/** All keys of a query that have no others in them. */
export function leavesOf(query: Query): Leaf[] {
  if (!isBranch(query)) return [query];
  return query.key === 'not' ? leavesOf(query.of) : query.of.flatMap(leavesOf);
}

const dayLong = 86_400_000;

/**
 * Tells whether a date is what a key on days asks for; no date never is. What was sent goes by the day that its Date field
 * names, whatever its zone (RFC 9051, section 6.4.4: “disregarding time and timezone”): its date is given as that clock
 * showed it. All else goes by the days where the person is.
 */
export function dayTest({ key, day }: Extract<Leaf, { day: number }>): (date: number | null) => boolean {
  const [from, to] = key.startsWith('sent') ? [day, day + dayLong] : boundsOfDay(day);
  if (key.endsWith('before')) return (date) => date !== null && date < from;
  if (key.endsWith('since')) return (date) => date !== null && date >= from;
  return (date) => date !== null && date >= from && date < to;
}

/** The date of a message as the clock showed it where it was sent, as if that were UTC; null where it has none. */
export const sentClock = ({ date, zone = 0 }: Pick<Envelope, 'date' | 'zone'>): number | null =>
  date === null ? null : date + zone * 60_000;

/** The texts of messages, as the text index has them. Texts are given as foldSearch folds them. */
export interface SearchedTexts {
  /**
   * Tells of each message that has a text in its body, each run of blanks one space, or in a header field whose value is
   * kept.
   */
  eachHolding(text: string, parts: readonly Part[], visit: (message: number) => void): void;
  /**
   * Tells of each message with a header field of a name that has a text, any such field where the text is empty;
   * `toRead` of those where only the message itself tells. Of a message with several such fields it may tell several times.
   */
  eachFieldHolding(
    name: string,
    text: string,
    holds: (message: number) => void,
    toRead: (message: number) => void,
  ): void;
}

/** Where each key looks among what envelopes say. */
const sourcesOf: Partial<Record<TextLeaf['key'], readonly Source[]>> = {
  from: ['from'],
  to: ['to'],
  cc: ['cc'],
  subject: ['subject'],
  words: ['subject', 'from', 'to', 'cc', 'attachments'],
};

const peopleSources: ReadonlySet<Source> = new Set<Source>(['from', 'to', 'cc']);

/**
 * The other forms of what may be a domain, or a whole label of one: in ASCII, as mostly stands in mail, and in letters
 * (RFC 5890, section 2.3.2.1).
 */
export function otherForms(text: string): string[] {
  const forms = [
    text.replace(/[^\s@.<>,]+/g, (label) => normalDomain(label)),
    text.replace(/[^\s@.<>,]+/g, (label) => (/^xn--/i.test(label) ? unicodeDomain(label.toLowerCase()) : label)),
  ];
  return forms.filter((form) => form !== text && form !== text.toLowerCase());
}

/**
 * The messages that a key with a text asks for. `toRead` are told of where only the message tells: their header has the
 * field, and the index does not keep what it says.
 */
export function findText(
  leaf: TextLeaf,
  table: EnvelopeTexts,
  texts: SearchedTexts,
  toRead: (message: number) => void = () => undefined,
): Bits {
  const bits = new Bits(table.count);
  const set = (message: number) => bits.set(message);
  const text = foldSearch(blanksAsOne(leaf.text));
  for (const source of sourcesOf[leaf.key] ?? []) {
    table.markHolding(source, text, bits);
    if (peopleSources.has(source))
      for (const other of otherForms(leaf.text)) table.markHolding(source, foldSearch(blanksAsOne(other)), bits);
  }
  if (leaf.key === 'words' || leaf.key === 'body') texts.eachHolding(text, ['body'], set);
  if (leaf.key === 'text') texts.eachHolding(text, ['body', 'header'], set);
  if (leaf.key === 'header' || leaf.key === 'bcc') {
    const name = 'name' in leaf ? leaf.name : 'bcc';
    // Without a text any message that has the field is meant (RFC 9051, section 6.4.4, HEADER).
    texts.eachFieldHolding(name, text, set, toRead);
  }
  return bits;
}
