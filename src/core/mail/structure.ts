// The MIME structure of a message (RFC 2045, 2046): a tree of parts, each a range of the raw bytes.
import { trimOf } from '../text/trim';
import { byteText } from './charset';
import { fieldValue, readHeader, type HeaderField } from './header';
import { parseParameters } from './parameters';

/** Deeper than this a part is not taken apart any more: no honest message is, and a hostile one must end somewhere. */
export const deepestNesting = 60;
/** More parts than this are not told apart. */
const mostParts = 5_000;

/** One part: its declared nature, and its body as the half-open byte range `start` to `end`, still encoded. */
export interface Part {
  /** Content-Type in lower case, `text/plain` where none or a broken one is given (RFC 2045, section 5.2). */
  type: string;
  charset: string | null;
  /** Text whose lines go on in the next (RFC 3676): null where they do not; `delSp`: its blanks at line ends are no text. */
  flowed: { delSp: boolean } | null;
  /** Content-Transfer-Encoding in lower case, `7bit` where none is given. */
  encoding: string;
  disposition: string | null;
  filename: string | null;
  /** Content-ID without its angle brackets. */
  contentId: string | null;
  start: number;
  end: number;
  parts: Part[];
}

/** What a message is made of, and what is broken about it, in a sentence for the person, or null. */
export interface Structure {
  /** The whole message as byte text (charset.ts): an index into it is an index into the bytes. */
  text: string;
  fields: HeaderField[];
  root: Part;
  damage: string | null;
}

interface Walk {
  raw: Uint8Array;
  text: string;
  parts: number;
  damage: string | null;
}

/** What stands within the angle brackets of a Content-ID (RFC 2392). */
const withoutAngles = (field: string | null): string | null => field && trimOf(field, '<> \t\r\n');

const typeShape = /^[!#$%&'*+\-.^_`{|}~\w]+\/[!#$%&'*+\-.^_`{|}~\w]+$/;

function partOf(walk: Walk, fields: HeaderField[], start: number, end: number, depth: number, fallback: string): Part {
  const contentType = parseParameters(fieldValue(fields, 'content-type') ?? fallback);
  const dispositionField = fieldValue(fields, 'content-disposition');
  const disposition = dispositionField === null ? null : parseParameters(dispositionField);
  const { boundary, charset, name, format, delsp } = contentType.parameters;
  const part: Part = {
    type: typeShape.test(contentType.value) ? contentType.value : 'text/plain',
    charset: charset ?? null,
    flowed: format?.toLowerCase() === 'flowed' ? { delSp: delsp?.toLowerCase() === 'yes' } : null,
    encoding: fieldValue(fields, 'content-transfer-encoding')?.split(';')[0].trim().toLowerCase() || '7bit',
    disposition: disposition?.value ?? null,
    filename: disposition?.parameters.filename ?? name ?? null,
    contentId: withoutAngles(fieldValue(fields, 'content-id')),
    start,
    end,
    parts: [],
  };
  if (!part.type.startsWith('multipart/')) return part;
  if (!boundary) walk.damage ??= 'It says that it has several parts, but not what parts them (no boundary).';
  else if (depth >= deepestNesting) walk.damage ??= `Its parts are nested more than ${deepestNesting} deep.`;
  else splitParts(walk, part, boundary, depth);
  return part;
}

/** RFC 2046, section 5.1.1: delimiter lines, the line break before each belonging to the delimiter. */
function splitParts(walk: Walk, parent: Part, boundary: string, depth: number): void {
  const { raw } = walk;
  // No further than the part goes: one within the other, each would look through all that comes after it.
  const text = walk.text.slice(0, parent.end);
  const delimiter = `--${boundary}`;
  const fallback = parent.type === 'multipart/digest' ? 'message/rfc822' : 'text/plain';
  let from = -1;
  let closed = false;
  const take = (to: number) => {
    if (from < 0 || to < from || walk.parts++ > mostParts) return;
    const header = readHeader(raw, walk.text, from, to);
    parent.parts.push(partOf(walk, header.fields, header.bodyStart, to, depth + 1, fallback));
  };
  let at = parent.start;
  while (at < parent.end) {
    const found = text.indexOf(delimiter, at);
    if (found < 0) break;
    at = found + delimiter.length;
    if (found > parent.start && text.charCodeAt(found - 1) !== 10) continue;
    let lineEnd = text.indexOf('\n', at);
    if (lineEnd < 0) lineEnd = parent.end;
    const rest = text.slice(at, Math.min(lineEnd, at + 200)).trimEnd();
    if (rest !== '' && rest !== '--') continue;
    let to = found - 1;
    if (to > parent.start && text.charCodeAt(to - 1) === 13) to--;
    take(Math.max(to, from));
    from = Math.min(lineEnd + 1, parent.end);
    at = from;
    if (rest === '--') {
      closed = true;
      break;
    }
  }
  if (closed) return;
  if (from < 0) walk.damage ??= 'It says that it has several parts, but none begins: it may have been cut.';
  else walk.damage ??= 'It ends before its last part is closed: it may have been cut.';
  take(parent.end);
}

/**
 * Takes a message apart without copying any of it. Never throws: whatever the bytes, there is a structure, and
 * `damage` says in a sentence what is wrong with them.
 */
export function parseStructure(raw: Uint8Array, text: string = byteText(raw)): Structure {
  const header = readHeader(raw, text, 0, raw.length);
  const walk: Walk = { raw, text, parts: 0, damage: null };
  if (raw.length === 0) walk.damage = 'It is empty.';
  else if (header.fields.length === 0) walk.damage = 'It has no header, so it has no sender, subject or date.';
  const root = partOf(walk, header.fields, header.bodyStart, raw.length, 0, 'text/plain');
  return { text, fields: header.fields, root, damage: walk.damage };
}

/** The leaves of the tree, in order: what a reader meets. */
export function leaves(part: Part): Part[] {
  if (!part.type.startsWith('multipart/') || part.parts.length === 0) return [part];
  return part.parts.flatMap(leaves);
}

/** Whether a leaf is an attachment: called one, named, or of a kind that is not text to be read in the message. */
export function isAttachment(part: Part): boolean {
  if (part.type.startsWith('multipart/')) return false;
  if (part.disposition === 'attachment' || part.filename !== null) return true;
  // A calendar is for a program: the text beside it says the same in words (RFC 6047, section 2.4).
  return !part.type.startsWith('text/') || part.type === 'text/calendar';
}
