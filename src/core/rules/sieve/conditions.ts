// What the tests of a script say, as conditions of a rule: simplified, and no deeper nested than rules go.
import { foldAscii, spellings } from '../../text/collation';
import { zoneOnDay } from '../../text/day';
import { asPattern } from '../pattern';
import { longestText, type Condition, type Group, type InnerGroup, type Rule } from '../rule';
import type { Test } from './meaning';
import type { Spot } from './script';

/** A test that no rule can say. */
export class NotTaken extends Error {
  constructor(
    readonly at: Spot,
    message: string,
  ) {
    super(message);
  }
}

export type Node = Condition | { match: 'all' | 'any' | 'none'; of: Node[] };
const isNode = (node: Node): node is Extract<Node, { match: unknown }> => 'match' in node;

/**
 * A group of nodes, each as simple as can be, without what says nothing: groups of one, groups within their own kind,
 * “not” of “not”.
 */
export function combined(match: 'all' | 'any' | 'none', of: Node[]): Node {
  if (of.length === 1 && isNode(of[0])) {
    const [only] = of;
    if (match !== 'none') return only;
    // Not any of them is none of them, and the other way round.
    if (only.match === 'any') return { match: 'none', of: only.of };
    if (only.match === 'none') return only.of.length === 1 ? only.of[0] : { match: 'any', of: only.of };
  }
  const own = match === 'none' ? 'any' : match;
  if (of.some((one) => isNode(one) && one.match === own))
    of = of.flatMap((one) => (isNode(one) && one.match === own ? one.of : [one]));
  if (
    match === 'any' &&
    of.length > 1 &&
    of.every((one) => isNode(one) && one.match === 'none' && one.of.length === 1)
  ) {
    // Not this or not that: not both.
    of = [{ match: 'all', of: of.flatMap((one) => (isNode(one) ? one.of : [])) }];
    match = 'none';
  }
  return of.length === 1 && match !== 'none' ? of[0] : { match, of };
}

/** A node as a group of a rule; null where it is nested deeper than those. */
function asGroup(node: Node): Group | null {
  if (!isNode(node)) return { match: 'all', of: [node] };
  const of: Group['of'] = [];
  for (const one of node.of) {
    if (!isNode(one)) of.push(one);
    else if (one.of.every((inner) => !isNode(inner))) of.push(one as InnerGroup);
    else return null;
  }
  return { match: node.match, of };
}

/** What a test says as “when” and “unless”; null where it is nested deeper than rules go. */
export function asConditions(node: Node): Pick<Rule, 'when' | 'unless'> | null {
  if (isNode(node) && node.match === 'all') {
    const isNo = (one: Node) => isNode(one) && one.match === 'none';
    const no = node.of.filter(isNo);
    const yes = node.of.filter((one) => !isNo(one));
    if (no.length && yes.length) {
      const when = asGroup(combined('all', yes));
      const unless = asGroup(
        combined(
          'any',
          no.flatMap((one) => (isNode(one) ? one.of : [])),
        ),
      );
      return when && unless ? { when, unless } : null;
    }
  }
  const when = asGroup(node);
  return when && { when, unless: null };
}

/** A pattern in the simplest words: begins, ends, contains, is, or like. */
function patternWords(text: string): { how: 'contains' | 'is' | 'begins' | 'ends' | 'like'; text: string } {
  const found = /^(\*?)((?:[^\\*?]|\\[^])*)(\*?)$/.exec(text);
  const plain = found?.[2].replace(/\\([^])/g, '$1') ?? '';
  if (!found || plain === '') return { how: 'like', text };
  const how = found[1] ? (found[3] ? 'contains' : 'ends') : found[3] ? 'begins' : 'is';
  return { how, text: plain };
}

const peopleOf = (names: readonly string[]): 'from' | 'to' | 'cc' | 'recipient' | null => {
  const set = [...new Set(names.map((name) => name.toLowerCase()))].sort().join(' ');
  return ({ from: 'from', to: 'to', cc: 'cc', 'cc to': 'recipient' } as const)[set] ?? null;
};

/** What is looked for; one text in the spellings that rules take as one is one. */
function distinctKeys(keys: readonly string[]): readonly string[] {
  if (keys.length === 1) return keys;
  const own = spellings(keys[0]);
  const all = new Set(keys.map(foldAscii));
  return own.length > 1 && own.length === all.size && own.every((one) => all.has(one)) ? [keys[0]] : keys;
}

const nextDay = (day: string): string => new Date(Date.parse(`${day}T00:00Z`) + 86_400_000).toISOString().slice(0, 10);

/** Tells of something that means something else here. */
type Note = (at: Spot, says: string) => void;

/** A test as conditions. Throws NotTaken where no rule can say it. */
export function nodeOf(test: Test, note: Note): Node {
  return new TestReader(note).node(test);
}

class TestReader {
  constructor(private readonly note: Note) {}

