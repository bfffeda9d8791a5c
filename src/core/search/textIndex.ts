// The text index: the words of every message in their order, as numbers, so that its text can be searched, and its header
// fields be read, without opening the message.
//
// Words are what stands between blanks, folded. A text is in a body just where its words follow one another there: the
// first at its end, the last at its beginning, those between them whole. A segment holds the messages of one stretch of
// ids; once full it never changes.
import { foldSearch } from '../mail/fold';
import { blanksAsOne } from '../rules/deep';
import type { TextBatch } from './textBatch';
import {
  phraseOf,
  segmentSize,
  testOf,
  Units,
  type FieldPlaces,
  type PackedUnits,
  type Part,
  type Postings,
} from './units';
import { WordTable, type Folding } from './wordTable';

/** What stands before the name of a header field among the words of a header. */
export const fieldMark = '\u0001';
/** Stands before blanks of a value that are not one space. */
export const blankMark = '\u0002';
/** In the place of a value that is not kept: the message has to be read. */
export const notKept = '\u0003';
/** The same where a field that is kept has a value which looks like the marks of the index. */
export const irregularValue = '\u0004';
/** Fields that say how a message travelled: nearly nobody looks for them, and they would be half of all words. */
export const notKeptFields = /^(?:received|x-received|dkim-signature|arc-.*|authentication-results)$/;

/** A segment as it is stored: its different words, between line ends, and the words of its messages by their position. */
export interface PackedSegment extends PackedUnits {
  words: string;
}

/** The messages of one stretch of ids, numbered from 0 within it. */
export class TextSegment {
  /** The positions of the words; null while the segment is held as it is stored. */
  private open: Map<string, number> | null = new Map();
  private words = new WordTable();
  private units = new Units();
  /** Made when they are first asked for; they follow from the rest. */
  private postings: Record<Part, Postings> | null = null;
  private names: Uint8Array = new Uint8Array(0);
  private fields: FieldPlaces | null = null;
  /** The words of the batch that is being taken in, by their positions here; -1 not yet known. */
  private taking: { batch: TextBatch; words: string[]; positions: Int32Array } | null = null;

  /** Takes a stored segment back, of which only the first `count` messages still count. */
  static of(stored: PackedSegment, count = stored.count): TextSegment {
    const segment = new TextSegment();
    segment.hold(stored);
    if (count < stored.count) segment.drop(count);
    return segment;
  }

  get count(): number {
    return this.units.count;
  }

  private hold(stored: PackedSegment): void {
    this.open = this.taking = null;
    this.words = WordTable.of(stored.words).trim();
    this.units = Units.of(stored);
  }

  private opened(): Map<string, number> {
    if (this.open) return this.open;
    this.open = new Map(Array.from({ length: this.words.size }, (_, at) => [this.words.word(at), at]));
    this.units = this.units.opened();
    return this.open;
  }

  /** Takes in the `at`th message of a batch; null for one that can't be read. */
  add(batch: TextBatch | null, at = 0): void {
    const open = this.opened();
    const { units } = this;
    this.postings = this.fields = null;
    if (batch && this.taking?.batch !== batch) {
      const words = batch.words.split('\n');
      this.taking = { batch, words, positions: new Int32Array(words.length).fill(-1) };
    }
    for (const [n, part] of (['body', 'header'] as const).entries()) {
      if (batch && this.taking) {
        const { tokens, ends } = batch;
        const { words, positions } = this.taking;
        const to = ends[2 * at + n];
        for (let i = at + n > 0 ? ends[2 * at + n - 1] : 0; i < to; i++) {
          const token = tokens[i];
          if (positions[token] < 0) {
            const known = open.get(words[token]);
            if (known === undefined) {
              open.set(words[token], open.size);
              this.words.add(words[token]);
            }
            positions[token] = known ?? open.size - 1;
          }
          units.put(positions[token]);
        }
      }
      units.end(part);
    }
  }

