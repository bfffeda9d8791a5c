// Plain text in the form “format=flowed” (RFC 3676): lines that a narrow screen may put together and break anew. Reading
// it is mail/flow.ts.
import { quoteDepth } from '../mail/quoted';

/** A line of a text: how deep it is quoted, and its words without the marks. However long, it is one paragraph. */
export interface TextLine {
  depth: number;
  text: string;
}

/** The lines of a text as it is typed: “> > text” is two deep. */
export const typedLines = (text: string): TextLine[] => text.split(/\r\n|\r|\n/).map(quoteDepth);

/** A text of such lines as it is typed. */
export const typedText = (lines: readonly TextLine[]): string =>
  lines.map(({ depth, text }) => (depth ? `${'>'.repeat(depth)} ${text}`.trimEnd() : text)).join('\n');

/** No line is longer where it has a blank to break at, the blank counted (RFC 3676, section 4.2). */
const width = 76;
/** “-- ” alone on a line begins the signature, and never goes on in the next (section 4.3). */
const signatureMark = '-- ';
/** What would be taken for a quote, for a stuffed line, or for the beginning of a message in an mbox (section 4.4). */
const stuffed = /^(?: |>|From )/;

/** Where a paragraph is broken: each piece but the last ends in a blank, which tells that it goes on. */
function broken(text: string, room: number): string[] {
  if (text.length <= room) return [text];
  const pieces: string[] = [];
  let piece = '';
  for (const [word] of text.matchAll(/[^ ]+ *|^ +/g)) {
    if (piece && piece.length + word.length > room && piece.endsWith(' ') && piece !== signatureMark) {
      pieces.push(piece);
      piece = '';
    }
    piece += word;
  }
  pieces.push(piece);
  return pieces;
}

/**
 * A text as format=flowed without DelSp, lines ended by CRLF: broken at blanks only, so that text without blanks stays one
 * long line and is for the transfer encoding to break. Blanks at the end of a line go, since they would mean something.
 */
export function flowed(lines: readonly TextLine[]): string {
  let out = '';
  for (const { depth, text } of lines) {
    const marks = '>'.repeat(depth);
    const content = text === signatureMark ? text : text.replace(/\r|\n|\0/g, ' ').trimEnd();
    for (const piece of broken(content, Math.max(20, width - depth - 1)))
      out += `${marks}${depth ? ' ' : stuffed.test(piece) ? ' ' : ''}${piece}\r\n`;
  }
  return out;
}
