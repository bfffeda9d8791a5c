// What people regret once a message has gone: said before, in a line, and never in the way.
import { addressKey, domainOf, type Address } from '../mail/address';
import { count, messages } from '../text/sentences';
import type { DraftContent } from './draft';
import { firstWords } from './draftText';
import { htmlLines } from './htmlLines';
import { typedText } from './flowed';

const mostNamed = 3;

/** Words that speak of something attached, by their beginnings, in the languages that the demo and its like are written in. */
const attached =
  /(?:^|[^\p{L}])(?:attach(?:ed|ment|ing)|enclosed|enclosure|anbei|angehängt|anhang|beigefügt|bifog|vedlagt|vedlegg|vedhæft|bijlage|bijgevoegd|ci-joint|pièces? jointes?|adjunt|allegat|em anexo|w załączniku|liite)/iu;

/** What is known of those who get it. */
export interface Recipient extends Address {
  /** The person wrote to them, has a card of them, or is answering them. */
  known: boolean;
  /** Whose name or domain they seem to imitate; null where they do not. */
  looksLike: string | null;
}

export interface RegretFacts {
  content: DraftContent;
  recipients: readonly Recipient[];
  /** The person’s own addresses. */
  own: readonly string[];
  /** Messages of others that came after the one that is answered. */
  newer: number;
  /** From so many recipients on it is said how many they are. */
  manyPeople: number;
  /** The message that is answered names none of the person’s addresses, and came by no list. */
  wasHidden: boolean;
}

/** The text that was written, without what is quoted. */
const ownText = ({ rich, html, text }: DraftContent): string =>
  (rich ? typedText(htmlLines(html)) : text)
    .split('\n')
    .filter((line) => !line.startsWith('>'))
    .join('\n')
    .slice(0, 100_000);

const named = (list: readonly Address[]): string =>
  list
    .slice(0, mostNamed)
    .map(({ address }) => address)
    .join(', ') + (list.length > mostNamed ? ` and ${count(list.length - mostNamed)} more` : '');

/** Each as a short sentence, what weighs most first; that an older message is answered, last. */
export function regretsOf({ content, recipients, own, newer, manyPeople, wasHidden }: RegretFacts): string[] {
  const out: string[] = [];
  const alike = recipients.filter(({ looksLike }) => looksLike !== null);
  for (const { address, looksLike } of alike.slice(0, mostNamed))
    out.push(`${address} looks like ${looksLike ?? ''}, and is another.`);
  if (content.how === 'reply all' && wasHidden)
    out.push('You had this message in Bcc: an answer to all tells the others that you did.');
  if (content.how === 'reply all' && content.bcc.trim() !== '')
    out.push('Somebody is in Bcc of an answer to all: they may answer all as well.');
  if (attached.test(ownText(content)) && !content.files.some(({ contentId }) => !contentId))
    out.push('It speaks of something attached, and nothing is.');
  if (content.subject.trim() === '') out.push('It has no subject.');
  const home = new Set(own.map((address) => domainOf(address)));
  const strangers = recipients.filter(
    ({ known, looksLike, address }) => !known && looksLike === null && !home.has(domainOf(address)),
  );
  if (strangers.length) out.push(`You have never written to ${named(strangers)}.`);
  const people = new Set(recipients.map(({ address }) => addressKey(address))).size;
  if (people >= manyPeople) out.push(`It goes to ${count(people)} people.`);
  if (content.at > 0 && firstWords(content) === '' && content.files.length === 0 && content.how !== 'forward')
    out.push('Nothing is written in it.');
  // The last, since the way to the newest stands right behind it.
  if (newer > 0) out.push(`You answer an older message: ${messages(newer)} came after it.`);
  return out;
}
