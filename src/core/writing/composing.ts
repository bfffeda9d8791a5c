// A message from what was written: a plain part and a rich one, pictures within it, attachments (RFC 2045, 2046, 2387).
import type { Address } from '../mail/address';
import { byteText } from '../mail/charset';
import type { MessageToWrite, MultipartToWrite, PartToWrite } from '../mail/writing';
import { writeMessage } from '../mail/writing';
import { fileName } from '../text/fileName';
import { oneLine } from '../text/oneLine';
import { flowed, typedLines, typedText, type TextLine } from './flowed';
import { htmlLines } from './htmlLines';
import { outgoingHtml, picturesShown } from './outgoingHtml';

/** A file that goes along. `contentId`: it is a picture that the rich text shows. */
export interface FileToSend {
  name: string;
  type: string;
  bytes: Uint8Array;
  contentId?: string;
}

/** What was written, and all that is needed to make a message of it. */
export interface WrittenMessage extends Omit<MessageToWrite, 'body'> {
  /** Rich text; null: it is plain. */
  html: string | null;
  /** Plain text as it is typed, where it is plain; quoted lines behind “>”. */
  text: string;
  files: readonly FileToSend[];
}

const ascii = /^[\0-\x7f]*$/;

/** A text of a kind, in the encoding that it needs: as it is where it is short lines of US-ASCII (RFC 2045, section 6). */
function textPart(type: string, text: string, flows: boolean): PartToWrite {
  const plain = ascii.test(text) && !/[^\r\n]{900}|[^\r]\n|\r[^\n]|\0/.test(text);
  return {
    type,
    charset: plain ? 'us-ascii' : 'utf-8',
    ...(flows && { flowed: true }),
    bytes: new TextEncoder().encode(text),
    encoding: plain ? '7bit' : 'quoted-printable',
  };
}

/** The plain part of lines: its paragraphs flow (RFC 3676). */
const plainPart = (lines: readonly TextLine[]): PartToWrite => textPart('text/plain', flowed(lines), true);

/** The type of a file as it may stand in a field; what is no type is bytes and no more. */
const typeOf = (type: string): string =>
  /^[a-z]+\/[\w.+-]{1,100}$/i.test(type) && !/^(multipart|message)\//i.test(type) ? type : 'application/octet-stream';

/** The bytes of a message with CRLF where no line ends so yet. */
function withMailLines(bytes: Uint8Array): Uint8Array {
  if (bytes.includes(13)) return bytes;
  let lines = 0;
  for (const byte of bytes) if (byte === 10) lines++;
  const out = new Uint8Array(bytes.length + lines);
  let at = 0;
  for (const byte of bytes) {
    if (byte === 10) out[at++] = 13;
    out[at++] = byte;
  }
  return out;
}

/**
 * A message within a message, byte for byte; only lines that end in LF alone throughout, as files have them, end as mail has
 * them. What no transport would carry unchanged goes as bytes (RFC 2046, section 5.2.1).
 */
function messagePart({ name, bytes: stored }: FileToSend): PartToWrite {
  const bytes = withMailLines(stored);
  const text = byteText(bytes);
  const carried = !/[^\r\n]{998}|\0|[^\r]\n|\r[^\n]|\r$/.test(text) && !text.startsWith('\n');
  if (!carried) return { type: 'application/octet-stream', bytes, encoding: 'base64', filename: name };
  return { type: 'message/rfc822', bytes, encoding: ascii.test(text) ? '7bit' : '8bit', filename: name };
}

function filePart(file: FileToSend): PartToWrite {
  const named = { ...file, name: fileName(file.name) };
  if (file.type === 'message/rfc822') return messagePart(named);
  return { type: typeOf(file.type), bytes: file.bytes, encoding: 'base64', filename: named.name };
}

const picturePart = (file: FileToSend): PartToWrite => ({
  type: typeOf(file.type),
  bytes: file.bytes,
  encoding: 'base64',
  filename: fileName(file.name),
  contentId: file.contentId,
  inline: true,
});

