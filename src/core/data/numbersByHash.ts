// Things with a number each, found again by a hash of what they are: without a string or an object for each of them, as a
// Map would need.
import { grown } from './grown';

/** So many places are looked at; where hashes crowd, by chance or by a stranger's design, things are found by their names. */
const mostProbes = 32;

/** A table with open addressing. */
export class NumbersByHash {
  /** Each number and one, to be told from 0. */
  private table = new Uint32Array(1_024);
  private count = 0;
  /** By number. */
  private hashes = new Int32Array(1_024);
  /** The numbers of those that found no place near where their hash is, by their names. */
  private readonly crowded = new Map<string, number>();

  /** `nameOf`: a string for each number that no other has; it is made of those only whose hashes crowd. */
  constructor(private readonly nameOf: (number: number) => string) {}

  get bytes(): number {
    return this.table.byteLength + this.hashes.byteLength + 100 * this.crowded.size;
  }

  private slotOf(hash: number): number {
    // The lower bits alone are poor where the last character is what differs.
    return (hash ^ (hash >>> 15)) & (this.table.length - 1);
  }

  /** The number with this hash for which `is` says that it is the one sought, whose name is `name`; -1 where there is none. */
  find(hash: number, is: (number: number) => boolean, name: () => string): number {
    const { table, hashes } = this;
    const mask = table.length - 1;
    const from = this.slotOf(hash);
    for (let probe = 0; probe < mostProbes; probe++) {
      const number = table[(from + probe) & mask] - 1;
      if (number < 0) return -1;
      if (hashes[number] === (hash | 0) && is(number)) return number;
    }
    return this.crowded.get(name()) ?? -1;
  }

  /** Takes in a number that is not here yet, and has its name by now. */
  add(hash: number, number: number): void {
    if (number >= this.hashes.length) this.hashes = grown(this.hashes, new Int32Array(2 * number));
    this.hashes[number] = hash;
    this.place(number);
    if (2 * ++this.count <= this.table.length) return;
    const [before, crowded] = [this.table, [...this.crowded.values()]];
    this.table = new Uint32Array(4 * before.length);
    this.crowded.clear();
    for (const one of before) if (one > 0) this.place(one - 1);
    for (const one of crowded) this.place(one);
  }

  private place(number: number): void {
    const { table } = this;
    const from = this.slotOf(this.hashes[number]);
    for (let probe = 0; probe < mostProbes; probe++) {
      const slot = (from + probe) & (table.length - 1);
      if (table[slot] > 0) continue;
      table[slot] = number + 1;
      return;
    }
    this.crowded.set(this.nameOf(number), number);
  }
}
