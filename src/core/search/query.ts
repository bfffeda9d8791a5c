// The query language: the keys of IMAP SEARCH (RFC 9051, section 6.4.4) in its grammar, for what an envelope tells.
//
//     from "harbour" since 1-Sep-2026 unseen not subject fuel
//
// Keys stand side by side, and all must hold; OR takes two keys, NOT one; parentheses group. Upper or lower case. A date
// may also be written as ISO 8601. A word that is no key is looked for in the people and the subject.

/** A parsed query. Texts are in lower case; days are milliseconds since 1970 of their first moment in UTC. */
export type Query =
  | { key: 'all' }
  | { key: 'seen' | 'flagged'; value: boolean }
  | { key: 'from' | 'to' | 'cc' | 'subject' | 'words' | 'keyword'; text: string }
  | { key: 'before' | 'on' | 'since'; day: number }
  | { key: 'larger' | 'smaller'; bytes: number }
  | { key: 'not'; of: Query }
  | { key: 'and' | 'or'; of: Query[] };

/** What is wrong with a query, and where: `at` is an offset in UTF-16 units. */
export type ParsedQuery = { ok: true; query: Query } | { ok: false; error: string; at: number };

interface Token {
  text: string;
  quoted: boolean;
  at: number;
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

function tokens(text: string): Token[] {
  const out: Token[] = [];
  for (let i = 0; i < text.length;) {
    const at = i;
    if (/\s/.test(text[i])) i++;
    else if (text[i] === '(' || text[i] === ')') out.push({ text: text[i++], quoted: false, at });
    else if (text[i] === '"') {
      let value = '';
      for (i++; i < text.length && text[i] !== '"'; i++)
        value += text[i] === '\\' && i + 1 < text.length ? text[++i] : text[i];
      if (i >= text.length) throw new QueryError('The quotation mark that opens here is never closed.', at);
      i++;
      out.push({ text: value, quoted: true, at });
    } else {
      while (i < text.length && !/[\s()"]/.test(text[i])) i++;
      out.push({ text: text.slice(at, i), quoted: false, at });
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

const texts = ['from', 'to', 'cc', 'subject', 'keyword'] as const;
const days = ['before', 'on', 'since'] as const;
const states: Record<string, Query> = {
  all: { key: 'all' },
  seen: { key: 'seen', value: true },
  unseen: { key: 'seen', value: false },
  flagged: { key: 'flagged', value: true },
  unflagged: { key: 'flagged', value: false },
};

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
    if (word in states) return states[word];
    if (word === 'not') return { key: 'not', of: this.key(depth + 1) };
    if (word === 'or') return { key: 'or', of: [this.key(depth + 1, orNeeds), this.key(depth + 1, orNeeds)] };
    if (word === 'unkeyword')
      return { key: 'not', of: { key: 'keyword', text: this.take('A label').text.toLowerCase() } };
    const text = texts.find((name) => name === word);
    if (text) return { key: text, text: this.take(`What ${word} looks for`).text.toLowerCase() };
    const day = days.find((name) => name === word);
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
    return { key: 'words', text: token.text.toLowerCase() };
  }
}

/** Reads a query. What is wrong comes back as data, with its place. */
export function parseQuery(text: string): ParsedQuery {
  if (text.length > longestQuery)
    return {
      ok: false,
      error: `A query has at most ${longestQuery.toLocaleString('en')} characters.`,
      at: longestQuery,
    };
  try {
    return { ok: true, query: new Parser(tokens(text), text.length).keys(0, null) };
  } catch (error) {
    if (error instanceof QueryError) return { ok: false, error: error.message, at: error.at };
    throw error;
  }
}
