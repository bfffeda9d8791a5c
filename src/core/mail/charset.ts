// Character sets: bytes to text, whatever label a stranger put on them.

const decoders = new Map<string, TextDecoder | null>();

/** Labels seen in real mail that the Encoding Standard does not list, and what their writers meant. */
const aliases: Record<string, string> = {
  ansi: 'windows-1252',
  'ansi_x3.110-1983': 'iso-8859-1',
  default: 'windows-1252',
  default_charset: 'windows-1252',
  'iso-8859-8-i': 'iso-8859-8',
  'unicode-1-1-utf-7': 'utf-7',
  us: 'us-ascii',
  'x-unknown': 'windows-1252',
  unknown: 'windows-1252',
  'unknown-8bit': 'windows-1252',
  cp1252: 'windows-1252',
  cp1251: 'windows-1251',
  cp936: 'gbk',
  cp949: 'euc-kr',
  cp932: 'shift_jis',
};

function decoderFor(label: string): TextDecoder | null {
  const key = label.trim().toLowerCase();
  let decoder = decoders.get(key);
  if (decoder === undefined) {
    try {
      decoder = new TextDecoder(aliases[key] ?? key, { ignoreBOM: false });
    } catch {
      decoder = null;
    }
    if (decoders.size < 500) decoders.set(key, decoder);
  }
  return decoder;
}

const utf8 = new TextDecoder('utf-8');
const strictUtf8 = new TextDecoder('utf-8', { fatal: true });
const replacement = '\ufffd';
const latin = new TextDecoder('windows-1252');

/** What windows-1252 has at 0x80 to 0x9f (Encoding Standard, index windows-1252). */
const windows1252 =
  '\u20ac\u0081\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\u008d\u017d\u008f' +
  '\u0090\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\u009d\u017e\u0178';
const windows1252Units = Uint16Array.from({ length: 256 }, (_, byte) =>
  byte >= 0x80 && byte <= 0x9f ? windows1252.charCodeAt(byte - 0x80) : byte,
);
const utf16 = new TextDecoder('utf-16le');
const upperControl = new RegExp('[\\u0080-\\u009f]');
const isStandard = latin.decode(Uint8Array.of(0x80)) === windows1252[0];

/**
 * Windows-1252 as the standard has it. Node.js 20 reads it as ISO-8859-1, which leaves control characters where the
 * standard has letters and signs; in browsers there is nothing to mend.
 */
function decodeLatin(bytes: Uint8Array): string {
  const text = latin.decode(bytes);
  if (isStandard || !upperControl.test(text)) return text;
  const units = new Uint16Array(bytes.length);
  for (let at = 0; at < bytes.length; at++) units[at] = windows1252Units[bytes[at]];
  return utf16.decode(new Uint8Array(units.buffer));
}

/**
 * Bytes as text with one UTF-16 unit for each byte, so that an index into the text is an index into the bytes.
 * Bytes below 0x80 are themselves; the others are something else than those.
 */
export function byteText(bytes: Uint8Array): string {
  return latin.decode(bytes);
}

/** Whether U+FFFD itself stands in some bytes, as UTF-8. */
function holdsReplacement(bytes: Uint8Array): boolean {
  for (let at = bytes.indexOf(0xef); at >= 0; at = bytes.indexOf(0xef, at + 1))
    if (bytes[at + 1] === 0xbf && bytes[at + 2] === 0xbd) return true;
  return false;
}

/** Bytes without a label: UTF-8 where they are valid UTF-8 (RFC 6532), else windows-1252. */
export function decodeUnlabelled(bytes: Uint8Array): string {
  const text = utf8.decode(bytes);
  if (!text.includes(replacement)) return text;
  // To throw costs much more than to read, and a stranger may send it line by line: only where it must be asked.
  if (!holdsReplacement(bytes)) return decodeLatin(bytes);
  try {
    return strictUtf8.decode(bytes);
  } catch {
    return decodeLatin(bytes);
  }
}

/** Whether a label names a character set that can be read here. */
export function isKnownCharset(label: string): boolean {
  return decoderFor(label) !== null;
}

/**
 * Bytes to text by the label of a MIME part or an encoded word. Bytes that do not fit become U+FFFD; a label that
 * nobody knows, `us-ascii` and none at all are read as {@link decodeUnlabelled} says.
 */
export function decodeText(bytes: Uint8Array, label: string | null): string {
  const key = label?.trim().toLowerCase() ?? '';
  if (key === '' || key === 'us-ascii' || key === 'ascii') return decodeUnlabelled(bytes);
  const decoder = decoderFor(key);
  if (decoder?.encoding === 'windows-1252') return decodeLatin(bytes);
  return decoder?.decode(bytes) ?? decodeUnlabelled(bytes);
}

/**
 * The text of a file of cards or of a calendar, in whatever character set it is written: UTF-8 by their standards (RFC 6350,
 * section 3.1; RFC 5545, section 3.1.4).
 */
export function textOfFile(bytes: Uint8Array): string {
  const mark =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : null;
  if (mark) return decodeText(bytes.subarray(2), mark);
  const text = decodeText(bytes, 'utf-8');
  return (text.includes('\ufffd') ? decodeText(bytes, 'windows-1252') : text).replace(/^\ufeff/, '');
}
