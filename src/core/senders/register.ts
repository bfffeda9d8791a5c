// The Register: one table of all standing decisions, and the one entry that counts for a message.
import { idSchema, momentSchema } from '../data/id';
import { z } from 'zod';
import { domainOf, domainsUp } from '../mail/address';
import type { Envelope } from '../mail/envelopeSchema';
import { scriptCodes } from '../text/writingSystem';
import { countryName, countryOf } from './countries';
import { bothForms, normalAddress, normalDomain, withoutSubaddress } from './normal';

export const standings = ['safe', 'blocked'] as const;
export type Standing = (typeof standings)[number];

/**
 * What an entry is about, the most exact first: the sender's address; their domain; the mailing list; the person's own
 * address that it was sent to; the country domain in which the sender's ends; the character set; the script of the text.
 */
export const entryKinds = ['address', 'domain', 'list', 'own', 'country', 'charset', 'script'] as const;
export type EntryKind = (typeof entryKinds)[number];

/** Kinds of which one entry may stand for all but some. */
export const allButKinds: readonly EntryKind[] = ['country', 'charset', 'script'];
/** The value of an entry for all countries, character sets or scripts. */
export const everything = '*';

/** A row of the Register. */
export const entrySchema = z.object({
  id: idSchema,
  kind: z.enum(entryKinds),
  /** In normal form: a domain without “@”, a country by its domain (`ch`), a script by its ISO 15924 code, or `*`. */
  value: z.string().min(1).max(320),
  /** Of a domain: whether what lies below it counts too. Absent: it does. */
  below: z.boolean().optional(),
  /** Of `*`: all but these. */
  except: z.array(z.string().min(1).max(100)).max(500).optional(),
  standing: z.enum(standings),
  /** When it was made, milliseconds since 1970. */
  since: momentSchema,
  /** Why it was made, in the person's words or ours. */
  why: z.string().max(500),
});
export type Entry = z.infer<typeof entrySchema>;

/** What an entry is to hold, read from what a person typed; or what is wrong with it, in a sentence. */
export type EntryInput = { ok: true; kind: EntryKind; value: string } | { ok: false; error: string };

const no = (error: string): EntryInput => ({ ok: false, error });
const noDomain = (domain: string) =>
  no(
    domain === ''
      ? 'Behind its “@” no domain stands.'
      : /[.]/.test(domain)
        ? `“${domain}” is no domain: each of its parts is letters, digits and hyphens, as in harbour.example.`
        : `“${domain}” is no domain: it needs a dot, as in harbour.example.`,
  );
// The dots of IDNA (UTS #46) beside the plain one.
const dotOrAt = /[.@\u3002\uff0e\uff61]/;