  /** Forgets the messages from `count` on; their words stay, and are found nowhere. */
  drop(count: number): void {
    this.opened();
    this.postings = this.fields = null;
    this.units.drop(count);
  }

  /** The segment ready to be stored. A full one is held in this form from now on: it takes a third of the memory. */
  pack(): PackedSegment {
    const packed = { words: this.words.joined(), ...this.units.packed() };
    if (this.open && this.count >= segmentSize) this.hold(packed);
    return packed;
  }

  /** One for each message that has a text in its body: folded, each run of blanks one space. */
  holding(text: string, folding: Folding = 'rules'): Uint8Array {
    const fits = this.fitsOf(text, folding);
    return fits ? this.having(fits, 'body') : new Uint8Array(this.count);
  }

  /** One for each message that has a text, folded for searching, in what its header fields say. */
  inHeader(text: string): Uint8Array {
    const fits = this.fitsOf(text, 'search');
    if (!fits) return new Uint8Array(this.count);
    // The name of a field is no part of what it says.
    const names = this.fieldNames();
    return this.having(
      fits.map((fit) => fit.filter((word) => names[word] === 0)),
      'header',
    );
  }

  /** One for each message in a part of which words that fit stand one after another. */
  private having(fits: readonly (readonly number[])[], part: Part): Uint8Array {
    const out = this.havingAll(fits, part);
    if (fits.length < 2) return out;
    const phrase = phraseOf(fits, this.words.size);
    for (let message = 0; message < this.count; message++)
      if (out[message] && !this.units.having(phrase, message, part)) out[message] = 0;
    return out;
  }

  /** For each word of a text the words here that fit it; null where one has none. */
  private fitsOf(text: string, folding: Folding): (readonly number[])[] | null {
    const parts = text.split(' ');
    const last = parts.length - 1;
    const fits: (readonly number[])[] = [];
    for (const [i, part] of parts.entries()) {
      const fit = last === 0 ? 'within' : i === 0 ? 'ends' : i === last ? 'begins' : 'whole';
      const its = this.words.fitting(fit, part, folding);
      if (its.length === 0) return null;
      fits.push(its);
    }
    return fits;
  }

  /** One for each message that has a word for each of some fits in a part, wherever it stands there. */
  private havingAll(fits: readonly (readonly number[])[], part: Part): Uint8Array {
    const { starts, messages, filled } = this.posted()[part];
    const having = new Uint8Array(this.count);
    for (let i = 0; i < fits.length; i++) {
      let left = filled;
      for (const word of fits[i]) {
        // Once all have it, as with a single letter, the rest of the words tells nothing new.
        if (left === 0) break;
        for (let at = starts[word], to = starts[word + 1]; at < to; at++)
          // It counts the fits: only who had all the others can have this one, too.
          if (having[messages[at]] === i) {
            having[messages[at]] = i + 1;
            left--;
          }
      }
    }
    for (let message = 0; message < having.length; message++) having[message] = having[message] === fits.length ? 1 : 0;
    return having;
  }

  /** Of each word the messages that have it in their body, and in their header. */
  private posted(): Record<Part, Postings> {
    const { units } = this;
    const { size } = this.words;
    return (this.postings ??= { body: units.posted('body', size), header: units.posted('header', size) });
  }

  /** One for each word that is the name of a header field. */
  private fieldNames(): Uint8Array {
    if (this.names.length !== this.words.size)
      this.names = testOf(this.words.fitting('begins', fieldMark, 'rules'), this.words.size);
    return this.names;
  }

  private fieldPlaces(): FieldPlaces {
    return (this.fields ??= this.units.fieldPlaces(this.fieldNames()));
  }

  /** Makes ready what the first question would have to wait for. */
  warm(): void {
    this.posted();
    this.fieldPlaces();
    this.words.fitting('within', 'warm', 'search');
  }