  node(test: Test): Node {
    const { at } = test;
    switch (test.is) {
      case 'true':
        return { field: 'every' };
      case 'false':
        return combined('none', [{ field: 'every' }]);
      case 'not':
        return combined('none', [this.node(test.of)]);
      case 'allof':
      case 'anyof':
        return combined(
          test.is === 'allof' ? 'all' : 'any',
          test.of.map((one) => this.node(one)),
        );
      case 'size':
        return { field: 'size', how: test.how, bytes: test.bytes };
      case 'exists':
        return combined(
          'all',
          test.names.map((name): Condition => ({ field: 'header', name, how: 'there', text: '' })),
        );
      case 'unknown':
        throw new NotTaken(at, test.says);
      case 'currentdate':
        throw new NotTaken(at, 'A rule here goes by the date of the message, not by the day on which it comes.');
      case 'envelope':
        throw new NotTaken(at, 'The envelope of the delivery is known to the server only.');
      case 'hasflag':
        throw new NotTaken(at, 'A rule here does not ask for flags.');
      default:
        return this.compared(test);
    }
  }

  private compared(test: Extract<Test, { is: 'header' | 'address' | 'body' | 'date' }>): Node {
    const { at, match, comparator } = test;
    if (match.type === 'count') throw new NotTaken(at, 'A rule here counts nothing.');
    if (test.is === 'date') return this.date(test);
    if (match.type === 'value') throw new NotTaken(at, 'A rule here compares texts, not their order.');
    if (comparator === 'i;ascii-numeric') throw new NotTaken(at, 'A rule here compares texts, not numbers.');
    if (comparator === 'i;octet') this.note(at, 'Here upper and lower case are alike.');
    const { type } = match;
    const keys = distinctKeys(test.keys);
    if (keys.some((key) => key.length > longestText)) throw new NotTaken(at, 'What is looked for is too long.');
    const each = keys.map((key): Node => {
      if (test.is === 'body') {
        if (type !== 'contains' || test.how === 'raw' || !key.trim())
          throw new NotTaken(at, 'Of the text a rule here asks only whether it contains something.');
        return { field: 'body', how: 'contains', text: key };
      }
      if (test.is === 'address') return this.address(at, test.part, test.names, type, key);
      return this.header(at, test.names, type, key);
    });
    return combined('any', each);
  }

  private header(at: Spot, names: readonly string[], type: 'is' | 'contains' | 'matches', key: string): Node {
    const people = peopleOf(names);
    const words = type === 'matches' ? patternWords(key) : { how: type, text: key };
    if (people && words.how === 'contains' && words.text) return { field: people, how: 'contains', text: words.text };
    const each = names.map((name): Condition => {
      if (words.text === '' && words.how === 'contains') return { field: 'header', name, how: 'there', text: '' };
      if (name.toLowerCase() === 'subject' && words.text) return { field: 'subject', ...words };
      if (!/^[!-9;-~]{1,100}$/.test(name)) throw new NotTaken(at, `“${name}” is no name of a header field.`);
      return { field: 'header', name, ...words };
    });
    return combined('any', each);
  }

  private address(
    at: Spot,
    part: 'all' | 'localpart' | 'domain',
    names: readonly string[],
    type: 'is' | 'contains' | 'matches',
    key: string,
  ): Node {
    const people = names.map((name) => peopleOf([name]));
    const field = peopleOf(names);
    const text = type === 'matches' ? key : asPattern(key);
    const around = type === 'contains' ? `*${text}*` : text;
    const like = part === 'all' ? around : part === 'domain' ? `*@${around}` : `${around}@*`;
    const condition = (one: 'from' | 'to' | 'cc' | 'recipient'): Condition => {
      if (!key) throw new NotTaken(at, 'It looks for an empty address.');
      if (type === 'is' && part === 'all') return { field: one, how: 'is', text: key };
      if (type === 'is' && part === 'domain') return { field: one, how: 'domain', text: key };
      return { field: one, how: 'like', text: like };
    };
    if (field) return condition(field);
    const each = people.map((one, i) => {
      if (!one) throw new NotTaken(at, `A rule here asks for addresses in From, To and Cc, not in “${names[i]}”.`);
      return condition(one);
    });
    return combined('any', each);
  }

  private date({ at, zone, name, datePart, match, keys }: Extract<Test, { is: 'date' }>): Node {
    if (name.toLowerCase() !== 'date' || datePart !== 'date')
      throw new NotTaken(at, 'Of dates a rule here asks only for the day of the Date field.');
    const each = keys.map((day): Condition => {
      if (!/^\d{4}-\d{2}-\d{2}$/.test(day) || Number.isNaN(Date.parse(`${day}T00:00Z`)))
        throw new NotTaken(at, `“${day}” is no day: 2026-09-01 is one.`);
      if (zone !== zoneOnDay(Date.parse(`${day}T00:00Z`)))
        throw new NotTaken(at, 'A rule here counts days in your own time zone.');
      if (match.type === 'is') return { field: 'date', how: 'on', day };
      if (match.type !== 'value') throw new NotTaken(at, 'A rule here asks for days before, on or since one.');
      switch (match.relation) {
        case 'lt':
          return { field: 'date', how: 'before', day };
        case 'le':
          return { field: 'date', how: 'before', day: nextDay(day) };
        case 'ge':
          return { field: 'date', how: 'since', day };
        case 'gt':
          return { field: 'date', how: 'since', day: nextDay(day) };
        case 'eq':
          return { field: 'date', how: 'on', day };
        case 'ne':
          throw new NotTaken(at, 'A rule here asks for days before, on or since one.');
      }
    });
    return combined('any', each);
  }
}
