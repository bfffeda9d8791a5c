// What the text index takes in: the words of some messages, read where the messages are parsed.
import { fieldText } from '../mail/fieldText';
import { foldAscii } from '../text/collation';
import { grown } from '../data/grown';
import type { Message } from '../mail/message';

/** The words of some messages in their order: first the body of each, then its header fields. */
export interface TextBatch {
  /** Their different words, each followed by a line end. */
  words: string;
  /** The words of the messages, one message after another, by their position. */
  tokens: Uint32Array<ArrayBuffer>;
  /** Of each message where its body ends among the tokens, and where its header does. */
  ends: Uint32Array<ArrayBuffer>;
}

/** What stands before the name of a header field among the words of a header. */
export const fieldMark = '\u0001';

/** Stands before blanks of a value that are not one space. */
export const blankMark = '\u0002';

/** In the place of a value that is not kept: the message has to be read. */
export const notKept = '\u0003';

/** The same where a field that is kept has a value which looks like the marks of the index. */
export const irregularValue = '\u0004';

/** Fields that say how a message travelled: nearly nobody looks for them, and they would be half of all words. */
export const notKeptFields = /^(?:received|x-received|dkim-signature|arc-.*|authentication-results)$/;

/** Characters by which the index marks what is no word. */
const marks = new RegExp(`[${fieldMark}${blankMark}${notKept}${irregularValue}]`);

const irregular = /\s\s|[^\S ]/;

const isBlank = (unit: number): boolean =>
  unit === 32 ||
  (unit >= 9 && unit <= 13) ||
  (unit >= 160 &&
    (unit === 160 ||
      unit === 0x1680 ||
      (unit >= 0x2000 && unit <= 0x200a) ||
      unit === 0x2028 ||
      unit === 0x2029 ||
      unit === 0x202f ||
      unit === 0x205f ||
      unit === 0x3000 ||
      unit === 0xfeff));

/** Gathers the words of messages. */
export class TextBatchWriter {
  private readonly positions = new Map<string, number>();
  private tokens = new Uint32Array(512);
  private used = 0;
  private readonly ends: number[] = [];

  private put(word: string): void {
    let position = this.positions.get(word);
    if (position === undefined) this.positions.set(word, (position = this.positions.size));
    if (this.used === this.tokens.length) this.tokens = grown(this.tokens, new Uint32Array(2 * this.used));
    this.tokens[this.used++] = position;
  }

  private putWords(text: string): void {
    let from = -1;
    for (let at = 0; at < text.length; at++) {
      if (isBlank(text.charCodeAt(at))) {
        if (from >= 0) this.put(text.slice(from, at));
        from = -1;
      } else if (from < 0) from = at;
    }
    if (from >= 0) this.put(text.slice(from));
  }

  private putValue(value: string): void {
    if (marks.test(value)) this.put(irregularValue);
    else if (irregular.test(value))
      // As it is written: a condition may ask for just these blanks.
      for (const part of value.split(/(\s\s+|[^\S ])/)) {
        if (part.trim() === '' && part !== '') this.put(blankMark + part);
        else this.putWords(part);
      }
    else this.putWords(value);
  }

  /** Takes the next message: its text (body.ts), and the fields of its header. */
  add({ text: body, fields }: Pick<Message, 'text' | 'fields'>): void {
    this.putWords(foldAscii(body));
    this.ends.push(this.used);
    for (const field of fields) {
      this.put(fieldMark + field.key);
      if (notKeptFields.test(field.key)) this.put(notKept);
      else this.putValue(foldAscii(fieldText(field)));
    }
    this.ends.push(this.used);
  }

  /** What was gathered. */
  batch(): TextBatch {
    return {
      words: [...this.positions.keys(), ''].join('\n'),
      tokens: this.tokens.slice(0, this.used),
      ends: Uint32Array.from(this.ends),
    };
  }
}
