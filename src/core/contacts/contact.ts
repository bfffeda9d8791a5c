// Contacts: people the person knows.
import { z } from 'zod';
import { idSchema } from '../data/id';
import type { Address } from '../mail/address';
import { normalAddress } from '../senders/normal';
import { parseEntry } from '../senders/register';

/** What somebody is to the person (vocabulary: role). */
export const roles = ['manager', 'team'] as const;
export type Role = (typeof roles)[number];
export const roleWords: Record<Role, string> = { manager: 'My manager', team: 'My team' };

/** The most addresses of one contact, and the most groups that they are in. */
export const mostAddresses = 50;
export const mostGroups = 50;

const addressSchema = z
  .string()
  .max(400)
  .regex(/^\S+@\S+$/, { error: 'must be an address, like ana@harbour.example' });

export const contactSchema = z.object({
  id: idSchema,
  name: z.string().max(200),
  /** The first of their addresses. In normal form (normal.ts); each stands once. */
  address: addressSchema,
  /** Their other addresses, in normal form. */
  more: z.array(addressSchema).max(mostAddresses).default([]),
  organisation: z.string().max(500).default(''),
  note: z.string().max(20_000).default(''),
  role: z.enum(roles).nullable().default(null),
  /** Names of groups. */
  groups: z.array(z.string().min(1).max(100)).max(mostGroups).default([]),
  /** Lines of their card that nothing here is made of, kept for whoever reads it next (RFC 6350, section 3.3). */
  kept: z.array(z.string().max(100_000)).max(500).default([]),
});
export type Contact = z.infer<typeof contactSchema>;

/** A contact of whom no more is known. */
export const newContact = (id: string, name: string, address: string): Contact =>
  contactSchema.parse({ id, name: name.slice(0, 200), address });

/** All addresses of a contact, the first one first. */
export const addressesOf = ({ address, more }: Contact): string[] => [address, ...more];

const addressSets = new WeakMap<readonly Contact[], ReadonlySet<string>>();

/** All addresses of some contacts, in normal form. A list that was asked once must not be changed. */
export function contactAddresses(contacts: readonly Contact[]): ReadonlySet<string> {
  let addresses = addressSets.get(contacts);
  if (!addresses) addressSets.set(contacts, (addresses = new Set(contacts.flatMap(addressesOf))));
  return addresses;
}

/** Each address of some contacts with the name that goes with it. */
export const namedAddresses = (contacts: readonly Contact[]): Address[] =>
  contacts.flatMap((one) => addressesOf(one).map((address) => ({ name: one.name, address })));

/** All groups of some contacts, each once, by name. */
export const groupsOf = (contacts: readonly Contact[]): string[] =>
  [...new Set(contacts.flatMap(({ groups }) => groups))].sort((a, b) => a.localeCompare(b));

/** What is wrong with the address of a contact as it was typed, in words; null where it can be added. */
export function contactTrouble(typed: string, contacts: readonly Contact[]): string | null {
  if (typed.trim() === '') return 'Type the address, and the name if you like.';
  const read = parseEntry(typed);
  if (!read.ok) return read.error;
  if (read.kind !== 'address') return 'A contact is one address, with what stands before its “@”.';
  return contactAddresses(contacts).has(read.value) ? 'This address is in your contacts already.' : null;
}

/** Two contacts as one: what the first says stands, and what only the second knows is added. */
export function merged(one: Contact, other: Contact): Contact {
  const lines = new Set(one.kept);
  return {
    ...one,
    name: one.name || other.name,
    more: [...new Set([...one.more, ...addressesOf(other)])]
      .filter((address) => address !== one.address)
      .slice(0, mostAddresses),
    organisation: one.organisation || other.organisation,
    note: one.note.includes(other.note)
      ? one.note
      : [one.note, other.note].filter(Boolean).join('\n\n').slice(0, 20_000),
    role: one.role ?? other.role,
    groups: [...new Set([...one.groups, ...other.groups])].slice(0, mostGroups),
    kept: [...one.kept, ...other.kept.filter((line) => !lines.has(line))].slice(0, 500),
  };
}

/** Contacts that seem to be the same person: an address in common, or the same name of at least two words. */
export function doubles(contacts: readonly Contact[]): Contact[][] {
  const parent = contacts.map((_, n) => n);
  const root = (n: number): number => {
    while (parent[n] !== n) n = parent[n] = parent[parent[n]];
    return n;
  };
  const first = new Map<string, number>();
  for (const [n, one] of contacts.entries()) {
    const name = one.name.trim().toLowerCase().replace(/\s+/g, ' ');
    for (const key of [...addressesOf(one).map(normalAddress), ...(name.includes(' ') ? [`name ${name}`] : [])]) {
      const before = first.get(key);
      if (before === undefined) first.set(key, n);
      else parent[root(n)] = root(before);
    }
  }
  const sets = new Map<number, Contact[]>();
  for (const [n, one] of contacts.entries()) sets.set(root(n), [...(sets.get(root(n)) ?? []), one]);
  return [...sets.values()].filter((set) => set.length > 1);
}
