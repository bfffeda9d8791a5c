// The links of an HTML body: where they lead, which their text need not say.
import { decodeHTML } from 'entities';

const anchor = /<(?:a|area)\b[^>]*?\shref\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s>"']+))/gi;

/** The addresses that an HTML body links to, each once, in their order. */
export function linksOf(html: string): string[] {
  const out = new Set<string>();
  for (const [, double, single, bare] of html.matchAll(anchor)) {
    const address = decodeHTML(double ?? single ?? bare).trim();
    if (/^(?:https?|mailto):/i.test(address)) out.add(address);
  }
  return [...out];
}

/** A link with the words that stand for it. */
export interface Anchor {
  href: string;
  text: string;
}

const wholeAnchor = /<a\b[^>]*?\shref\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s>"']+))[^>]*>([\s\S]{0,2000}?)<\/a\s*>/gi;

/** The links of an HTML body with their words, at most `most`. */
export function anchorsOf(html: string, most = 500): Anchor[] {
  const out: Anchor[] = [];
  for (const [, double, single, bare, inner] of html.matchAll(wholeAnchor)) {
    const text = decodeHTML(inner.replace(/<[^>]*>/g, ' '))
      .replace(/\s+/g, ' ')
      .trim();
    if (out.push({ href: decodeHTML(double ?? single ?? bare).trim(), text }) >= most) break;
  }
  return out;
}

/** The host that an address leads to, in ASCII and lower case; null where it is no address, or one without a host. */
export function hostOf(address: string): string | null {
  try {
    return new URL(address).hostname || null;
  } catch {
    return null;
  }
}
