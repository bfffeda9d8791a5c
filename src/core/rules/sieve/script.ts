// Sieve scripts as text: the grammar of RFC 5228, section 8, into commands, tests and arguments. What they mean is
// meaning.ts's subject.

/** A place in a script; lines and columns count from 1, columns in UTF-16 units. */
export interface Spot {
  line: number;
  column: number;
}

export type Argument = { at: Spot } & ({ tag: string } | { number: number } | { strings: string[]; list: boolean });

export interface TestNode {
  at: Spot;
  name: string;
  args: Argument[];
  tests: TestNode[];
}

export interface CommandNode {
  at: Spot;
  /** As it stands in the script. */
  code: string;
  name: string;
  args: Argument[];
  tests: TestNode[];
  block: CommandNode[] | null;
  /** The hash comments that stand right before it, without their “#”. */
  comments: string[];
}

export interface Script {
  commands: CommandNode[];
  /** The hash comments after the last command. */
  comments: string[];
}

export interface ScriptError {
  at: Spot;
  says: string;
}

export type ParsedScript = { ok: true; script: Script } | { ok: false; error: ScriptError };

/** Longer scripts are no person's. In UTF-16 units. */
export const longestScript = 4_000_000;
/** RFC 5228, section 2.10.5 asks for fifteen at least. */
const deepest = 40;

class Fault extends Error {
  constructor(
    readonly at: Spot,
    message: string,
  ) {
    super(message);
  }
}

type Token = { at: Spot } & (
  | { kind: 'word' | 'tag' | 'string' | 'comment'; text: string }
  | { kind: 'number'; number: number }
  | { kind: 'sign'; text: string }
  | { kind: 'end' }
);

const quantifiers: Record<string, number> = { k: 2 ** 10, m: 2 ** 20, g: 2 ** 30 };

const lineFeed = 10;
const signs = ';{}()[],';
// Each begins where the last token ended.
const numberShape = /\d+([kmg]?)(?![a-z0-9_])/iy;
const quotedShape = /"((?:[^"\\]|\\[^])*)"/y;
const wordShape = /:?[a-z_][a-z0-9_]*/iy;

class Tokens {
  private at = 0;
  private line = 1;
  private lineStart = 0;
  /** Where the last token began and ended. */
  from = 0;
  to = 0;

  constructor(private readonly text: string) {}

  private spot(at = this.at): Spot {
    return { line: this.line, column: at - this.lineStart + 1 };
  }

  private newLines(from: number, to: number): void {
    // No further than that: to look for the next line end anew at each word is the square of a long line.
    for (let i = from; i < to; i++) {
      if (this.text.charCodeAt(i) !== lineFeed) continue;
      this.line++;
      this.lineStart = i + 1;
    }
  }

  /** Goes on to `to`; returns what lies between. */
  private take(to: number): string {
    const taken = this.text.slice(this.at, to);
    this.newLines(this.at, to);
    this.at = to;
    return taken;
  }

  next(): Token {
    this.to = this.at;
    return this.read();
  }

  /** What stands between two offsets. */
  code(from: number, to: number): string {
    return this.text.slice(from, to);
  }

  private read(): Token {
    const { text } = this;
    for (;;) {
      this.skipBlanks();
      if (text[this.at] !== '/' || text[this.at + 1] !== '*') break;
      const end = text.indexOf('*/', this.at + 2);
      if (end < 0) throw new Fault(this.spot(), 'The comment that opens here is never closed.');
      this.take(end + 2);
    }
    const at = this.spot();
    this.from = this.at;
    const char = text[this.at];
    if (char === undefined) return { kind: 'end', at };
    if (char === '#') {
      const end = text.indexOf('\n', this.at);
      return {
        kind: 'comment',
        text: this.take(end < 0 ? text.length : end)
          .slice(1)
          .trim(),
        at,
      };
    }
    if (char === '"') return { kind: 'string', text: this.quoted(at), at };
    if (signs.includes(char)) {
      this.at++;
      return { kind: 'sign', text: char, at };
    }
    const number = char >= '0' && char <= '9' ? this.match(numberShape) : null;
    if (number) {
      const value = parseInt(number[0], 10) * (quantifiers[number[1].toLowerCase()] ?? 1);
      if (value > Number.MAX_SAFE_INTEGER) throw new Fault(at, `The number ${number[0]} is too large.`);
      this.take(this.at + number[0].length);
      return { kind: 'number', number: value, at };
    }
    const word = this.match(wordShape)?.[0];
    if (word === undefined) throw new Fault(at, `“${char}” can’t stand here.`);
    const lower = word.toLowerCase();
    if (lower === 'text' && text[this.at + 4] === ':') return { kind: 'string', text: this.multiLine(at), at };
    // No line ends in a word.
    this.at += word.length;
    return char === ':' ? { kind: 'tag', text: lower.slice(1), at } : { kind: 'word', text: lower, at };
  }

  private skipBlanks(): void {
    for (; ; this.at++) {
      const code = this.text.charCodeAt(this.at);
      if (code === lineFeed) {
        this.line++;
        this.lineStart = this.at + 1;
      } else if (code !== 32 && code !== 9 && code !== 13) return;
    }
  }

  private match(pattern: RegExp): RegExpExecArray | null {
    pattern.lastIndex = this.at;
    return pattern.exec(this.text);
  }

