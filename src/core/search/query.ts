// The query language: the keys of IMAP SEARCH (RFC 9051, section 6.4.4) in its grammar.
//
//     from "harbour" since 1-Sep-2026 unseen not subject fuel
//
// Keys stand side by side, and all must hold; OR takes two keys, NOT one; parentheses group. Upper or lower case. A date
// may also be written as ISO 8601. A word that is no key is looked for everywhere a person would: people, subject, text
// and names of attachments. Not taken is what makes no sense on stored mail: message numbers and UIDs, and what a client
// and a server agree on (RETURN, other charsets).

import { count } from '../text/sentences';

/** Keys that look for a text. `text`: in any field of the header, or in the body; `words`: where a person would look. */
export const textKeys = ['from', 'to', 'cc', 'bcc', 'subject', 'body', 'text'] as const;
/** Keys on the day by which a message is sorted; with `sent`, on that of its Date field alone. */
export const dayKeys = ['before', 'on', 'since', 'sentbefore', 'senton', 'sentsince'] as const;
/** Keys on a state, each with the one for its opposite. A draft is in Drafts, what is deleted in the Bin. */
export const stateKeys = ['seen', 'flagged', 'answered', 'draft', 'deleted'] as const;

/** A parsed query. Texts stand as they were written; days are milliseconds since 1970 of their first moment in UTC. */
export type Query =
  | { key: 'all' }
  | { key: (typeof stateKeys)[number]; value: boolean }
  | { key: (typeof textKeys)[number] | 'words'; text: string }
  | { key: 'header'; name: string; text: string }
  /** The name of a label. */
  | { key: 'keyword'; label: string }
  | { key: (typeof dayKeys)[number]; day: number }
  | { key: 'larger' | 'smaller'; bytes: number }
  | { key: 'not'; of: Query }
  | { key: 'and' | 'or'; of: Query[] };

/** What is wrong with a query, and where: `at` is an offset in UTF-16 units. */
export type ParsedQuery = { ok: true; query: Query } | { ok: false; error: string; at: number };

/** A word, a quoted text or a parenthesis of a query, from `at` up to, not including, `end` (UTF-16 units). */
export interface Token {
  text: string;
  quoted: boolean;
  at: number;
  end: number;
}

class QueryError extends Error {
  constructor(
    message: string,
    readonly at: number,
  ) {
    super(message);
  }
}

/** Deeper than anybody writes; a machine's million parentheses must not exhaust the stack. */
const deepest = 50;
export const longestQuery = 10_000;

