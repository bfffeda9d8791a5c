// The text index: the words of every message in their order, as numbers, so that its text can be searched, and its header
// fields be read, without opening the message.
//
// Words are what stands between blanks, folded. A text is in a body just where its words follow one another there: the
// first at its end, the last at its beginning, those between them whole. A segment holds the messages of one stretch of
// ids; once full it never changes.
import { foldSearch } from '../text/fold';
import { grown } from '../data/grown';
import { blanksAsOne } from '../text/blanks';
import { type TextBatch, fieldMark, blankMark, notKept, irregularValue } from './textBatch';
import { Dictionary, type Fit, type Folding } from './dictionary';
import { FieldValues } from './fieldValues';
import { phraseOf, segmentSize, testOf, Units, type PackedUnits, type Part, type Phrase, type Postings } from './units';

/** Values of a field that are read one by one sooner than its words are asked for. */
const fewValues = 64;

/** Steps of looking a word up by its number that take as long as going on by so many words. */
const searchSteps = 64;

/** A segment as it is stored: its different words, between line ends, and the words of its messages by their position. */
export interface PackedSegment extends PackedUnits {
  words: string;
}

/** The messages of one stretch of ids, numbered from 0 within it. */
export class TextSegment {
  /**
   * Of each word here its number in the dictionary: from the lowest on, but while it is open in the order in which they
   * first came.
   */
  private words: Uint32Array<ArrayBuffer> = new Uint32Array(0);
  private size = 0;
  /** The positions of the words by their numbers; null while the segment is held as it is stored. */
  private open: Map<number, number> | null = new Map();
  private units = new Units();
  /** Made when they are first asked for; they follow from the rest. */
  private readonly postings: Partial<Record<Part, Postings>> = {};
  private fields: FieldValues | null = null;
  /** The words of the batch that is being taken in, by their positions here; -1 not yet known. */
  private taking: { batch: TextBatch; words: string[]; positions: Int32Array } | null = null;

  /** `dictionary`: where the words of all segments have their numbers. */
  constructor(private readonly dictionary = new Dictionary()) {}

  /** Takes a stored segment back, of which only the first `count` messages still count. */
  static of(stored: PackedSegment, count = stored.count, dictionary = new Dictionary()): TextSegment {
    const segment = new TextSegment(dictionary);
    const { words } = stored;
    for (let at = 1, end = words.indexOf('\n', at); end >= 0; at = end + 1, end = words.indexOf('\n', at))
      segment.put(dictionary.numberOf(words.slice(at, end)));
    segment.close(Units.of(stored));
    if (count < stored.count) segment.drop(count);
    return segment;
  }

  get count(): number {
    return this.units.count;
  }

  /** Gives the next position to a word. */
  private put(number: number): number {
    if (this.size === this.words.length)
      this.words = grown(this.words, new Uint32Array(Math.max(1_024, 2 * this.size)));
    this.words[this.size] = number;
    return this.size++;
  }

  /** Puts the words into the order of their numbers, in which they are found fastest, and closes the segment. */
  private close(units: Units): void {
    this.open = this.taking = null;
    const { size } = this;
    this.words = this.words.slice(0, size);
    if (this.words.every((number, at) => at === 0 || this.words[at - 1] < number)) {
      this.units = units;
      return;
    }
    // Number and position as one figure, which the engine sorts fastest.
    const figures = new Float64Array(size);
    for (let at = 0; at < size; at++) figures[at] = this.words[at] * size + at;
    figures.sort();
    const positions = new Uint32Array(size);
    for (let at = 0; at < size; at++) {
      const before = figures[at] % size;
      positions[before] = at;
      this.words[at] = (figures[at] - before) / size;
    }
    this.units = units.renumbered(positions);
  }

  private opened(): Map<number, number> {
    delete this.postings.body;
    delete this.postings.header;
    this.fields = null;
    if (this.open) return this.open;
    this.open = new Map(Array.from(this.words.subarray(0, this.size), (number, at) => [number, at]));
    this.units = this.units.opened();
    return this.open;
  }

