// Encoded words in header fields (RFC 2047), with the language tag of RFC 2231, section 5.
import { joinBytes } from '../data/bytes';
import { decodeText, isKnownCharset } from './charset';
import { decodeBase64, decodeQuotedPrintable, encodeBase64 } from './transfer';

const encodedWord = /=\?([^\s?*]+)(?:\*[^\s?]*)?\?([BbQq])\?([^?]*)\?=/g;
const encoder = new TextEncoder();
/** Nobody writes more of them into one field; what stands behind them stays as it is written. */
const mostWords = 5_000;

function wordBytes(encoding: string, text: string): Uint8Array {
  const bytes = encoder.encode(text);
  return encoding.toUpperCase() === 'B' ? decodeBase64(bytes) : decodeQuotedPrintable(bytes, true);
}

/** Sets of which no character reaches into the next but where it was cut, and which have no states: read as one at once. */
const joins = /^(utf-?8|us-ascii|iso-8859-\d+|windows-125\d)$/;

const broken = (text: string): number => text.split('\ufffd').length;

/**
 * The words of one character set that stand side by side. Each is text by itself (RFC 2047, section 5), and a stateful
 * set begins anew with each; only where that breaks a character are they read as one.
 */
function decodeRun(run: Uint8Array[], charset: string): string {
  if (run.length > 1 && joins.test(charset)) return decodeText(joinBytes(run), charset);
  const single = run.map((bytes) => decodeText(bytes, charset)).join('');
  if (run.length < 2 || broken(single) === 1) return single;
  const whole = decodeText(joinBytes(run), charset);
  return broken(whole) < broken(single) ? whole : single;
}

/**
 * Text of a header field with its encoded words decoded (RFC 2047, sections 2 to 6). Blanks between two encoded words
 * go. Real mailers part a character between two words, though the RFC forbids it (common practice, no source): the parts
 * are put together. A word whose character set nobody knows stays as it stands.
 */
export function decodeEncodedWords(text: string): string {
  if (!text.includes('=?')) return text;
  let out = '';
  let end = 0;
  let charset = '';
  let run: Uint8Array[] = [];
  const flush = () => {
    out += decodeRun(run, charset);
    run = [];
  };
  let words = 0;
  for (const match of text.matchAll(encodedWord)) {
    if (++words > mostWords) break;
    const [whole, label, encoding, payload] = match;
    if (!isKnownCharset(label)) continue;
    const between = text.slice(end, match.index);
    const adjacent = run.length > 0 && /^[ \t\r\n]*$/.test(between);
    if (!adjacent || label.toLowerCase() !== charset) flush();
    if (!adjacent) out += between;
    charset = label.toLowerCase();
    run.push(wordBytes(encoding, payload));
    end = match.index + whole.length;
  }
  flush();
  return out + text.slice(end);
}

/** What may stand as it is: printable US-ASCII that no reader decodes, no fold changes, and every line has room for. */
function standsPlain(text: string): boolean {
  return (
    /^[\x20-\x7e]*$/.test(text) &&
    !text.includes('=?') &&
    !/^ |  | $/.test(text) &&
    (text.length < 64 || text.split(' ').every((word) => word.length <= 64))
  );
}

/**
 * Text as it may stand in an unstructured field or a phrase: itself where nothing can happen to it there, else as UTF-8
 * encoded words of at most 75 characters (RFC 2047, section 2), parted by a space between whole characters. `most`: bytes in
 * one word, at most 45; with 39 it has room behind “Subject: ” in a line of 76.
 */
export function encodeWords(text: string, most = 39): string {
  if (standsPlain(text)) return text;
  const words: string[] = [];
  let run: number[] = [];
  for (const character of text) {
    const bytes = [...encoder.encode(character)];
    if (run.length + bytes.length > most) {
      words.push(`=?UTF-8?B?${encodeBase64(Uint8Array.from(run), '', 0)}?=`);
      run = [];
    }
    run.push(...bytes);
  }
  if (run.length) words.push(`=?UTF-8?B?${encodeBase64(Uint8Array.from(run), '', 0)}?=`);
  return words.join(' ');
}
