// The normal form of addresses and domains: two that reach the same mailbox are written alike.
// The slash: the package, not the module of that name in Node.js.
import punycode from 'punycode/punycode.js';
import { trimEndOf } from '../text/trim';
import { domainOf, parseAddresses } from '../mail/address';
import { remembering } from '../data/memo';

const beyondAscii = /[^\0-\x7f]/;

/**
 * A domain in lower case, in ASCII (IDNA, by UTS #46) and without a trailing dot: `Bücher.Example.` →
 * `xn--bcher-kva.example`. What IDNA refuses stays as it is, in lower case.
 */
export function normalDomain(domain: string): string {
  const lower = trimEndOf(domain.trim().toLowerCase(), '.');
  if (!beyondAscii.test(lower)) return lower;
  try {
    return new URL(`http://${lower}`).hostname;
  } catch {
    return lower;
  }
}

/**
 * An address in the form in which the Register compares it: quotes that are not needed taken off (RFC 5321, section
 * 4.1.2), without comments (RFC 5322, section 3.2.2), in lower case (common practice, no source), the domain as
 * {@link normalDomain} gives it.
 */
export const normalAddress = remembering((address: string): string => {
  const plain = /["(\s<]/.test(address) ? (parseAddresses(address, 1)[0]?.address ?? address) : address;
  const at = plain.lastIndexOf('@');
  return at < 0
    ? plain.trim().toLowerCase()
    : `${plain.slice(0, at).trim().toLowerCase()}@${normalDomain(domainOf(plain))}`;
});

/** The address without what stands behind a “+” in it (RFC 5233, subaddress), or null where there is none. */
export function withoutSubaddress(address: string): string | null {
  const at = address.lastIndexOf('@');
  const plus = address.indexOf('+');
  return plus > 0 && plus < at ? address.slice(0, plus) + address.slice(at) : null;
}

/** A domain as it is shown: its ASCII labels of IDNA read (RFC 3492); what is none stays. */
export function unicodeDomain(domain: string): string {
  if (!domain.includes('xn--')) return domain;
  try {
    return punycode.toUnicode(domain);
  } catch {
    return domain;
  }
}

/**
 * An address or domain with the form in letters beside the one in ASCII, where it has one (RFC 5890). What IDNA would not
 * write so, as a letter that turns the text around, has none.
 */
export function bothForms(value: string): string {
  const at = value.lastIndexOf('@') + 1;
  const domain = value.slice(at);
  const letters = unicodeDomain(domain);
  return letters === domain || normalDomain(letters) !== domain ? value : `${value} (${value.slice(0, at)}${letters})`;
}
