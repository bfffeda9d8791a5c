// One bit for each of many messages: which of them a condition, or a rule, holds for.

export class Bits {
  readonly words: Uint32Array<ArrayBuffer>;

  constructor(
    readonly length: number,
    words?: Uint32Array<ArrayBuffer>,
  ) {
    this.words = words ?? new Uint32Array((length + 31) >>> 5);
  }

  static all(length: number): Bits {
    const bits = new Bits(length);
    bits.words.fill(0xffff_ffff);
    // Beyond the last message there is none.
    if (length & 31) bits.words[bits.words.length - 1] = (1 << (length & 31)) - 1;
    return bits;
  }

  /** A longer copy, for messages that came since. */
  grown(length: number): Bits {
    const bits = new Bits(length);
    bits.words.set(this.words);
    return bits;
  }

  has(at: number): boolean {
    return (this.words[at >>> 5] & (1 << (at & 31))) !== 0;
  }

  set(at: number): void {
    this.words[at >>> 5] |= 1 << (at & 31);
  }

  get count(): number {
    let n = 0;
    for (let word of this.words) {
      word -= (word >>> 1) & 0x5555_5555;
      word = (word & 0x3333_3333) + ((word >>> 2) & 0x3333_3333);
      n += Math.imul((word + (word >>> 4)) & 0x0f0f_0f0f, 0x0101_0101) >>> 24;
    }
    return n;
  }

  and(other: Bits): Bits {
    return new Bits(
      this.length,
      this.words.map((word, i) => word & other.words[i]),
    );
  }

  or(other: Bits): Bits {
    return new Bits(
      this.length,
      this.words.map((word, i) => word | other.words[i]),
    );
  }

  not(): Bits {
    return Bits.all(this.length).and(
      new Bits(
        this.length,
        this.words.map((word) => ~word),
      ),
    );
  }
}
