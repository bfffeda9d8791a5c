// What of an attachment can be seen without saving it: pictures that run nothing, and texts. By what it is, not by what its
// sender says it is.
import { decodeUnlabelled } from './charset';

/** Larger ones are only saved, in bytes. */
export const mostSeen = 25_000_000;
/** So much of a text is shown, in characters. */
export const longestSeen = 200_000;

const pictureTypes = /^image\/(?:png|jpe?g|pjpeg|gif|webp|bmp|x-ms-bmp)$/;
const pictureNames = /\.(?:png|jpe?g|gif|webp|bmp)$/i;
const textTypes =
  /^(?:text\/|application\/(?:json|xml|x-sh|x-yaml|yaml|csv|ics|pgp-signature)$|message\/delivery-status$)/;
const textNames =
  /\.(?:txt|text|md|csv|tsv|log|ics|vcf|json|xml|ya?ml|ini|cfg|conf|diff|patch|eml|html?|css|js|ts|py|sh|sql|tex|sieve)$/i;

/** Whether an attachment may be worth looking at, by its type and name alone: its bytes tell in the end. */
export function maybeSeen({ type, name, size }: { type: string; name: string | null; size: number }): boolean {
  if (size > mostSeen) return false;
  if (pictureTypes.test(type) || textTypes.test(type)) return true;
  return pictureNames.test(name ?? '') || textNames.test(name ?? '');
}

/** Whether an attachment is a calendar (RFC 5545), by its type or, where that says nothing, by its name. */
export const isCalendar = ({ type, name }: { type: string; name: string | null }): boolean =>
  /^(text\/calendar|application\/ics)/i.test(type) || /\.ics$/i.test(name ?? '');

/** What an attachment is called and saved as: by its name, or by what it is and its position among the attachments. */
export function attachmentName({ type, name }: { type: string; name: string | null }, index: number): string {
  if (name) return name;
  const [stem, end] = isCalendar({ type, name })
    ? ['calendar', '.ics']
    : type === 'message/rfc822'
      ? ['message', '.eml']
      : ['attachment', ''];
  return `${stem}-${index + 1}${end}`;
}

/** The beginnings of pictures (their specifications: PNG, JFIF and EXIF, GIF87a and GIF89a, RIFF with WEBP, BMP). */
const signatures: readonly (readonly [type: string, at: number, bytes: readonly number[]])[] = [
  ['image/png', 0, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]],
  ['image/jpeg', 0, [0xff, 0xd8, 0xff]],
  ['image/gif', 0, [0x47, 0x49, 0x46, 0x38]],
  ['image/webp', 8, [0x57, 0x45, 0x42, 0x50]],
  ['image/bmp', 0, [0x42, 0x4d]],
];

/** What is seen of an attachment. */
export type Seen =
  | { kind: 'picture'; type: string }
  /** `cut`: only its beginning is shown. */
  | { kind: 'text'; text: string; cut: boolean }
  | { kind: 'nothing' };

/** Bytes of a text have hardly any control characters; what has a NUL is none. */
function looksLikeText(text: string): boolean {
  const start = text.slice(0, 4_000);
  if (start.includes('\0')) return false;
  const controls = start.match(/[\x01-\x08\x0e-\x1a\x1c-\x1f\ufffd]/g)?.length ?? 0;
  return controls * 20 <= start.length;
}

/** What the bytes of an attachment show: a picture by its signature, else a text, else nothing. Never SVG, which can act. */
export function seenAs(bytes: Uint8Array): Seen {
  const picture = signatures.find(([, at, sign]) => sign.every((byte, i) => bytes[at + i] === byte));
  if (picture) return { kind: 'picture', type: picture[0] };
  const [first, second] = bytes;
  const utf16 = first === 0xff && second === 0xfe ? 'utf-16le' : first === 0xfe && second === 0xff ? 'utf-16be' : null;
  // A character takes four bytes at most.
  const part = bytes.subarray(0, longestSeen * 4);
  const text = utf16 ? new TextDecoder(utf16).decode(part) : decodeUnlabelled(part);
  if (!looksLikeText(text)) return { kind: 'nothing' };
  return {
    kind: 'text',
    text: text.slice(0, longestSeen),
    cut: text.length > longestSeen || part.length < bytes.length,
  };
}
