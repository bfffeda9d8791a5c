// Different words and their positions, in the order in which they first came. Words are looked up as bytes where they stand:
// no string is made of any of them, which for the words of a whole mailbox is most of the work.
import { grown } from '../data/grown';
import { hashed, hashOf, hashSeed } from '../data/hash';
import { NumbersByHash } from '../data/numbersByHash';

/** Texts that are no longer are encoded in a loop. */
const shortText = 1_000;

/** Where a hash begins, as a small number, which the engine keeps as such. */
const seed = hashSeed | 0;

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8', { ignoreBOM: true });

/** A byte as words are compared: upper and lower case of US-ASCII alike, and all its blanks one. */
const folded = Uint8Array.from({ length: 256 }, (_, byte) => {
  if (byte >= 9 && byte <= 13) return 32;
  return byte >= 65 && byte <= 90 ? byte + 32 : byte;
});

/** Blanks beyond US-ASCII. */
const otherBlanks = /[^\S\0-\x7f]/g;

/** Words with upper and lower case of US-ASCII alike. */
export class WordTable {
  /** The text that is being read, in UTF-8. */
  private text = new Uint8Array(65_536);
  /** All words, each followed by a line end. */
  private bytes = new Uint8Array(65_536);
  private used = 0;
  /** Where each word begins, and where the next one would. */
  private starts = new Uint32Array(2_048);
  private readonly numbers = new NumbersByHash((word) =>
    stringOf(this.bytes, this.starts[word], this.starts[word + 1] - 1),
  );
  private count = 0;
  /** The word that is looked up: where it stands. */
  private sought = { bytes: new Uint8Array(0), from: 0, to: 0 };

  /** How many different words there are. */
  get size(): number {
    return this.count;
  }

  /** Tells of the words of a text, in their order, the position of each; a new one gets the next. Words stand between blanks. */
  eachOf(text: string, visit: (position: number) => void): void {
    if (text.length <= shortText && this.putAscii(text)) {
      this.eachUpTo(text.length, true, visit);
      return;
    }
    let rest = text.replace(otherBlanks, ' ');
    /** The bytes of a word that goes on beyond what was read. */
    let kept = 0;
    while (rest !== '') {
      const { read, written } = encoder.encodeInto(rest, kept ? this.text.subarray(kept) : this.text);
      rest = rest.slice(read);
      const end = kept + written;
      const from = this.eachUpTo(end, rest === '', visit);
      kept = end - from;
      this.text.copyWithin(0, from, end);
      // With room for as much again, so that a word of any length takes time in step with it.
      if (2 * kept > this.text.length) this.text = grown(this.text, new Uint8Array(2 * this.text.length));
    }
  }

  /** Whether a short text is US-ASCII; then it is put where texts are read: encoding so little takes longer than a loop. */
  private putAscii(text: string): boolean {
    for (let at = 0; at < text.length; at++) {
      const unit = text.charCodeAt(at);
      if (unit > 127) return false;
      this.text[at] = unit;
    }
    return true;
  }

  /** Tells of the words among the first bytes that are read; where the one begins that may go on, `last`: none does. */
  private eachUpTo(end: number, last: boolean, visit: (position: number) => void): number {
    const { text } = this;
    let from = -1;
    let hash = seed;
    for (let at = 0; at < end; at++) {
      const byte = folded[text[at]];
      if (byte !== 32) {
        text[at] = byte;
        if (from < 0) from = at;
        hash = hashed(hash, byte);
      } else if (from >= 0) {
        visit(this.positionOf(text, from, at, hash));
        from = -1;
        hash = seed;
      }
    }
    if (from >= 0 && last) visit(this.positionOf(text, from, end, hash));
    return from >= 0 && !last ? from : end;
  }

  /** The same of one word, whatever stands in it. */
  positionOfWhole(word: string): number {
    const bytes = encoder.encode(word);
    return this.positionOf(bytes, 0, bytes.length, hashOf(bytes));
  }

  /** All words in the order of their positions, each followed by a line end. */
  words(): string {
    return decoder.decode(this.bytes.subarray(0, this.used));
  }

  private positionOf(bytes: Uint8Array<ArrayBuffer>, from: number, to: number, hash: number): number {
    this.sought.bytes = bytes;
    this.sought.from = from;
    this.sought.to = to;
    const found = this.numbers.find(hash, this.isSought, this.nameSought);
    return found < 0 ? this.add(bytes, from, to, hash) : found;
  }

  private readonly nameSought = (): string => stringOf(this.sought.bytes, this.sought.from, this.sought.to);

  private readonly isSought = (word: number): boolean => {
    const { bytes, starts, sought } = this;
    const start = starts[word];
    const length = starts[word + 1] - 1 - start;
    if (length !== sought.to - sought.from) return false;
    let same = 0;
    while (same < length && bytes[start + same] === sought.bytes[sought.from + same]) same++;
    return same === length;
  };

  private add(text: Uint8Array, from: number, to: number, hash: number): number {
    const word = this.count++;
    if (this.count === this.starts.length) this.starts = grown(this.starts, new Uint32Array(2 * this.count));
    while (this.used + to - from + 1 > this.bytes.length)
      this.bytes = grown(this.bytes, new Uint8Array(2 * this.bytes.length));
    this.bytes.set(text.subarray(from, to), this.used);
    this.used += to - from;
    this.bytes[this.used++] = 10;
    this.starts[this.count] = this.used;
    this.numbers.add(hash, word);
    return word;
  }
}

/** Bytes as a string of as many characters: only to be told from others. */
function stringOf(bytes: Uint8Array, from: number, to: number): string {
  let out = '';
  for (let at = from; at < to; at++) out += String.fromCharCode(bytes[at]);
  return out;
}
