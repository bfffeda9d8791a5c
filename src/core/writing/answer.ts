// Answering and forwarding: to whom, under which subject, and with what quoted (RFC 5322, section 3.6).
import { addressKey, type Address } from '../mail/address';
import type { Envelope } from '../mail/envelopeSchema';
import { quote } from '../mail/quoted';
import { oneLine } from '../text/oneLine';
import { typedLines, type TextLine } from './flowed';
import { escapeHtml, outgoingHtml } from './outgoingHtml';

/** Quotes within quotes are no deeper. */
const deepestQuote = 20;
/** Of a forwarded message no more recipients are named. */
const mostNamed = 50;

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

/** “Fwd: ” before a subject that has none yet (common practice, no source). */
export const forwardSubject = (subject: string): string =>
  /^fwd?:/i.test(subject) ? subject : `Fwd: ${subject}`.trim();

/** A message that is answered or forwarded, as far as quoting it goes. `html` null where it has only plain text. */
export interface Quotable {
  envelope: Pick<Envelope, 'from' | 'to' | 'cc' | 'subject'>;
  /** Its time in words. */
  when: string;
  text: string;
  html: string | null;
}

/** Lines as rich text: a paragraph for each stretch between empty ones, quoted ones within quotes. */
export function htmlOfLines(lines: readonly TextLine[]): string {
  let out = '';
  let depth = 0;
  for (let from = 0; from < lines.length;) {
    const at = Math.min(lines[from].depth, deepestQuote);
    if (lines[from].text === '') {
      from++;
      continue;
    }
    for (; depth < at; depth++) out += '<blockquote>';
    for (; depth > at; depth--) out += '</blockquote>';
    let to = from;
    while (to < lines.length && lines[to].text !== '' && lines[to].depth === lines[from].depth) to++;
    out += `<p>${lines
      .slice(from, to)
      .map(({ text }) => escapeHtml(text))
      .join('<br>')}</p>`;
    from = to;
  }
  return out + '</blockquote>'.repeat(depth);
}

/** `pictures`: whether those that came with it go along. */
const richBody = ({ text, html }: Quotable, pictures: boolean): string =>
  html === null ? htmlOfLines(typedLines(text)) : outgoingHtml(html, pictures);

const saidBy = ({ envelope: { from }, when }: Quotable): string =>
  `${oneLine(from.name || from.address)} wrote on ${when}:`;

/** What is quoted of a message in a rich answer. What it shows from elsewhere is left out, its scripts and styles too. */
export const quotedHtml = (message: Quotable): string =>
  `<p>${escapeHtml(saidBy(message))}</p><blockquote>${richBody(message, false)}</blockquote>`;

/** The same in a plain one. */
export const quotedText = (message: Quotable): string => `${saidBy(message)}\n${quote(message.text)}`;

/** Who wrote a forwarded message to whom, and when. */
function headOf({ envelope: { from, to, cc, subject }, when }: Quotable): [word: string, value: string][] {
  const named = (list: readonly Address[]): string =>
    list
      .slice(0, mostNamed)
      .map(({ name, address }) => (name ? `${name} <${address}>` : address))
      .join(', ') + (list.length > mostNamed ? ` and ${list.length - mostNamed} more` : '');
  const head: [string, string][] = [
    ['From', named([from])],
    ['Date', when],
    ['To', named(to)],
    ['Cc', named(cc)],
    ['Subject', subject],
  ];
  return head.filter(([, value]) => value !== '').map(([word, value]) => [word, oneLine(value)]);
}

const forwardedMark = 'Forwarded message';

/** A forwarded message below what is written, in rich text. */
export const forwardedHtml = (message: Quotable): string =>
  `<p>${forwardedMark}</p><p>${headOf(message)
    .map(([word, value]) => `${word}: ${escapeHtml(value)}`)
    .join('<br>')}</p>${richBody(message, true)}`;

/** The same in plain text. */
export const forwardedText = (message: Quotable): string =>
  `${forwardedMark}\n${headOf(message)
    .map(([word, value]) => `${word}: ${value}`)
    .join('\n')}\n\n${message.text.trimEnd()}`;