  /** About how many bytes it takes in memory, with all that was made of it to answer questions. */
  get bytes(): number {
    const { body, header } = this.postings ?? {};
    const lists = [body?.starts, body?.messages, header?.starts, header?.messages];
    const fields = this.fields ? this.fields.places.byteLength + this.fields.starts.byteLength : 0;
    return (
      this.words.bytes +
      this.units.bytes +
      this.names.byteLength +
      fields +
      lists.reduce((n, list) => n + (list?.byteLength ?? 0), 0)
    );
  }

  /** Tells of each message that has a header field of a name. */
  eachWithField(name: string, visit: (message: number) => void): void {
    const field = this.words.fitting('whole', fieldMark + name.toLowerCase(), 'rules');
    const having = this.havingAll([field], 'header');
    for (let message = 0; message < having.length; message++) if (having[message]) visit(message);
  }

  /** Tells of each header field of a name what it says, folded as rules fold it; null where only the message tells. */
  eachField(name: string, visit: (message: number, value: string | null) => void): void {
    const [field = -1] = this.words.fitting('whole', fieldMark + name.toLowerCase(), 'rules');
    if (field >= 0)
      this.eachValue(field, this.havingAll([[field]], 'header'), (message, value) =>
        visit(message, valueOf(value.map((word) => this.words.word(word)))),
      );
  }

  /**
   * Tells of each message with a header field of a name that has a text, folded for searching; `toRead` of those where
   * only the message tells. Of a message with several such fields it may tell several times.
   */
  eachFieldHolding(
    name: string,
    text: string,
    holds: (message: number) => void,
    toRead: (message: number) => void,
  ): void {
    const [field = -1] = this.words.fitting('whole', fieldMark + name.toLowerCase(), 'rules');
    if (field < 0) return;
    const fields = [[field]];
    const hidden = [notKept, irregularValue].map((mark) => this.words.fitting('whole', mark, 'rules')[0] ?? -1);
    // Such a field is never kept; in any other one a value is, but for what looks like a mark.
    const untold = notKeptFields.test(name.toLowerCase()) ? fields : [...fields, hidden.slice(1)];
    this.eachValue(field, this.havingAll(untold, 'header'), (message, value) => {
      if (hidden.includes(value[0])) toRead(message);
    });
    const parts = text.split(' ').filter((part) => part !== '');
    const fits = parts.map((part) => this.words.fitting('within', part, 'search'));
    const told = this.havingAll([...fields, ...fits], 'header');
    // A text without blanks stands in a single word. Otherwise it is looked for in the value as it is.
    if (fits.length === 1 && parts[0] === text) this.eachWithWord(field, told, testOf(fits[0], this.words.size), holds);
    else
      this.eachValue(field, told, (message, value) => {
        if (this.says(value, text)) holds(message);
      });
  }

  /** Tells of each of some messages that has one of some words in a header field. */
  private eachWithWord(field: number, among: Uint8Array, is: Uint8Array, visit: (message: number) => void): void {
    this.eachValue(field, among, (message, value) => {
      if (value.some((word) => is[word] === 1)) visit(message);
    });
  }

  private says(value: readonly number[], text: string): boolean {
    const said = valueOf(value.map((word) => this.words.word(word)));
    return said !== null && foldSearch(blanksAsOne(said)).includes(text);
  }

  /** Tells of each header field of a name the words that it has, in some messages. */
  private eachValue(field: number, among: Uint8Array, visit: (message: number, value: number[]) => void): void {
    this.units.eachField(field, among, this.fieldPlaces(), (message, from, to) =>
      visit(message, this.units.words(from, to)),
    );
  }
}

/** A value from its words; null where it was not kept. */
function valueOf(words: readonly string[]): string | null {
  if (words[0] === notKept || words[0] === irregularValue) return null;
  let value = '';
  let before = true;
  for (const word of words) {
    const blanks = word.startsWith(blankMark);
    value += blanks ? word.slice(1) : before ? word : ` ${word}`;
    before = blanks;
  }
  return value;
}
