// The segments of the text index as one: messages numbered from 0 through all of them.
import type { SearchedTexts } from './find';
import type { TextBatch } from './textBatch';
import { Dictionary, type Folding } from './dictionary';
import { TextSegment, without, type PackedSegment } from './textIndex';
import { segmentSize, type Part } from './units';

/** Tells of each message that is marked, counted from the first one on. */
function visitHeld(holding: Uint8Array, first: number, visit: (message: number) => void): void {
  for (let at = 0; at < holding.length; at++) if (holding[at] === 1) visit(first + at);
}

export class TextSegments implements SearchedTexts {
  private readonly dictionary = new Dictionary();
  private readonly segments: TextSegment[] = [];
  /** Segments that are here before those in front of them, by their number. */
  private readonly early = new Map<number, TextSegment>();
  count = 0;

  /** Takes in the `at`th message of a batch as the next; null for one that can't be read. The segment that it went into. */
  add(batch: TextBatch | null, at = 0): number {
    const which = Math.floor(this.count / segmentSize);
    const segment = (this.segments[which] ??= new TextSegment(this.dictionary));
    segment.add(batch, at);
    this.count++;
    return which;
  }

  /**
   * Takes a stored segment back, as the next, of which only the first `count` messages still count. Only a full one can be
   * followed by another.
   */
  attach(stored: PackedSegment, count = stored.count): void {
    this.segments.push(TextSegment.of(stored, count, this.dictionary));
    this.count += count;
  }

  /** Takes a stored segment back before those in front of it, of which only the first `count` messages still count. */
  attachEarly(which: number, stored: PackedSegment, count = stored.count): void {
    this.early.set(which, TextSegment.of(stored, count, this.dictionary));
  }

  /** Takes in what came early, as far as nothing is missing in front of it, and forgets the rest. */
  join(): void {
    for (let next = this.early.get(0); next; next = this.early.get(this.segments.length)) {
      this.segments.push(next);
      this.count += next.count;
      if (next.count < segmentSize) break;
    }
    this.early.clear();
  }

  /** A segment that is here early, as texts of its own, with the numbers that its messages have among all. */
  earlyTexts(which: number): SearchedTexts {
    const segment = this.early.get(which) ?? this.segments.at(which);
    return {
      eachHolding: (text, parts, visit) => {
        if (segment) visitHeld(segment.holding(text, parts, 'search'), which * segmentSize, visit);
      },
      // A field is told of once all are here.
      eachFieldHolding: () => undefined,
    };
  }

  /** Forgets the messages from `count` on. The segment that changed by it. */
  drop(count: number): number {
    const which = Math.floor(count / segmentSize);
    this.segments.length = Math.min(this.segments.length, which + 1);
    this.segments[which]?.drop(count - which * segmentSize);
    this.count = Math.min(this.count, count);
    return which;
  }

  /** Takes the words of some messages, numbered from 0 within a segment, out of it. */
  erase(which: number, messages: ReadonlySet<number>): void {
    const segment = this.segments.at(which);
    if (segment) this.segments[which] = TextSegment.of(without(segment.pack(), messages), undefined, this.dictionary);
  }

  /** A segment as it is stored; one without messages where there is none. */
  pack(which: number): PackedSegment {
    return (this.segments[which] ?? new TextSegment(this.dictionary)).pack();
  }

  /** About how many bytes it takes in memory. */
  get bytes(): number {
    return this.segments.reduce((n, segment) => n + segment.bytes, this.dictionary.bytes);
  }

  eachHolding(
    text: string,
    parts: readonly Part[],
    visit: (message: number) => void,
    folding: Folding = 'search',
  ): void {
    for (const [which, segment] of this.segments.entries())
      visitHeld(segment.holding(text, parts, folding), which * segmentSize, visit);
  }

  eachField(name: string, visit: (value: string | null, messages: readonly number[]) => void): void {
    for (const [which, segment] of this.segments.entries())
      segment.eachField(name, (value, messages) =>
        visit(
          value,
          Array.from(messages, (message) => which * segmentSize + message),
        ),
      );
  }

  eachFieldHolding(
    name: string,
    text: string,
    holds: (message: number) => void,
    toRead: (message: number) => void,
  ): void {
    for (const [which, segment] of this.segments.entries()) {
      const each = (visit: (message: number) => void) => (messages: Uint16Array) => {
        for (const message of messages) visit(which * segmentSize + message);
      };
      segment.eachFieldHolding(name, text, each(holds), each(toRead));
    }
  }

  /** The steps that make ready what the first question would have to wait for. */
  warming(): (() => void)[] {
    return this.segments.flatMap((segment) => segment.warming());
  }
}
