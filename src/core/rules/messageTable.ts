// Many messages asked at once: what their envelopes say stands in columns of texts, each different text once, so that a
// condition is asked of a text and not of every message that has it.
import type { Envelope } from '../mail/envelopeSchema';
import { Bits } from '../data/bits';
import { foldSearch } from '../text/fold';
import { keepNewest } from '../data/memo';
import { blanksAsOne } from '../text/blanks';
import { foldAscii } from '../text/collation';
import { conditionTest, sources, type Matcher, type RuleMessage, type Source } from './match';
import { grown } from '../data/grown';
import { WordBlocks, type WordList } from '../text/wordBlocks';
import { endsStation, isGroup, type Condition, type Group, type Rule } from './rule';

/** Subjects are mostly different from each other: to look for equal ones would cost more than it spares. */
const mostlyDifferent: ReadonlySet<Source> = new Set<Source>(['subject']);

/** Texts in one block of a column: a subject has as many threes of characters as eight words have. */
const textsInBlock = 8;

/** Texts as searching folds them, one after another between line ends. */
class SearchedList implements WordList {
  words = '\n';
  starts = new Uint32Array(0);

  /** Takes in the texts that are new. */
  upTo(texts: readonly string[]): this {
    const first = this.starts.length;
    if (texts.length === first) return this;
    const some: string[] = [];
    this.starts = grown(this.starts, new Uint32Array(texts.length));
    let at = this.words.length;
    for (let text = first; text < texts.length; text++) {
      const folded = foldSearch(blanksAsOne(texts[text]));
      some.push(folded);
      this.starts[text] = at;
      at += folded.length + 1;
    }
    this.words += `${some.join('\n')}\n`;
    return this;
  }
}

/** What envelopes say, asked for a text. */
export interface EnvelopeTexts {
  /** How many messages there are. */
  readonly count: number;
  /** Marks the messages that have a text, folded by foldSearch, in one of their texts. */
  markHolding(source: Source, text: string, bits: Bits): void;
}

/** The envelopes of some messages, from one on up to another, asked one by one: where not all are in memory. */
export class SomeEnvelopes implements EnvelopeTexts {
  /** `count`: how many messages there are in all. */
  constructor(
    readonly count: number,
    private readonly from: number,
    private readonly to: number,
    private readonly envelopeOf: (message: number) => Envelope,
  ) {}

  markHolding(source: Source, text: string, bits: Bits): void {
    for (let message = this.from; message < this.to; message++)
      if (foldSearch(blanksAsOne(foldAscii(sources[source](this.envelopeOf(message))))).includes(text))
        bits.set(message);
  }
}

class TextColumn {
  private readonly positions = new Map<string, number>();
  /** Folded. */
  private readonly texts: string[] = [];
  /** The texts as searching folds them, and which of them need not be looked through. */
  private readonly searched = new SearchedList();
  private readonly blocks = new WordBlocks(textsInBlock);
  private of = new Uint32Array(1_024);
  count = 0;

  constructor(private readonly source: Source) {}

  add(envelope: Envelope): void {
    const text = sources[this.source](envelope);
    let at = mostlyDifferent.has(this.source) ? undefined : this.positions.get(text);
    if (at === undefined) {
      at = this.texts.push(foldAscii(text)) - 1;
      if (!mostlyDifferent.has(this.source)) this.positions.set(text, at);
    }
    if (this.count === this.of.length) this.of = grown(this.of, new Uint32Array(2 * this.count));
    this.of[this.count++] = at;
  }

  /** Forgets the messages from `count` on; their texts stay, and are nobody's. */
  drop(count: number): void {
    this.count = Math.min(this.count, count);
  }

  mark(bits: Bits, from: number, holds: (text: string) => boolean): void {
    const { texts } = this;
    const known = new Uint8Array(texts.length);
    let some = false;
    // Messages from some on have mostly texts from some on; only where all are asked is each text worth asking first.
    if (from > 0) {
      for (let message = from; message < this.count; message++) if (holds(texts[this.of[message]])) bits.set(message);
      return;
    }
    for (let text = 0; text < texts.length; text++) if (holds(texts[text])) some = (known[text] = 1) === 1;
    if (some) for (let message = 0; message < this.count; message++) if (known[this.of[message]]) bits.set(message);
  }

  /** Marks the messages in whose text another stands, both as searching folds them. */
  markHolding(bits: Bits, sought: string): void {
    const list = this.searched.upTo(this.texts);
    const holding = new Uint8Array(this.texts.length);
    let some = false;
    this.blocks.upTo(list).each(list, sought, (text) => {
      holding[text] = 1;
      some = true;
    });
    if (some) for (let message = 0; message < this.count; message++) if (holding[this.of[message]]) bits.set(message);
  }
}

/** Conditions that are remembered; the ones asked longest ago go first. */
const mostKept = 400;

