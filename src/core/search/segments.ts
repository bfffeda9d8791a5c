// The segments of the text index as one: messages numbered from 0 through all of them.
import type { SearchedTexts } from './find';
import type { TextBatch } from './textBatch';
import { TextSegment } from './textIndex';
import { segmentSize } from './units';
import type { Folding } from './wordTable';

export class TextSegments implements SearchedTexts {
  private readonly segments: TextSegment[] = [];
  count = 0;

  /** Takes in the `at`th message of a batch as the next; null for one that can't be read. The segment that it went into. */
  add(batch: TextBatch | null, at = 0): number {
    const which = Math.floor(this.count / segmentSize);
    const segment = (this.segments[which] ??= new TextSegment());
    segment.add(batch, at);
    // A full one is put into its small form.
    if (segment.count === segmentSize) segment.pack();
    this.count++;
    return which;
  }

  /** Takes a stored segment back, as the next. Only a full one can be followed by another. */
  attach(segment: TextSegment): void {
    this.segments.push(segment);
    this.count += segment.count;
  }

  /** Forgets the messages from `count` on. The segment that changed by it. */
  drop(count: number): number {
    const which = Math.floor(count / segmentSize);
    this.segments.length = Math.min(this.segments.length, which + 1);
    this.segments[which]?.drop(count - which * segmentSize);
    this.count = Math.min(this.count, count);
    return which;
  }

  segment(which: number): TextSegment | undefined {
    return this.segments[which];
  }

  /** About how many bytes it takes in memory. */
  get bytes(): number {
    return this.segments.reduce((n, segment) => n + segment.bytes, 0);
  }

  eachInBody(text: string, visit: (message: number) => void, folding: Folding = 'search'): void {
    this.eachMarked((segment) => segment.holding(text, folding), visit);
  }

  eachInHeader(text: string, visit: (message: number) => void): void {
    this.eachMarked((segment) => segment.inHeader(text), visit);
  }

  eachWithField(name: string, visit: (message: number) => void): void {
    for (const [which, segment] of this.segments.entries())
      segment.eachWithField(name, (message) => visit(which * segmentSize + message));
  }

  eachField(name: string, visit: (message: number, value: string | null) => void): void {
    for (const [which, segment] of this.segments.entries())
      segment.eachField(name, (message, value) => visit(which * segmentSize + message, value));
  }

  eachFieldHolding(
    name: string,
    text: string,
    holds: (message: number) => void,
    toRead: (message: number) => void,
  ): void {
    for (const [which, segment] of this.segments.entries()) {
      const first = which * segmentSize;
      segment.eachFieldHolding(
        name,
        text,
        (message) => holds(first + message),
        (message) => toRead(first + message),
      );
    }
  }

  /** Makes ready what the first question would have to wait for, one segment at each step. */
  *warming(): Generator<void> {
    for (const segment of this.segments) yield segment.warm();
  }

  private eachMarked(marks: (segment: TextSegment) => Uint8Array, visit: (message: number) => void): void {
    for (const [which, segment] of this.segments.entries()) {
      const marked = marks(segment);
      for (let at = 0; at < marked.length; at++) if (marked[at]) visit(which * segmentSize + at);
    }
  }
}
