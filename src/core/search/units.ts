// The words of a segment’s messages as numbers, one message after another: first those of its body, then those of its
// header fields. What is found by going through them is found here; what the words are, others know (dictionary.ts).
import { grown } from '../data/grown';
import { hashed } from '../data/hash';

/** Messages in one segment. */
export const segmentSize = 4_096;

/** Of a message what is looked through: its text, or its header fields. */
export type Part = 'body' | 'header';

/** Where the messages of each word begin among them, and how many messages have any word in that part. */
export interface Postings {
  starts: Uint32Array;
  messages: Uint16Array;
  filled: number;
}

/** A phrase: for each word the parts that it fits, as bits; the bit of the last of these; and the parts beyond them. */
export interface Phrase {
  fits: Uint8Array | Uint32Array;
  last: number;
  rest: readonly Uint8Array[];
}

/** Parts of a phrase that have a bit of their own. */
const mostBits = 30;

/**
 * Positions of words from here on take two units: a lead, this or more, and one that is less. So a unit tells by itself
 * whether it is a lead, and the one after a lead is no word.
 */
const wide = 0xf000;
const positionOf = (lead: number, unit: number): number => wide + (lead - wide) * wide + unit;

/** Units as they are stored. */
export interface PackedUnits {
  count: number;
  /** The words of all messages, one message after another, by their position. */
  units: Uint16Array<ArrayBuffer>;
  /** Of each message where its body ends among the units, and where its header does. */
  ends: Uint32Array<ArrayBuffer>;
}

/** One for each word that is among some. */
export function testOf(words: readonly number[], size: number): Uint8Array {
  const test = new Uint8Array(size);
  for (const word of words) test[word] = 1;
  return test;
}

/** The parts of a phrase, by the words that fit each of them, as {@link Units.having} goes through them. */
export function phraseOf(fits: readonly (readonly number[])[], size: number): Phrase {
  const first = fits.slice(0, mostBits);
  const masks = first.length > 8 ? new Uint32Array(size) : new Uint8Array(size);
  for (const [part, fit] of first.entries()) for (const word of fit) masks[word] |= 1 << part;
  return { fits: masks, last: 1 << (first.length - 1), rest: fits.slice(mostBits).map((fit) => testOf(fit, size)) };
}

export class Units {
  count = 0;
  private units: Uint16Array<ArrayBuffer> = new Uint16Array(0);
  private used = 0;
  private ends: Uint32Array<ArrayBuffer> = new Uint32Array(2 * segmentSize);

  /** Takes back what {@link packed} gave; it is not written into. */
  static of({ count, units, ends }: PackedUnits): Units {
    const of = new Units();
    of.count = count;
    of.units = units;
    of.used = units.length;
    of.ends = ends;
    return of;
  }

  /** The same with other positions: of each word the one that it has from now on. */
  renumbered(positions: Uint32Array): Units {
    const of = new Units();
    of.count = this.count;
    // At most each word takes two.
    of.units = new Uint16Array(2 * this.used);
    of.ends = this.ends.slice(0, 2 * this.count);
    let at = 0;
    for (let part = 0; part < of.ends.length; part++) {
      for (const to = this.ends[part]; at < to;) {
        let word = this.units[at++];
        if (word >= wide) word = positionOf(word, this.units[at++]);
        of.put(positions[word]);
      }
      of.ends[part] = of.used;
    }
    of.units = of.units.slice(0, of.used);
    return of;
  }

  /** The same without the words of some messages, of which nothing is left; of each other word its new position. */
  without(messages: ReadonlySet<number>, position: (word: number) => number): Units {
    const of = new Units();
    for (let message = 0; message < this.count; message++)
      for (const part of ['body', 'header'] as const) {
        if (!messages.has(message))
          for (const word of this.words(this.from(message, part), this.to(message, part))) of.put(position(word));
        of.end(part);
      }
    return of;
  }

  /** The same, to be written into: what it was made of may be on its way into storage. */
  opened(): Units {
    const of = new Units();
    of.count = this.count;
    of.units = this.units.slice(0, this.used);
    of.used = this.used;
    of.ends.set(this.ends.subarray(0, 2 * this.count));
    return of;
  }

  packed(): PackedUnits {
    return { count: this.count, units: this.units.slice(0, this.used), ends: this.ends.slice(0, 2 * this.count) };
  }

  get bytes(): number {
    return this.units.byteLength + this.ends.byteLength;
  }

  /** Adds a word to the part that is being taken in. */
  put(position: number): void {
    if (this.used + 2 > this.units.length)
      this.units = grown(this.units, new Uint16Array(Math.max(1_024, 2 * this.units.length)));
    if (position >= wide) this.units[this.used++] = wide + Math.floor((position - wide) / wide);
    this.units[this.used++] = position % wide;
  }

