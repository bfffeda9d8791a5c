// What the header fields of a segment’s messages say: of each field its different values, and of each value the messages
// that have it. Most values are said again and again (of which list a mail is, what wrote it), so that each is looked at
// once, however many messages say it.
import { groupsBy } from '../data/groups';
import { hashed, hashSeed } from '../data/hash';
import { NumbersByHash } from '../data/numbersByHash';
import type { Units } from './units';

/** A value: which word names its field, and where its words stand among the units. */
interface Value {
  name: number;
  from: number;
  to: number;
}

/** The different values of all fields, and each time that one is said: which, and in which message. */
function valuesOf(units: Units, names: Uint8Array): { values: Value[]; said: number[]; messages: number[] } {
  const values: Value[] = [];
  const said: number[] = [];
  const messages: number[] = [];
  // A value as its numbers: which words, in which field.
  const nameOf = ({ name, from, to }: Value): string => [name, ...units.between(from, to)].join(' ');
  const known = new NumbersByHash((value) => nameOf(values[value]));
  let sought: Value = { name: 0, from: 0, to: 0 };
  const isSought = (at: number): boolean => {
    const { name, from, to } = values[at];
    return name === sought.name && units.same(from, to, sought.from, sought.to);
  };
  const nameSought = (): string => nameOf(sought);
  units.eachField(names, (message, name, from, to) => {
    sought = { name, from, to };
    const hash = units.hash(hashed(hashSeed, name), from, to);
    let value = known.find(hash, isSought, nameSought);
    if (value < 0) known.add(hash, (value = values.push(sought) - 1));
    said.push(value);
    messages.push(message);
  });
  return { values, said, messages };
}

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
    const { values, said, messages } = valuesOf(units, names);
    // Side by side what belongs to one field.
    const order = [...values.keys()].sort((a, b) => values[a].name - values[b].name || a - b);
    const place = new Uint32Array(values.length);
    for (const [at, value] of order.entries()) {
      place[value] = at;
      const name = nameOf(values[value].name);
      this.ofName.set(name, [this.ofName.get(name)?.[0] ?? at, at + 1]);
    }
    this.from = Uint32Array.from(order, (value) => values[value].from);
    this.to = Uint32Array.from(order, (value) => values[value].to);
    const { starts, members } = groupsBy(
      said.map((value) => place[value]),
      values.length,
    );
    this.starts = starts;
    this.messages = Uint16Array.from(members, (at) => messages[at]);
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