/** What was meant by something that is written as other programs or pages write it; null where it is nothing of the kind. */
function misread(text: string): string | null {
  const scheme = /^([a-z][a-z0-9+.-]*):(?:\/\/)?([^/?#]*)/i.exec(text);
  if (scheme) {
    const name = scheme[2].replace(/^[^@]*@(?=.*\/)|:\d+$/g, '');
    return scheme[1].toLowerCase() === 'mailto'
      ? `Without “mailto:”: ${name}`
      : `This is an address of the web. The domain in it: ${name || 'none'}`;
  }
  const path = /^([^\s@/]+\.[^\s@/]+)\//.exec(text);
  if (path) return `This is an address of the web. The domain in it: ${path[1]}`;
  const below = /^@?(\*\.|\*@|\.)(.+)$/.exec(text);
  return below
    ? `Without “${below[1]}”: an entry for ${below[2]} goes for all of its addresses, and for what lies below it.`
    : null;
}
const domainShape = /^[a-z0-9_](?:[a-z0-9_-]*[a-z0-9_])?(?:\.[a-z0-9_](?:[a-z0-9_-]*[a-z0-9_])?)+$/;

/**
 * Reads an address or a domain as typed: `ana@harbour.example`, `Ana <ana@harbour.example>`, `harbour.example` or
 * `@harbour.example`.
 *
 *     parseEntry('@Harbour.example') // { ok: true, kind: 'domain', value: 'harbour.example' }
 *
 * `kept`: it stands in a setup already, and is taken also where a person would hardly have meant it.
 */
export function parseEntry(typed: string, kept = false): EntryInput {
  const trimmed = typed.trim();
  if (trimmed === '') return no('Type an address or a domain.');
  if ((/[,;]\s*\S/.test(trimmed) && !trimmed.includes('"')) || (/\s/.test(trimmed) && !trimmed.includes('@')))
    return no('One address or domain, without blanks or commas.');
  // With the name of a person before it; an address alone has 320 at most (RFC 3696, section 3, as corrected).
  if (trimmed.length > 1_000) return no('This is longer than an address can be.');
  // Most of what is wrong in a long list has neither.
  if (!dotOrAt.test(trimmed)) return noDomain(trimmed.toLowerCase());
  const meant = kept ? null : misread(trimmed);
  if (meant !== null) return no(meant);
  const bare = /^@?[^@\s<>()"]+$/.test(trimmed) && !trimmed.slice(1).includes('@');
  const text = bare ? `@${trimmed.replace(/^@/, '')}` : trimmed.startsWith('@') ? trimmed : normalAddress(trimmed);
  const at = text.lastIndexOf('@');
  const local = text.slice(0, Math.max(at, 0));
  const domain = normalDomain(at < 0 ? text : text.slice(at + 1));
  if ((/[\s,;]/.test(text) && !local.startsWith('"')) || (local.includes('@') && !local.startsWith('"')))
    return no('One address or domain, without blanks or commas.');
  if (!domainShape.test(domain)) return noDomain(domain);
  return local
    ? { ok: true, kind: 'address', value: `${local}@${domain}` }
    : { ok: true, kind: 'domain', value: domain };
}

/** Reads what was typed or picked as an entry of that kind; `kept`: it stands in a setup already, as {@link parseEntry}. */
export function parseEntryOf(kind: EntryKind, typed: string, kept = false): EntryInput {
  const text = typed.trim();
  if (kind === 'address' || kind === 'domain') {
    const read = parseEntry(typed, kept);
    if (!read.ok || read.kind === kind) return read;
    return no(
      kind === 'address'
        ? 'This is a domain: an address has a name before its “@”.'
        : 'This is an address: leave out what stands before the “@”.',
    );
  }
  if (kind === 'own') {
    const read = parseEntry(typed, kept);
    return !read.ok
      ? read
      : read.kind === 'address'
        ? { ...read, kind }
        : no('One of your own addresses, with what stands before the “@”.');
  }
  const lower = text.toLowerCase().replace(/^<|>$/g, '');
  if (lower === '') return no('Type or pick one.');
  if (kind === 'list') {
    if (/\s/.test(lower)) return no('The identifier of a list has no blanks, as in crew.harbour.example.');
    return { ok: true, kind, value: lower };
  }
  if (lower === everything) return { ok: true, kind, value: everything };
  if (kind === 'country') {
    const code = lower.replace(/^\./, '');
    return countryName(code)
      ? { ok: true, kind, value: code }
      : no(`“${code}” is no country’s domain: it has two letters, as in ch for Switzerland.`);
  }
  if (kind === 'script') {
    const code = scriptCodes.find((one) => one.toLowerCase() === lower);
    return code ? { ok: true, kind, value: code } : no(`“${text}” is no writing system that can be told apart.`);
  }
  return /^[a-z0-9._:+-]{2,40}$/.test(lower)
    ? { ok: true, kind, value: lower }
    : no(`“${text}” is no name of a character set, as in koi8-r.`);
}

/** What the Register looks at in a message. */
export type Registered = Pick<Envelope, 'from' | 'deliveredTo' | 'to' | 'cc' | 'listId' | 'charset' | 'script'>;

const keyOf = (kind: EntryKind, value: string): string => `${kind} ${value}`;

/** The Register made ready for looking up. A value has at most one entry, so the order of entries never matters. */
export class RegisterIndex {
  private readonly entries = new Map<string, Entry>();
  private readonly kinds = new Set<EntryKind>();

  constructor(entries: readonly Entry[]) {
    for (const entry of entries) {
      this.entries.set(keyOf(entry.kind, entry.value), entry);
      this.kinds.add(entry.kind);
    }
  }

  /** Entries that fit a message, the most exact first: the first one counts. */
  *fitting(message: Registered): Generator<Entry> {
    if (this.entries.size === 0) return;
    yield* this.ofSender(message.from.address);
    if (this.kinds.has('list') && message.listId) yield* this.one('list', message.listId);
    if (this.kinds.has('own')) yield* this.ofRecipients(message);
    if (this.kinds.has('country')) yield* this.some('country', countryOf(normalDomain(domainOf(message.from.address))));
    if (this.kinds.has('charset')) yield* this.some('charset', message.charset);
    if (this.kinds.has('script')) yield* this.some('script', message.script);
  }

  /** The entry that counts for a message; null where none fits. */
  lookUp(message: Registered): Entry | null {
    for (const entry of this.fitting(message)) return entry;
    return null;
  }

  /** The entry that counts for a sender's address alone; null where none fits. */
  ofAddress(address: string): Entry | null {
    for (const entry of this.ofSender(address)) return entry;
    return null;
  }

  private *one(kind: EntryKind, value: string): Generator<Entry> {
    const entry = this.entries.get(keyOf(kind, value));
    if (entry) yield entry;
  }

  private *some(kind: EntryKind, value: string | null): Generator<Entry> {
    if (!value) return;
    yield* this.one(kind, value);
    for (const entry of this.one(kind, everything)) if (!entry.except?.includes(value)) yield entry;
  }

  /** The address, without its subaddress, then its domain, then each parent whose entry goes for what lies below. */
  private *ofSender(from: string): Generator<Entry> {
    if (!from || !(this.kinds.has('address') || this.kinds.has('domain'))) return;
    const address = normalAddress(from);
    yield* this.one('address', address);
    const short = withoutSubaddress(address);
    if (short !== null) yield* this.one('address', short);
    if (!this.kinds.has('domain')) return;
    const own = domainOf(address);
    for (const domain of domainsUp(own))
      for (const entry of this.one('domain', domain)) if (domain === own || entry.below !== false) yield entry;
  }

  /** The first own address that it names: the one that it was delivered to, then To, then Cc. */
  private *ofRecipients({ deliveredTo, to, cc }: Registered): Generator<Entry> {
    for (const address of [deliveredTo, ...to.map((a) => a.address), ...cc.map((a) => a.address)]) {
      if (!address) continue;
      yield* this.one('own', normalAddress(address));
    }
  }
}

/** The entry that already decides exactly this value, of either standing. */
export function sameEntry(entries: readonly Entry[], kind: EntryKind, value: string): Entry | null {
  return entries.find((entry) => entry.kind === kind && entry.value === value) ?? null;
}

const scriptNames = new Intl.DisplayNames('en', { type: 'script' });
const regionOf = (code: string) => `${countryName(code) ?? 'unknown country'} (.${code})`;

/** The name of a script by its ISO 15924 code. */
export const scriptName = (code: string): string => scriptNames.of(code) ?? code;

/** What an entry is about where its kind stands beside it: `harbour.example`, `Switzerland (.ch)`. */
export function entryLabel(entry: Pick<Entry, 'kind' | 'value' | 'below' | 'except'>): string {
  const { kind, value, below } = entry;
  if (kind === 'domain') return below === false ? `${bothForms(value)} alone` : bothForms(value);
  if (kind === 'address' || kind === 'own') return bothForms(value);
  if (value === everything) return entryWords(entry);
  return kind === 'country' ? regionOf(value) : kind === 'script' ? scriptName(value) : value;
}

/** What an entry is about, in words that can stand in a sentence: `the domain harbour.example`. */
export function entryWords({ kind, value, below, except }: Pick<Entry, 'kind' | 'value' | 'below' | 'except'>): string {
  const but = except?.length
    ? ` but ${except.map((v) => (kind === 'country' ? regionOf(v) : kind === 'script' ? scriptName(v) : v)).join(', ')}`
    : '';
  switch (kind) {
    case 'address':
      return bothForms(value);
    case 'domain':
      return below === false ? `the domain ${bothForms(value)} alone` : `the domain ${bothForms(value)}`;
    case 'list':
      return `the mailing list ${value}`;
    case 'own':
      return `mail to ${bothForms(value)}`;
    case 'country':
      return value === everything ? `all country domains${but}` : `the country domain of ${regionOf(value)}`;
    case 'charset':
      return value === everything ? `all character sets${but}` : `the character set ${value}`;
    case 'script':
      return value === everything ? `all writing systems${but}` : `text in ${scriptName(value)}`;
  }
}
