// The writing system of a text (Unicode Script property, UAX #24), by its code of ISO 15924.

/** Scripts that are told apart. Han, kana and Hangul first: Japanese and Korean text also has Han characters. */
const shapes: readonly (readonly [code: string, shape: RegExp])[] = [
  ['Jpan', /[\p{Script=Hiragana}\p{Script=Katakana}]/u],
  ['Kore', /\p{Script=Hangul}/u],
  ['Hani', /\p{Script=Han}/u],
  ['Cyrl', /\p{Script=Cyrillic}/u],
  ['Arab', /\p{Script=Arabic}/u],
  ['Hebr', /\p{Script=Hebrew}/u],
  ['Grek', /\p{Script=Greek}/u],
  ['Thai', /\p{Script=Thai}/u],
  ['Deva', /\p{Script=Devanagari}/u],
  ['Beng', /\p{Script=Bengali}/u],
  ['Taml', /\p{Script=Tamil}/u],
  ['Armn', /\p{Script=Armenian}/u],
  ['Geor', /\p{Script=Georgian}/u],
  ['Ethi', /\p{Script=Ethiopic}/u],
  ['Khmr', /\p{Script=Khmer}/u],
  ['Mymr', /\p{Script=Myanmar}/u],
  ['Latn', /\p{Script=Latin}/u],
];

/** The codes of the scripts that can be told apart. */
export const scriptCodes: readonly string[] = shapes.map(([code]) => code);

/** A mostly Han text with this share of kana is Japanese: no Japanese sentence has less. */
const kanaShare = 0.05;
const read = 4_000;
const plainLatin = /^[\0-\x7f]*$/;

/**
 * The script in which most letters of a text are written, as a code of ISO 15924; empty where it has no letters. Only
 * its first 4,000 characters count.
 */
export function scriptOf(text: string): string {
  const start = text.slice(0, read);
  if (plainLatin.test(start)) return /[a-z]/i.test(start) ? 'Latn' : '';
  const counts = new Map<string, number>();
  for (const character of start) {
    if (character < 'A') continue;
    const found = shapes.find(([, shape]) => shape.test(character));
    if (found) counts.set(found[0], (counts.get(found[0]) ?? 0) + 1);
  }
  const [han, kana] = [counts.get('Hani') ?? 0, counts.get('Jpan') ?? 0];
  if (kana > 0 && kana >= kanaShare * (han + kana)) {
    counts.set('Jpan', han + kana);
    counts.delete('Hani');
  }
  let best = '';
  for (const [code, n] of counts) if (n > (counts.get(best) ?? 0)) best = code;
  return best;
}
