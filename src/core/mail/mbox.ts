// mbox files (RFC 4155): parted as a stream, and written back byte for byte.
//
// A message is stored exactly as it stood in its file. From an mbox that includes its From_ line, its quoted ">From "
// lines and the empty line after it, so that writing is copying and nothing has to be guessed on the way back.
import { joinBytes } from '../data/bytes';
import { formatAsctime } from './date';
import { byteText } from './charset';
import { isFieldStart } from './header';

/** How the stored bytes of a message are wrapped: as they stood in an mbox, or as a message by itself. */
export type Form = 'mbox' | 'eml';

const fromLine =
  /^From (?:\S+|".*").*?(?:(?:Mon|Tue|Wed|Thu|Fri|Sat|Sun)[a-z]*,? +(?:[A-Z][a-z]{2} +\d|\d{1,2} +[A-Z][a-z]{2})|\d{4}-\d\d-\d\d).*\d/;

/** How far a From_ line and the line after it are looked at. */
const farthestLine = 1_000;

/**
 * Whether `text` has, at `at`, a From_ line that parts messages. Real files quote body lines carelessly, so a "From "
 * is believed only with a date (RFC 4155, appendix A), where an empty line stands before it or a header field follows.
 */
function partsMessages(text: string, at: number, afterEmpty: boolean): boolean {
  let end = text.indexOf('\n', at);
  if (end < 0) end = text.length;
  if (end - at > farthestLine) return false;
  const dated = fromLine.test(text.slice(at, end).trimEnd());
  const next = text.slice(end + 1, end + 1 + farthestLine);
  const field = isFieldStart(next) || next.startsWith('>From ');
  return dated && (afterEmpty || field);
}

/**
 * Parts an mbox that arrives in chunks of any size, in time linear to its length. Whatever stands before the first
 * From_ line is given as a message too, so that the messages joined are the file.
 *
 *     const splitter = new MboxSplitter();
 *     for (const chunk of chunks) for (const message of splitter.push(chunk)) keep(message);
 *     for (const message of splitter.end()) keep(message);
 */
export class MboxSplitter {
  private done: Uint8Array[] = [];
  private tail: Uint8Array = new Uint8Array(0);

  /** The messages that this chunk completes. */
  push(chunk: Uint8Array): Uint8Array<ArrayBuffer>[] {
    return this.search(this.tail.length ? joinBytes([this.tail, chunk]) : chunk, false);
  }

  /** The last message, if there is one. */
  end(): Uint8Array<ArrayBuffer>[] {
    const out = this.search(this.tail, true);
    this.done.push(this.tail);
    const last = joinBytes(this.done);
    this.done = [];
    this.tail = new Uint8Array(0);
    if (last.length) out.push(last);
    return out;
  }

  private search(work: Uint8Array, last: boolean): Uint8Array<ArrayBuffer>[] {
    const out: Uint8Array<ArrayBuffer>[] = [];
    const text = byteText(work);
    let from = 0;
    let keep = -1;
    let at = text.indexOf('\nFrom ');
    while (at >= 0) {
      const line = at + 1;
      if (!last && work.length - line < 2 * farthestLine) {
        // Too near to the end to see the next line: looked at again with the next chunk.
        keep = at;
        break;
      }
      const afterEmpty = text[at - 1] === '\n' || (text[at - 1] === '\r' && text[at - 2] === '\n');
      if (partsMessages(text, line, afterEmpty)) {
        this.done.push(work.subarray(from, line));
        const message = joinBytes(this.done);
        this.done = [];
        if (message.length) out.push(message);
        from = line;
      }
      at = text.indexOf('\nFrom ', line);
    }
    // What a later "From " needs to be judged: itself, cut in two, and the two line ends before it.
    const undecided = Math.max(from, Math.min(keep >= 0 ? keep : work.length, work.length - 6) - 3);
    if (undecided > from) this.done.push(work.slice(from, undecided));
    this.tail = work.slice(undecided);
    return out;
  }
}

/** What a file's beginning shows it to be: an mbox, a single message, or neither. */
export function sniffMail(start: Uint8Array): 'mbox' | 'eml' | 'zip' | 'empty' | 'neither' {
  // A local file header (PKWARE, .ZIP File Format Specification, section 4.3.7).
  if ([0x50, 0x4b, 3, 4].every((byte, at) => start[at] === byte)) return 'zip';
  const text = byteText(start.subarray(0, 65_536)).replace(/^\ufeff|^\u00ef\u00bb\u00bf/, '');
  const at = text.search(/[^\s\0]/);
  if (at < 0) return 'empty';
  const body = text.slice(at);
  if (body.startsWith('From ')) {
    // A single message may carry the From_ line of the mbox it was taken from; a file that holds one is read the same.
    return 'mbox';
  }
  const lineEnd = body.indexOf('\n');
  const line = lineEnd < 0 ? body : body.slice(0, lineEnd);
  return isFieldStart(line) && !/\0/.test(line) ? 'eml' : 'neither';
}

