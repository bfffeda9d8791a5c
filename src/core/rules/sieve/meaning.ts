// What the commands and tests of a Sieve script mean: RFC 5228 with fileinto, envelope, copy (RFC 3894), body (RFC 5173),
// relational (RFC 5231), imap4flags (RFC 5232), date (RFC 5260) and mailbox (RFC 5490). What else there is is refused by
// name.
import { Arguments, flagsOf, Trouble } from './arguments';
import type { CommandNode, Script, Spot, TestNode } from './script';
import { extensions, type Extension, type SieveComparator, type Match } from './extensions';

interface Compared {
  match: Match;
  comparator: SieveComparator;
  keys: string[];
}

type AddressPart = 'all' | 'localpart' | 'domain';

export type Test = { at: Spot } & (
  | { is: 'true' | 'false' }
  | { is: 'not'; of: Test }
  | { is: 'allof' | 'anyof'; of: Test[] }
  | { is: 'exists'; names: string[] }
  | { is: 'size'; how: 'over' | 'under'; bytes: number }
  | ({ is: 'header'; names: string[] } & Compared)
  | ({ is: 'address'; part: AddressPart; names: string[] } & Compared)
  | ({ is: 'envelope'; part: AddressPart; names: string[] } & Compared)
  | ({ is: 'body'; how: 'raw' | 'text' } & Compared)
  // `zone` in minutes east of UTC, null for the one that the field itself has.
  | ({ is: 'date'; zone: number | null; name: string; datePart: string } & Compared)
  | ({ is: 'currentdate'; zone: number | null; datePart: string } & Compared)
  | ({ is: 'hasflag' } & Compared)
  | { is: 'unknown'; says: string }
);

export type Command = { at: Spot; comments: string[]; code: string } & (
  | { does: 'stop' | 'discard' }
  | { does: 'keep'; flags: string[] | null }
  | { does: 'fileinto'; mailbox: string; copy: boolean; flags: string[] | null }
  | { does: 'redirect'; to: string; copy: boolean }
  | { does: 'setflag' | 'addflag' | 'removeflag'; flags: string[] }
  | { does: 'if'; branches: { test: Test; block: Command[]; at: Spot }[]; otherwise: Command[] | null }
  | { does: 'unknown'; says: string }
);

export interface Meaning {
  commands: Command[];
  /** What a server would refuse, or we don’t know, each with its spot. */
  problems: { at: Spot; says: string }[];
  required: ReadonlySet<string>;
}

/** `${hex: …}` and `${unicode: …}` in a text (RFC 5228, section 2.4.2.4). */
function decoded(text: string): string {
  const bytes = (hex: string) => Uint8Array.from(hex.trim().split(/\s+/), (digits) => parseInt(digits, 16));
  return text
    .replace(/\$\{hex:((?:\s*[0-9a-f]{1,2})(?:\s+[0-9a-f]{1,2})*\s*)\}/gi, (_, hex: string) =>
      new TextDecoder().decode(bytes(hex)),
    )
    .replace(/\$\{unicode:((?:\s*[0-9a-f]+)(?:\s+[0-9a-f]+)*\s*)\}/gi, (all, hex: string) => {
      const points = hex
        .trim()
        .split(/\s+/)
        .map((digits) => parseInt(digits, 16));
      return points.every((p) => p <= 0xd7ff || (p >= 0xe000 && p <= 0x10ffff)) ? String.fromCodePoint(...points) : all;
    });
}

class Reader {
  readonly problems: Meaning['problems'] = [];
  readonly required = new Set<string>();

  need(extension: Extension, at: Spot): void {
    if (!this.required.has(extension)) throw new Trouble(at, `This needs “require "${extension}"” at the top.`);
  }

  texts(strings: string[]): string[] {
    return this.required.has('encoded-character') ? strings.map(decoded) : strings;
  }

  commands(nodes: readonly CommandNode[], top: boolean): Command[] {
    const out: Command[] = [];
    let begun = false;
    for (const node of nodes) {
      const { at, comments, code, name } = node;
      try {
        if (name === 'require') {
          if (!top || begun) throw new Trouble(at, '“require” stands only at the top of a script.');
          this.require(node);
          // What is said above it is said of what follows.
          continue;
        }
        begun = true;
        if (name === 'elsif' || name === 'else') {
          const before = out.at(-1);
          if (before?.does !== 'if' || before.otherwise)
            throw new Trouble(at, `“${name}” must follow “if” or “elsif”.`);
          if (name === 'else') {
            new Arguments(this, node).done('none', true);
            before.otherwise = this.commands(node.block ?? [], false);
          } else before.branches.push(this.branch(node));
        } else out.push({ at, comments, code, ...this.command(node) } as Command);
      } catch (error) {
        if (!(error instanceof Trouble)) throw error;
        this.problems.push({ at: error.at, says: error.message });
        out.push({ at, comments, code, does: 'unknown', says: error.message });
      }
    }
    return out;
  }

