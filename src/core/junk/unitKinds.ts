// What words are made of.

/** Of each UTF-16 unit: 1 no part of a word, 2 part of one, 3 a character of a script without spaces; 0 not yet known. */
const units = new Uint8Array(65_536);
const letter = /[\p{L}\p{N}$'’.@-]/u;
const unspaced =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u;
/** Halves of a surrogate pair belong to words: letters of rarer scripts, and emoji, which say something too. */
function kindOfUnit(unit: number): number {
  const character = String.fromCharCode(unit);
  const inWord = (unit >= 0xd800 && unit < 0xe000) || letter.test(character);
  return (units[unit] = inWord ? (unspaced.test(character) ? 3 : 2) : 1);
}
export const unitKind = (unit: number): number => units[unit] || kindOfUnit(unit);

const markOrNot = new Uint8Array(65_536);
const noMark = /[\p{L}\p{N}\s]/u;

/** Whether a UTF-16 unit is a mark: no letter, no digit, no space; halves of a surrogate pair are none. */
export function isMark(unit: number): boolean {
  const known = markOrNot[unit];
  if (known) return known === 2;
  const is = (unit < 0xd800 || unit >= 0xe000) && !noMark.test(String.fromCharCode(unit));
  markOrNot[unit] = is ? 2 : 1;
  return is;
}

/** What a character of a shape is made of: a capital, a small letter, a digit, or itself (0). */
const shapes = new Uint16Array(65_536);
const [capital, small, digit] = [/\p{Lu}/u, /\p{Ll}/u, /\p{N}/u];

/** The UTF-16 unit that stands for another in a shape: `A`, `a`, `9`, or itself. */
export function shapeUnit(unit: number): number {
  if (shapes[unit]) return shapes[unit];
  const character = String.fromCharCode(unit);
  const stands = capital.test(character) ? 65 : small.test(character) ? 97 : digit.test(character) ? 57 : unit || 32;
  return (shapes[unit] = stands);
}
