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

/** What one matter is about: the words and numbers that were said first of it, by what they are. */
export type Matter = Map<string, string>;

/** Of these a matter has one: the ship, the part, the hour that is spoken of. */
const ofMatters = new Set([
  'ship',
  'harbour',
  'island',
  'weekday',
  'time',
  'part',
  'goods',
  'crossing',
  'reason',
  'fault',
  'ferryNews',
]);

/**
 * Text from a template: `{a|b}` is one of the two, `{2-9}` a number, `{name}` a word from the lexicon, where templates may
 * stand again. All that is said of one matter speaks of the same ship and hour: the first `{ship}` of each template is
 * the matter's, and a second one is another; “Berth {1-6}” is the same berth.
 */
export function expand(
  template: string,
  lexicon: Record<string, readonly string[]>,
  random: Random,
  matter: Matter = new Map(),
  depth = 0,
): string {
  const said = new Set<string>();
  return template.replace(/\{([^{}]*)\}/g, (_, inner: string, offset: number) => {
    if (inner.includes('|')) return random.pick(inner.split('|'));
    const number = /^(\d+)-(\d+)$/.exec(inner);
    if (number) {
      const drawn = String(random.int(Number(number[1]), Number(number[2])));
      const name = /[A-Z][a-z]+ $/.exec(template.slice(0, offset))?.[0];
      return name ? first(matter, name + inner, drawn) : drawn;
    }
    const words = lexicon[inner];
    if (!words || depth > 6) return inner;
    const chosen = random.int(0, words.length - 1);
    const word = expand(words[chosen], lexicon, random, matter, depth + 1);
    if (!ofMatters.has(inner)) return word;
    const its = first(matter, inner, word);
    if (!said.has(inner)) {
      said.add(inner);
      return its;
    }
    return word === its ? expand(words[(chosen + 1) % words.length], lexicon, random, matter, depth + 1) : word;
  });
}

/** What was said first. */
function first(matter: Matter, key: string, word: string): string {
  const there = matter.get(key);
  if (there === undefined) matter.set(key, word);
  return there ?? word;
}
