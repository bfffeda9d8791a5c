// Which of a great many words may have a text: words stand in blocks, and of each block it is known which threes of
// characters it has. Most blocks lack one of the threes of a text, and need not be looked through.
//
// A three is one of so many bits. For each of these bits stands, side by side, which blocks have it (a signature file, by
// bits rather than by blocks: a text of seven characters asks five short rows, not every block).

/** Words between line ends, and where each begins. */
export interface WordList {
  words: string;
  starts: ArrayLike<number>;
}

/** Bits that a three of characters may be. A block has some hundred different threes. */
const bitCount = 2_048;

/** The bit of three characters that stand side by side. */
const bitOf = (a: number, b: number, c: number): number =>
  Math.imul(a ^ Math.imul(b, 0x85eb) ^ Math.imul(c, 0x1f35d3), 0x9e3779b1) >>> (32 - Math.log2(bitCount));

export class WordBlocks {
  /** `blockSize`: words in one block; as many as have some hundred different threes together. */
  constructor(private readonly blockSize = 64) {}

  /** For each bit a row of blocks, {@link width} numbers of 32 blocks each. */
  private rows = new Uint32Array(0);
  private width = 0;
  /** Blocks that are in the rows. */
  private count = 0;

  /** About how many bytes it takes in memory. */
  get bytes(): number {
    return this.rows.byteLength;
  }

  private widen(blocks: number): void {
    const width = Math.ceil(blocks / 32);
    if (width <= this.width) return;
    // The first time just as wide as asked for: a list that is whole never grows.
    const wider = this.width === 0 ? width : Math.max(width, 2 * this.width);
    const rows = new Uint32Array(bitCount * wider);
    for (let bit = 0; bit < bitCount; bit++)
      rows.set(this.rows.subarray(bit * this.width, (bit + 1) * this.width), bit * wider);
    this.rows = rows;
    this.width = wider;
  }

  /** Takes in the blocks that are full by now. */
  upTo({ words, starts }: WordList): this {
    const full = Math.floor(starts.length / this.blockSize);
    if (full === this.count) return this;
    this.widen(full);
    const { rows, width } = this;
    for (let block = this.count; block < full; block++) {
      const [from, to] = this.stretch(block, words, starts);
      const [at32, mask] = [block >>> 5, 1 << (block & 31)];
      // With the line ends before and after each word, so that a text at a beginning or an end has its threes, too.
      let [a, b] = [words.charCodeAt(from), words.charCodeAt(from + 1)];
      for (let at = from + 2; at < to; at++) {
        const c = words.charCodeAt(at);
        rows[bitOf(a, b, c) * width + at32] |= mask;
        a = b;
        b = c;
      }
    }
    this.count = full;
    return this;
  }

  /** Where the words of a block stand, with the line ends around them. */
  private stretch(block: number, words: string, starts: ArrayLike<number>): [from: number, to: number] {
    const after = (block + 1) * this.blockSize;
    return [starts[block * this.blockSize] - 1, after < starts.length ? starts[after] : words.length];
  }

  /** Tells of each word where a text stands, line ends before and after it being a part of it. Once, in order. */
  each({ words, starts }: WordList, sought: string, visit: (word: number) => void): void {
    const count = starts.length;
    // An empty text stands in every word.
    if (sought === '') {
      for (let word = 0; word < count; word++) visit(word);
      return;
    }
    const before = sought.startsWith('\n') ? 1 : 0;
    const look = (first: number, from: number, to: number) => {
      const part = words.slice(from, to);
      let word = first;
      for (let at = part.indexOf(sought); at >= 0;) {
        const place = from + at + before;
        // The line end behind the last word of a block begins no word of it.
        if (place >= words.length) return;
        while (word + 1 < count && starts[word + 1] <= place) word++;
        if (before && to < words.length && place >= to) return;
        visit(word);
        // On behind this word: the line end after it is also the one before the next.
        const next = word + 1 < count ? starts[word + 1] - 1 - from : part.length;
        at = part.indexOf(sought, next);
      }
    };
    if (sought.length < 3) return look(0, 0, words.length);
    const { rows, width, blockSize } = this;
    const may = new Uint32Array(width).fill(0xffff_ffff);
    for (let at = 0; at + 2 < sought.length; at++) {
      const row = bitOf(sought.charCodeAt(at), sought.charCodeAt(at + 1), sought.charCodeAt(at + 2)) * width;
      for (let i = 0; i < width; i++) may[i] &= rows[row + i];
    }
    // Blocks side by side that may have it are looked through as one.
    let first = -1;
    for (let block = 0; block <= this.count; block++) {
      // Nothing in 32 blocks: on to the next.
      if (first < 0 && (block & 31) === 0 && may[block >>> 5] === 0) {
        block += 31;
        continue;
      }
      if (block < this.count && (may[block >>> 5] >>> (block & 31)) & 1) {
        if (first < 0) first = block;
      } else if (first >= 0) {
        look(first * blockSize, this.stretch(first, words, starts)[0], this.stretch(block - 1, words, starts)[1]);
        first = -1;
      }
    }
    const rest = this.count * this.blockSize;
    if (rest < count) look(rest, starts[rest] - 1, words.length);
  }
}
