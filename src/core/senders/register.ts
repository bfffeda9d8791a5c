// The Register: one table of all standing decisions about senders, and the one entry that counts for an address.
import { z } from 'zod';
import { addressKey, domainOf } from '../mail/address';

export const standings = ['safe', 'blocked'] as const;
export type Standing = (typeof standings)[number];

/** A row of the Register. */
export const entrySchema = z.object({
  id: z.string().min(1),
  /** `address`: one mailbox. `domain`: every mailbox of the domain and of what lies below it. */
  kind: z.enum(['address', 'domain']),
  /** The address or domain in normal form: lower case, no blanks, no "@" before a domain. */
  value: z.string().min(1).max(320),
  standing: z.enum(standings),
  /** When it was made, milliseconds since 1970. */
  since: z.number(),
  /** Why it was made, in the person's words or ours. */
  why: z.string().max(500),
});
export type Entry = z.infer<typeof entrySchema>;

/** What an entry is to hold, read from what a person typed; or what is wrong with it, in a sentence. */
export type EntryInput = { ok: true; kind: Entry['kind']; value: string } | { ok: false; error: string };

/**
 * Reads an address or a domain as typed: `ana@harbour.example`, `harbour.example` or `@harbour.example`.
 *
 *     parseEntry('@Harbour.example') // { ok: true, kind: 'domain', value: 'harbour.example' }
 */
export function parseEntry(typed: string): EntryInput {
  const text = addressKey(typed).replace(/^<|>$/g, '').replace(/\.+$/, '');
  if (text === '') return { ok: false, error: 'Type an address or a domain.' };
  const at = text.lastIndexOf('@');
  const domain = at < 0 ? text : text.slice(at + 1);
  if (/[\s,;<>()[\]]/.test(text)) return { ok: false, error: 'One address or domain, without blanks or commas.' };
  if (!/^[^.@]+(\.[^.@]+)+$/.test(domain))
    return { ok: false, error: `“${domain}” is no domain: it needs a dot, as in harbour.example.` };
  return at > 0 ? { ok: true, kind: 'address', value: text } : { ok: true, kind: 'domain', value: domain };
}

/** The Register made ready for looking up: each value has at most one entry, so the order of entries never matters. */
export class RegisterIndex {
  private readonly addresses = new Map<string, Entry>();
  private readonly domains = new Map<string, Entry>();

  constructor(entries: readonly Entry[]) {
    for (const entry of entries) (entry.kind === 'address' ? this.addresses : this.domains).set(entry.value, entry);
  }

  /** The most exact entry for an address: the address itself, then its domain, then each parent; null where none is. */
  lookUp(address: string): Entry | null {
    const exact = this.addresses.get(addressKey(address));
    if (exact) return exact;
    if (this.domains.size === 0) return null;
    let domain = domainOf(address);
    while (domain) {
      const entry = this.domains.get(domain);
      if (entry) return entry;
      const dot = domain.indexOf('.');
      domain = dot < 0 ? '' : domain.slice(dot + 1);
    }
    return null;
  }
}

/** The entry that already decides exactly this value, of either standing. */
export function sameEntry(entries: readonly Entry[], kind: Entry['kind'], value: string): Entry | null {
  return entries.find((entry) => entry.kind === kind && entry.value === value) ?? null;
}
