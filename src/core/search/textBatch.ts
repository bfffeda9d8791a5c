// What the text index takes in: the words of some messages, read where the messages are parsed.
import { fieldText } from '../mail/fieldText';
import { grown } from '../data/grown';
import { WordTable } from './wordTable';
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

/** Gathers the words of messages, with upper and lower case of US-ASCII alike. */
export class TextBatchWriter {
  private readonly table = new WordTable();
  private tokens = new Uint32Array(8_192);
  private used = 0;
  private readonly ends: number[] = [];
  /** The positions of names of header fields, and of the marks. */
  private readonly names = new Map<string, number>();

  private readonly take = (position: number): void => {
    if (this.used === this.tokens.length) this.tokens = grown(this.tokens, new Uint32Array(2 * this.used));
    this.tokens[this.used++] = position;
  };

  private put(word: string): void {
    let position = this.names.get(word);
    if (position === undefined) this.names.set(word, (position = this.table.positionOfWhole(word)));
    this.take(position);
  }

  private putValue(value: string): void {
    if (marks.test(value)) this.put(irregularValue);
    else if (irregular.test(value))
      // As it is written: a condition may ask for just these blanks.
      for (const part of value.split(/(\s\s+|[^\S ])/)) {
        if (part.trim() === '' && part !== '') this.put(blankMark + part);
        else this.table.eachOf(part, this.take);
      }
    else this.table.eachOf(value, this.take);
  }

  /** Takes the next message: its text (body.ts), and the fields of its header. */
  add({ text: body, fields }: Pick<Message, 'text' | 'fields'>): void {
    this.table.eachOf(body, this.take);
    this.ends.push(this.used);
    for (const field of fields) {
      this.put(fieldMark + field.key);
      if (notKeptFields.test(field.key)) this.put(notKept);
      else this.putValue(fieldText(field));
    }
    this.ends.push(this.used);
  }

  /** What was gathered. */
  batch(): TextBatch {
    return {
      words: this.table.words(),
      tokens: this.tokens.slice(0, this.used),
      ends: Uint32Array.from(this.ends),
    };
  }
}
