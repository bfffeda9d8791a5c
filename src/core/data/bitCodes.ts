// Numbers as bits, the smaller the shorter: Exp-Golomb codes of order k (ITU-T H.264, section 9.1, has those of order 0): the
// number, divided by 2^k, plus one, in binary; before it as many zeros as it has digits after the first; after it the k bits
// that were divided away.

/** Writes numbers one behind the other. */
export class BitWriter {
  private readonly bytes: number[] = [];
  private byte = 0;
  private free = 8;

  /** Writes the lowest `count` bits of a number, at most 32, the highest first. */
  private put(value: number, count: number): void {
    for (let left = count; left > 0;) {
      const take = Math.min(left, this.free);
      left -= take;
      this.free -= take;
      this.byte |= ((value >>> left) & ((1 << take) - 1)) << this.free;
      if (this.free === 0) {
        this.bytes.push(this.byte);
        this.byte = 0;
        this.free = 8;
      }
    }
  }

  /** Writes a whole number from 0 to 2^32 - 2; `k`: 0 to 31. */
  number(value: number, k: number): void {
    const first = (value >>> k) + 1;
    const digits = 32 - Math.clz32(first);
    this.put(0, digits - 1);
    this.put(first, digits);
    this.put(value, k);
  }

  /** What was written, with zeros to fill the last byte. */
  end(): Uint8Array<ArrayBuffer> {
    if (this.free < 8) this.put(0, this.free);
    return Uint8Array.from(this.bytes);
  }
}

/** Reads what {@link BitWriter} wrote. Beyond the end of the bytes everything is NaN. */
export class BitReader {
  private at = 0;

  constructor(private readonly bytes: Uint8Array) {}

  private bit(): number {
    const byte = this.bytes[this.at >> 3];
    return byte === undefined ? NaN : (byte >> (7 - (this.at++ & 7))) & 1;
  }

  /** Reads a number that was written with the same `k`; NaN where there is none. */
  number(k: number): number {
    let zeros = 0;
    let bit = this.bit();
    for (; bit === 0 && zeros < 32; bit = this.bit()) zeros++;
    if (bit !== 1) return NaN;
    let first = 1;
    for (let left = zeros; left > 0; left--) first = first * 2 + this.bit();
    let value = first - 1;
    for (let left = k; left > 0; left--) value = value * 2 + this.bit();
    return value;
  }
}

/** The order, 0 to 31, that suits numbers of this mean. */
export const orderFor = (mean: number): number => Math.max(0, Math.min(31, Math.round(Math.log2(mean + 1) - 1 / 2)));
