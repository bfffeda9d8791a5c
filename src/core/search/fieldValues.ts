// What the header fields of a segment’s messages say: of each field its different values, and of each value the messages
// that have it. Most values are said again and again (of which list a mail is, what wrote it), so that each is looked at
// once, however many messages say it.
import { hashed, hashSeed } from '../mail/hash';
import { NumbersByHash } from './numbersByHash';
import type { Units } from './units';

export class FieldValues {
  /** Where the words of each value stand among the units. */
  private readonly from: Uint32Array;
  private readonly to: Uint32Array;
  /** Where the messages of each value begin among them. */
  private readonly starts: Uint32Array;
  private readonly messages: Uint16Array;
  /** The values of each field, one after another, by the field’s name. */
  private readonly ofName = new Map<string, [first: number, after: number]>();

  /**
   * `names`: one for each word that is the name of a field; `nameOf`: which. `untold`: words that stand in the place of a
   * value that is not kept.
   */
  constructor(
    private readonly units: Units,
    names: Uint8Array,
    nameOf: (word: number) => string,
    private readonly untold: readonly number[],
  ) {
    const found: { name: number; from: number; to: number }[] = [];
    const values: number[] = [];
    const ids: number[] = [];
    const known = new NumbersByHash();
    let sought = { name: 0, from: 0, to: 0 };
    const isSought = (value: number): boolean => {
      const { name, from, to } = found[value];
      return name === sought.name && units.same(from, to, sought.from, sought.to);
    };
    units.eachField(names, (message, name, from, to) => {
      sought = { name, from, to };
      const hash = units.hash(hashed(hashSeed, name), from, to);
      let value = known.find(hash, isSought);
      if (value < 0) known.add(hash, (value = found.push(sought) - 1));
      values.push(value);
      ids.push(message);
    });
    // Side by side what belongs to one field.
    const order = [...found.keys()].sort((a, b) => found[a].name - found[b].name || a - b);
    const place = new Uint32Array(found.length);
    for (const [at, value] of order.entries()) {
      place[value] = at;
      const { name } = found[value];
      if (at > 0 && found[order[at - 1]].name === name) continue;
      let after = at;
      while (after < order.length && found[order[after]].name === name) after++;
      this.ofName.set(nameOf(name), [at, after]);
    }
    this.from = Uint32Array.from(order, (value) => found[value].from);
    this.to = Uint32Array.from(order, (value) => found[value].to);
    const starts = new Uint32Array(found.length + 2);
    for (const value of values) starts[place[value] + 2]++;
    for (let at = 2; at < starts.length; at++) starts[at] += starts[at - 1];
    this.messages = new Uint16Array(values.length);
    for (const [i, value] of values.entries()) this.messages[starts[place[value] + 1]++] = ids[i];
    this.starts = starts.slice(0, found.length + 1);
  }

  /** Tells of each different value of a field. */
  each(name: string, visit: (value: number) => void): void {
    const [first, after] = this.ofName.get(name) ?? [0, 0];
    for (let value = first; value < after; value++) visit(value);
  }

  /** How many different values a field has. */
  count(name: string): number {
    const [first, after] = this.ofName.get(name) ?? [0, 0];
    return after - first;
  }

  /** Whether a value is not kept, so that only its messages tell. */
  isUntold(value: number): boolean {
    const [from, to] = [this.from[value], this.to[value]];
    return from < to && this.untold.includes(this.units.word(from));
  }

  /** The words of a value. */
  words(value: number): number[] {
    return this.units.words(this.from[value], this.to[value]);
  }

  /** Whether a value has a word for each of some tests. */
  hasAll(value: number, tests: readonly Uint8Array[]): boolean {
    return tests.every((test) => this.units.has(test, this.from[value], this.to[value]));
  }

  /** The messages that say a value, one twice that says it twice. */
  of(value: number): Uint16Array {
    return this.messages.subarray(this.starts[value], this.starts[value + 1]);
  }

  /** About how many bytes it takes in memory. */
  get bytes(): number {
    return this.from.byteLength + this.to.byteLength + this.starts.byteLength + this.messages.byteLength;
  }
}
