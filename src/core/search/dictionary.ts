// The different words of all messages, each with a number, and which of them a text fits. One dictionary serves all
// segments of the text index: most words are said again and again, and a question of words is asked once.
//
// Nearly all words are plain ASCII: these stand one after another in one text. The few others stand beside it, as they are
// and, once they are searched, folded.
import { foldSearch } from '../text/fold';
import { grown } from '../data/grown';
import { hashed, hashSeed } from '../data/hash';
import { keepNewest } from '../data/memo';
import { WordBlocks, type WordList } from '../text/wordBlocks';
import { NumbersByHash } from '../data/numbersByHash';
import { testOf } from './units';

/** How the words are compared: as rules do it, or as searching does (fold.ts). */
export type Folding = 'rules' | 'search';

/** Where in a word a text must stand. */
export type Fit = 'within' | 'whole' | 'begins' | 'ends';

const fitTests: Record<Fit, (word: string, text: string) => boolean> = {
  within: (word, text) => word.includes(text),
  whole: (word, text) => word === text,
  begins: (word, text) => word.startsWith(text),
  ends: (word, text) => word.endsWith(text),
};

const beyondAscii = /[^\0-\x7f]/;

/** Answers that are remembered: each segment asks the same, and a phrase asks for each of its words. */
const mostKept = 8;

/** The words that fit a text. */
export interface Fitting {
  /** Their numbers, from the lowest on. */
  numbers: readonly number[];
  /** One for each word that is among them. */
  test: Uint8Array;
}

export class Dictionary {
  /** Words that were added and are not in the text yet. */
  private added: string[] = [];
  /** The words between line ends; empty for one that is not ASCII. */
  private text = '\n';
  private starts = new Uint32Array(0);
  private placed = 0;
  /** The words of ASCII. */
  private readonly numbers = new NumbersByHash((number) => this.word(number));
  private sought = '';
  /** The other words by their number, and back; and folded for searching, in their order. */
  private readonly others = new Map<number, string>();
  private readonly otherNumbers = new Map<string, number>();
  private readonly folded: string[] = [];
  private readonly blocks = new WordBlocks();
  private readonly kept = new Map<string, Fitting>();

  /** How many words there are. Their numbers begin with 0. */
  get size(): number {
    return this.placed + this.added.length;
  }

  /** About how many bytes it takes in memory. */
  get bytes(): number {
    const some = this.added.reduce((n, word) => n + 2 * word.length + 32, 0);
    const others = [...this.others.values()].reduce((n, word) => n + 4 * word.length + 160, 0);
    return some + others + this.text.length + this.starts.byteLength + this.numbers.bytes + this.blocks.bytes;
  }

  /** The number of a word, which gets one if it has none yet. A word has no line end in it. */
  numberOf(word: string): number {
    let hash = hashSeed;
    for (let at = 0; at < word.length; at++) {
      const unit = word.charCodeAt(at);
      if (unit > 0x7f) return this.otherNumberOf(word);
      hash = hashed(hash, unit);
    }
    this.sought = word;
    let number = this.numbers.find(hash, this.isSought, this.nameSought);
    if (number >= 0) return number;
    number = this.size;
    this.added.push(word);
    this.numbers.add(hash, number);
    return number;
  }

  private readonly nameSought = (): string => this.sought;

  private readonly isSought = (number: number): boolean =>
    number < this.placed
      ? this.lengthOf(number) === this.sought.length && this.text.startsWith(this.sought, this.starts[number])
      : this.added[number - this.placed] === this.sought;

  private otherNumberOf(word: string): number {
    let number = this.otherNumbers.get(word);
    if (number === undefined) {
      this.otherNumbers.set(word, (number = this.size));
      this.others.set(number, word);
      this.added.push('');
    }
    return number;
  }

  /** How long a word is that is in the text. */
  private lengthOf(number: number): number {
    return (number + 1 < this.placed ? this.starts[number + 1] : this.text.length) - 1 - this.starts[number];
  }

  /** The word that has a number. */
  word(number: number): string {
    if (number >= this.placed) return this.added[number - this.placed] || (this.others.get(number) ?? '');
    const [from, length] = [this.starts[number], this.lengthOf(number)];
    return length > 0 ? this.text.slice(from, from + length) : (this.others.get(number) ?? '');
  }

  /** Puts what was added into the text. */
  private settle(): void {
    if (this.added.length === 0) return;
    if (this.size > this.starts.length)
      this.starts = grown(this.starts, new Uint32Array(Math.max(this.size, Math.ceil(1.5 * this.starts.length))));
    let at = this.text.length;
    for (const word of this.added) {
      this.starts[this.placed++] = at;
      at += word.length + 1;
    }
    this.text += `${this.added.join('\n')}\n`;
    this.added = [];
  }

  /** The words that fit a text, folded as they are compared. */
  fitting(fit: Fit, text: string, folding: Folding): Fitting {
    // Of a growing dictionary an old answer is none.
    const question = `${fit} ${folding} ${this.size} ${text}`;
    let its = this.kept.get(question);
    if (!its) {
      const numbers = this.find(fit, text, folding);
      its = { numbers, test: testOf(numbers, this.size) };
    }
    keepNewest(this.kept, question, its, mostKept);
    return its;
  }

  private find(fit: Fit, text: string, folding: Folding): readonly number[] {
    this.settle();
    if (text === '') return Array.from({ length: this.placed }, (_, at) => at);
    const out: number[] = [];
    if (!beyondAscii.test(text)) {
      const before = fit === 'whole' || fit === 'begins' ? '\n' : '';
      const list: WordList = { words: this.text, starts: this.starts.subarray(0, this.placed) };
      this.blocks
        .upTo(list)
        .each(list, `${before}${text}${fit === 'whole' || fit === 'ends' ? '\n' : ''}`, (word) => out.push(word));
    }
    const others: number[] = [];
    const holds = fitTests[fit];
    let n = 0;
    for (const [number, word] of this.others) {
      if (folding === 'search' && n === this.folded.length) this.folded.push(foldSearch(word));
      if (holds(folding === 'search' ? this.folded[n] : word, text)) others.push(number);
      n++;
    }
    return others.length === 0 ? out : [...out, ...others].sort((a, b) => a - b);
  }
}
