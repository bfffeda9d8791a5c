// Which of a great many words may have a text: words stand in blocks, and of each block it is known which threes of
// characters it has, as bits of a mask. Most blocks lack one of the threes of a text, and need not be looked through.

/** Words between line ends, and where each begins. */
export interface WordList {
  words: string;
  starts: ArrayLike<number>;
}

/** Bits of a mask, as numbers of 32. A block has some hundred different threes. */
const maskLength = 64;
const maskBits = 32 * maskLength;

/** The bit of three characters that stand side by side. */
const bitOf = (a: number, b: number, c: number): number =>
  Math.imul(a ^ Math.imul(b, 0x85eb) ^ Math.imul(c, 0x1f35d3), 0x9e3779b1) >>> (32 - Math.log2(maskBits));

export class WordBlocks {
  /** `blockSize`: words in one block; as many as have some hundred different threes together. */
  constructor(private readonly blockSize = 64) {}

  private masks = new Uint32Array(0);
  /** Blocks that have their mask. */
  private count = 0;

  /** About how many bytes it takes in memory. */
  get bytes(): number {
    return this.masks.byteLength;
  }

  /** Takes in the blocks that are full by now. */
  upTo({ words, starts }: WordList): this {
    const full = Math.floor(starts.length / this.blockSize);
    if (full === this.count) return this;
    const masks = new Uint32Array(full * maskLength);
    masks.set(this.masks);
    for (let block = this.count; block < full; block++) {
      const [from, to] = this.stretch(block, words, starts);
      const mask = masks.subarray(block * maskLength, (block + 1) * maskLength);
      // With the line ends before and after each word, so that a text at a beginning or an end has its threes, too.
      let [a, b] = [words.charCodeAt(from), words.charCodeAt(from + 1)];
      for (let at = from + 2; at < to; at++) {
        const c = words.charCodeAt(at);
        const bit = bitOf(a, b, c);
        mask[bit >>> 5] |= 1 << (bit & 31);
        a = b;
        b = c;
      }
    }
    this.masks = masks;
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
    const bits = Array.from({ length: sought.length - 2 }, (_, at) =>
      bitOf(sought.charCodeAt(at), sought.charCodeAt(at + 1), sought.charCodeAt(at + 2)),
    );
    const { masks } = this;
    for (let block = 0; block < this.count; block++) {
      const mask = block * maskLength;
      let may = true;
      for (let i = 0; may && i < bits.length; i++) may = ((masks[mask + (bits[i] >>> 5)] >>> (bits[i] & 31)) & 1) === 1;
      if (may) look(block * this.blockSize, ...this.stretch(block, words, starts));
    }
    const rest = this.count * this.blockSize;
    if (rest < count) look(rest, starts[rest] - 1, words.length);
  }
}
