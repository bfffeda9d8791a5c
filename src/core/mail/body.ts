// The readable body of a message, and the bytes of its attachments.
import { longestLine, withBlanks } from '../text/oneLine';
import { decodeText } from './charset';
import { isAttachment, leaves, type Part, type Structure } from './structure';
import { textFromHtml } from './textFromHtml';
import { decodeTransfer, decodedSize } from './transfer';

/** A stretch of the body as it should be shown: plain text, or HTML still to be cleaned. */
export interface BodyBlock {
  kind: 'text' | 'html';
  content: string;
  /** As the part has it: how its lines go on in the next. */
  flowed?: { delSp: boolean };
  /** Whether more of it stands in the message than was read. */
  goesOn?: true;
}

/** What is said of an attachment without opening it. `size` is in bytes, decoded; `name` null where it has none. */
export interface AttachmentInfo {
  name: string | null;
  type: string;
  size: number;
}

/** Character sets in which every ASCII byte is itself, whatever stands before it. */
const keepsAscii = /^(?:utf-8|us-ascii|ascii|iso-8859-\d+|windows-\d+|koi8-[ru])$/i;
const beyondAscii = /[^\0-\x7f]/;

/** The text of a leaf, of its first `most` bytes as they came. Most text is plain ASCII as it stands, and need not be decoded at all. */
function leafText(raw: Uint8Array, part: Part, text: string, most: number): string {
  const end = Math.min(part.end, part.start + most);
  if (part.encoding !== 'base64' && part.encoding !== 'quoted-printable' && keepsAscii.test(part.charset ?? 'ascii')) {
    const plain = text.slice(part.start, end);
    if (!beyondAscii.test(plain)) return plain;
  }
  return decodeText(decodeTransfer(raw.subarray(part.start, end), part.encoding), part.charset);
}

/** Whether any leaf of the part could be shown as the body. */
function readable(part: Part): boolean {
  return leaves(part).some((leaf) => !isAttachment(leaf));
}

/** Of alternatives the last one that can be shown is the richest (RFC 2046, section 5.1.4). */
function chosen(part: Part, plain: boolean): Part[] {
  if (isAttachment(part)) return [];
  if (!part.type.startsWith('multipart/')) return [part];
  if (part.type !== 'multipart/alternative') return part.parts.flatMap((p) => chosen(p, plain));
  const options = part.parts.filter(readable);
  const first = plain ? options.find((p) => p.type === 'text/plain' && p.end > p.start) : undefined;
  const pick = first ?? options.at(-1);
  return pick ? chosen(pick, plain) : [];
}

/**
 * The blocks to show, in order. `plain` takes the plain text where the sender gave both; of each block no more than `most`
 * bytes are read, as they came.
 */
export function bodyBlocks(raw: Uint8Array, structure: Structure, plain = false, most = Infinity): BodyBlock[] {
  return chosen(structure.root, plain).map((part) => blockOf(raw, structure, part, most));
}

function blockOf(raw: Uint8Array, structure: Structure, part: Part, most: number): BodyBlock {
  return {
    kind: part.type === 'text/html' ? 'html' : 'text',
    content: leafText(raw, part, structure.text, most),
    ...(part.flowed && part.type === 'text/plain' && { flowed: part.flowed }),
    ...(part.end - part.start > most && { goesOn: true }),
  };
}

/** The blocks to show, as the sender meant them, and in plain text where they gave both. What is the same is read once. */
export function bothBodies(raw: Uint8Array, structure: Structure): { rich: BodyBlock[]; plain: BodyBlock[] } {
  const read = new Map<Part, BodyBlock>();
  const of = (part: Part): BodyBlock => {
    const block = read.get(part) ?? blockOf(raw, structure, part, Infinity);
    read.set(part, block);
    return block;
  };
  return { rich: chosen(structure.root, false).map(of), plain: chosen(structure.root, true).map(of) };
}

/** Whether the sender gave the same text as plain and as HTML. */
export function hasAlternatives(part: Part): boolean {
  if (part.type === 'multipart/alternative')
    return part.parts.some((p) => p.type === 'text/plain') && part.parts.some((p) => p.type !== 'text/plain');
  return part.parts.some(hasAlternatives);
}

/** The text of a message in plain characters, whichever form it came in. */
export function bodyText(raw: Uint8Array, structure: Structure): string {
  return bodyBlocks(raw, structure, true)
    .map((block) => (block.kind === 'html' ? textFromHtml(block.content) : block.content))
    .join('\n');
}

/** The attachments in order. Their index is what {@link attachmentBytes} takes. */
export function attachmentList(raw: Uint8Array, structure: Structure): AttachmentInfo[] {
  return leaves(structure.root)
    .filter(isAttachment)
    .map((part) => ({
      name:
        withBlanks(part.filename ?? '')
          .trim()
          .slice(0, longestLine) || null,
      type: part.type,
      size: decodedSize(raw.subarray(part.start, part.end), part.encoding),
    }));
}

/** An attachment's bytes, decoded; null where there is none of that index. */
export function attachmentBytes(raw: Uint8Array, structure: Structure, index: number): Uint8Array | null {
  const part = leaves(structure.root).filter(isAttachment)[index];
  return part ? decodeTransfer(raw.subarray(part.start, part.end), part.encoding) : null;
}

/** Everything that a message carries besides its text, decoded: attachments, and pictures within the text. */
export function filesOf(raw: Uint8Array, structure: Structure): { name: string; type: string; bytes: Uint8Array }[] {
  return leaves(structure.root)
    .filter((part) => isAttachment(part) || !part.type.startsWith('text/'))
    .map((part) => ({
      name: part.filename ?? '',
      type: part.type,
      bytes: decodeTransfer(raw.subarray(part.start, part.end), part.encoding),
    }));
}

/** A picture that an HTML body shows by its Content-ID (RFC 2392). */
export interface InlinePicture {
  contentId: string;
  type: string;
  bytes: Uint8Array;
}

/** The pictures that came within the message and have a Content-ID. */
export function inlinePictures(raw: Uint8Array, structure: Structure): InlinePicture[] {
  return leaves(structure.root)
    .filter((part) => part.contentId && /^image\/(png|jpe?g|gif|webp|bmp)$/.test(part.type))
    .map((part) => ({
      contentId: part.contentId ?? '',
      type: part.type,
      bytes: decodeTransfer(raw.subarray(part.start, part.end), part.encoding),
    }));
}
