// Leaving a mailing list by what its messages say: List-Unsubscribe (RFC 2369, section 3.2), and with one request that
// needs no page (RFC 8058).
import { idSchema, momentSchema } from '../data/id';
import { z } from 'zod';
import { decodeEncodedWords } from '../mail/encodedWord';
import { fieldValue, type HeaderField } from '../mail/header';
import { hostOf } from '../mail/host';

/** A list that was left, and when: by its List-Id, or where it has none by the address it comes from. */
export const leftListSchema = z.object({
  id: idSchema,
  /** In lower case, as envelopes have it; empty where the list has none. */
  listId: z.string().max(500),
  address: z.string().max(500),
  name: z.string().max(500),
  /** Milliseconds since 1970. */
  at: momentSchema.positive(),
  by: z.enum(['one-click', 'mail']),
});
export type LeftList = z.infer<typeof leftListSchema>;

/** One way to leave. `page`: an address that only a person can open. */
export type LeavingWay =
  | { by: 'one-click'; url: string }
  | { by: 'mail'; to: string; subject: string; text: string }
  | { by: 'page'; url: string };

/** More addresses in one field are nobody's honest list. */
const mostWays = 20;
const longestUrl = 2_000;

/** The text without what stands in parentheses, outside of angle brackets (RFC 2369, section 2). */
function withoutComments(value: string): string {
  let out = '';
  let depth = 0;
  let inside = false;
  for (const character of value) {
    if (character === '<' && depth === 0) inside = true;
    if (character === '>') inside = false;
    if (character === '(' && !inside) depth++;
    else if (character === ')' && depth > 0) depth--;
    else if (depth === 0) out += character;
  }
  return out;
}

/** A mailto address (RFC 6068): one recipient, a subject and a text; null where it is none that can be written to. */
function readMailto(uri: string): LeavingWay | null {
  const [address, query = ''] = uri.slice('mailto:'.length).split('?', 2);
  const decode = (text: string): string | null => {
    try {
      return decodeURIComponent(text);
    } catch {
      return null;
    }
  };
  const to = decode(address);
  // Line ends would write fields of their own into the message (RFC 6068, section 7).
  if (to === null || !/^[^\s@,<>"]+@[^\s@,<>"]+$/.test(to)) return null;
  const fields = new Map<string, string>();
  for (const part of query.split('&')) {
    const at = part.indexOf('=');
    const [key, value] = [decode(part.slice(0, at)), decode(part.slice(at + 1))];
    if (at > 0 && key !== null && value !== null) fields.set(key.toLowerCase(), value);
  }
  const subject = decodeEncodedWords(fields.get('subject') ?? '')
    .replace(/\s+/g, ' ')
    .trim();
  return {
    by: 'mail',
    to,
    subject: subject.slice(0, 500) || 'unsubscribe',
    text: (fields.get('body') ?? '').slice(0, 5_000),
  };
}

/**
 * The ways to leave that a message names, the best first: one request, then mail, then pages; each kind in the order in
 * which the sender prefers them (RFC 2369, section 2). One request needs an https address, `List-Unsubscribe-Post` with
 * `List-Unsubscribe=One-Click`, and a signature that holds (RFC 8058, sections 3.1, 3.2 and 4): `signed` says whether
 * the receiving server found one.
 */
export function leavingWays(fields: readonly HeaderField[], signed: boolean): LeavingWay[] {
  const named = withoutComments(fieldValue(fields, 'list-unsubscribe') ?? '');
  const oneClick = /^\s*List-Unsubscribe\s*=\s*One-Click\s*$/i.test(fieldValue(fields, 'list-unsubscribe-post') ?? '');
  const ways: LeavingWay[] = [];
  for (const [, inside] of [...named.matchAll(/<([^<>]*)>/g)].slice(0, mostWays)) {
    // Blanks within brackets come of folding, and are not part of it (RFC 2369, section 2).
    const uri = inside.replace(/\s+/g, '');
    if (uri.length > longestUrl) continue;
    if (/^mailto:/i.test(uri)) {
      const way = readMailto(uri);
      if (way) ways.push(way);
    } else if (/^https?:\/\//i.test(uri) && hostOf(uri)) {
      if (oneClick && signed && /^https:/i.test(uri) && !ways.some(({ by }) => by === 'one-click'))
        ways.push({ by: 'one-click', url: uri });
      else ways.push({ by: 'page', url: uri });
    }
  }
  const order = ['one-click', 'mail', 'page'];
  return ways.sort((a, b) => order.indexOf(a.by) - order.indexOf(b.by));
}
