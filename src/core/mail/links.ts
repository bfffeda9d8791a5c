// The links of an HTML body: where they lead, which their text need not say.
import { readHtml } from './htmlTokens';

/** The addresses that an HTML body links to, each once, in their order. */
export function linksOf(html: string): string[] {
  const out = new Set<string>();
  readHtml(html, {
    attributesOf: (name) => name === 'a' || name === 'area',
    open: (_name, attributes) => {
      const address = attributes.get('href')?.trim();
      if (address && /^(?:https?|mailto):/i.test(address)) out.add(address);
    },
  });
  return [...out];
}

/** A link with the words that stand for it. */
export interface Anchor {
  href: string;
  text: string;
}

/** More of the words of a link are not looked at, in characters. */
const mostWords = 2_000;

/** The links of an HTML body with their words, at most `most`. */
export function anchorsOf(html: string, most = 500): Anchor[] {
  const out: Anchor[] = [];
  let href: string | null = null;
  let words = '';
  const end = () => {
    if (href !== null && out.length < most) out.push({ href, text: words.replace(/\s+/g, ' ').trim() });
    href = null;
    words = '';
  };
  readHtml(html, {
    attributesOf: (name) => name === 'a',
    text: (text) => {
      if (href !== null && words.length < mostWords) words += text;
    },
    open: (name, attributes) => {
      if (href !== null && words.length < mostWords) words += ' ';
      if (name !== 'a') return;
      // A link within a link ends the one around it.
      end();
      href = attributes.get('href')?.trim() ?? null;
    },
    close: (name) => {
      if (name === 'a') end();
      else if (href !== null && words.length < mostWords) words += ' ';
    },
  });
  end();
  return out;
}
