// Content lines: how cards and calendars are written, a property a line (RFC 6350, section 3.2; RFC 5545, section 3.1).
import { oneLine } from './oneLine';

export interface ContentLine {
  text: string;
  /** In the file, from 1. */
  at: number;
}

/** The lines of a text, folded ones put together. */
export function unfolded(text: string): ContentLine[] {
  const out: ContentLine[] = [];
  let pieces: string[] = [];
  let from = 1;
  const flush = () => {
    if (pieces.length) out.push({ text: pieces.join(''), at: from });
    pieces = [];
  };
  for (const [n, line] of text.split(/\r\n|\n|\r/).entries()) {
    if ((line.startsWith(' ') || line.startsWith('\t')) && pieces.length) pieces.push(line.slice(1));
    else {
      flush();
      from = n + 1;
      pieces.push(line);
    }
  }
  flush();
  return out;
}

/** Where the name and the parameters of a line end: at the first colon outside quotes; -1 where there is none. */
export function colonOf(text: string): number {
  let quoted = false;
  for (let at = 0; at < text.length && at < 10_000; at++) {
    if (text[at] === '"') quoted = !quoted;
    else if (text[at] === ':' && !quoted) return at;
  }
  return -1;
}

const encoder = new TextEncoder();

/** A line folded at 75 octets, between characters, and ended by CRLF. */
export function folded(text: string): string {
  let out = '';
  let width = 0;
  for (const character of text) {
    const octets = (character.codePointAt(0) ?? 0) < 0x80 ? 1 : encoder.encode(character).length;
    if (width + octets > 75) {
      out += '\r\n ';
      width = 1;
    }
    out += character;
    width += octets;
  }
  return `${out}\r\n`;
}

/** Text as the value of a card (RFC 6350, section 3.4); in a calendar a semicolon is escaped, too. */
export const escaped = (text: string): string =>
  text
    .replace(/[\\,]/g, (one) => `\\${one}`)
    .replace(/\r\n|\r|\n/g, '\\n')
    .replace(/\0/g, '');

/** A value as text of one line, without what could turn it around. */
export const lineOfValue = (value: unknown, most: number): string =>
  oneLine([value].flat(9).map(String).join(' ')).slice(0, most);

/** A value as the text of a note: its own lines, and nothing that is no text. */
export const paragraphs = (value: unknown): string =>
  String(value)
    .replace(/\r\n?/g, '\n')
    .replace(/[\0-\x08\x0b-\x1f\u202a-\u202e\u2066-\u2069]/g, '')
    .slice(0, 20_000);
