// The text index: the words of every message in their order, as numbers, so that its text can be searched, and its header
// fields be read, without opening the message.
//
// Words are what stands between blanks, folded. A text is in a body just where its words follow one another there: the
// first at its end, the last at its beginning, those between them whole. A segment holds the messages of one stretch of
// ids; once full it never changes.
import { foldSearch } from '../mail/fold';
import { blanksAsOne } from '../rules/deep';
import type { TextBatch } from './textBatch';
import { WordTable, type Folding } from './wordTable';

/** Messages in one segment. */
export const segmentSize = 4_096;

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

/**
 * Positions of words from here on take two units: a lead, this or more, and one that is less. So a unit tells by itself
 * whether it is a lead, and the one after a lead is no word.
 */
const wide = 0xf000;
const positionOf = (lead: number, unit: number): number => wide + (lead - wide) * wide + unit;

/** A segment as it is stored. */
export interface PackedSegment {
  count: number;
  /** Its different words, between line ends. */
  words: string;
  /** The words of all messages, one message after another, by their position. */
  units: Uint16Array<ArrayBuffer>;
  /** Of each message where its body ends among the units, and where its header does. */
  ends: Uint32Array<ArrayBuffer>;
}

/** Parts of a phrase that have a bit of their own. */
const mostBits = 30;

/** A phrase: for each word the parts that it fits, as bits; the bit of the last of these; and the parts beyond them. */
interface Phrase {
  fits: Uint8Array | Uint32Array;
  last: number;
  rest: readonly Uint8Array[];
}

/** Of a message what is looked through: its text, or its header fields. */
type Part = 'body' | 'header';

/** Of each part where the messages of each word begin among them, and how many messages have any word there. */
type Postings = Record<Part, { starts: Uint32Array; messages: Uint16Array; filled: number }>;

/** The messages of one stretch of ids, numbered from 0 within it. */
export class TextSegment {
  count = 0;
  /** The positions of the words; null while the segment is held as it is stored. */
  private open: Map<string, number> | null = new Map();
  private words = new WordTable();
  private units = new Uint16Array(0);
  private used = 0;
  private ends = new Uint32Array(2 * segmentSize);
  /** Made when they are first asked for; they follow from the rest. */
  private postings: Postings | null = null;
  private names: Uint8Array = new Uint8Array(0);
  private fields: { places: Uint32Array; starts: Uint32Array } | null = null;
  /** The words of the batch that is being taken in, by their positions here; -1 not yet known. */
  private taking: { batch: TextBatch; words: string[]; positions: Int32Array } | null = null;

  /** Takes a stored segment back, of which only the first `count` messages still count. */
  static of(stored: PackedSegment, count = stored.count): TextSegment {
    const segment = new TextSegment();
    segment.hold(stored);
    if (count < stored.count) segment.drop(count);
    return segment;
  }

  private hold({ count, words, units, ends }: PackedSegment): void {
    this.open = this.taking = null;
    this.count = count;
    this.words = WordTable.of(words).trim();
    this.units = units;
    this.used = units.length;
    this.ends = ends;
  }

  private opened(): Map<string, number> {
    if (this.open) return this.open;
    this.open = new Map(Array.from({ length: this.words.size }, (_, at) => [this.words.word(at), at]));
    // What it was made of may be on its way into storage: it is not written into.
    this.units = this.units.slice(0, this.used);
    const ends = new Uint32Array(2 * segmentSize);
    ends.set(this.ends.subarray(0, 2 * this.count));
    this.ends = ends;
    return this.open;
  }

  private put(position: number): void {
    if (this.used + 2 > this.units.length) {
      const longer = new Uint16Array(Math.max(1_024, 2 * this.units.length));
      longer.set(this.units);
      this.units = longer;
    }
    if (position >= wide) this.units[this.used++] = wide + Math.floor((position - wide) / wide);
    this.units[this.used++] = position % wide;
  }

