// Writing messages (RFC 5322, RFC 2045): header fields folded and encoded, bodies in parts.
import { formatAddress, type Address } from './address';
import { joinBytes } from '../data/bytes';
import { formatDate } from './date';
import { encodeWords } from './encodedWord';
import { encodeBase64, encodeQuotedPrintable } from './transfer';

/** A body to be written: text in a character set already encoded to bytes, or a file. */
export interface PartToWrite {
  type: string;
  charset?: string;
  bytes: Uint8Array;
  encoding: '7bit' | '8bit' | 'quoted-printable' | 'base64';
  /** The text flows (RFC 3676). */
  flowed?: boolean;
  filename?: string;
  contentId?: string;
  inline?: boolean;
}

/** A multipart to be written; `boundary` must occur in none of its parts. */
export interface MultipartToWrite {
  type: 'multipart/mixed' | 'multipart/alternative' | 'multipart/related';
  boundary: string;
  /** The type of what the rest belongs to (RFC 2387, section 3.1). */
  root?: string;
  parts: (PartToWrite | MultipartToWrite)[];
}

/** A message to be written. Dates are milliseconds since 1970; `zone` minutes east of UTC. */
export interface MessageToWrite {
  messageId: string;
  date: number;
  zone: number;
  from: Address;
  to: Address[];
  cc?: Address[];
  /** Only in the sender's own copy. */
  bcc?: Address[];
  subject: string;
  inReplyTo?: string;
  references?: string[];
  /** Further fields, written as they are. */
  extra?: [name: string, value: string][];
  body: PartToWrite | MultipartToWrite;
}

/** Lines of fields are no longer where they can be folded: 78 (RFC 5322, section 2.1.1), 76 with encoded words (RFC 2047, section 2). */
const width = 76;

/** Folds a field at blanks so that its lines keep within {@link width} where they can. */
export function foldField(name: string, value: string): string {
  // Whatever was put into it, it stays one field.
  const words = `${name}: ${value.replace(/[\r\n\0]+/g, ' ')}`.split(' ');
  let line = words[0];
  let out = '';
  for (const word of words.slice(1)) {
    // Nothing but a long encoded word is worth an empty first line.
    const bare = line === `${name}:` && !word.startsWith('=?');
    if (line.length + 1 + word.length > width && !bare) {
      out += `${line}\r\n`;
      line = ` ${word}`;
    } else line += ` ${word}`;
  }
  return `${out}${line}\r\n`;
}

/** A value is parted where it is longer, so that a line has room for each piece (RFC 2231, section 3). */
const longestValue = 50;

const percent = (byte: number): string => `%${byte.toString(16).toUpperCase().padStart(2, '0')}`;

/** A parameter of a field, encoded and continued where it has to be (RFC 2231, sections 3 and 4). */
function parameter(name: string, value: string): string {
  if (value.length <= longestValue && /^[\w.-]+$/.test(value)) return `; ${name}=${value}`;
  if (value.length <= longestValue && /^[\x20-\x7e]*$/.test(value))
    return `; ${name}="${value.replace(/(["\\])/g, '\\$1')}"`;
  // Whole characters in one piece, though the RFC would let them be parted: not every reader puts them together.
  const pieces: string[] = [];
  let piece = '';
  for (const character of value) {
    const encoded = /^[A-Za-z0-9_.-]$/.test(character)
      ? character
      : [...new TextEncoder().encode(character)].map(percent).join('');
    if (piece && piece.length + encoded.length > longestValue) {
      pieces.push(piece);
      piece = '';
    }
    piece += encoded;
  }
  pieces.push(piece);
  if (pieces.length === 1) return `; ${name}*=UTF-8''${pieces[0]}`;
  return pieces.map((one, n) => `; ${name}*${n}*=${n === 0 ? "UTF-8''" : ''}${one}`).join('');
}

function write(part: PartToWrite | MultipartToWrite, out: (string | Uint8Array)[]): void {
  if ('parts' in part) {
    out.push(
      foldField('Content-Type', `${part.type}${part.root ? `; type="${part.root}"` : ''}; boundary="${part.boundary}"`),
      '\r\n',
    );
    for (const child of part.parts) {
      out.push(`--${part.boundary}\r\n`);
      write(child, out);
      out.push('\r\n');
    }
    out.push(`--${part.boundary}--\r\n`);
    return;
  }
  const charset = part.charset ? parameter('charset', part.charset) : '';
  const flow = part.flowed ? '; format=flowed' : '';
  const name = part.filename ? parameter('name', part.filename) : '';
  out.push(foldField('Content-Type', `${part.type}${charset}${flow}${name}`));
  if (part.encoding !== '7bit') out.push(foldField('Content-Transfer-Encoding', part.encoding));
  if (part.filename || part.inline)
    out.push(
      foldField(
        'Content-Disposition',
        (part.inline ? 'inline' : 'attachment') + (part.filename ? parameter('filename', part.filename) : ''),
      ),
    );
  if (part.contentId) out.push(foldField('Content-ID', `<${part.contentId}>`));
  out.push('\r\n');
  if (part.encoding === 'base64') out.push(encodeBase64(part.bytes));
  else if (part.encoding === 'quoted-printable') out.push(encodeQuotedPrintable(part.bytes));
  else out.push(part.bytes);
}

/** A raw message with CRLF line ends, ready to be sent or stored. */
export function writeMessage(message: MessageToWrite): Uint8Array<ArrayBuffer> {
  const out: (string | Uint8Array)[] = [];
  for (const [name, value] of message.extra ?? []) out.push(foldField(name, value));
  out.push(foldField('Date', formatDate(message.date, message.zone)), foldField('From', formatAddress(message.from)));
  // A message to nobody but those who are not named says so (RFC 5322, section 3.4).
  if (message.to.length || !message.cc?.length)
    out.push(foldField('To', message.to.map(formatAddress).join(', ') || 'undisclosed-recipients:;'));
  if (message.cc?.length) out.push(foldField('Cc', message.cc.map(formatAddress).join(', ')));
  if (message.bcc?.length) out.push(foldField('Bcc', message.bcc.map(formatAddress).join(', ')));
  out.push(foldField('Subject', encodeWords(message.subject)), foldField('Message-ID', `<${message.messageId}>`));
  if (message.inReplyTo) out.push(foldField('In-Reply-To', `<${message.inReplyTo}>`));
  if (message.references?.length)
    out.push(foldField('References', message.references.map((id) => `<${id}>`).join(' ')));
  out.push('MIME-Version: 1.0\r\n');
  write(message.body, out);
  if ('parts' in message.body) out.push('\r\n');
  const encoder = new TextEncoder();
  return joinBytes(out.map((piece) => (typeof piece === 'string' ? encoder.encode(piece) : piece)));
}
