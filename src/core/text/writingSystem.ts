// The writing system of a text (Unicode Script property, UAX #24), by its code of ISO 15924.

/** Scripts that are told apart. Han, kana and Hangul first: Japanese and Korean text also has Han characters. */
const scripts: readonly (readonly [code: string, ...names: string[]])[] = [
  ['Jpan', 'Hiragana', 'Katakana'],
  ['Kore', 'Hangul'],
  ['Hani', 'Han'],
  ['Cyrl', 'Cyrillic'],
  ['Arab', 'Arabic'],
  ['Hebr', 'Hebrew'],
  ['Grek', 'Greek'],
  ['Thai', 'Thai'],
  ['Deva', 'Devanagari'],
  ['Beng', 'Bengali'],
  ['Taml', 'Tamil'],
  ['Armn', 'Armenian'],
  ['Geor', 'Georgian'],
  ['Ethi', 'Ethiopic'],
  ['Khmr', 'Khmer'],
  ['Mymr', 'Myanmar'],
  ['Latn', 'Latin'],
];

/** The codes of the scripts that can be told apart. */
export const scriptCodes: readonly string[] = scripts.map(([code]) => code);

/** A mostly Han text with this share of kana is Japanese: no Japanese sentence has less. */
const kanaShare = 0.05;
const read = 4_000;
const plainLatin = /^[\0-\x7f]*$/;
const [japanese, han] = [scriptCodes.indexOf('Jpan'), scriptCodes.indexOf('Hani')];
const none = scripts.length;

/** Of each UTF-16 unit one more than the position of its script; 0 not yet known. Most text is written in few of them. */
const known = new Uint8Array(0x1_0000);

/** Made when first asked: that takes as long as half the page’s program to begin, and plain Latin text needs none. */
let shapes: readonly RegExp[] | null = null;

const positionOf = (character: string): number => {
  shapes ??= scripts.map(([, ...names]) => new RegExp(`[${names.map((name) => `\\p{Script=${name}}`).join('')}]`, 'u'));
  const found = shapes.findIndex((shape) => shape.test(character));
  return found < 0 ? none : found;
};

/** The position of a script among {@link scripts}, for the character that begins at `at`. */
function scriptAt(text: string, at: number): number {
  const unit = text.charCodeAt(at);
  // A pair of units is one letter of a rarer script; its second half is by itself of none.
  if (unit >= 0xd800 && unit < 0xdc00) return positionOf(String.fromCodePoint(text.codePointAt(at) ?? unit));
  return (known[unit] ||= positionOf(text[at]) + 1) - 1;
}

/**
 * The script in which most letters of a text are written, as a code of ISO 15924; empty where it has no letters. Only
 * its first 4,000 characters count.
 */
export function scriptOf(text: string): string {
  const start = text.slice(0, read);
  if (plainLatin.test(start)) return /[a-z]/i.test(start) ? 'Latn' : '';
  const counts = new Uint32Array(none + 1);
  for (let at = 0; at < start.length; at++) counts[scriptAt(start, at)]++;
  if (counts[japanese] > 0 && counts[japanese] >= kanaShare * (counts[han] + counts[japanese])) {
    counts[japanese] += counts[han];
    counts[han] = 0;
  }
  let best = -1;
  for (let at = 0; at < none; at++) if (counts[at] > (best < 0 ? 0 : counts[best])) best = at;
  return best < 0 ? '' : scriptCodes[best];
}
