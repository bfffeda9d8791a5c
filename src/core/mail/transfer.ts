// Content-Transfer-Encoding (RFC 2045, section 6): base64, quoted-printable and the rest as they are.
import { byteText } from './charset';

const base64Values = new Int8Array(256).fill(-1);
for (const [i, c] of [...'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'].entries())
  base64Values[c.charCodeAt(0)] = i;

const hexValue = (c: number): number =>
  c >= 48 && c <= 57 ? c - 48 : c >= 65 && c <= 70 ? c - 55 : c >= 97 && c <= 102 ? c - 87 : -1;

/** How many base64 letters are in the bytes, up to the first padding; everything else is passed over (section 6.8). */
function base64Letters(bytes: Uint8Array): number {
  let letters = 0;
  for (let i = 0; i < bytes.length; i++) {
    const c = bytes[i];
    if (c === 61) break;
    if (base64Values[c] >= 0) letters++;
  }
  return letters;
}

/** Base64 to bytes. Characters outside the alphabet are passed over, as RFC 2045, section 6.8, asks. */
export function decodeBase64(bytes: Uint8Array): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(Math.ceil((bytes.length * 3) / 4));
  const { length } = bytes;
  let at = 0;
  let held = 0;
  let bits = 0;
  for (let i = 0; i < length;) {
    // Four letters at once, as long as nothing stands between them.
    if (bits === 0 && i + 3 < length) {
      const four =
        (base64Values[bytes[i]] << 18) |
        (base64Values[bytes[i + 1]] << 12) |
        (base64Values[bytes[i + 2]] << 6) |
        base64Values[bytes[i + 3]];
      if (four >= 0) {
        out[at] = four >> 16;
        out[at + 1] = (four >> 8) & 0xff;
        out[at + 2] = four & 0xff;
        at += 3;
        i += 4;
        continue;
      }
    }
    const c = bytes[i++];
    if (c === 61) break;
    const value = base64Values[c];
    if (value < 0) continue;
    held = ((held << 6) | value) & 0xffffff;
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      out[at++] = (held >> bits) & 0xff;
    }
  }
  return out.slice(0, at);
}

/** Quoted-printable to bytes (RFC 2045, section 6.7). A wrong escape stays as it stands. `underscores`: RFC 2047's Q. */
export function decodeQuotedPrintable(bytes: Uint8Array, underscores = false): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(bytes.length);
  let at = 0;
  for (let i = 0; i < bytes.length; i++) {
    const c = bytes[i];
    if (c === 61) {
      // A soft line break, with or without blanks that a transport added before it.
      let end = i + 1;
      while (bytes[end] === 32 || bytes[end] === 9) end++;
      if (bytes[end] === 10 || end >= bytes.length) {
        i = end;
        continue;
      }
      if (bytes[end] === 13 && bytes[end + 1] === 10) {
        i = end + 1;
        continue;
      }
      const high = hexValue(bytes[i + 1]);
      const low = hexValue(bytes[i + 2]);
      if (high >= 0 && low >= 0) {
        out[at++] = (high << 4) | low;
        i += 2;
        continue;
      }
    }
    out[at++] = underscores && c === 95 ? 32 : c;
  }
  return out.slice(0, at);
}

/** The bytes of a body as its Content-Transfer-Encoding says; an unknown encoding leaves them as they are. */
export function decodeTransfer(bytes: Uint8Array, encoding: string): Uint8Array {
  if (encoding === 'base64') return decodeBase64(bytes);
  if (encoding === 'quoted-printable') return decodeQuotedPrintable(bytes);
  return bytes;
}

/** The size in bytes that {@link decodeTransfer} would give, without making it where that can be had by counting. */
export function decodedSize(bytes: Uint8Array, encoding: string): number {
  if (encoding === 'base64') return Math.floor((base64Letters(bytes) * 3) / 4);
  if (encoding === 'quoted-printable') return decodeQuotedPrintable(bytes).length;
  return bytes.length;
}

/** Whether base64 was cut: one letter over a whole number of bytes can stand for nothing. */
export function isCutBase64(bytes: Uint8Array): boolean {
  return base64Letters(bytes) % 4 === 1;
}

/** Bytes as base64 in lines of 76 characters, each ended by `newline` (RFC 2045, section 6.8). */
export function encodeBase64(bytes: Uint8Array, newline = '\r\n', width = 76): string {
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
  const out: string[] = [];
  for (let i = 0; i < bytes.length; i += 3) {
    const n = (bytes[i] << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
    const left = bytes.length - i;
    out.push(
      letters[n >> 18] +
        letters[(n >> 12) & 63] +
        (left > 1 ? letters[(n >> 6) & 63] : '=') +
        (left > 2 ? letters[n & 63] : '='),
    );
  }
  const whole = out.join('');
  if (!width) return whole;
  return (whole.match(new RegExp(`.{1,${width}}`, 'g')) ?? []).map((line) => line + newline).join('');
}

/** Bytes as quoted-printable, lines at most 76 characters, `newline` between them (RFC 2045, section 6.7). */
export function encodeQuotedPrintable(bytes: Uint8Array, newline = '\r\n'): string {
  const lines = byteText(bytes).split(/\r?\n/);
  let at = 0;
  const out: string[] = [];
  for (const text of lines) {
    let line = '';
    for (let i = 0; i < text.length; i++) {
      const c = bytes[at + i];
      const last = i === text.length - 1;
      const plain = (c >= 33 && c <= 126 && c !== 61) || ((c === 32 || c === 9) && !last);
      const token = plain ? String.fromCharCode(c) : `=${c.toString(16).toUpperCase().padStart(2, '0')}`;
      if (line.length + token.length > 75) {
        out.push(`${line}=`);
        line = '';
      }
      line += token;
    }
    out.push(line);
    at += text.length + (bytes[at + text.length] === 13 ? 2 : 1);
  }
  return out.join(newline);
}
