// Comparing texts as Sieve does, so that a rule means the same here and on a mail server.

const beyondAscii = /[^\0-\x7f]/;

/** Upper and lower case of US-ASCII alike: the comparator i;ascii-casemap (RFC 4790, section 9.2). */
export function foldAscii(text: string): string {
  return beyondAscii.test(text) ? text.replace(/[A-Z]+/g, (letters) => letters.toLowerCase()) : text.toLowerCase();
}

/**
 * Upper and lower case of all writing systems alike, and the forms of one character: the comparator i;unicode-casemap
 * (RFC 5051, section 2), which scripts of others may name: each character to title case where that is one character, then taken apart (NFKD).
 */
export function foldUnicode(text: string): string {
  if (!beyondAscii.test(text)) return text.toUpperCase();
  let out = '';
  for (const char of text) {
    const upper = char.toUpperCase();
    out += [...upper].length === 1 ? upper : char;
  }
  return out.normalize('NFKD');
}

/**
 * A text in the spellings that are looked for, folded: as it is, and with its letters beyond US-ASCII in either case,
 * since every server has i;ascii-casemap and few have a comparator that knows the case of those.
 */
export const spellings = (text: string): string[] => [
  ...new Set([text, text.toLowerCase(), text.toUpperCase()].map(foldAscii)),
];
