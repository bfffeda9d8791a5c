// Country domains: two-letter top-level domains are codes of ISO 3166-1, but for a few.
import { all } from 'iso-3166-1';

/** Top-level domains that are not their country's code (IANA, root zone database). */
const otherwise: Record<string, string> = { uk: 'GB' };

const names = new Map(all().map(({ alpha2, country }) => [alpha2, country]));
/** Codes that ISO 3166-1 only reserves, in use as domains. */
const reserved: Record<string, string> = { eu: 'European Union', ac: 'Ascension Island', su: 'Soviet Union (former)' };

/** The country domains, `ad` to `zw`, by code. */
export const countryDomains: readonly string[] = [
  ...[...names.keys()].map((code) => code.toLowerCase()).filter((code) => code !== 'gb'),
  ...Object.keys(otherwise),
  ...Object.keys(reserved),
].sort();

const known = new Set(countryDomains);

/** The name of a country domain: `ch` → Switzerland; null where it is none. */
export function countryName(code: string): string | null {
  return known.has(code) ? (reserved[code] ?? names.get(otherwise[code] ?? code.toUpperCase()) ?? null) : null;
}

/** Countries with more languages of their own than the one that most there speak (Unicode CLDR, territoryInfo; from memory). */
const languages: Record<string, string[]> = {
  BE: ['nl', 'fr', 'de'],
  CA: ['en', 'fr'],
  CH: ['de', 'fr', 'it', 'rm'],
  CY: ['el', 'tr'],
  ES: ['es', 'ca', 'eu', 'gl'],
  FI: ['fi', 'sv'],
  IE: ['en', 'ga'],
  IN: ['hi', 'en', 'bn', 'ta'],
  LU: ['lb', 'fr', 'de'],
  MT: ['mt', 'en'],
  NO: ['nb', 'nn'],
  GB: ['en', 'cy', 'gd'],
};

const displayNames = new Map<string, Intl.DisplayNames>();

function nameIn(language: string, region: string): string | undefined {
  let its = displayNames.get(language);
  if (!its) displayNames.set(language, (its = new Intl.DisplayNames(language, { type: 'region', fallback: 'none' })));
  return its.of(region);
}

/**
 * The names of a country domain in the languages of that country: `ch` → Schweiz, Suisse, Svizzera, Svizra; none where it
 * is no country's, or where the host has no such names.
 */
export function ownCountryNames(code: string): string[] {
  const region = otherwise[code] ?? code.toUpperCase();
  if (!names.has(region)) return [];
  const spoken = languages[region] ?? [new Intl.Locale('und', { region }).maximize().language];
  return [...new Set(spoken.flatMap((language) => nameIn(language, region) ?? []))];
}

/** The country domain in which a domain ends; null where it ends in none. */
export function countryOf(domain: string): string | null {
  const end = domain.slice(domain.lastIndexOf('.') + 1);
  return known.has(end) ? end : null;
}