/** The envelopes of messages, numbered from 0. */
export class MessageTable implements EnvelopeTexts {
  private readonly columns = new Map<Source, TextColumn>();
  private readonly kept = new Map<string, Bits>();
  private dates = new Float64Array(0);
  /** The same as the clock showed it where it was sent. */
  private clocks = new Float64Array(0);
  count = 0;

  /** `envelopeOf`: the envelope of a message that was taken in. */
  constructor(private readonly envelopeOf: (message: number) => Envelope) {
    for (const source of Object.keys(sources) as Source[]) this.columns.set(source, new TextColumn(source));
  }

  /** Takes in the messages up to, not including, `count`. */
  grow(count: number): void {
    if (count > this.dates.length) {
      this.dates = grown(this.dates, new Float64Array(2 * count));
      this.clocks = grown(this.clocks, new Float64Array(2 * count));
    }
    for (; this.count < count; this.count++) {
      const envelope = this.envelopeOf(this.count);
      this.dates[this.count] = envelope.date ?? NaN;
      this.clocks[this.count] = (envelope.date ?? NaN) + (envelope.zone ?? 0) * 60_000;
      for (const column of this.columns.values()) column.add(envelope);
    }
  }

  markHolding(source: Source, text: string, bits: Bits): void {
    this.columns.get(source)?.markHolding(bits, text);
  }

  private askAge(holds: (date: number, now: number) => boolean, now: number): Bits {
    const bits = new Bits(this.count);
    // Without a date it is no number, of which no comparison holds.
    for (let message = 0; message < this.count; message++) if (holds(this.dates[message], now)) bits.set(message);
    return bits;
  }

  /** Forgets the messages from `count` on. */
  drop(count: number): void {
    if (count >= this.count) return;
    for (const column of this.columns.values()) column.drop(count);
    this.count = count;
    this.kept.clear();
  }

  /** The Date field of a message as the clock showed it there, as if that were UTC; null where it has none. */
  sentClock(message: number): number | null {
    const date = this.clocks[message];
    return Number.isNaN(date) ? null : date;
  }

  /** Which messages a condition holds for at a moment; null where it asks for more than an envelope says. */
  ask(condition: Condition, now: number): Bits | null {
    const test = conditionTest(condition);
    if (test.by === 'message') return null;
    if (test.by === 'age') return this.askAge(test.holds, now);
    const key = JSON.stringify(condition);
    let bits = this.kept.get(key);
    if (bits?.length !== this.count) {
      const from = bits?.length ?? 0;
      bits = bits ? bits.grown(this.count) : new Bits(this.count);
      if (test.by === 'texts')
        for (const source of test.sources) this.columns.get(source)?.mark(bits, from, test.holds);
      else
        for (let message = from; message < this.count; message++)
          if (test.holds(this.envelopeOf(message))) bits.set(message);
    }
    // Asked now, it is the last to be forgotten.
    keepNewest(this.kept, key, bits, mostKept);
    return bits;
  }
}

/** Which messages a group of conditions holds for. */
function askGroup({ match, of }: Group, ask: (condition: Condition) => Bits): Bits {
  const parts = of.map((part) => (isGroup(part) ? askGroup(part, ask) : ask(part)));
  if (match === 'all') return parts.reduce((a, b) => a.and(b));
  const any = parts.reduce((a, b) => a.or(b));
  return match === 'any' ? any : any.not();
}

/** Which messages a rule matches, on or off. */
export function askRule({ when, unless }: Rule, ask: (condition: Condition) => Bits): Bits {
  const bits = askGroup(when, ask);
  return unless ? bits.and(askGroup(unless, ask).not()) : bits;
}

/** A message of which no more is known than its number. */
type Numbered = Pick<RuleMessage, 'id'>;

/** Rules that were asked of all messages before. */
export class TableMatcher implements Matcher<Numbered> {
  private readonly asked: { rule: Rule; bits: Bits; ends: boolean }[];

  /** `ask`: which messages a rule matches. */
  constructor(rules: readonly Rule[], ask: (rule: Rule) => Bits) {
    this.asked = rules.filter((rule) => rule.on).map((rule) => ({ rule, bits: ask(rule), ends: endsStation(rule) }));
  }

  get size(): number {
    return this.asked.length;
  }

  matching({ id = -1 }: Numbered): Rule[] {
    const out: Rule[] = [];
    for (const { rule, bits, ends } of this.asked) {
      if (!bits.has(id)) continue;
      out.push(rule);
      if (ends) break;
    }
    return out;
  }

  all({ id = -1 }: Numbered): Rule[] {
    return this.asked.filter(({ bits }) => bits.has(id)).map(({ rule }) => rule);
  }

  any({ id = -1 }: Numbered): boolean {
    return this.asked.some(({ bits }) => bits.has(id));
  }
}
