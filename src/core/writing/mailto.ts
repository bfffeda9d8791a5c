// Links that write to somebody (RFC 6068).
import { parseAddresses, type Address } from '../mail/address';
import { decodeEncodedWords } from '../mail/encodedWord';
import { oneLine } from '../text/oneLine';

/** What a link asks to be written. Nothing of it is sent unseen: it only begins a draft. */
export interface MailtoLink {
  to: Address[];
  cc: Address[];
  bcc: Address[];
  subject: string;
  /** Plain text, lines ended by LF. */
  body: string;
  /** The Message-ID that it answers, without angle brackets; empty where it answers none. */
  inReplyTo: string;
}

/** No link is longer; what is behind is left out. */
const longestLink = 100_000;

/** Percent-encoded text (RFC 3986, section 2.1) as UTF-8; what is no encoding stays as it stands. */
function decoded(text: string): string {
  return text.replace(/(?:%[0-9a-f]{2})+/gi, (run) => {
    const bytes = Uint8Array.from(run.slice(1).split('%'), (hex) => Number.parseInt(hex, 16));
    return new TextDecoder().decode(bytes);
  });
}

/**
 * Reads a mailto link; null where it is none. Only the fields that a stranger may safely set are taken (section 4): To, Cc,
 * Bcc, Subject, Body, In-Reply-To; no attachment, no From, nothing of the way.
 */
export function readMailto(link: string): MailtoLink | null {
  const match = /^mailto:([^?#]*)(?:\?([^#]*))?/i.exec(link.slice(0, longestLink).trim());
  if (!match) return null;
  const fields = new Map<string, string[]>();
  const add = (name: string, value: string) => fields.set(name, [...(fields.get(name) ?? []), value]);
  // A comma within an address is encoded; those between them are not (section 2).
  for (const one of match[1].split(',')) if (one) add('to', decoded(one));
  for (const pair of (match[2] ?? '').split('&').slice(0, 200)) {
    const at = pair.indexOf('=');
    if (at > 0) add(decoded(pair.slice(0, at)).toLowerCase(), decoded(pair.slice(at + 1)));
  }
  const people = (name: string): Address[] =>
    (fields.get(name) ?? [])
      .flatMap((one) => parseAddresses(one.replace(/[\r\n]+/g, ' ')))
      .filter((one) => one.address);
  const text = (name: string): string => (fields.get(name) ?? []).join('\n');
  return {
    to: people('to'),
    cc: people('cc'),
    bcc: people('bcc'),
    subject: oneLine(decodeEncodedWords(text('subject'))),
    body: decodeEncodedWords(text('body')).replace(/\r\n?/g, '\n').replace(/\0/g, ''),
    inReplyTo: oneLine(text('in-reply-to')).replace(/^<|>$/g, ''),
  };
}
