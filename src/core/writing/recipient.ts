// Addresses as they are typed and pasted into To, Cc and Bcc: what can be sent to, and why the rest can't.
import punycode from 'punycode/punycode.js';
import { addressKey, domainOf, parseAddresses, type Address } from '../mail/address';
import { longestLine, oneLine } from '../text/oneLine';

/** What was typed into a field: whom it names, and what of it is no address, each with the reason. */
export interface TypedRecipients {
  named: Address[];
  wrong: { text: string; reason: string }[];
}

/** No field names more people: more are a mailing list’s business. */
export const mostRecipients = 1_000;

const atom = /^[A-Za-z0-9!#$%&'*+/=?^_`{|}~-]+(\.[A-Za-z0-9!#$%&'*+/=?^_`{|}~-]+)*$/;
const quoted = /^"(?:[^"\\\r\n]|\\.)*"$/;
const label = /^[a-z0-9]([a-z0-9-]*[a-z0-9])?$/i;

/** What is wrong with the part before the @, in words; null where nothing is (RFC 5321, section 4.5.3.1). */
function localTrouble(local: string): string | null {
  if (local === '') return 'nothing stands before its @';
  if (local.length > 64) return 'what stands before its @ is longer than 64 characters';
  if (/[^\0-\x7f]/.test(local))
    return 'it has other letters than a to z before its @, which only some mail servers take (RFC 6531)';
  if (/^\.|\.$|\.\./.test(local)) return 'before its @ a dot stands at an end, or two in a row';
  return atom.test(local) || quoted.test(local) ? null : 'before its @ stands a character that must not be there';
}

/** A domain in the letters in which it is sent (RFC 5891), or what is wrong with it. */
function sentDomain(domain: string): { ok: true; domain: string } | { ok: false; reason: string } {
  if (/^\[[\d.:a-fA-F]+(?:IPv6:[\d.:a-fA-F]+)?\]$/.test(domain)) return { ok: true, domain };
  if (domain === '') return { ok: false, reason: 'nothing stands behind its @' };
  let ascii: string;
  try {
    ascii = punycode.toASCII(domain.normalize('NFC').toLowerCase());
  } catch {
    return { ok: false, reason: 'its domain can’t be written in the letters that the network knows' };
  }
  const labels = ascii.split('.');
  if (labels.some((one) => one === ''))
    return { ok: false, reason: 'in its domain a dot stands at an end, or two in a row' };
  if (ascii.length > 253 || labels.some((one) => one.length > 63))
    return { ok: false, reason: 'its domain is too long' };
  if (!labels.every((one) => label.test(one)))
    return { ok: false, reason: 'in its domain stands a character that must not be there' };
  if (labels.length < 2 || /^\d+$/.test(labels[labels.length - 1]))
    return { ok: false, reason: 'its domain is not whole, like harbour.example' };
  return { ok: true, domain: ascii };
}

/**
 * An address as it can be sent to: its name in one line, its domain as A-labels. Else the reason in words, to be put
 * behind “… is no address: ”.
 */
export function readRecipient({
  name,
  address,
}: Address): { ok: true; address: Address } | { ok: false; reason: string } {
  const at = address.lastIndexOf('@');
  if (at < 0) return { ok: false, reason: 'it has no @' };
  const local = address.slice(0, at);
  const reason = localTrouble(local);
  if (reason !== null) return { ok: false, reason };
  const domain = sentDomain(address.slice(at + 1));
  if (!domain.ok) return domain;
  const tidy = oneLine(name);
  return {
    ok: true,
    address: { name: addressKey(tidy) === addressKey(address) ? '' : tidy, address: `${local}@${domain.domain}` },
  };
}

/** Lines, semicolons and tabs part addresses, too: so they stand in tables and lists that are pasted. */
const parted = (typed: string): string => typed.replace(/[\r\n\t;]+/g, ', ').slice(0, 1_000_000);

/** Reads what was typed or pasted into a field: any number of addresses, each once. */
export function readRecipients(typed: string): TypedRecipients {
  const named: Address[] = [];
  const wrong: TypedRecipients['wrong'] = [];
  const seen = new Set<string>();
  for (const one of parseAddresses(parted(typed), mostRecipients + 1)) {
    const text = (one.address || one.name).slice(0, longestLine);
    if (text === '') continue;
    const read = readRecipient(one);
    if (!read.ok) wrong.push({ text, reason: read.reason });
    else if (named.length >= mostRecipients)
      wrong.push({ text, reason: `a field names no more than ${mostRecipients} people` });
    else if (!seen.has(addressKey(read.address.address))) {
      seen.add(addressKey(read.address.address));
      named.push(read.address);
    }
  }
  return { named, wrong };
}

/** An address as a person types it, and as {@link readRecipients} reads it: the name as it reads, in quotes where it has to be. */
export function typedAddress({ name, address }: Address): string {
  if (!name) return address;
  return `${/[",;:<>@()[\]\\]/.test(name) ? `"${name.replace(/["\\]/g, ' ')}"` : name} <${address}>`;
}

/** What is wrong with a field, in a sentence; null where nothing is. */
export function fieldTrouble(word: string, { wrong }: TypedRecipients): string | null {
  if (wrong.length === 0) return null;
  const [{ text, reason }] = wrong;
  const more = wrong.length > 1 ? ` (and ${wrong.length - 1} more)` : '';
  return `${word}: “${text}” is no address: ${reason}${more}.`;
}

/** Whether somebody may be meant by what was typed: the beginning of their address, of its domain, or of a word of their name. */
export function mayBeMeant({ name, address }: Address, typed: string): boolean {
  const wanted = typed.trim().toLowerCase();
  return (
    address.toLowerCase().startsWith(wanted) ||
    domainOf(address).startsWith(wanted) ||
    ` ${name.toLowerCase()}`.includes(` ${wanted}`)
  );
}