  /** Takes in the `at`th message of a batch; null for one that can't be read. */
  add(batch: TextBatch | null, at = 0): void {
    const open = this.opened();
    this.postings = this.fields = null;
    if (batch) {
      const { tokens, ends } = batch;
      if (this.taking?.batch !== batch) {
        const words = batch.words.split('\n');
        this.taking = { batch, words, positions: new Int32Array(words.length).fill(-1) };
      }
      const { words, positions } = this.taking;
      for (const [from, to, end] of [
        [at > 0 ? ends[2 * at - 1] : 0, ends[2 * at], 2 * this.count],
        [ends[2 * at], ends[2 * at + 1], 2 * this.count + 1],
      ]) {
        for (let i = from; i < to; i++) {
          const token = tokens[i];
          if (positions[token] < 0) {
            const known = open.get(words[token]);
            if (known === undefined) {
              open.set(words[token], open.size);
              this.words.add(words[token]);
            }
            positions[token] = known ?? open.size - 1;
          }
          this.put(positions[token]);
        }
        this.ends[end] = this.used;
      }
    } else this.ends[2 * this.count] = this.ends[2 * this.count + 1] = this.used;
    this.count++;
  }

  /** Forgets the messages from `count` on; their words stay, and are found nowhere. */
  drop(count: number): void {
    this.opened();
    this.postings = this.fields = null;
    this.count = count;
    this.used = count > 0 ? this.ends[2 * count - 1] : 0;
  }

