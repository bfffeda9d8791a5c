// Pieces and shapes: what is left of a word that is spelt otherwise each time, and how names, addresses and links are built.
// Four letters each, as logistic regression and support vector machines on pieces of letters have them (Sculley and Wachman,
// SIGIR 2007; there of the whole text, here of the subject and the sender: docs/junk.md).
import { hashed } from '../data/hash';
import type { JunkReading } from './junkReading';
import { begun, featureKinds, slotOf, slotOfWord, type Visit } from './slots';
import { isMark, shapeUnit, unitKind } from './unitKinds';

const kindOf = (name: (typeof featureKinds)[number]): number => featureKinds.indexOf(name);
const [subjectPiece, senderPiece, marks, shape] = (['subject piece', 'sender piece', 'marks', 'shape'] as const).map(
  kindOf,
);

/** Letters of a piece. */
const pieceLength = 4;
/** Longer than this no subject and no sender is taken to pieces, in characters. */
const mostTaken = 500;
/** What of a name, an address or a link its shape is made of, and how long the shape is, in characters. */
const mostShaped = 200;
const longestShape = 20;

const longestMarks = 6;

/** A text as it is built: `Ann7` and `Bob12` are both `Aa9`. */
function shapeOf(text: string): string {
  let out = '';
  let last = 0;
  for (let at = 0; at < Math.min(text.length, mostShaped) && out.length < longestShape; at++) {
    const unit = shapeUnit(text.charCodeAt(at));
    // A run of letters or digits is one.
    if (unit === last && (unit === 65 || unit === 97 || unit === 57)) continue;
    out += String.fromCharCode(unit);
    last = unit;
  }
  return out;
}

/** Runs of two to six marks. */
function marksOf(text: string, visit: Visit): void {
  for (let at = 0; at < text.length; at++) {
    if (!isMark(text.charCodeAt(at))) continue;
    const from = at;
    let hash = hashed(begun(marks), text.charCodeAt(at));
    while (at + 1 < text.length && at + 1 - from < longestMarks && isMark(text.charCodeAt(at + 1)))
      hash = hashed(hash, text.charCodeAt(++at));
    if (at > from) visit(slotOf(hash), marks, text, from, at + 1);
  }
}

/**
 * The pieces of a text, each named by the word in which it mostly stands. `whole`: from there on the rest is one word.
 */
function piecesOf(kind: number, text: string, visit: Visit, whole = text.length): void {
  const lower = text.toLowerCase();
  // Letters whose small form is longer are named as they are.
  const names = lower.length === text.length ? lower : text;
  let [from, to] = [0, 0];
  for (let at = 0; at + pieceLength <= text.length; at++) {
    let hash = begun(kind);
    for (let i = at; i < at + pieceLength; i++) hash = hashed(hash, text.charCodeAt(i));
    const middle = at + 1;
    if (middle >= to) {
      from = middle;
      if (middle >= whole) to = text.length;
      else for (to = middle; to < whole && unitKind(text.charCodeAt(to)) !== 1; to++);
    }
    if (to > from) visit(slotOf(hash), kind, names, from, to);
    else visit(slotOf(hash), kind, names, at, at + pieceLength);
  }
}

/** What has a shape, in words. */
const shaped: Record<string, string> = {
  address: 'a sender’s address',
  name: 'a sender’s name',
  subject: 'a subject',
  path: 'a link',
  host: 'a link to a host',
};

/** The word of a shape as a person reads it: `address Aa9` is a sender’s address written like “Abc123”. */
export function shapeWords(word: string): string {
  const [what, like] = [word.slice(0, word.indexOf(' ')), word.slice(word.indexOf(' ') + 1)];
  const example = like.replace(/Aa|A|a|9/g, (run) => ({ Aa: 'Abc', A: 'ABC', a: 'abc' })[run] ?? '123');
  return `${shaped[what]} written like “${example}”`;
}

function builtLike(what: string, like: string, visit: Visit): void {
  const word = `${what} ${like}`;
  visit(slotOfWord(shape, word), shape, word, 0, word.length);
}

/** Every piece and shape of a message in turn, with repetitions. */
export function eachPiece({ subject, from, text, links }: JunkReading, visit: Visit): void {
  // The marks at both ends tell pieces there from others.
  const ended = `^${subject.slice(0, mostTaken)}$`;
  piecesOf(subjectPiece, ended, visit, ended.length - 1);
  const name = `^${from.name.slice(0, mostTaken)} `.toLowerCase();
  piecesOf(senderPiece, `${name}${from.address.slice(0, mostTaken).toLowerCase()}`, visit, name.length);
  marksOf(text, visit);
  builtLike('address', shapeOf(from.address.slice(0, Math.max(0, from.address.lastIndexOf('@')))), visit);
  builtLike('name', shapeOf(from.name), visit);
  builtLike('subject', shapeOf(subject), visit);
  for (const like of new Set(links.map(({ path }) => shapeOf(path)))) builtLike('path', like, visit);
  for (const like of new Set(links.map(({ host }) => shapeOf(host)))) builtLike('host', like, visit);
}
