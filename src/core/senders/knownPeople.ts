// Whom others may imitate.
import { domainOf, type Address } from '../mail/address';
import { skeleton } from './lookAlike';
import { normalAddress, unicodeDomain } from './normal';

/** The people and domains whom others may imitate: whom the person wrote to, their contacts, and themselves. */
export interface KnownPeople {
  /** Addresses by the skeleton of the name that goes with them. */
  byName: ReadonlyMap<string, ReadonlySet<string>>;
  domains: ReadonlySet<string>;
  /** The domains by the skeleton of how they are shown. */
  byLook: ReadonlyMap<string, string>;
  /** The person's own addresses, in normal form, and the domains of these. */
  own: ReadonlySet<string>;
}

/** Gathers the known people, `own` addresses among them. Names of one word are left out: too many share them. */
export function knownPeople(people: Iterable<Address>, own: readonly Address[] = []): KnownPeople {
  const byName = new Map<string, Set<string>>();
  const domains = new Set<string>();
  for (const { name, address } of [...people, ...own]) {
    const normal = normalAddress(address);
    const domain = domainOf(normal);
    if (domain) domains.add(domain);
    if (!/\S\s+\S/.test(name.trim())) continue;
    const key = nameKey(name);
    byName.set(key, (byName.get(key) ?? new Set()).add(normal));
  }
  const byLook = new Map([...domains].map((domain) => [domainKey(domain), domain]));
  const addresses = own.map(({ address }) => normalAddress(address));
  return { byName, domains, byLook, own: new Set([...addresses, ...addresses.map(domainOf)].filter(Boolean)) };
}

/** The form in which names are compared: what looks alike is alike. */
export const nameKey = (name: string): string => skeleton(name.trim().replace(/\s+/g, ' '));

/** The same for domains, as they are shown. */
export const domainKey = (domain: string): string => skeleton(unicodeDomain(domain));
