// The mail addresses that stand in a text, as they do in most signatures.
import { addressKey, type Address } from '../mail/address';
import { readRecipient } from '../writing/recipient';

const mostFound = 20;
/** So many “@” are looked at. */
const mostLooked = 2_000;
/** What stands before and behind an @ at most (RFC 5321, section 4.5.3.1). */
const [longestLocal, longestDomain] = [64, 255];
/** Letters of an address as people write them; quoted ones stand in no signature. */
const local = /[\w!#$%&'*+=?^`{|}~.-]/;
const domain = /[\p{L}\p{N}.-]/u;
/** A name before “<ana@harbour.example>”, on its line. */
const nameBefore = /([^\s<>"“”@:;,|][^<>"“”@:;,|\n]{0,60}?)["”]?[ \t]*<$/;

/** The address around an @; what stands before it, too. */
function around(text: string, at: number): { address: string; from: number } {
  let from = at;
  while (from > 0 && at - from < longestLocal && local.test(text[from - 1])) from--;
  let to = at + 1;
  while (to < text.length && to - at <= longestDomain && domain.test(text[to])) to++;
  const bare = text.slice(from, to).replace(/[.-]+$/, '');
  const marks = /^['*.=?`{|}~-]+/.exec(bare)?.[0].length ?? 0;
  return { address: bare.slice(marks), from: from + marks };
}

/**
 * The addresses in a text, each once, in their order, with the names that stand before them; at most twenty. Takes time
 * in step with the length of the text.
 */
export function addressesIn(text: string): Address[] {
  const found = new Map<string, Address>();
  let looked = 0;
  for (let at = text.indexOf('@'); at >= 0; at = text.indexOf('@', at + 1)) {
    if (++looked > mostLooked || found.size === mostFound) break;
    const { address, from } = around(text, at);
    // Of a link, or of a message’s identifier, it is no mailbox.
    if (text[from - 1] === '/' || text[at + 1] === '@') continue;
    const name = nameBefore.exec(text.slice(Math.max(0, from - 70), from))?.[1].trim() ?? '';
    const read = readRecipient({ name, address });
    if (!read.ok) continue;
    const key = addressKey(read.address.address);
    if (!found.has(key)) found.set(key, read.address);
  }
  return [...found.values()];
}
