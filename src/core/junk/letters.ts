// Letters: two and three of them at a time, of the sender, the subject and the beginning of the text. They know words that
// the filter never saw, or that are spelt otherwise each time (Sculley and Wachman, SIGIR 2007, weigh pieces of letters alone;
// here they are a block of features beside the words: model.ts).
import { hashed } from '../data/hash';
import type { JunkReading } from './junkReading';
import { begunLetters, featureKinds, longestWord, slotOfLetters, type Visit } from './slots';
import { unitKind } from './unitKinds';

const [addressPiece, senderPiece, subjectPiece, textPiece] = (
  ['address piece', 'sender piece', 'subject piece', 'text piece'] as const
).map((name) => featureKinds.indexOf(name));

/** Of the text so many characters, any blanks between words counted as one; of a name, an address or a subject as here. */
const mostOfText = 3_000;
const mostOfHead = 500;

const blank = 32;
const isBlank = (unit: number): boolean => unit <= blank || unit === 0xa0;

/** The pieces of a text in lower case, with a blank before it and after it. */
function lettersOf(kind: number, text: string, most: number, visit: Visit): void {
  let second = 0;
  let first = blank;
  let secondAt = 0;
  let firstAt = 0;
  for (let at = 0, taken = 0; at <= text.length && taken < most; at++) {
    let unit = at < text.length ? text.charCodeAt(at) : blank;
    if (isBlank(unit)) {
      if (first === blank) continue;
      unit = blank;
    }
    taken++;
    const two = hashed(hashed(begunLetters, first), unit);
    visit(slotOfLetters(two), kind, text, firstAt, at + 1);
    if (second) visit(slotOfLetters(hashed(two, second)), kind, text, secondAt, at + 1);
    second = first;
    secondAt = firstAt;
    first = unit;
    firstAt = at;
  }
}

/** Every piece of letters of a message in turn, with repetitions. `text`: its text in lower case. */
export function eachLetters({ from, subject }: JunkReading, text: string, visit: Visit): void {
  lettersOf(senderPiece, from.name.slice(0, mostOfHead).toLowerCase(), mostOfHead, visit);
  lettersOf(addressPiece, from.address.slice(0, mostOfHead).toLowerCase(), mostOfHead, visit);
  lettersOf(subjectPiece, subject.slice(0, mostOfHead).toLowerCase(), mostOfHead, visit);
  lettersOf(textPiece, text, mostOfText, visit);
}

/** Whether a UTF-16 unit is a part of a word. */
const inWord = (unit: number): boolean => unit > blank && unitKind(unit) !== 1;

/** How far back the beginning of a word is looked for. */
const farthestBack = 100;

/** The stretch around a place of which all units are alike, as far as a word is read. */
function stretch(text: string, at: number, alike: (unit: number) => boolean): string {
  let start = at;
  while (start > 0 && at - start < farthestBack && alike(text.charCodeAt(start - 1))) start--;
  let end = at;
  while (end < text.length && end - start < longestWord && alike(text.charCodeAt(end))) end++;
  return text.slice(start, end);
}

/**
 * The word in which most of a piece stands, or after which its marks stand; of an address the whole of it: what stands in it
 * is no word of its own. For the evidence.
 */
export function wordOfPiece(kind: number, text: string, from: number, to: number): string {
  if (kind === addressPiece) return text;
  const within = Array.from({ length: Math.min(to, text.length) - from }, (_, n) => from + n);
  const [first, middle = first, ...rest] = within;
  const of = [middle, first, ...rest].find((at) => inWord(text.charCodeAt(at)));
  if (of !== undefined) return stretch(text, of, inWord);
  let before = first;
  while (before > 0 && !inWord(text.charCodeAt(before - 1)) && first - before < longestWord) before--;
  if (before > 0 && inWord(text.charCodeAt(before - 1))) return stretch(text, before - 1, inWord);
  const mark = within.find((at) => !isBlank(text.charCodeAt(at))) ?? first;
  return stretch(text, mark, (unit) => !isBlank(unit) && !inWord(unit));
}