/** Bounds the parts of a message: “=_” stands in no encoded text, and messages within it are looked through. */
class Boundaries {
  private next = 0;
  private readonly raw: string[];

  constructor(
    private readonly stem: string,
    files: readonly FileToSend[],
  ) {
    this.raw = files.filter(({ type }) => type === 'message/rfc822').map(({ bytes }) => byteText(bytes));
  }

  one(): string {
    for (;;) {
      const boundary = `=_${this.stem}_${this.next++}`;
      if (!this.raw.some((text) => text.includes(boundary))) return boundary;
    }
  }
}

/** The body of a message. */
function bodyOf(message: WrittenMessage): PartToWrite | MultipartToWrite {
  const boundaries = new Boundaries(message.messageId.replace(/[^\w]/g, '').slice(0, 24), message.files);
  const html = message.html === null ? null : outgoingHtml(message.html);
  const shown = html === null ? new Set<string>() : picturesShown(html);
  const pictures = message.files.filter(({ contentId }) => contentId && shown.has(contentId));
  const calendar = message.files.find(({ type }) => type.startsWith(calendarType));
  // A picture that the text shows no more, or can't, goes along as a file only where it was no part of the text.
  const attached = message.files.filter((file) => !file.contentId && file !== calendar);
  let body: PartToWrite | MultipartToWrite;
  const beside = calendar ? [calendarPart(calendar)] : [];
  if (html === null) {
    const plain = plainPart(typedLines(message.text));
    body = calendar ? { type: 'multipart/alternative', boundary: boundaries.one(), parts: [plain, ...beside] } : plain;
  } else {
    const page = `<!DOCTYPE html>\r\n<html><head><meta charset="utf-8"></head><body>${html.replace(/\r\n|\r|\n/g, '\r\n')}</body></html>\r\n`;
    const rich = textPart('text/html', page, false);
    const related: PartToWrite | MultipartToWrite = pictures.length
      ? {
          type: 'multipart/related',
          root: 'text/html',
          boundary: boundaries.one(),
          parts: [rich, ...pictures.map(picturePart)],
        }
      : rich;
    const plain = plainPart(htmlLines(html));
    body = { type: 'multipart/alternative', boundary: boundaries.one(), parts: [plain, related, ...beside] };
  }
  if (attached.length === 0) return body;
  return { type: 'multipart/mixed', boundary: boundaries.one(), parts: [body, ...attached.map(filePart)] };
}

/** The plain text of what was written, as others will read it. */
export const plainTextOf = ({ html, text }: Pick<WrittenMessage, 'html' | 'text'>): string =>
  html === null ? text : typedText(htmlLines(outgoingHtml(html)));

/** What the type of a file begins with that is an invitation or an answer to one (RFC 6047, section 2.4). */
export const calendarType = 'text/calendar; method=';

/** The calendar of an invitation, which stands beside the text that says the same in words. */
function calendarPart({ bytes, type }: FileToSend): PartToWrite {
  const method = /method=([A-Z]{1,20})/.exec(type)?.[1] ?? 'PUBLISH';
  return { type: `text/calendar; method=${method}`, charset: 'utf-8', bytes, encoding: 'base64' };
}

/** A name as it may stand in a field. */
const tidy = ({ name, address }: Address): Address => ({ name: oneLine(name), address });

/**
 * The raw message (RFC 5322), lines ended by CRLF. `own`: the sender's copy, with Bcc; else as it leaves, and nobody learns
 * who else had it. Whatever stands in subject, names and file names, each stays within its own field.
 */
export function composeMessage(message: WrittenMessage, own = false): Uint8Array<ArrayBuffer> {
  const written: MessageToWrite = {
    messageId: message.messageId,
    date: message.date,
    zone: message.zone,
    from: tidy(message.from),
    to: message.to.map(tidy),
    cc: (message.cc ?? []).map(tidy),
    ...(own && { bcc: (message.bcc ?? []).map(tidy) }),
    subject: oneLine(message.subject),
    inReplyTo: message.inReplyTo,
    references: message.references,
    extra: message.extra,
    body: bodyOf(message),
  };
  return writeMessage(written);
}