/** The parts of a query; `unfinished`: a quotation mark that is never closed goes up to the end, as while typing. */
export function tokens(text: string, unfinished = false): Token[] {
  const out: Token[] = [];
  for (let i = 0; i < text.length;) {
    const at = i;
    if (/\s/.test(text[i])) i++;
    else if (text[i] === '(' || text[i] === ')') out.push({ text: text[i++], quoted: false, at, end: i });
    else if (text[i] === '"') {
      let value = '';
      for (i++; i < text.length && text[i] !== '"'; i++)
        value += text[i] === '\\' && i + 1 < text.length ? text[++i] : text[i];
      if (i >= text.length && !unfinished)
        throw new QueryError('The quotation mark that opens here is never closed.', at);
      i++;
      out.push({ text: value, quoted: true, at, end: Math.min(i, text.length) });
    } else {
      while (i < text.length && !/[\s()"]/.test(text[i])) i++;
      out.push({ text: text.slice(at, i), quoted: false, at, end: i });
    }
  }
  return out;
}

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/** A date as RFC 9051 writes it (`date-text`: 1-Sep-2026) or as ISO 8601 does; null where it is none. */
function readDay(text: string): number | null {
  const rfc = /^(\d{1,2})-([a-z]{3})-(\d{4})$/i.exec(text);
  const iso = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text);
  const [year, month, day] = rfc
    ? [Number(rfc[3]), months.indexOf(rfc[2].toLowerCase()), Number(rfc[1])]
    : iso
      ? [Number(iso[1]), Number(iso[2]) - 1, Number(iso[3])]
      : [0, -1, 0];
  const time = Date.UTC(year, month, day);
  const back = new Date(time);
  // 31-Feb would be a day in March.
  return month >= 0 && back.getUTCMonth() === month && back.getUTCDate() === day ? time : null;
}

const states = new Map<string, Query>([
  ['all', { key: 'all' }],
  ...stateKeys.flatMap((key): [string, Query][] => [
    [key, { key, value: true }],
    [`un${key}`, { key, value: false }],
  ]),
]);
/** Keys of IMAP that are refused, each with the reason. */
const refused = new Map([
  ['uid', 'Messages have no numbers here'],
  ['return', 'All that is found is shown'],
]);
const quoteIt = (word: string) => `: to look for the word itself, write "${word}" in quotation marks.`;

/** All words that are keys: as a text to look for they stand in quotation marks. */
export const keyWords: readonly string[] = [
  ...states.keys(),
  ...refused.keys(),
  ...textKeys,
  ...dayKeys,
  'keyword',
  'unkeyword',
  'header',
  'larger',
  'smaller',
  'not',
  'or',
  'charset',
];

/** OR stands before its two keys, not between them: whoever writes it between is told. */
const orNeeds = 'One of the two keys that “or” takes after it, as in or seen flagged,';

class Parser {
  private at = 0;

  constructor(
    private readonly list: Token[],
    private readonly end: number,
  ) {}

  private take(what: string): Token {
    const token = this.list[this.at];
    if (!token || (!token.quoted && token.text === ')'))
      throw new QueryError(`${what} is missing here.`, token?.at ?? this.end);
    if (!token.quoted && /^\{\d+\+?\}$/.test(token.text))
      throw new QueryError('A length in braces is for programs: write the text in quotation marks.', token.at);
    this.at++;
    return token;
  }

  /** Keys up to the end, or up to the closing parenthesis. */
  keys(depth: number, opened: Token | null): Query {
    const of: Query[] = [];
    for (;;) {
      const token = this.list[this.at];
      if (!token) {
        if (opened) throw new QueryError('The parenthesis that opens here is never closed.', opened.at);
        break;
      }
      if (!token.quoted && token.text === ')') {
        if (!opened) throw new QueryError('This parenthesis closes none.', token.at);
        this.at++;
        break;
      }
      of.push(this.key(depth));
    }
    if (of.length === 0)
      throw new QueryError('A key is missing here, such as unseen or from "harbour".', opened?.at ?? this.end);
    return of.length === 1 ? of[0] : { key: 'and', of };
  }

  private key(depth: number, missing = 'A key'): Query {
    const token = this.take(missing);
    if (depth > deepest) throw new QueryError('This is nested too deep.', token.at);
    const word = token.quoted ? '' : token.text.toLowerCase();
    if (word === '(') return this.keys(depth + 1, token);
    const state = states.get(word);
    if (state) return state;
    const reason = refused.get(word);
    if (reason) throw new QueryError(reason + quoteIt(word), token.at);
    if (word === 'not') return { key: 'not', of: this.key(depth + 1) };
    if (word === 'or') return { key: 'or', of: [this.key(depth + 1, orNeeds), this.key(depth + 1, orNeeds)] };
    if (word === 'keyword') return this.label();
    if (word === 'unkeyword') return { key: 'not', of: this.label() };
    const text = textKeys.find((name) => name === word);
    if (text) return { key: text, text: this.take(`What ${word} looks for`).text };
    if (word === 'header') return this.header();
    const day = dayKeys.find((name) => name === word);
    if (day) {
      const value = this.take('A date, such as 1-Sep-2026,');
      const time = readDay(value.text);
      if (time === null) throw new QueryError(`“${value.text}” is no date: write 1-Sep-2026 or 2026-09-01.`, value.at);
      return { key: day, day: time };
    }
    if (word === 'larger' || word === 'smaller') {
      const value = this.take('A size in bytes');
      if (!/^\d{1,15}$/.test(value.text))
        throw new QueryError(`“${value.text}” is no size: write a number of bytes.`, value.at);
      return { key: word, bytes: Number(value.text) };
    }
    return { key: 'words', text: token.text };
  }

  private label(): Query {
    return { key: 'keyword', label: this.take('The name of a label').text };
  }

  private header(): Query {
    const name = this.take('The name of a header field, such as X-Priority,');
    if (!/^[!-9;-~]{1,100}$/.test(name.text))
      throw new QueryError(`“${name.text}” is no name of a header field.`, name.at);
    return { key: 'header', name: name.text, text: this.take(`What is looked for in ${name.text}`).text };
  }

  /** `CHARSET UTF-8` at the beginning: what is typed here is in Unicode anyway. */
  charset(): void {
    const [word, name] = this.list;
    if (!word || word.quoted || word.text.toLowerCase() !== 'charset') return;
    this.take('A charset');
    this.take('The name of a charset');
    if (!/^(?:utf-8|us-ascii)$/i.test(name?.text ?? ''))
      throw new QueryError(`Queries are in UTF-8, not in “${name?.text}”${quoteIt('charset')}`, word.at);
  }
}

/** Reads a query. What is wrong comes back as data, with its place. */
export function parseQuery(text: string): ParsedQuery {
  if (text.length > longestQuery)
    return {
      ok: false,
      error: `A query has at most ${count(longestQuery)} characters.`,
      at: longestQuery,
    };
  try {
    const parser = new Parser(tokens(text), text.length);
    parser.charset();
    return { ok: true, query: parser.keys(0, null) };
  } catch (error) {
    if (error instanceof QueryError) return { ok: false, error: error.message, at: error.at };
    throw error;
  }
}

/** A text as it stands in a query: in quotation marks where it would be read otherwise without, or is not to be plain. */
export const quoted = (text: string, plain = true): string =>
  plain && /^[^\s()"\\{]+$/.test(text) ? text : `"${text.replace(/(["\\])/g, '\\$1')}"`;
const isoDay = (day: number): string => new Date(day).toISOString().slice(0, 10);

/** A query as text, in the words of {@link parseQuery}, which reads it as the same query. */
export function queryText(query: Query): string {
  switch (query.key) {
    case 'all':
      return 'all';
    case 'words':
      return quoted(query.text, !keyWords.includes(query.text.toLowerCase()));
    case 'header':
      return `header ${quoted(query.name, true)} ${quoted(query.text, true)}`;
    case 'keyword':
      return `keyword ${quoted(query.label, true)}`;
    case 'larger':
    case 'smaller':
      return `${query.key} ${query.bytes}`;
    case 'not':
      return `not ${partText(query.of)}`;
    case 'or':
      return `or ${query.of.map(partText).join(' ')}`;
    case 'and':
      return query.of.map(partText).join(' ');
  }
  if ('value' in query) return `${query.value ? '' : 'un'}${query.key}`;
  if ('day' in query) return `${query.key} ${isoDay(query.day)}`;
  return `${query.key} ${quoted(query.text, true)}`;
}

/** Parts that must all hold, as one query; `all` where there are none. */
export const joined = (of: Query[]): Query =>
  of.length === 0 ? { key: 'all' } : of.length === 1 ? of[0] : { key: 'and', of };

/** A query as one key of another. */
const partText = (query: Query): string => (query.key === 'and' ? `(${queryText(query)})` : queryText(query));