  /**
   * Takes in the `at`th message of a batch; null for one that can't be read. A segment that is full by it is held as it
   * is stored: it takes a third of the memory.
   */
  add(batch: TextBatch | null, at = 0): void {
    const open = this.opened();
    const { units } = this;
    if (batch && this.taking?.batch !== batch) {
      const words = batch.words.split('\n');
      this.taking = { batch, words, positions: new Int32Array(words.length).fill(-1) };
    }
    for (const [n, part] of (['body', 'header'] as const).entries()) {
      if (batch && this.taking) {
        const { tokens, ends } = batch;
        const { words, positions } = this.taking;
        const to = ends[2 * at + n];
        for (let i = at + n > 0 ? ends[2 * at + n - 1] : 0; i < to; i++) {
          const token = tokens[i];
          if (positions[token] < 0) {
            const number = this.dictionary.numberOf(words[token]);
            let position = open.get(number);
            if (position === undefined) open.set(number, (position = this.put(number)));
            positions[token] = position;
          }
          units.put(positions[token]);
        }
      }
      units.end(part);
    }
    if (this.count === segmentSize) this.close(Units.of(units.packed()));
  }

  /** Forgets the messages from `count` on; their words stay, and are found nowhere. */
  drop(count: number): void {
    this.opened();
    this.units.drop(count);
  }

  /** The segment ready to be stored. */
  pack(): PackedSegment {
    const words = Array.from(this.words.subarray(0, this.size), (number) => this.dictionary.word(number));
    return { words: ['', ...words, ''].join('\n'), ...this.units.packed() };
  }

  /**
   * One for each message that has a text in one of some parts: folded, each run of blanks one space. In a header it is
   * looked for in what the fields say, not in their names.
   */
  holding(text: string, parts: readonly Part[] = ['body'], folding: Folding = 'rules'): Uint8Array {
    const fits = this.fitsOf(text, folding);
    const out = new Uint8Array(this.count);
    if (!fits) return out;
    const phrase = fits.length > 1 ? this.phraseOf(fits) : null;
    for (const part of parts) {
      const having = this.havingAll(fits, part);
      for (let message = 0; message < out.length; message++)
        if (having[message] && (!phrase || this.units.having(phrase, message, part))) out[message] = 1;
    }
    return out;
  }

  /** A phrase of the words that fit each of its parts. The name of a field is no part of any. */
  private phraseOf(fits: readonly (readonly number[])[]): Phrase {
    const { test } = this.dictionary.fitting('begins', fieldMark, 'rules');
    return phraseOf(
      fits.map((fit) => fit.filter((word) => test[this.words[word]] === 0)),
      this.size,
    );
  }

  /** For each word of a text the words here that fit it; null where one has none. */
  private fitsOf(text: string, folding: Folding): (readonly number[])[] | null {
    const parts = text.split(' ');
    const last = parts.length - 1;
    const fits: (readonly number[])[] = [];
    for (const [i, part] of parts.entries()) {
      const fit = last === 0 ? 'within' : i === 0 ? 'ends' : i === last ? 'begins' : 'whole';
      const its = this.fitting(fit, part, folding);
      if (its.length === 0) return null;
      fits.push(its);
    }
    return fits;
  }

  /** One for each message that has a word for each of some fits in a part, wherever it stands there. */
  private havingAll(fits: readonly (readonly number[])[], part: Part): Uint8Array {
    const { starts, messages, filled } = this.posted(part);
    const having = new Uint8Array(this.count);
    for (let i = 0; i < fits.length; i++) {
      let left = filled;
      for (const word of fits[i]) {
        // Once all have it, as with a single letter, the rest of the words tells nothing new.
        if (left === 0) break;
        for (let at = starts[word], to = starts[word + 1]; at < to; at++)
          // It counts the fits: only who had all the others can have this one, too.
          if (having[messages[at]] === i) {
            having[messages[at]] = i + 1;
            left--;
          }
      }
    }
    for (let message = 0; message < having.length; message++) having[message] = having[message] === fits.length ? 1 : 0;
    return having;
  }

  /** One for each word that is the name of a header field. */
  private fieldNames(): Uint8Array {
    return testOf(this.fitting('begins', fieldMark, 'rules'), this.size);
  }

  /** Of each word the messages that have it in their body, or in what their header fields say. */
  private posted(part: Part): Postings {
    return (this.postings[part] ??= this.units.posted(
      part,
      this.size,
      part === 'header' ? this.fieldNames() : undefined,
    ));
  }