  /** Ends a part of the message that is being taken in; with its header it is complete. */
  end(part: Part): void {
    this.ends[2 * this.count + (part === 'body' ? 0 : 1)] = this.used;
    if (part === 'header') this.count++;
  }

  /** Forgets the messages from `count` on. */
  drop(count: number): void {
    this.count = count;
    this.used = this.from(count, 'body');
  }

  private from(message: number, part: Part): number {
    return part === 'header' ? this.ends[2 * message] : message > 0 ? this.ends[2 * message - 1] : 0;
  }

  private to(message: number, part: Part): number {
    return this.ends[2 * message + (part === 'body' ? 0 : 1)];
  }

  /** Of each of so many words the messages that have it in a part, in their order; `but`: one for each that is left out. */
  posted(part: Part, words: number, but?: Uint8Array): Postings {
    const { units, count } = this;
    const starts = new Uint32Array(words + 2);
    const seen = new Int32Array(words);
    let messages = new Uint16Array(0);
    let filled = 0;
    for (let message = 0; message < count; message++) if (this.to(message, part) > this.from(message, part)) filled++;
    // Counted first, then put where they belong: the beginning of a word moves on to that of the next.
    for (const putting of [false, true]) {
      seen.fill(-1);
      for (let message = 0; message < count; message++) {
        const to = this.to(message, part);
        for (let at = this.from(message, part); at < to;) {
          let word = units[at++];
          if (word >= wide) word = positionOf(word, units[at++]);
          if (seen[word] === message || but?.[word] === 1) continue;
          seen[word] = message;
          if (putting) messages[starts[word + 1]++] = message;
          else starts[word + 2]++;
        }
      }
      if (putting) break;
      for (let word = 0; word < words; word++) starts[word + 2] += starts[word + 1];
      messages = new Uint16Array(starts[words + 1]);
    }
    return { starts, messages, filled };
  }

  /**
   * Whether a phrase stands in a part of a message. Each word has a bit for every part of it that it fits, and one number
   * says which parts the words so far could be the last of (Baeza-Yates and Gonnet 1992, “shift-and”).
   */
  having({ fits, last, rest }: Phrase, message: number, part: Part): boolean {
    const { units } = this;
    const to = this.to(message, part);
    let state = 0;
    for (let at = this.from(message, part); at < to;) {
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

  /** The word that stands at a place. */
  word(at: number): number {
    const unit = this.units[at];
    return unit >= wide ? positionOf(unit, this.units[at + 1]) : unit;
  }

  /** The words between two places. */
  words(from: number, to: number): number[] {
    const words: number[] = [];
    for (let at = from; at < to;) {
      const word = this.units[at++];
      words.push(word >= wide ? positionOf(word, this.units[at++]) : word);
    }
    return words;
  }

  /** Whether one of some words stands between two places. */
  has(test: Uint8Array, from: number, to: number): boolean {
    const { units } = this;
    for (let at = from; at < to;) {
      let word = units[at++];
      if (word >= wide) word = positionOf(word, units[at++]);
      if (test[word] === 1) return true;
    }
    return false;
  }

  /** A hash with the words between two places in it. */
  hash(hash: number, from: number, to: number): number {
    for (let at = from; at < to; at++) hash = hashed(hash, this.units[at]);
    return hash;
  }

  /** Whether the same words stand between two places as between two others. */
  same(from: number, to: number, otherFrom: number, otherTo: number): boolean {
    if (to - from !== otherTo - otherFrom) return false;
    for (let at = from, other = otherFrom; at < to;) if (this.units[at++] !== this.units[other++]) return false;
    return true;
  }

  /** The words that stand between two places. */
  between(from: number, to: number): Iterable<number> {
    return this.units.subarray(from, to);
  }

  /** Tells of each header field, message after message, which word is its name and where its value stands. */
  eachField(names: Uint8Array, visit: (message: number, name: number, from: number, to: number) => void): void {
    const { units, count } = this;
    for (let message = 0; message < count; message++) {
      const to = this.to(message, 'header');
      let [name, from] = [-1, 0];
      for (let at = this.from(message, 'header'); at < to;) {
        const before = at;
        let word = units[at++];
        if (word >= wide) word = positionOf(word, units[at++]);
        if (names[word] === 0) continue;
        if (name >= 0) visit(message, name, from, before);
        [name, from] = [word, at];
      }
      if (name >= 0) visit(message, name, from, to);
    }
  }
}