const quoted = /^>+From /;

function mapLines(bytes: Uint8Array, needle: string, edit: (line: string, at: number) => number | null) {
  const text = byteText(bytes);
  if (!text.includes(needle)) return bytes;
  const out: Uint8Array[] = [];
  let from = 0;
  let at = 0;
  while (at < text.length) {
    const end = text.indexOf('\n', at);
    const line = text.slice(at, Math.min(end < 0 ? text.length : end, at + 200));
    const skip = edit(line, at);
    if (skip !== null) {
      out.push(bytes.subarray(from, at));
      if (skip < 0) out.push(Uint8Array.of(62));
      from = at + Math.max(0, skip);
    }
    if (end < 0) break;
    at = end + 1;
  }
  out.push(bytes.subarray(from));
  return joinBytes(out);
}

/** `>From ` back to `From `, one step of quoting taken off each quoted line. */
function unquote(bytes: Uint8Array): Uint8Array {
  return mapLines(bytes, '>From ', (line) => (quoted.test(line) ? 1 : null));
}

/** `From ` to `>From ` at every line that would part messages or be unquoted later. */
function quote(bytes: Uint8Array): Uint8Array {
  return mapLines(bytes, 'From ', (line) => (line.startsWith('From ') || quoted.test(line) ? -1 : null));
}

function firstLineEnd(bytes: Uint8Array): number {
  const end = bytes.indexOf(10);
  return end < 0 ? bytes.length : end + 1;
}

const startsWithFrom = (bytes: Uint8Array): boolean =>
  bytes[0] === 70 && bytes[1] === 114 && bytes[2] === 111 && bytes[3] === 109 && bytes[4] === 32;

/** The message itself (RFC 5322) within stored bytes: without From_ line, quoting and the empty line that parts. */
export function messageOf(stored: Uint8Array, form: Form): Uint8Array {
  if (!startsWithFrom(stored)) return stored;
  let body = stored.subarray(firstLineEnd(stored));
  if (form === 'eml') return body;
  const n = body.length;
  if (n >= 2 && body[n - 1] === 10 && body[n - 2] === 10) body = body.subarray(0, n - 1);
  else if (n >= 4 && body[n - 1] === 10 && body[n - 2] === 13 && body[n - 3] === 10) body = body.subarray(0, n - 2);
  return unquote(body);
}

/** The From_ line of stored bytes without its line end, or null. */
export function fromLineOf(stored: Uint8Array): string | null {
  return startsWithFrom(stored) ? byteText(stored.subarray(0, firstLineEnd(stored))).trimEnd() : null;
}

/**
 * A message as it goes into an .eml file. What came as one goes out byte for byte; what came in an mbox is unwrapped.
 */
export function toEml(stored: Uint8Array, form: Form): Uint8Array {
  return form === 'eml' ? stored : messageOf(stored, form);
}

/**
 * A message as it goes into an mbox. What came in one goes out byte for byte (`last` false adds the empty line that a
 * cut file lacks); what came as a file of its own gets a From_ line with its sender and date, and is quoted.
 */
export function toMbox(stored: Uint8Array, form: Form, sender: string, date: number, last: boolean): Uint8Array {
  const encoder = new TextEncoder();
  if (form === 'mbox' && startsWithFrom(stored)) return last ? stored : joinBytes([stored, missingEnd(stored)]);
  const own = startsWithFrom(stored) ? stored.subarray(0, firstLineEnd(stored)) : null;
  const body = quote(own ? stored.subarray(own.length) : stored);
  const line =
    own ?? encoder.encode(`From ${/^\S+$/.test(sender) ? sender : 'MAILER-DAEMON'} ${formatAsctime(date)}\n`);
  // An empty line of the message's own is not the one that parts it from the next.
  const newline = body.at(-2) === 13 ? [13, 10] : [10];
  return joinBytes([line, body, Uint8Array.from(body.at(-1) === 10 ? newline : [10, 10])]);
}

/** The line ends that are missing before the next From_ line: the message's own, and the empty line. */
function missingEnd(bytes: Uint8Array): Uint8Array {
  const n = bytes.length;
  const crlf = n >= 2 && bytes[n - 1] === 10 && bytes[n - 2] === 13;
  const end = crlf ? [13, 10] : [10];
  if (n === 0 || bytes[n - 1] !== 10) return Uint8Array.of(10, 10);
  const before = n - end.length;
  return bytes[before - 1] === 10 ? new Uint8Array(0) : Uint8Array.from(end);
}
