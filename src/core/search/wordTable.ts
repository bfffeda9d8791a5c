// The different words of a segment, by their position, and which of them a text fits.
//
// Nearly all words are plain ASCII: these stand one after another in one text. The few others stand beside it, as they are
// and, once they are searched, folded.
import { foldSearch } from '../mail/fold';
import { WordBlocks, type WordList } from '../mail/wordBlocks';

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

/** The word that stands at a place of the text of all words. */
function wordAt(starts: ArrayLike<number>, count: number, at: number): number {
  let [low, high] = [0, count - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (starts[middle] <= at) low = middle;
    else high = middle - 1;
  }
  return low;
}

export class WordTable {
  /** Words that were added and are not in the text yet. */
  private added: string[] = [];
  /** The words between line ends; empty for one that is not ASCII. */
  private text = '\n';
  private starts = new Uint32Array(0);
  private placed = 0;
  private readonly others: { position: number; word: string }[] = [];
  private folded: string[] = [];
  private readonly blocks = new WordBlocks();
  /** The last question and its answer. */
  private last: { question: string; words: readonly number[] } | null = null;

  /** Takes words back that {@link joined} gave. */
  static of(joined: string): WordTable {
    const table = new WordTable();
    // Words are eight characters long, on average.
    table.room(Math.ceil(joined.length / 8) + 1);
    let [text, from] = ['', 0];
    for (let at = 1; at < joined.length;) {
      const end = joined.indexOf('\n', at);
      table.room(table.placed + 1);
      table.starts[table.placed++] = at - from + text.length;
      at = end + 1;
    }
    const beyond = new RegExp(beyondAscii, 'g');
    // Each of the others is cut out: all that stands behind it begins that much earlier.
    const cuts: [at: number, length: number][] = [];
    for (let found = beyond.exec(joined); found; found = beyond.exec(joined)) {
      const begin = joined.lastIndexOf('\n', found.index) + 1;
      const end = joined.indexOf('\n', found.index);
      text += joined.slice(from, begin);
      from = beyond.lastIndex = end;
      cuts.push([begin, end - begin]);
      table.others.push({ position: wordAt(table.starts, table.placed, begin), word: joined.slice(begin, end) });
    }
    table.text = text + joined.slice(from);
    let [cut, shift] = [0, 0];
    for (let word = 0; word < table.placed && cuts.length; word++) {
      const start = table.starts[word];
      while (cut < cuts.length && cuts[cut][0] < start) shift += cuts[cut++][1];
      table.starts[word] = start - shift;
    }
    return table;
  }

  get size(): number {
    return this.placed + this.added.length;
  }

  /** About how many bytes it takes in memory. */
  get bytes(): number {
    const some = this.added.reduce((n, word) => n + 2 * word.length + 32, 0);
    const others = this.others.reduce((n, { word }) => n + 4 * word.length + 96, 0);
    return some + others + this.text.length + this.starts.byteLength + this.blocks.bytes;
  }

  /** Adds the next word. */
  add(word: string): void {
    this.added.push(word);
  }

  private room(count: number): void {
    if (count <= this.starts.length) return;
    const longer = new Uint32Array(Math.max(count, Math.ceil(1.5 * this.starts.length)));
    longer.set(this.starts);
    this.starts = longer;
  }

  /** Puts what was added into the text. */
  private settled(): this {
    if (this.added.length === 0) return this;
    this.room(this.size);
    const some: string[] = [];
    let at = this.text.length;
    for (const word of this.added) {
      const plain = !beyondAscii.test(word);
      if (!plain) this.others.push({ position: this.placed, word });
      some.push(plain ? word : '');
      this.starts[this.placed++] = at;
      at += (plain ? word.length : 0) + 1;
    }
    this.text += `${some.join('\n')}\n`;
    this.added = [];
    return this;
  }

  /** The words between line ends, as they are stored. */
  joined(): string {
    this.settled();
    if (this.others.length === 0) return this.text;
    let [out, from] = ['', 0];
    for (const { position, word } of this.others) {
      out += this.text.slice(from, this.starts[position]) + word;
      from = this.starts[position];
    }
    return out + this.text.slice(from);
  }

  /** Gives memory back that only growing needs. */
  trim(): this {
    this.settled();
    this.starts = this.starts.slice(0, this.placed);
    return this;
  }

  /** The word at a position. */
  word(position: number): string {
    this.settled();
    const from = this.starts[position];
    const to = position + 1 < this.placed ? this.starts[position + 1] - 1 : this.text.length - 1;
    if (to > from) return this.text.slice(from, to);
    return this.others.find((other) => other.position === position)?.word ?? '';
  }

  /** The positions of the words that fit a text, folded as they are compared. */
  fitting(fit: Fit, text: string, folding: Folding): readonly number[] {
    this.settled();
    // What is looked for in the body is looked for in the header next.
    const question = `${fit} ${folding} ${this.placed} ${text}`;
    if (this.last?.question === question) return this.last.words;
    const words = this.find(fit, text, folding);
    this.last = { question, words };
    return words;
  }

  private find(fit: Fit, text: string, folding: Folding): number[] {
    if (text === '') return Array.from({ length: this.placed }, (_, at) => at);
    const out: number[] = [];
    if (!beyondAscii.test(text)) {
      const before = fit === 'whole' || fit === 'begins' ? '\n' : '';
      const list: WordList = { words: this.text, starts: this.starts.subarray(0, this.placed) };
      this.blocks
        .upTo(list)
        .each(list, `${before}${text}${fit === 'whole' || fit === 'ends' ? '\n' : ''}`, (word) => out.push(word));
    }
    if (folding === 'search')
      for (let at = this.folded.length; at < this.others.length; at++)
        this.folded.push(foldSearch(this.others[at].word));
    const holds = fitTests[fit];
    for (const [at, { position, word }] of this.others.entries())
      if (holds(folding === 'search' ? this.folded[at] : word, text)) out.push(position);
    return out;
  }
}
