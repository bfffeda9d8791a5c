// The arguments of a command or test of a script: tags by name, in any order, then what stands by position (RFC 5228,
// section 2.6).
import { comparators, relations, type Extension, type Match, type SieveComparator } from './extensions';
import type { Argument, CommandNode, Spot, TestNode } from './script';

const dateParts = [
  ...['year', 'month', 'day', 'date', 'julian', 'hour', 'minute', 'second', 'time'],
  ...['iso8601', 'std11', 'zone', 'weekday'],
];

/** What is wrong with a command or test, and where. */
export class Trouble extends Error {
  constructor(
    readonly at: Spot,
    message: string,
  ) {
    super(message);
  }
}

/** What was required at the top of the script. */
interface Required {
  /** Throws Trouble where an extension was not required. */
  need(extension: Extension, at: Spot): void;
  /** Texts as they are meant. */
  texts(strings: string[]): string[];
}

/** Takes a command's or test's arguments apart: tags by name, then what stands by position. */
export class Arguments {
  private readonly args: Argument[];

  constructor(
    private readonly reader: Required,
    readonly node: CommandNode | TestNode,
  ) {
    this.args = [...node.args];
  }

  fail(says: string, at: Spot = this.node.at): never {
    throw new Trouble(at, says);
  }

  /** Takes one of some tags; null where none of them stands there. */
  oneTag<T extends string>(...tags: T[]): T | null {
    let found: T | null = null;
    for (const arg of this.args.filter((a) => 'tag' in a)) {
      const tag = tags.find((t) => t === arg.tag);
      if (!tag) continue;
      if (found) this.fail(`“:${found}” and “:${tag}” can’t stand together.`, arg.at);
      found = tag;
      this.lastAt = this.args.indexOf(arg);
      this.args.splice(this.lastAt, 1);
    }
    return found;
  }

  private lastAt = 0;

  /** Takes the texts that follow the tag that was taken last. */
  after(what: string): string[] {
    const arg = this.args[this.lastAt] as Argument | undefined;
    if (!arg || !('strings' in arg)) this.fail(`${what} is missing.`);
    this.args.splice(this.lastAt, 1);
    return this.reader.texts(arg.strings);
  }

  strings(what: string): string[] {
    const [arg] = this.args as (Argument | undefined)[];
    if (arg && 'tag' in arg) this.fail(`“:${arg.tag}” is nothing that “${this.node.name}” takes.`, arg.at);
    if (!arg || !('strings' in arg)) this.fail(`“${this.node.name}” needs ${what}.`, arg?.at);
    this.args.shift();
    return this.reader.texts(arg.strings);
  }

  string(what: string): string {
    const [arg] = this.args as (Argument | undefined)[];
    const strings = this.strings(what);
    if (strings.length !== 1 || !arg || !('list' in arg) || arg.list)
      this.fail(`“${this.node.name}” needs one text, ${what}, not a list.`, arg?.at);
    return strings[0];
  }

  number(what: string): number {
    const [arg] = this.args as (Argument | undefined)[];
    if (!arg || !('number' in arg)) this.fail(`“${this.node.name}” needs ${what}.`, arg?.at);
    this.args.shift();
    return arg.number;
  }

  /** Nothing may be left. */
  done(tests: 'none' | 'one' | 'some' = 'none', block = false): void {
    const [arg] = this.args as (Argument | undefined)[];
    if (arg) this.fail(`“${'tag' in arg ? `:${arg.tag}` : 'This'}” is nothing that “${this.node.name}” takes.`, arg.at);
    const n = this.node.tests.length;
    if (tests === 'none' ? n > 0 : tests === 'one' ? n !== 1 : n === 0)
      this.fail(`“${this.node.name}” needs ${tests === 'none' ? 'no test' : tests === 'one' ? 'one test' : 'tests'}.`);
    if ('block' in this.node && (this.node.block !== null) !== block)
      this.fail(block ? `“${this.node.name}” needs a block in braces.` : `“${this.node.name}” takes no block.`);
  }

  /** Match type and comparator (RFC 5228, section 2.7; RFC 5231). */
  compared(): { match: Match; comparator: SieveComparator } {
    let match: Match = { type: this.oneTag('is', 'contains', 'matches') ?? 'is' };
    const related = this.oneTag('count', 'value');
    if (related) {
      this.reader.need('relational', this.node.at);
      const [relation] = this.after('The relation, such as "ge",');
      const found = relations.find((r) => r === relation.toLowerCase());
      if (!found) this.fail(`“${relation}” is no relation: gt, ge, lt, le, eq or ne.`);
      match = { type: related, relation: found };
    }
    let comparator: SieveComparator = 'i;ascii-casemap';
    if (this.oneTag('comparator')) {
      const [name] = this.after('The comparator');
      const found = comparators.find((c) => c === name.toLowerCase());
      if (!found) this.fail(`The comparator “${name}” is not known here.`);
      comparator = found;
      if (found !== 'i;octet' && found !== 'i;ascii-casemap') this.reader.need(`comparator-${found}`, this.node.at);
    }
    return { match, comparator };
  }

  /** Time zone (RFC 5260, section 4.1): minutes east of UTC; the field's own where `:originalzone` stands. */
  zone(): number | null {
    if (this.oneTag('originalzone')) return null;
    if (!this.oneTag('zone')) return 0;
    const [zone] = this.after('The time zone, such as "+0100",');
    const found = /^([+-])(\d{2})([0-5]\d)$/.exec(zone);
    if (!found) this.fail(`“${zone}” is no time zone: write "+0100".`);
    return (found[1] === '-' ? -1 : 1) * (Number(found[2]) * 60 + Number(found[3]));
  }

  datePart(): string {
    const part = this.string('a part of the date').toLowerCase();
    if (!dateParts.includes(part)) this.fail(`“${part}” is no part of a date.`);
    return part;
  }

  flags(): string[] | null {
    if (!this.oneTag('flags')) return null;
    this.reader.need('imap4flags', this.node.at);
    return flagsOf(this.after('The list of flags'));
  }
}

/** Flags may stand several in one text, parted by spaces (RFC 5232, section 2). */
export const flagsOf = (texts: readonly string[]): string[] =>
  texts.flatMap((text) => text.split(/\s+/)).filter(Boolean);
