// Writing rules as a Sieve script (RFC 5228 with what it requires), so that a mail server can run them. A person can read
// it, and so can read.ts: what Sieve has no words for stands in comments.
import type { Account } from '../../mail/account';
import { foldAscii } from '../../text/collation';
import { asPattern } from '../pattern';
import { endsStation, isGroup, type Condition, type Group, type Part, type Rule } from '../rule';
import { effectOf, actionWords } from '../../effects/effects';
import { conditionWords, groupWords, ruleName } from '../ruleWords';
import { zoneOnDay } from '../../text/day';
import type { Stamp } from '../../stamps/stamp';
import { ruleRun } from '../stampsRun';
import { type Named, namesOf, type ScriptNames } from './names';

/** What of a setup a script is written from. */
export interface Written extends Named {
  rules: readonly Rule[];
  accounts: readonly Account[];
  trays?: readonly { id: string; name: string; when: Group | null; labels: readonly string[] }[];
  stamps?: readonly Stamp[];
}

/** An automatic answer of one address, as RFC 5230 has it. `until`: milliseconds since 1970, null for no end. */
export interface Vacation {
  address: string;
  days: number;
  subject: string;
  text: string;
  until: number | null;
}

/** What stands before the code of a tray, and of an automatic answer: what is not taken up from a script. */
export const notRules = ['tray', 'automatic answer'] as const;

/** What could not be said: of which rule, what, and what was written instead. */
export interface Unsaid {
  rule: string;
  says: string;
}

export interface SieveScript {
  script: string;
  unsaid: Unsaid[];
}

/** A text in quotation marks (RFC 5228, section 2.4.2). */
const quoted = (text: string): string => `"${text.replace(/([\\"])/g, '\\$1')}"`;
const list = (texts: readonly string[]): string =>
  texts.length === 1 ? quoted(texts[0]) : `[${texts.map(quoted).join(', ')}]`;

/**
 * What is looked for, in all spellings that are (see spellings in fold.ts): the first is as the person wrote it. The
 * comparator is the one that every server has, i;ascii-casemap.
 */
function keys(text: string, key: (text: string) => string = (one) => one): string {
  const seen = new Set<string>();
  const own = [text, text.toLowerCase(), text.toUpperCase()].filter((one) => {
    const folded = foldAscii(one);
    return !seen.has(folded) && seen.add(folded);
  });
  return list(own.map(key));
}

/** A condition that Sieve has no words for. */
class NotSayable extends Error {}

const matchTags = {
  contains: [':contains', (text: string) => text],
  is: [':is', (text: string) => text],
  begins: [':matches', (text: string) => `${asPattern(text)}*`],
  ends: [':matches', (text: string) => `*${asPattern(text)}`],
  like: [':matches', (text: string) => text],
} as const;

const headersOf = { from: ['from'], to: ['to'], cc: ['cc'], recipient: ['to', 'cc'] } as const;

/** The zone of the person at the beginning of a day, as a Date field writes it (RFC 5260, section 4.1). */
function zoneOn(day: string): string {
  const east = zoneOnDay(Date.parse(`${day}T00:00Z`));
  const two = (n: number) => String(Math.floor(Math.abs(n))).padStart(2, '0');
  return `${east < 0 ? '-' : '+'}${two(east / 60)}${two(east % 60)}`;
}

class Writer {
  readonly required = new Set<string>();
  readonly names: ScriptNames;

  constructor(private readonly setup: Written) {
    this.names = namesOf(setup);
  }

  private need(...extensions: string[]): void {
    for (const extension of extensions) this.required.add(extension);
  }

  private header(how: keyof typeof matchTags, names: readonly string[], text: string): string {
    const [tag, key] = matchTags[how];
    return `header ${tag} ${list(names)} ${keys(text, key)}`;
  }

