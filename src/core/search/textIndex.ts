// The text index: the words of every message in their order, as numbers, so that its text can be searched, and its header
// fields be read, without opening the message.
//
// Words are what stands between blanks, folded. A text is in a body just where its words follow one another there: the
// first at its end, the last at its beginning, those between them whole. A segment holds the messages of one stretch of
// ids; once full it never changes.
import { foldSearch } from '../mail/fold';
import type { TextBatch } from './textBatch';

/** Messages in one segment. */
export const segmentSize = 4_096;

/** What stands before the name of a header field among the words of a header. */
export const fieldMark = '\u0001';
/** Stands before blanks of a value that are not one space. */
export const blankMark = '\u0002';
/** In the place of a value that is not kept: the message has to be read. */
export const notKept = '\u0003';

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

/** Where the messages of each word begin among them. */
interface Postings {
  starts: Uint32Array;
  messages: Uint16Array;
}

/** How the words are compared: as rules do it, or as searching does (fold.ts). */
export type Folding = 'rules' | 'search';

/** Words between line ends, and where each begins. */
interface WordList {
  words: string;
  starts: Uint32Array;
}

type Fit = 'within' | 'whole' | 'begins' | 'ends';

const fitTests: Record<Fit, (word: string, text: string) => boolean> = {
  within: (word, text) => word.includes(text),
  whole: (word, text) => word === text,
  begins: (word, text) => word.startsWith(text),
  ends: (word, text) => word.endsWith(text),
};

/** Where each word begins in the text of all of them, which begins and ends with a line end. */
function startsOf(words: string): Uint32Array {
  const starts: number[] = [];
  for (let at = 1; at < words.length; at = words.indexOf('\n', at) + 1) starts.push(at);
  return Uint32Array.from(starts);
}

