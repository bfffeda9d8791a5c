// Different words and their positions, in the order in which they first came. Words are looked up as bytes where they stand:
// no string is made of any of them, which for the words of a whole mailbox is most of the work.
import { grown } from '../data/grown';

/** So many places are looked at for a word; where its hash is crowded, by chance or by design, it is found by its string. */
const mostProbes = 32;

/** Texts that are no longer are encoded in a loop. */
const shortText = 1_000;

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8', { ignoreBOM: true });

/** A byte as words are compared: upper and lower case of US-ASCII alike, and all its blanks one. */
const folded = Uint8Array.from({ length: 256 }, (_, byte) => {
  if (byte >= 9 && byte <= 13) return 32;
  return byte >= 65 && byte <= 90 ? byte + 32 : byte;
});

/** Blanks beyond US-ASCII. */
const otherBlanks = /[\u00a0\u1680\u2000-\u200a\u2028\u2029\u202f\u205f\u3000\ufeff]/g;

/** The hash of a word, byte by byte. */
const hashed = (hash: number, byte: number): number => Math.imul(hash ^ byte, 0x5bd1e995);
const finished = (hash: number): number => hash ^ (hash >>> 15);

/** Words with upper and lower case of US-ASCII alike. */
export class WordTable {
  /** The text that is being read, in UTF-8. */
  private text = new Uint8Array(65_536);
  /** All words, each followed by a line end. */
  private bytes = new Uint8Array(65_536);
  private used = 0;
  /** Where each word begins, and where the next one would. */
  private starts = new Uint32Array(2_048);
  private hashes = new Int32Array(2_048);
  private count = 0;
  /** Of each place the word that is there, counted from 1. */
  private slots = new Int32Array(4_096);
  private readonly crowded = new Map<string, number>();

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
    let hash = 0;
    for (let at = 0; at < end; at++) {
      const byte = folded[text[at]];
      if (byte !== 32) {
        text[at] = byte;
        if (from < 0) from = at;
        hash = hashed(hash, byte);
      } else if (from >= 0) {
        visit(this.positionOf(text, from, at, finished(hash)));
        from = -1;
        hash = 0;
      }
    }
    if (from >= 0 && last) visit(this.positionOf(text, from, end, finished(hash)));
    return from >= 0 && !last ? from : end;
  }

  /** The same of one word, whatever stands in it. */
  positionOfWhole(word: string): number {
    const bytes = encoder.encode(word);
    let hash = 0;
    for (const byte of bytes) hash = hashed(hash, byte);
    return this.positionOf(bytes, 0, bytes.length, finished(hash));
  }

  /** All words in the order of their positions, each followed by a line end. */
  words(): string {
    return decoder.decode(this.bytes.subarray(0, this.used));
  }

  private positionOf(text: Uint8Array, from: number, to: number, hash: number): number {
    const { bytes, starts, hashes, slots } = this;
    const mask = slots.length - 1;
    const length = to - from;
    for (let probe = 0; probe < mostProbes; probe++) {
      const word = slots[(hash + probe) & mask] - 1;
      if (word < 0) return this.add(text, from, to, hash);
      const start = starts[word];
      if (hashes[word] !== hash || starts[word + 1] - 1 - start !== length) continue;
      let same = 0;
      while (same < length && bytes[start + same] === text[from + same]) same++;
      if (same === length) return word;
    }
    return this.crowded.get(stringOf(text, from, to)) ?? this.add(text, from, to, hash);
  }

  private add(text: Uint8Array, from: number, to: number, hash: number): number {
    const word = this.count++;
    if (this.count + 1 > this.hashes.length) {
      this.hashes = grown(this.hashes, new Int32Array(2 * this.hashes.length));
      this.starts = grown(this.starts, new Uint32Array(2 * this.starts.length));
    }
    const end = this.used + to - from;
    while (end + 1 > this.bytes.length) this.bytes = grown(this.bytes, new Uint8Array(2 * this.bytes.length));
    for (let at = from; at < to; at++) this.bytes[this.used++] = text[at];
    this.bytes[this.used++] = 10;
    this.hashes[word] = hash;
    this.starts[word + 1] = this.used;
    if (2 * this.count <= this.slots.length) this.place(word);
    else {
      this.slots = new Int32Array(2 * this.slots.length);
      this.crowded.clear();
      for (let one = 0; one <= word; one++) this.place(one);
    }
    return word;
  }

  private place(word: number): void {
    const { slots } = this;
    const mask = slots.length - 1;
    for (let probe = 0; probe < mostProbes; probe++) {
      const at = (this.hashes[word] + probe) & mask;
      if (slots[at] === 0) {
        slots[at] = word + 1;
        return;
      }
    }
    this.crowded.set(stringOf(this.bytes, this.starts[word], this.starts[word + 1] - 1), word);
  }
}

/** Bytes as a string of as many characters: only to be told from others. */
function stringOf(bytes: Uint8Array, from: number, to: number): string {
  let out = '';
  for (let at = from; at < to; at++) out += String.fromCharCode(bytes[at]);
  return out;
}