  private test(condition: Condition): string {
    switch (condition.field) {
      case 'from':
      case 'to':
      case 'cc':
      case 'recipient': {
        const { field, how, text } = condition;
        const names = headersOf[field];
        if (how === 'contains') return this.header('contains', names, text);
        if (how === 'domain') return `address :is :domain ${list(names)} ${keys(text.replace(/^@/, ''))}`;
        return `address ${how === 'is' ? ':is' : ':matches'} ${list(names)} ${keys(text)}`;
      }
      case 'subject':
        return this.header(condition.how, ['subject'], condition.text);
      case 'header':
        return condition.how === 'there'
          ? `exists ${quoted(condition.name)}`
          : this.header(condition.how, [condition.name], condition.text);
      case 'body':
        this.need('body');
        return `body :contains :text ${keys(condition.text.replace(/\s+/g, ' '))}`;
      case 'list': {
        // The identifier stands in angle brackets, after a phrase (RFC 2919, section 3), or alone.
        const { how, text } = condition;
        const inside = how === 'is' ? `*<${asPattern(text)}>*` : `*<*${asPattern(text)}*>*`;
        const alone = `allof (not header :contains "list-id" "<", ${this.header(how, ['list-id'], text)})`;
        return `anyof (${this.header('like', ['list-id'], inside)}, ${alone})`;
      }
      case 'size':
        return `size :${condition.how} ${condition.bytes}`;
      case 'date': {
        this.need('date');
        const { how, day } = condition;
        const zone = zoneOn(day);
        if (how === 'on') return `date :zone "${zone}" :is "date" "date" ${quoted(day)}`;
        this.need('relational');
        return `date :zone "${zone}" :value "${how === 'before' ? 'lt' : 'ge'}" "date" "date" ${quoted(day)}`;
      }
      case 'addressed':
        return this.addressed(condition.is);
      case 'every':
        return 'true';
      default:
        throw new NotSayable(`“${conditionWords(condition, this.setup)}”: Sieve has no words for it`);
    }
  }

  private addressed(is: 'alone' | 'among' | 'not'): string {
    const own = this.setup.accounts.map(({ address }) => address);
    if (own.length === 0) return is === 'not' ? 'true' : 'false';
    const named = `address :is ["to", "cc"] ${list(own)}`;
    if (is === 'not') return `not ${named}`;
    this.need('relational');
    const relation = is === 'alone' ? 'eq' : 'gt';
    // Compared as texts, any other count than 0 still comes after "1".
    return `allof (${named}, address :count "${relation}" ["to", "cc"] "1")`;
  }

  private group({ match, of }: Group): string {
    const tests = of.map((part: Part) => (isGroup(part) ? this.group(part) : this.test(part)));
    if (match === 'none') return tests.length === 1 ? `not ${tests[0]}` : `not ${many('anyof', tests)}`;
    return tests.length === 1 ? tests[0] : many(match === 'all' ? 'allof' : 'anyof', tests);
  }

  private condition({ when, unless }: Rule): string {
    if (!unless) return this.group(when);
    const tests =
      when.match === 'all'
        ? when.of.map((part: Part) => (isGroup(part) ? this.group(part) : this.test(part)))
        : [this.group(when)];
    const but = unless.match === 'none' ? this.group({ ...unless, match: 'any' }) : `not ${this.group(unless)}`;
    return many('allof', [...tests, but]);
  }

  /** The commands of a tray, one for its conditions and one for its labels: to a server it is a mailbox. Throws NotSayable. */
  tray({ id, when, labels }: NonNullable<Written['trays']>[number]): string[] {
    const tests = when ? [this.group(when)] : [];
    if (labels.length) {
      this.need('imap4flags');
      tests.push(`hasflag ${list(labels.map((label) => this.names.label(label)))}`);
    }
    this.need('fileinto');
    return tests.map((test) => `if ${test} {\n  fileinto ${quoted(this.names.tray(id))};\n  stop;\n}\n`);
  }

  /** An automatic answer (RFC 5230), up to its end (RFC 5260, section 5). */
  vacation({ address, days, subject, text, until }: Vacation): string {
    this.need('vacation');
    const named = `address :is ["to", "cc"] ${quoted(address)}`;
    if (until !== null) this.need('date', 'relational');
    const end = until === null ? '' : new Date(until).toISOString().slice(0, 19);
    const before = `currentdate :zone "+0000" :value "lt" "iso8601" ${quoted(`${end}+00:00`)}`;
    const test = until === null ? named : many('allof', [named, before]);
    const says = subject.trim() ? ` :subject ${quoted(oneLine(subject))}` : '';
    return `if ${test} {\n  vacation :days ${days} :addresses ${quoted(address)}${says} ${quoted(text)};\n}\n`;
  }