  /** The positions of the words that fit a text, folded as they are compared. */
  private fitting(fit: Fit, text: string, folding: Folding): number[] {
    const { numbers, test } = this.dictionary.fitting(fit, text, folding);
    const { words, size } = this;
    const out: number[] = [];
    if (this.open || numbers.length > size / searchSteps) {
      for (let at = 0; at < size; at++) if (test[words[at]] === 1) out.push(at);
      return out;
    }
    let low = 0;
    for (const number of numbers) {
      // Both go up: what is looked for next stands behind what was found last.
      let high = size;
      while (low < high) {
        const middle = (low + high) >> 1;
        if (words[middle] < number) low = middle + 1;
        else high = middle;
      }
      if (words[low] === number) out.push(low);
    }
    return out;
  }

  private word(position: number): string {
    return this.dictionary.word(this.words[position]);
  }

  private fieldValues(): FieldValues {
    if (this.fields) return this.fields;
    const untold = [notKept, irregularValue].flatMap((mark) => this.fitting('whole', mark, 'rules'));
    const nameOf = (word: number) => this.word(word).slice(fieldMark.length);
    return (this.fields = new FieldValues(this.units, this.fieldNames(), nameOf, untold));
  }

  /** The steps that make ready what the first question would have to wait for. */
  warming(): (() => void)[] {
    return [() => this.posted('body'), () => this.posted('header'), () => this.fieldValues()];
  }

  /** About how many bytes it takes in memory, with all that was made of it to answer questions; its dictionary apart. */
  get bytes(): number {
    const { body, header } = this.postings;
    const lists = [this.words, body?.starts, body?.messages, header?.starts, header?.messages];
    return this.units.bytes + (this.fields?.bytes ?? 0) + lists.reduce((n, list) => n + (list?.byteLength ?? 0), 0);
  }

  /**
   * Tells of each different thing that header fields of a name say, folded as rules fold it, and in which messages; null
   * where only these tell.
   */
  eachField(name: string, visit: (value: string | null, messages: Uint16Array) => void): void {
    const fields = this.fieldValues();
    fields.each(name.toLowerCase(), (value) => visit(this.said(fields.words(value)), fields.of(value)));
  }

  /**
   * Tells of each different thing that header fields of a name say and that has a text, folded for searching, in which
   * messages; `toRead` of those where only these tell. Any that has such a field is meant where the text is empty.
   */
  eachFieldHolding(
    name: string,
    text: string,
    holds: (messages: Uint16Array) => void,
    toRead: (messages: Uint16Array) => void,
  ): void {
    const fields = this.fieldValues();
    const key = name.toLowerCase();
    if (text === '') return fields.each(key, (value) => holds(fields.of(value)));
    const parts = text.split(' ').filter((part) => part !== '');
    // Which words have the parts is worth asking only where there are many values to look at.
    const tests = fields.count(key) > fewValues ? parts.map((part) => this.testOf(part)) : [];
    // A text without blanks stands in a single word: nothing more is to be asked.
    const told = tests.length === 1 && parts[0] === text;
    fields.each(key, (value) => {
      if (fields.isUntold(value)) toRead(fields.of(value));
      else if (fields.hasAll(value, tests) && (told || this.says(fields.words(value), text))) holds(fields.of(value));
    });
  }

  /** One for each word that has a text, folded for searching. */
  private testOf(text: string): Uint8Array {
    return testOf(this.fitting('within', text, 'search'), this.size);
  }

  private says(words: readonly number[], text: string): boolean {
    const said = this.said(words);
    return said !== null && foldSearch(blanksAsOne(said)).includes(text);
  }

  /** What the words of a value say; null where it was not kept. */
  private said(words: readonly number[]): string | null {
    return valueOf(words.map((word) => this.word(word)));
  }
}

/** A stored segment without some of its messages: neither they nor the words that only they had are left in it. */
export function without(stored: PackedSegment, messages: ReadonlySet<number>): PackedSegment {
  const words = stored.words.split('\n').slice(1, -1);
  const positions = new Int32Array(words.length).fill(-1);
  const kept: string[] = [];
  const units = Units.of(stored).without(messages, (word) => {
    if (positions[word] < 0) positions[word] = kept.push(words[word]) - 1;
    return positions[word];
  });
  return { words: ['', ...kept, ''].join('\n'), ...units.packed() };
}

/** A value from its words; null where it was not kept. */
function valueOf(words: readonly string[]): string | null {
  if (words[0] === notKept || words[0] === irregularValue) return null;
  let value = '';
  let before = true;
  for (const word of words) {
    const blanks = word.startsWith(blankMark);
    value += blanks ? word.slice(1) : before ? word : ` ${word}`;
    before = blanks;
  }
  return value;
}
