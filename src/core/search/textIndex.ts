// The text index: which messages have a piece of text in their body, without reading them again.
//
// Words are what stands between blanks, folded. A text without a blank is in a body just where it is in one of its
// words; so the words are searched, not the bodies. A segment holds the messages of one stretch of ids; once full it
// never changes.
import { foldAscii } from '../rules/fold';

/** Messages in one segment. */
export const segmentSize = 4_096;

/** What stands before the name of a header field among the words: no body has it. */
const fieldMark = '\u0001';

/** The different words of a body and the names of the header fields, parted by blanks: what a segment takes in. */
export function indexedWords(body: string, fieldNames: Iterable<string>): string {
  const words = new Set(foldAscii(body).split(/\s+/));
  words.delete('');
  for (const name of fieldNames) words.add(fieldMark + name.toLowerCase());
  return [...words].join(' ');
}

/** The word under which the name of a header field is found. */
export const fieldWord = (name: string): string => fieldMark + name.toLowerCase();

/** A segment as it is stored: words between line ends, where the messages of each begin, and the messages. */
export interface PackedSegment {
  count: number;
  words: string;
  starts: Uint32Array;
  messages: Uint16Array;
}

type Fit = 'within' | 'whole' | 'begins' | 'ends';

/** The messages of one stretch of ids, numbered from 0 within it. */
export class TextSegment {
  private open: Map<string, number[]> | null = new Map();
  private packed: PackedSegment | null = null;
  /** Where each word begins in `packed.words`. */
  private offsets = new Uint32Array(0);
  count = 0;

  /** Takes a stored segment back, of which only the first `count` messages still count. */
  static of(stored: PackedSegment, count = stored.count): TextSegment {
    const segment = new TextSegment();
    segment.hold(stored);
    if (count < stored.count) segment.drop(count);
    return segment;
  }

  private hold(packed: PackedSegment): void {
    this.packed = packed;
    this.open = null;
    this.count = packed.count;
    this.offsets = new Uint32Array(packed.starts.length - 1);
    for (let at = 0, word = 0; word < this.offsets.length; word++) {
      this.offsets[word] = at + 1;
      at = packed.words.indexOf('\n', at + 1);
    }
  }

  private opened(): Map<string, number[]> {
    if (this.open) return this.open;
    const open = new Map<string, number[]>();
    const { words, starts, messages } = this.pack();
    for (const [at, word] of words.slice(1, -1).split('\n').entries())
      if (starts.length > 1) open.set(word, [...messages.subarray(starts[at], starts[at + 1])]);
    this.packed = null;
    return (this.open = open);
  }

  /** Takes in the next message, by its {@link indexedWords}. */
  add(words: string): void {
    const open = this.opened();
    const at = this.count++;
    if (words === '') return;
    for (const word of words.split(' ')) {
      const its = open.get(word);
      if (its) its.push(at);
      else open.set(word, [at]);
    }
  }

  /** Forgets the messages from `count` on. */
  drop(count: number): void {
    const open = this.opened();
    for (const [word, its] of open) {
      while (its.length && its[its.length - 1] >= count) its.pop();
      if (its.length === 0) open.delete(word);
    }
    this.count = count;
  }

  /** The segment ready to be stored. A full one is held in this form from now on: it takes a third of the memory. */
  pack(): PackedSegment {
    if (this.packed) return this.packed;
    const open = this.open ?? new Map<string, number[]>();
    const starts = new Uint32Array(open.size + 1);
    let total = 0;
    for (const its of open.values()) total += its.length;
    const messages = new Uint16Array(total);
    let at = 0;
    let word = 0;
    for (const its of open.values()) {
      messages.set(its, at);
      at += its.length;
      starts[++word] = at;
    }
    const packed = { count: this.count, words: `\n${[...open.keys()].join('\n')}\n`, starts, messages };
    if (this.count >= segmentSize) this.hold(packed);
    return packed;
  }

  private *messagesOf(fit: Fit, text: string): Generator<ArrayLike<number>> {
    if (this.open) {
      const fits: Record<Fit, (word: string) => boolean> = {
        within: (word) => word.includes(text),
        whole: (word) => word === text,
        begins: (word) => word.startsWith(text),
        ends: (word) => word.endsWith(text),
      };
      for (const [word, its] of this.open)
        if (fits[fit](word) && (fit === 'whole' || !word.startsWith(fieldMark))) yield its;
      return;
    }
    const { words, starts, messages } = this.pack();
    const before = fit === 'whole' || fit === 'begins' ? '\n' : '';
    const sought = `${before}${text}${fit === 'whole' || fit === 'ends' ? '\n' : ''}`;
    for (let at = words.indexOf(sought); at >= 0;) {
      const word = this.wordAt(at + before.length);
      // The name of a header field is no part of any body.
      if (fit === 'whole' || words[this.offsets[word]] !== fieldMark)
        yield messages.subarray(starts[word], starts[word + 1]);
      // The line end after a word is also the one before the next.
      const next = word + 1 < this.offsets.length ? this.offsets[word + 1] - 1 : words.length;
      at = words.indexOf(sought, next);
    }
  }

  /** The word that stands at a place of the text of all words. */
  private wordAt(at: number): number {
    let [low, high] = [0, this.offsets.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.offsets[middle] <= at) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  private marked(fit: Fit, text: string, within: Uint8Array | null): Uint8Array {
    const out = new Uint8Array(this.count);
    for (const its of this.messagesOf(fit, text))
      for (let i = 0; i < its.length; i++) if (!within || within[its[i]]) out[its[i]] = 1;
    return out;
  }

  /**
   * One for each message that has a folded text in its body. `sure` is false where the text has blanks in it: then the
   * words are there, but perhaps not side by side, and whoever asks must look.
   */
  holding(text: string): { messages: Uint8Array; sure: boolean } {
    const words = text.split(' ');
    if (words.length === 1) return { messages: this.marked('within', text, null), sure: true };
    const last = words.length - 1;
    let found: Uint8Array | null = null;
    for (const [i, word] of words.entries())
      if (word !== '') found = this.marked(i === 0 ? 'ends' : i === last ? 'begins' : 'whole', word, found);
    return { messages: found ?? new Uint8Array(this.count).fill(1), sure: false };
  }

  /** One for each message that has that word, such as a {@link fieldWord}. */
  having(word: string): Uint8Array {
    return this.marked('whole', word, null);
  }
}
