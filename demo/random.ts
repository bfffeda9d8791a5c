// Chance from a seed: the same seed gives the same mailbox, message for message.

/** A seeded source of chance (mulberry32, public domain). */
export class Random {
  private state: number;

  constructor(seed: number) {
    this.state = seed >>> 0;
  }

  /** A source of its own for one named thing, so that adding one thing does not change all the others. */
  static of(seed: number, index: number): Random {
    return new Random(Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b) ^ Math.imul(index + 1, 0xc2b2ae35));
  }

  /** From 0 up to, not including, 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0;
    let t = this.state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  /** A whole number from `low` to `high`, both included. */
  int(low: number, high: number): number {
    return low + Math.floor(this.next() * (high - low + 1));
  }

  chance(share: number): boolean {
    return this.next() < share;
  }

  pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)];
  }

  /** `count` different ones of the list, in chance order. */
  some<T>(list: readonly T[], count: number): T[] {
    const left = [...list];
    const out: T[] = [];
    while (out.length < count && left.length) out.push(left.splice(this.int(0, left.length - 1), 1)[0]);
    return out;
  }

  hex(digits: number): string {
    let out = '';
    while (out.length < digits) out += Math.floor(this.next() * 16).toString(16);
    return out;
  }
}

/**
 * Text from a template: `{a|b}` is one of the two, `{name}` a word from the lexicon, where templates may stand again.
 */
export function expand(
  template: string,
  lexicon: Record<string, readonly string[]>,
  random: Random,
  depth = 0,
): string {
  return template.replace(/\{([^{}]*)\}/g, (_, inner: string) => {
    if (inner.includes('|')) return random.pick(inner.split('|'));
    const number = /^(\d+)-(\d+)$/.exec(inner);
    if (number) return String(random.int(Number(number[1]), Number(number[2])));
    const words = lexicon[inner];
    if (!words || depth > 6) return inner;
    return expand(random.pick(words), lexicon, random, depth + 1);
  });
}
