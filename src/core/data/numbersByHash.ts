// Things with a number each, found again by a hash of what they are: without a string or an object for each of them, as a
// Map would need.
import { grown } from './grown';

/** A table with open addressing. */
export class NumbersByHash {
  /** Each number and one, to be told from 0. */
  private table = new Uint32Array(1_024);
  private count = 0;
  /** By number. */
  private hashes = new Int32Array(1_024);

  get bytes(): number {
    return this.table.byteLength + this.hashes.byteLength;
  }

  private slotOf(hash: number): number {
    // The lower bits alone are poor where the last character is what differs.
    return (hash ^ (hash >>> 15)) & (this.table.length - 1);
  }

  /** The number with this hash for which `is` says that it is the one sought; -1 where there is none. */
  find(hash: number, is: (number: number) => boolean): number {
    const { table, hashes } = this;
    const mask = table.length - 1;
    for (let slot = this.slotOf(hash); table[slot] > 0; slot = (slot + 1) & mask) {
      const number = table[slot] - 1;
      if (hashes[number] === (hash | 0) && is(number)) return number;
    }
    return -1;
  }

  /** Takes in a number that is not here yet. */
  add(hash: number, number: number): void {
    if (number >= this.hashes.length) this.hashes = grown(this.hashes, new Int32Array(2 * number));
    this.hashes[number] = hash;
    this.place(number);
    if (2 * ++this.count <= this.table.length) return;
    const before = this.table;
    this.table = new Uint32Array(4 * before.length);
    for (const one of before) if (one > 0) this.place(one - 1);
  }

  private place(number: number): void {
    const { table } = this;
    let slot = this.slotOf(this.hashes[number]);
    while (table[slot] > 0) slot = (slot + 1) & (table.length - 1);
    table[slot] = number + 1;
  }
}