  /** The segment ready to be stored. A full one is held in this form from now on: it takes a third of the memory. */
  pack(): PackedSegment {
    const packed: PackedSegment = this.open
      ? {
          count: this.count,
          words: this.words.joined(),
          units: this.units.slice(0, this.used),
          ends: this.ends.slice(0, 2 * this.count),
        }
      : { count: this.count, words: this.words.joined(), units: this.units, ends: this.ends };
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
    const { ends } = this;
    const shift = part === 'body' ? 0 : 1;
    if (fits.length < 2) return out;
    const phrase = this.phraseOf(fits);
    for (let message = 0; message < this.count; message++)
      if (out[message] && !this.following(phrase, ends[2 * message + shift - 1] ?? 0, ends[2 * message + shift]))
        out[message] = 0;
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
    const { starts, messages, filled } = (this.postings ??= this.posted())[part];
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

  /** Of each word the messages that have it in their body, and in their header, in their order. */
  private posted(): Postings {
    return { body: this.postedIn(0), header: this.postedIn(1) };
  }

  private postedIn(part: 0 | 1): Postings[Part] {
    const { units, ends, count } = this;
    const words = this.words.size;
    const starts = new Uint32Array(words + 2);
    const seen = new Int32Array(words);
    let messages = new Uint16Array(0);
    // Counted first, then put where they belong: the beginning of a word moves on to that of the next.
    for (const putting of [false, true]) {
      seen.fill(-1);
      for (let message = 0; message < count; message++) {
        const to = ends[2 * message + part];
        for (let at = message + part > 0 ? ends[2 * message + part - 1] : 0; at < to;) {
          let word = units[at++];
          if (word >= wide) word = positionOf(word, units[at++]);
          if (seen[word] === message) continue;
          seen[word] = message;
          if (putting) messages[starts[word + 1]++] = message;
          else starts[word + 2]++;
        }
      }
      if (putting) break;
      for (let word = 0; word < words; word++) starts[word + 2] += starts[word + 1];
      messages = new Uint16Array(starts[words + 1]);
    }
    let filled = 0;
    for (let message = 0; message < count; message++)
      if (ends[2 * message + part] > (message + part > 0 ? ends[2 * message + part - 1] : 0)) filled++;
    return { starts, messages, filled };
  }

  /** The parts of a phrase, as {@link following} goes through them. */
  private phraseOf(fits: readonly (readonly number[])[]): Phrase {
    const first = fits.slice(0, mostBits);
    const masks = first.length > 8 ? new Uint32Array(this.words.size) : new Uint8Array(this.words.size);
    for (const [part, fit] of first.entries()) for (const word of fit) masks[word] |= 1 << part;
    return { fits: masks, last: 1 << (first.length - 1), rest: fits.slice(mostBits).map((fit) => this.testOf(fit)) };
  }

  /** One for each word that is among some. */
  private testOf(words: readonly number[]): Uint8Array {
    const test = new Uint8Array(this.words.size);
    for (const word of words) test[word] = 1;
    return test;
  }

  /** One for each word that is the name of a header field. */
  private fieldNames(): Uint8Array {
    if (this.names.length !== this.words.size)
      this.names = this.testOf(this.words.fitting('begins', fieldMark, 'rules'));
    return this.names;
  }

  /** Makes ready what the first question would have to wait for. */
  warm(): void {
    this.postings ??= this.posted();
    this.fieldPlaces();
    this.words.fitting('within', 'warm', 'search');
  }

  /**
   * Whether words that fit stand one after another between two places. Each word has a bit for every part that it fits, and
   * one number says which parts the words so far could be the last of (Baeza-Yates and Gonnet 1992, “shift-and”).
   */
  private following(phrase: Phrase, from: number, to: number): boolean {
    const { units } = this;
    const { fits, last, rest } = phrase;
    let state = 0;
    for (let at = from; at < to;) {
      let word = units[at++];
      if (word >= wide) word = positionOf(word, units[at++]);
      state = ((state << 1) | 1) & fits[word];
      if ((state & last) !== 0 && (rest.length === 0 || this.follow(rest, at, to))) return true;
    }
    return false;
  }

  /** Whether the words from a place on fit one after another. */
  private follow(fits: readonly Uint8Array[], at: number, to: number): boolean {
    for (const fit of fits) {
      if (at >= to) return false;
      let word = this.units[at++];
      if (word >= wide) word = positionOf(word, this.units[at++]);
      if (fit[word] === 0) return false;
    }
    return true;
  }

  /** About how many bytes it takes in memory, with all that was made of it to answer questions. */
  get bytes(): number {
    const { body, header } = this.postings ?? {};
    const lists = [body?.starts, body?.messages, header?.starts, header?.messages, this.units, this.ends];
    const fields = this.fields ? this.fields.places.byteLength + this.fields.starts.byteLength : 0;
    return (
      this.words.bytes + this.names.byteLength + fields + lists.reduce((n, list) => n + (list?.byteLength ?? 0), 0)
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
    if (fits.length === 1 && parts[0] === text) this.eachWithWord(field, told, this.testOf(fits[0]), holds);
    else
      this.eachValue(field, told, (message, value) => {
        if (this.says(value, text)) holds(message);
      });
  }

  /** Tells of each of some messages that has one of some words in a header field. */
  private eachWithWord(field: number, among: Uint8Array, is: Uint8Array, visit: (message: number) => void): void {
    const { units } = this;
    this.eachFieldAt(field, among, (message, from, to) => {
      for (let at = from; at < to;) {
        let word = units[at++];
        if (word >= wide) word = positionOf(word, units[at++]);
        if (is[word] === 1) return visit(message);
      }
    });
  }

  /** Where the fields of each header begin among the units, for all messages one after another. */
  private fieldPlaces(): { places: Uint32Array; starts: Uint32Array } {
    if (this.fields?.starts.length === this.count + 1) return this.fields;
    const { units, ends, count } = this;
    const names = this.fieldNames();
    const starts = new Uint32Array(count + 1);
    let places = new Uint32Array(32 * count + 32);
    let used = 0;
    for (let message = 0; message < count; message++) {
      const to = ends[2 * message + 1];
      for (let at = ends[2 * message]; at < to;) {
        const from = at;
        let word = units[at++];
        if (word >= wide) word = positionOf(word, units[at++]);
        if (names[word] === 0) continue;
        if (used === places.length) {
          const longer = new Uint32Array(2 * used);
          longer.set(places);
          places = longer;
        }
        places[used++] = from;
      }
      starts[message + 1] = used;
    }
    return (this.fields = { places: places.slice(0, used), starts });
  }

  /** Tells of each header field of a name, in some messages, where the words of its value stand among the units. */
  private eachFieldAt(
    field: number,
    among: Uint8Array,
    visit: (message: number, from: number, to: number) => void,
  ): void {
    const { units, ends } = this;
    const { places, starts } = this.fieldPlaces();
    for (let message = 0; message < this.count; message++) {
      if (among[message] === 0) continue;
      const last = starts[message + 1];
      for (let n = starts[message]; n < last; n++) {
        let at = places[n];
        let word = units[at++];
        if (word >= wide) word = positionOf(word, units[at++]);
        if (word === field) visit(message, at, n + 1 < last ? places[n + 1] : ends[2 * message + 1]);
      }
    }
  }

  private says(value: readonly number[], text: string): boolean {
    const said = valueOf(value.map((word) => this.words.word(word)));
    return said !== null && foldSearch(blanksAsOne(said)).includes(text);
  }

  /** Tells of each header field of a name the words that it has, in some messages. */
  private eachValue(field: number, among: Uint8Array, visit: (message: number, value: number[]) => void): void {
    const { units } = this;
    this.eachFieldAt(field, among, (message, from, to) => {
      const value: number[] = [];
      for (let at = from; at < to;) {
        const word = units[at++];
        value.push(word >= wide ? positionOf(word, units[at++]) : word);
      }
      visit(message, value);
    });
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