  private quoted(at: Spot): string {
    const found = this.match(quotedShape);
    if (!found) throw new Fault(at, 'The quotation mark that opens here is never closed.');
    this.take(this.at + found[0].length);
    if (!/[\\\r]/.test(found[1])) return found[1];
    return found[1].replace(/\\([^])/g, '$1').replace(/\r\n/g, '\n');
  }

  /** `text:` up to a line with a single dot; dots doubled at the start of a line stand for one. */
  private multiLine(at: Spot): string {
    const head = this.match(/text:[ \t]*(?:#[^\n]*|\r)?\n/iy) ?? this.match(/text:[ \t]*\r?\n/iy);
    if (!head) throw new Fault(at, 'After “text:” the line must end.');
    this.take(this.at + head[0].length);
    const end = /^\.\r?$/m;
    const rest = this.text.slice(this.at);
    const found = end.exec(rest);
    if (!found) throw new Fault(at, 'The text that begins here is never ended by a line with a single dot.');
    const body = this.take(this.at + found.index);
    this.take(this.at + found[0].length);
    return body.replace(/\r\n/g, '\n').replace(/^\.\./gm, '.');
  }
}

class Parser {
  private readonly tokens: Tokens;
  private token: Token;
  private comments: string[] = [];
  /** Where the token before this one ended. */
  private before = 0;

  constructor(text: string) {
    this.tokens = new Tokens(text);
    this.token = this.advance();
  }

  private advance(): Token {
    let token = this.tokens.next();
    this.before = this.tokens.to;
    for (; token.kind === 'comment'; token = this.tokens.next()) this.comments.push(token.text);
    return (this.token = token);
  }

  private isSign(text: string): boolean {
    return this.token.kind === 'sign' && this.token.text === text;
  }

  private expect(text: string, after: string): void {
    if (!this.isSign(text)) throw new Fault(this.token.at, `${this.said()} stands where “${text}” is needed ${after}.`);
    this.advance();
  }

  private said(): string {
    const { token } = this;
    switch (token.kind) {
      case 'end':
        return 'The end of the script';
      case 'number':
        return `The number ${token.number}`;
      case 'string':
        return 'A text';
      case 'tag':
        return `“:${token.text}”`;
      default:
        return `“${token.text}”`;
    }
  }

  script(): Script {
    const commands = this.commands(0);
    if (this.token.kind !== 'end') throw new Fault(this.token.at, `${this.said()} closes nothing.`);
    return { commands, comments: this.comments };
  }

  private commands(depth: number): CommandNode[] {
    const out: CommandNode[] = [];
    while (this.token.kind !== 'end' && !this.isSign('}')) out.push(this.command(depth));
    return out;
  }

  private command(depth: number): CommandNode {
    const { token, comments } = this;
    if (token.kind !== 'word') throw new Fault(token.at, `${this.said()} stands where a command is needed.`);
    if (depth > deepest) throw new Fault(token.at, 'This is nested too deep.');
    this.comments = [];
    const { from } = this.tokens;
    this.advance();
    const { args, tests } = this.arguments(depth);
    let block: CommandNode[] | null = null;
    if (this.isSign('{')) {
      const { at } = this.token;
      this.advance();
      block = this.commands(depth + 1);
      if (!this.isSign('}')) throw new Fault(at, 'The brace that opens here is never closed.');
      this.advance();
    } else this.expect(';', `after “${token.text}”`);
    const code = this.tokens.code(from, this.before);
    return { at: token.at, code, name: token.text, args, tests, block, comments };
  }

  private arguments(depth: number): { args: Argument[]; tests: TestNode[] } {
    const args: Argument[] = [];
    for (;;) {
      const { token } = this;
      if (token.kind === 'tag') args.push({ at: token.at, tag: token.text });
      else if (token.kind === 'number') args.push({ at: token.at, number: token.number });
      else if (token.kind === 'string') args.push({ at: token.at, strings: [token.text], list: false });
      else if (this.isSign('[')) {
        args.push(this.stringList());
        continue;
      } else break;
      this.advance();
    }
    const tests: TestNode[] = [];
    if (this.isSign('(')) {
      do {
        this.advance();
        tests.push(this.test(depth + 1));
      } while (this.isSign(','));
      this.expect(')', 'after the tests');
    } else if (this.token.kind === 'word') tests.push(this.test(depth + 1));
    return { args, tests };
  }

  private stringList(): Argument {
    const { at } = this.token;
    const strings: string[] = [];
    do {
      this.advance();
      if (this.token.kind !== 'string') throw new Fault(this.token.at, `${this.said()} stands where a text is needed.`);
      strings.push(this.token.text);
      this.advance();
    } while (this.isSign(','));
    this.expect(']', 'after the list of texts');
    return { at, strings, list: true };
  }

  private test(depth: number): TestNode {
    const { token } = this;
    if (token.kind !== 'word') throw new Fault(token.at, `${this.said()} stands where a test is needed.`);
    if (depth > deepest) throw new Fault(token.at, 'This is nested too deep.');
    this.advance();
    return { at: token.at, name: token.text, ...this.arguments(depth) };
  }
}

/** Reads a script. What is wrong with it comes back as data, with its line and column. Never throws. */
export function parseScript(text: string): ParsedScript {
  if (text.length > longestScript)
    return {
      ok: false,
      error: { at: { line: 1, column: 1 }, says: 'The script is longer than four million characters.' },
    };
  try {
    return { ok: true, script: new Parser(text.replace(/^\ufeff/, '')).script() };
  } catch (error) {
    if (error instanceof Fault) return { ok: false, error: { at: error.at, says: error.message } };
    throw error;
  }
}
