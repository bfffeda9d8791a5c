// The site of a host: the part of its name that somebody registered (Public Suffix List, through tldts).
import { getDomain, getPublicSuffix, parse } from 'tldts';

const known = new Map<string, string>();
const options = { allowPrivateDomains: true } as const;

/** The registered domain of a host, `www.harbour.co.uk` → `harbour.co.uk`; the host itself where it has none. */
export function siteOf(host: string): string {
  let site = known.get(host);
  if (site === undefined) {
    site = getDomain(host, options) ?? host;
    if (known.size > 20_000) known.clear();
    known.set(host, site);
  }
  return site;
}

/** Whether a domain is a public suffix, under which strangers register names of their own: `uk`, `co.uk`, `github.io`. */
export function isPublicSuffix(domain: string): boolean {
  const { isIcann, isPrivate } = parse(domain, options);
  return (isIcann === true || isPrivate === true) && getPublicSuffix(domain, options) === domain;
}
