// Marks: where in a text stands what a query looks for.
import { foldSearch } from '../text/fold';
import type { Query } from './query';

/** What a text is of a message. */
export type MarkedPart = 'people' | 'subject' | 'text';

const partsOf: Partial<Record<Query['key'], readonly MarkedPart[]>> = {
  from: ['people'],
  to: ['people'],
  cc: ['people'],
  subject: ['subject'],
  body: ['text'],
  text: ['people', 'subject', 'text'],
  words: ['people', 'subject', 'text'],
};

/** The texts that a query looks for in a part of a message, folded; not those that it must not have. */
export function soughtIn(part: MarkedPart, query: Query): string[] {
  if (query.key === 'not') return [];
  if (query.key === 'and' || query.key === 'or') return [...new Set(query.of.flatMap((of) => soughtIn(part, of)))];
  if (!('text' in query) || !partsOf[query.key]?.includes(part)) return [];
  const text = foldSearch(query.text.replace(/\s+/g, ' '));
  return text.trim() === '' ? [] : [text];
}

/** A piece of a text, marked or not. */
export interface Piece {
  text: string;
  marked: boolean;
}

/** Texts longer than this are looked through no further. */
const longest = 300_000;

/** A text folded, each run of blanks one space, with where each of its characters came from. */
function foldedWithPlaces(text: string): { folded: string; places: number[] } {
  let folded = '';
  const places: number[] = [];
  let at = 0;
  let blank = false;
  for (const character of text) {
    const isBlank = /\s/.test(character);
    const piece = isBlank ? (blank ? '' : ' ') : foldSearch(character);
    for (let i = 0; i < piece.length; i++) places.push(at);
    folded += piece;
    blank = isBlank;
    at += character.length;
  }
  places.push(at);
  return { folded, places };
}

/** Where the sought texts stand, as stretches from and up to (UTF-16 units), in order, none over another. */
export function marksIn(text: string, sought: readonly string[]): [from: number, to: number][] {
  if (sought.length === 0) return [];
  const { folded, places } = foldedWithPlaces(text.slice(0, longest));
  const found: [number, number][] = [];
  // An empty text stands everywhere and is nowhere to be seen.
  for (const one of sought.filter(Boolean))
    for (let at = folded.indexOf(one); at >= 0; at = folded.indexOf(one, at + one.length))
      found.push([places[at], places[at + one.length]]);
  found.sort((a, b) => a[0] - b[0] || b[1] - a[1]);
  const out: [number, number][] = [];
  for (const [from, to] of found) {
    const last = out.at(-1);
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    // What folds to nothing of its own, as a mark after its letter, is no stretch.
    else if (to > from) out.push([from, to]);
  }
  return out;
}

/** A text in pieces, marked where the sought texts stand. */
export function piecesOf(text: string, sought: readonly string[]): Piece[] {
  const out: Piece[] = [];
  let end = 0;
  for (const [from, to] of marksIn(text, sought)) {
    if (from > end) out.push({ text: text.slice(end, from), marked: false });
    out.push({ text: text.slice(from, to), marked: true });
    end = to;
  }
  if (end < text.length || out.length === 0) out.push({ text: text.slice(end), marked: false });
  return out;
}

/** Characters shown before what was found, and in all. */
const before = 14;
const longestPassage = 160;

/** A text around the first place where one of the sought stands; null where none does. */
export function passageOf(text: string, sought: readonly string[]): string | null {
  const [first] = marksIn(text, sought);
  if (!first) return null;
  // From the beginning of a word.
  const from = first[0] <= before ? 0 : text.indexOf(' ', first[0] - before) + 1;
  const begin = from > 0 && from <= first[0] ? from : Math.max(0, first[0] - before);
  const passage = text
    .slice(begin, begin + longestPassage)
    .replace(/\s+/g, ' ')
    .trim();
  return begin > 0 ? `… ${passage}` : passage;
}
