// Addresses (RFC 5322, sections 3.4 and 4.4), read as leniently as real mail needs.
import { trimEndOf } from '../text/trim';
import { decodeEncodedWords, encodeWords } from './encodedWord';

/** A mailbox: the display name, decoded, empty where there is none; and the address as written. */
export interface Address {
  name: string;
  address: string;
}

type Token = { kind: 'text' | 'quoted' | 'comment' | 'literal' | 'special'; text: string };

const specials = new Set(['<', '>', '@', ',', ';', ':']);
/** A run of characters that are neither blank nor of any meaning of their own. */
const run = /[^\s"()[\]<>@,;:]+/y;

/** Reads up to the closing character, with backslash pairs resolved; comments nest (section 3.2.2). */
function delimited(text: string, start: number, open: string, close: string): { value: string; end: number } {
  let depth = 1;
  let value = '';
  let i = start;
  for (; i < text.length; i++) {
    const c = text[i];
    if (c === '\\' && i + 1 < text.length) value += text[++i];
    else if (c === close && --depth === 0) break;
    else {
      if (c === open && open !== close) depth++;
      value += c;
    }
  }
  return { value, end: i + 1 };
}

function tokens(text: string): Token[] {
  const out: Token[] = [];
  let i = 0;
  while (i < text.length) {
    const c = text[i];
    if (c === '"' || c === '(' || c === '[') {
      const close = c === '"' ? '"' : c === '(' ? ')' : ']';
      const { value, end } = delimited(text, i + 1, c, close);
      out.push({ kind: c === '"' ? 'quoted' : c === '(' ? 'comment' : 'literal', text: value });
      i = end;
    } else if (specials.has(c)) {
      out.push({ kind: 'special', text: c });
      i++;
    } else if (c === ' ' || c === '\t' || c === '\r' || c === '\n') i++;
    else {
      run.lastIndex = i;
      const end = run.test(text) ? run.lastIndex : i + 1;
      // A lone closing bracket stands for itself, or the walk would not move on.
      out.push({ kind: 'text', text: text.slice(i, end) });
      i = end;
    }
  }
  return out;
}

const spoken = (t: Token): string => (t.kind === 'literal' ? `[${t.text}]` : t.text);

/** The words of an address without the blanks and comments that may stand between them (section 4.4). */
function addressOf(words: Token[]): string {
  let route = words.findLastIndex((t) => t.kind === 'special' && t.text === ':');
  if (words[0]?.text !== '@') route = -1;
  let out = '';
  for (const t of words.slice(route + 1)) {
    if (t.kind === 'comment') continue;
    out += t.kind === 'quoted' && !/^[\w!#$%&'*+/=?^`{|}~.-]+$/.test(t.text) ? `"${t.text}"` : spoken(t);
  }
  return out;
}

function nameOf(words: Token[], comments: Token[]): string {
  let phrase = '';
  let glued = true;
  for (const t of words) {
    if (t.kind === 'comment') continue;
    const at = t.kind === 'special' && t.text === '@';
    phrase += (glued || at ? '' : ' ') + spoken(t);
    glued = at;
  }
  const said = comments.map((t) => t.text).join(' ');
  return decodeEncodedWords(phrase || said)
    .replace(/\s+/g, ' ')
    .trim();
}

/**
 * Reads an address list: mailboxes and groups, quoted names, comments, routes and the other obsolete forms. What is
 * no address at all is taken as a name without an address, so that the person sees what was written. At most `limit`
 * mailboxes are read.
 */
export function parseAddresses(field: string, limit = 10_000): Address[] {
  const out: Address[] = [];
  let words: Token[] = [];
  let angle: Token[] | null = null;
  let inAngle = false;
  const finish = () => {
    const comments = words.filter((t) => t.kind === 'comment');
    if (angle) {
      out.push({ name: nameOf(words, comments), address: addressOf(angle) });
    } else if (words.some((t) => t.kind !== 'comment')) {
      const at = words.some((t) => t.kind === 'special' && t.text === '@');
      if (at) out.push(bareAddress(words, comments));
      else out.push({ name: nameOf(words, []), address: '' });
    }
    words = [];
    angle = null;
    inAngle = false;
  };
  for (const token of tokens(field)) {
    if (out.length >= limit) break;
    if (token.kind === 'special') {
      if (token.text === '<' && !angle) {
        angle = [];
        inAngle = true;
        continue;
      }
      if (token.text === '>') {
        inAngle = false;
        continue;
      }
      if (inAngle) {
        angle?.push(token);
        continue;
      }
      if (token.text === ',' || token.text === ';') {
        finish();
        continue;
      }
      if (token.text === ':') {
        // The name of a group, whose members follow (section 3.4).
        words = [];
        continue;
      }
    }
    if (inAngle) angle?.push(token);
    else words.push(token);
  }
  finish();
  return out;
}

/** `joe@where.test (Joe)`, and what real mail makes of it: words before the address are its name. */
function bareAddress(words: Token[], comments: Token[]): Address {
  const plain = words.filter((t) => t.kind !== 'comment');
  const at = plain.findIndex((t) => t.text === '@' && t.kind === 'special');
  let from = Math.max(0, at - 1);
  // Obsolete local parts may be parted by blanks around their dots: `john . doe @ x` (section 4.4).
  while (from > 0 && (plain[from].text.startsWith('.') || plain[from - 1].text.endsWith('.'))) from--;
  let to = Math.min(plain.length, at + 2);
  while (to < plain.length && (plain[to].text.startsWith('.') || plain[to - 1].text.endsWith('.'))) to++;
  return { name: nameOf(plain.slice(0, from), comments), address: addressOf(plain.slice(from, to)) };
}

/** An address in the form in which two are compared: the domain without case (RFC 5321, section 2.3.11), and the
 * local part too, as every large mail system does it (common practice, no source). */
export function addressKey(address: string): string {
  return address.trim().toLowerCase();
}

/** Whether a domain is another or lies below it; both in lower case. */
export const withinDomain = (domain: string, of: string): boolean => domain === of || domain.endsWith(`.${of}`);

/** The domain of an address in lower case, without a trailing dot; empty where there is none. */
export function domainOf(address: string): string {
  const at = address.lastIndexOf('@');
  return at < 0
    ? ''
    : trimEndOf(
        address
          .slice(at + 1)
          .trim()
          .toLowerCase(),
        '.',
      );
}

/** The most characters that a domain can have (RFC 1035, section 2.3.4). */
const longestDomain = 253;

/** A domain and each above it: `sea.ferry.example`, `ferry.example`, `example`; none of what is too long to be one. */
export function* domainsUp(domain: string): Generator<string> {
  if (domain.length > longestDomain) return;
  for (let rest = domain, dot = 0; rest; rest = dot < 0 ? '' : rest.slice(dot + 1)) {
    yield rest;
    dot = rest.indexOf('.');
  }
}

/** An address as it stands in a header field: the name quoted or encoded where it has to be. */
export function formatAddress({ name, address }: Address): string {
  if (!name) return address;
  // As few words as can be: not every reader puts those of a name together again.
  const encoded = encodeWords(name, 45);
  if (encoded !== name) return `${encoded} <${address}>`;
  const plain = /^[\w!#$%&'*+/=?^`{|}~ -]+$/.test(name);
  return `${plain ? name : `"${name.replace(/(["\\])/g, '\\$1')}"`} <${address}>`;
}