  /** The commands of a rule. Throws NotSayable. */
  code(rule: Rule): string {
    const before = [...this.required];
    try {
      const lines: string[] = [];
      const flags = rule.then.flatMap((action) => effectOf(action.do).sieve?.flag?.(action, this.names) ?? []);
      if (flags.length) {
        this.need('imap4flags');
        lines.push(`addflag ${list(flags)};`);
      }
      // As here, the last place that a rule names counts.
      const move = rule.then.findLast((action) => action.do === 'move');
      if (move?.place === 'inbox') lines.push('keep;');
      else if (move) {
        this.need('fileinto');
        lines.push(`fileinto ${quoted(this.names.mailbox(move.place))};`);
      }
      const tray = rule.then.findLast((action) => action.do === 'tray');
      if (tray && !move) {
        this.need('fileinto');
        lines.push(`fileinto ${quoted(this.names.tray(tray.tray))};`);
      }
      if (endsStation(rule)) lines.push('stop;');
      return `if ${this.condition(rule)} {\n${lines.map((line) => `  ${line}\n`).join('')}}\n`;
    } catch (error) {
      // What only this rule would have required is not required.
      this.required.clear();
      this.need(...before);
      throw error;
    }
  }
}

/** Some tests, on one line where they are short, else each on its own. */
function many(joint: 'allof' | 'anyof', tests: readonly string[]): string {
  const line = `${joint} (${tests.join(', ')})`;
  if (line.length <= 100 && !line.includes('\n')) return line;
  return `${joint} (\n${tests.map((test) => `  ${test.replace(/\n/g, '\n  ')}`).join(',\n')}\n)`;
}

const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** The line that names a rule. */
export const nameLine = (rule: Rule, setup: Written): string =>
  rule.name.trim() ? `rule: ${oneLine(rule.name)}` : `rule named by itself: ${oneLine(groupWords(rule.when, setup))}`;

/** The code of one rule with all that it requires; null where Sieve can’t say it, with the reason. */
export function codeOf(rule: Rule, setup: Written): { code: string; required: string[] } | { unsaid: string } {
  const writer = new Writer(setup);
  try {
    return { code: writer.code(ruleRun(rule, setup.stamps ?? [])), required: [...writer.required] };
  } catch (error) {
    if (error instanceof NotSayable) return { unsaid: error.message };
    throw error;
  }
}

/**
 * Writes rules as one script. `plain` tells of a rule whether its code alone, read back, is the rule: only where it is
 * not does a comment hold the whole of it.
 */
export function writeScript(
  setup: Written,
  plain: (rule: Rule, code: string) => boolean,
  answers: readonly Vacation[],
): SieveScript {
  const writer = new Writer(setup);
  const unsaid: Unsaid[] = [];
  const parts: string[] = [];
  for (const rule of setup.rules) {
    const lines = [`# ${nameLine(rule, setup)}`];
    const whole = JSON.stringify(rule);
    if (!rule.on) {
      parts.push([...lines, `# off: ${whole}`].join('\n'));
      continue;
    }
    try {
      const run = ruleRun(rule, setup.stamps ?? []);
      const code = writer.code(run);
      lines.push(plain(rule, code) ? `# id: ${JSON.stringify(rule.id)}` : `# as: ${whole}`);
      parts.push(`${lines.join('\n')}\n${code}`);
      for (const action of run.then) {
        const says = effectOf(action.do).sieve?.unsaid?.(action);
        if (says) unsaid.push({ rule: ruleName(rule, setup), says: `“${actionWords(action, setup)}”: ${says}` });
      }
    } catch (error) {
      if (!(error instanceof NotSayable)) throw error;
      unsaid.push({ rule: ruleName(rule, setup), says: `${error.message}; the rule is left out` });
      parts.push([...lines, `# left out. ${error.message}.`, `# only here: ${whole}`].join('\n'));
    }
  }
  for (const tray of setup.trays ?? []) {
    // Nothing but what rules put there, which say so themselves.
    if (!tray.when && tray.labels.length === 0) continue;
    try {
      for (const code of writer.tray(tray)) parts.push(`# tray: ${oneLine(tray.name)}\n${code}`);
    } catch (error) {
      if (!(error instanceof NotSayable)) throw error;
      unsaid.push({ rule: tray.name, says: `${error.message}; the tray is left out` });
    }
  }
  for (const answer of answers) parts.push(`# automatic answer: ${answer.address}\n${writer.vacation(answer)}`);
  const head = [
    '# The rules of Wide Sort as a Sieve script (RFC 5228). A server runs them in this order.',
    ...setup.folders.map((folder) => `# folder ${JSON.stringify(folder)}`),
    ...setup.labels.map((label) => `# label ${JSON.stringify(label)}`),
  ];
  const required = writer.required.size ? `require ${list([...writer.required].sort())};\n` : '';
  return { script: `${head.join('\n')}\n${required}\n${parts.join('\n')}\n`, unsaid };
}