/** The word that stands at a place of the text of all words. */
function wordAt(starts: Uint32Array, at: number): number {
  let [low, high] = [0, starts.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (starts[middle] <= at) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** The messages of one stretch of ids, numbered from 0 within it. */
export class TextSegment {
  count = 0;
  /** The words by their position; null while the segment is held as it is stored. */
  private open: Map<string, number> | null = new Map();
  /** Held as it is stored: all words, and where each begins. */
  private words = '';
  private starts: Uint32Array = new Uint32Array(0);
  private units = new Uint16Array(0);
  private used = 0;
  private ends = new Uint32Array(2 * segmentSize);
  /** Both are made when they are first asked for, and follow from the rest. */
  private postings: Postings | null = null;
  private searched: WordList | null = null;
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
    this.words = words;
    this.units = units;
    this.used = units.length;
    this.ends = ends;
    this.starts = startsOf(words);
  }

  private opened(): Map<string, number> {
    if (this.open) return this.open;
    const words = this.words.length > 1 ? this.words.slice(1, -1).split('\n') : [];
    this.open = new Map(words.map((word, at) => [word, at]));
    this.words = '';
    this.starts = new Uint32Array(0);
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
    this.postings = this.searched = null;
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
            if (known === undefined) open.set(words[token], open.size);
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
    this.postings = this.searched = null;
    this.count = count;
    this.used = count > 0 ? this.ends[2 * count - 1] : 0;
  }

  /** The segment ready to be stored. A full one is held in this form from now on: it takes a third of the memory. */
  pack(): PackedSegment {
    const packed: PackedSegment = this.open
      ? {
          count: this.count,
          words: ['', ...this.open.keys(), ''].join('\n'),
          units: this.units.slice(0, this.used),
          ends: this.ends.slice(0, 2 * this.count),
        }
      : { count: this.count, words: this.words, units: this.units, ends: this.ends };
    if (this.open && this.count >= segmentSize) this.hold(packed);
    return packed;
  }

  /** One for each word that fits; null where none does. */
  private fitting(fit: Fit, text: string, folding: Folding): Uint8Array | null {
    const out = new Uint8Array(this.open ? this.open.size : this.starts.length);
    if (text === '') return out.fill(1);
    let some = false;
    if (this.open) {
      const fits = fitTests[fit];
      for (const [word, at] of this.open)
        if (fits(folding === 'search' ? foldSearch(word) : word, text)) {
          out[at] = 1;
          some = true;
        }
      return some ? out : null;
    }
    const { words, starts } = this.listFor(folding);
    const before = fit === 'whole' || fit === 'begins' ? '\n' : '';
    const sought = `${before}${text}${fit === 'whole' || fit === 'ends' ? '\n' : ''}`;
    for (let at = words.indexOf(sought); at >= 0;) {
      const word = wordAt(starts, at + before.length);
      out[word] = 1;
      some = true;
      // The line end after a word is also the one before the next.
      at = words.indexOf(sought, word + 1 < starts.length ? starts[word + 1] - 1 : words.length);
    }
    return some ? out : null;
  }

  /** The words as they are compared, in the same order: folding leaves line ends where they are. */
  private listFor(folding: Folding): WordList {
    const { words, starts } = this;
    if (folding === 'rules') return { words, starts };
    if (!this.searched) {
      const folded = foldSearch(words);
      this.searched = folded === words ? { words, starts } : { words: folded, starts: startsOf(folded) };
    }
    return this.searched;
  }

  private wordOf(word: number): string {
    return this.words.slice(this.starts[word], (this.starts[word + 1] ?? this.words.length) - 1);
  }

  /** One for each message that has a text in its body: folded, each run of blanks one space. */
  holding(text: string, folding: Folding = 'rules'): Uint8Array {
    const fits = this.fitsOf(text, folding);
    if (!fits) return new Uint8Array(this.count);
    const out = this.havingAll(fits);
    if (fits.length > 1)
      for (let message = 0; message < this.count; message++)
        if (out[message] && !this.following(fits, this.ends[2 * message - 1] ?? 0, this.ends[2 * message]))
          out[message] = 0;
    return out;
  }

  /** One for each message that has a text, folded for searching, in what its header fields say. */
  inHeader(text: string): Uint8Array {
    const out = new Uint8Array(this.count);
    const fits = this.fitsOf(text, 'search');
    const marks = fits && this.fitting('begins', fieldMark, 'rules');
    if (!fits || !marks) return out;
    // The name of a field is no part of what it says.
    for (const fit of fits) for (let word = 0; word < fit.length; word++) if (marks[word]) fit[word] = 0;
    for (let message = 0; message < this.count; message++)
      if (this.following(fits, this.ends[2 * message], this.ends[2 * message + 1])) out[message] = 1;
    return out;
  }

  /** For each word of a text the words here that fit it; null where one has none. */
  private fitsOf(text: string, folding: Folding): Uint8Array[] | null {
    const parts = text.split(' ');
    const last = parts.length - 1;
    const fits: Uint8Array[] = [];
    for (const [i, part] of parts.entries()) {
      const fit = last === 0 ? 'within' : i === 0 ? 'ends' : i === last ? 'begins' : 'whole';
      const its = this.fitting(fit, part, folding);
      if (!its) return null;
      fits.push(its);
    }
    return fits;
  }

  /** One for each message that has a word for each of some fits in its body, wherever it stands. */
  private havingAll(fits: readonly Uint8Array[]): Uint8Array {
    const { starts, messages } = (this.postings ??= this.posted());
    const having = new Uint8Array(this.count);
    for (const [i, fit] of fits.entries())
      for (let word = 0; word < fit.length; word++) {
        if (fit[word] === 0) continue;
        for (let at = starts[word]; at < starts[word + 1]; at++)
          // It counts the fits: only who had all the others can have this one, too.
          if (having[messages[at]] === i) having[messages[at]] = i + 1;
      }
    return having.map((n) => (n === fits.length ? 1 : 0));
  }

  /** Of each word the messages that have it in their body, in their order. */
  private posted(): Postings {
    const words = this.open ? this.open.size : this.starts.length;
    const starts = new Uint32Array(words + 2);
    const each = (visit: (word: number, message: number) => void) => {
      const seen = new Int32Array(words).fill(-1);
      for (let message = 0, at = 0; message < this.count; message++) {
        for (const to = this.ends[2 * message]; at < to;) {
          let word = this.units[at++];
          if (word >= wide) word = positionOf(word, this.units[at++]);
          if (seen[word] === message) continue;
          seen[word] = message;
          visit(word, message);
        }
        at = this.ends[2 * message + 1];
      }
    };
    // Counted first, then put where they belong: the beginning of a word moves on to that of the next.
    each((word) => starts[word + 2]++);
    for (let word = 0; word < words; word++) starts[word + 2] += starts[word + 1];
    const messages = new Uint16Array(starts[words + 1]);
    each((word, message) => (messages[starts[word + 1]++] = message));
    return { starts, messages };
  }

  /** Whether words that fit stand one after another between two places. */
  private following(fits: readonly Uint8Array[], from: number, to: number): boolean {
    const { units } = this;
    const [first, ...others] = fits;
    for (let at = from; at < to;) {
      let word = units[at++];
      if (word >= wide) word = positionOf(word, units[at++]);
      if (first[word] && this.follow(others, at, to)) return true;
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

  /** Tells of each header field of a name what it says, folded; null where only the message itself tells. */
  eachField(name: string, visit: (message: number, value: string | null) => void): void {
    const field = this.fitting('whole', fieldMark + name.toLowerCase(), 'rules');
    const fields = field && this.fitting('begins', fieldMark, 'rules');
    if (!field || !fields) return;
    const { units, ends } = this;
    const list = this.open && [...this.open.keys()];
    const wordOf = (word: number) => (list ? list[word] : this.wordOf(word));
    for (let message = 0; message < this.count; message++) {
      const to = ends[2 * message + 1];
      /** The words of the field at hand; null in another. */
      let value: string[] | null = null;
      const tell = () => {
        if (value) visit(message, valueOf(value));
        value = null;
      };
      for (let at = ends[2 * message]; at < to;) {
        let word = units[at++];
        if (word >= wide) word = positionOf(word, units[at++]);
        if (fields[word]) {
          tell();
          if (field[word]) value = [];
        } else if (value) (value as string[]).push(wordOf(word));
      }
      tell();
    }
  }
}

/** A value from its words; null where it was not kept. */
function valueOf(words: readonly string[]): string | null {
  if (words[0] === notKept) return null;
  let value = '';
  let before = true;
  for (const word of words) {
    const blanks = word.startsWith(blankMark);
    value += blanks ? word.slice(1) : before ? word : ` ${word}`;
    before = blanks;
  }
  return value;
}