  private require(node: CommandNode): void {
    const args = new Arguments(this, node);
    for (const name of args.strings('the names of extensions')) {
      if (!(extensions as readonly string[]).includes(name))
        this.problems.push({ at: node.at, says: `The extension “${name}” is not known here.` });
      this.required.add(name);
    }
    args.done();
  }

  private branch(node: CommandNode) {
    new Arguments(this, node).done('one', true);
    return { at: node.at, test: this.test(node.tests[0]), block: this.commands(node.block ?? [], false) };
  }

  private command(node: CommandNode) {
    const args = new Arguments(this, node);
    const { name, at } = node;
    switch (name) {
      case 'if':
        return { does: 'if', branches: [this.branch(node)], otherwise: null };
      case 'stop':
      case 'discard':
        args.done();
        return { does: name };
      case 'keep': {
        const flags = args.flags();
        args.done();
        return { does: name, flags };
      }
      case 'fileinto': {
        this.need('fileinto', at);
        const copy = this.copy(args, at);
        if (args.oneTag('create')) this.need('mailbox', at);
        const flags = args.flags();
        const mailbox = args.string('the name of a mailbox');
        args.done();
        return { does: name, mailbox, copy, flags };
      }
      case 'redirect': {
        const copy = this.copy(args, at);
        const to = args.string('an address');
        args.done();
        return { does: name, to, copy };
      }
      case 'setflag':
      case 'addflag':
      case 'removeflag': {
        this.need('imap4flags', at);
        const flags = flagsOf(args.strings('a list of flags'));
        args.done();
        return { does: name, flags };
      }
      default:
        throw new Trouble(at, `The command “${name}” is not known here.`);
    }
  }

  private copy(args: Arguments, at: Spot): boolean {
    if (!args.oneTag('copy')) return false;
    this.need('copy', at);
    return true;
  }

  test(node: TestNode): Test {
    try {
      return { at: node.at, ...this.meantTest(node) } as Test;
    } catch (error) {
      if (!(error instanceof Trouble)) throw error;
      this.problems.push({ at: error.at, says: error.message });
      return { at: node.at, is: 'unknown', says: error.message };
    }
  }

  private meantTest(node: TestNode) {
    const args = new Arguments(this, node);
    const { name, at } = node;
    const part = () => args.oneTag('all', 'localpart', 'domain') ?? 'all';
    switch (name) {
      case 'true':
      case 'false':
        args.done();
        return { is: name };
      case 'not':
        args.done('one');
        return { is: name, of: this.test(node.tests[0]) };
      case 'allof':
      case 'anyof':
        args.done('some');
        return { is: name, of: node.tests.map((test) => this.test(test)) };
      case 'exists': {
        const names = args.strings('the names of header fields');
        args.done();
        return { is: name, names };
      }
      case 'size': {
        const how = args.oneTag('over', 'under');
        if (!how) args.fail('“size” needs :over or :under.');
        const bytes = args.number('a number of bytes');
        args.done();
        return { is: name, how, bytes };
      }
      case 'header': {
        const compared = args.compared();
        const names = args.strings('the names of header fields');
        return this.withKeys(args, { is: name, names, ...compared });
      }
      case 'address':
      case 'envelope': {
        if (name === 'envelope') this.need('envelope', at);
        const compared = args.compared();
        const its = part();
        const names = args.strings(name === 'envelope' ? 'parts of the envelope' : 'the names of header fields');
        return this.withKeys(args, { is: name, part: its, names, ...compared });
      }
      case 'body': {
        this.need('body', at);
        const compared = args.compared();
        const how = args.oneTag('raw', 'text', 'content') ?? 'text';
        if (how === 'content') args.fail('“:content” is not read here.');
        return this.withKeys(args, { is: name, how, ...compared });
      }
      case 'date': {
        this.need('date', at);
        const compared = args.compared();
        const zone = args.zone();
        const field = args.string('the name of a header field');
        return this.withKeys(args, { is: name, zone, name: field, datePart: args.datePart(), ...compared });
      }
      case 'currentdate': {
        this.need('date', at);
        const compared = args.compared();
        const zone = args.zone();
        return this.withKeys(args, { is: name, zone, datePart: args.datePart(), ...compared });
      }
      case 'hasflag': {
        this.need('imap4flags', at);
        return this.withKeys(args, { is: name, ...args.compared() });
      }
      default:
        throw new Trouble(at, `The test “${name}” is not known here.`);
    }
  }

  private withKeys<T extends object>(args: Arguments, test: T): T & { keys: string[] } {
    const keys = args.strings('what is looked for');
    args.done();
    return { ...test, keys };
  }
}

/** What a script means, and what of it can’t be taken. */
export function meaningOf(script: Script): Meaning {
  const reader = new Reader();
  const commands = reader.commands(script.commands, true);
  return { commands, problems: reader.problems, required: reader.required };
}
