// What of rich text may leave: it is written anew from its tokens, by a list of what it may hold. Nothing that was pasted,
// quoted or forwarded goes on as it came, so that no script, no style and nothing remote leaves with it.
import { readHtml } from '../mail/htmlTokens';
import { withoutTurns } from '../text/oneLine';

/** The elements that are written, and their attributes. */
const allowed: Record<string, readonly string[]> = {
  p: ['dir'],
  div: ['dir'],
  br: [],
  hr: [],
  strong: [],
  em: [],
  u: [],
  s: [],
  sub: [],
  sup: [],
  code: [],
  pre: [],
  ul: [],
  ol: ['start'],
  li: [],
  blockquote: [],
  a: ['href'],
  img: ['src', 'alt', 'width', 'height'],
  table: [],
  tbody: [],
  tr: [],
  td: ['colspan', 'rowspan'],
  th: ['colspan', 'rowspan'],
};
/** Elements that mean one of those. */
const meant: Record<string, string> = {
  b: 'strong',
  i: 'em',
  strike: 's',
  del: 's',
  ins: 'u',
  center: 'div',
  section: 'div',
  article: 'div',
  header: 'div',
  footer: 'div',
  main: 'div',
  address: 'div',
  dl: 'div',
  dt: 'div',
  dd: 'div',
  h1: 'p',
  h2: 'p',
  h3: 'p',
  h4: 'p',
  h5: 'p',
  h6: 'p',
};
/** Elements whose content is no text: it goes with them. */
const dropped = new Set(
  [
    'script style title template noscript noembed noframes iframe object embed applet svg math xmp plaintext',
    'frameset audio video canvas',
  ].flatMap((names) => names.split(' ')),
);
const empty = new Set(['br', 'hr', 'img']);
const blocks = new Set(['p', 'div', 'hr', 'pre', 'ul', 'ol', 'blockquote', 'table']);
/** Deeper nesting is flattened: its text stays. */
const deepest = 60;
const numeric = new Set(['start', 'width', 'height', 'colspan', 'rowspan']);

const escaped: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', '\u00a0': '&nbsp;' };

/** Text as it may stand in HTML, also within an attribute. */
export const escapeHtml = (text: string): string => text.replace(/[&<>"\u00a0]/g, (one) => escaped[one]);

/** An address that a link may have: of the web or of mail, and nothing that a browser would run. */
export function safeLink(href: string): string | null {
  const tidy = withoutTurns(href.replace(/[\u0000-\u0020\u007f-\u009f]+/g, (run) => (/^ +$/.test(run) ? '%20' : '')));
  return /^(https?:\/\/|mailto:)/i.test(tidy) ? tidy : null;
}

function attributeOf(name: string, value: string, pictures: boolean): string | null {
  if (numeric.has(name)) return /^\d{1,4}$/.test(value) ? value : null;
  if (name === 'dir') return /^(rtl|ltr|auto)$/.test(value) ? value : null;
  if (name === 'href') return safeLink(value);
  // Pictures come with the message, or not at all (RFC 2392).
  if (name === 'src') return pictures && /^cid:[\w.@+$%!#*/=?^`{|}~-]{1,200}$/.test(value) ? value : null;
  return withoutTurns(value);
}

/**
 * Rich text as it may leave. Never throws; its tags are closed whatever it is given. `pictures`: whether those stay that come
 * with the message (`cid:`); where not, and for all others, their words stand in their place.
 */
export function outgoingHtml(html: string, pictures = true): string {
  const out: string[] = [];
  const open: string[] = [];
  let passed: { name: string; depth: number } | null = null;
  const closeFrom = (at: number) => {
    for (const one of open.splice(at).reverse()) out.push(`</${one}>`);
  };
  /** What ends by itself where another begins: an item of a list with the next, a paragraph with any block. */
  const closeBefore = (name: string) => {
    if (name === 'li') {
      const item = open.lastIndexOf('li');
      if (item > Math.max(open.lastIndexOf('ul'), open.lastIndexOf('ol'))) closeFrom(item);
    } else if (blocks.has(name) && open.at(-1) === 'p') closeFrom(open.length - 1);
  };
  readHtml(html, {
    attributesOf: (name) => (allowed[meant[name] ?? name]?.length ?? 0) > 0,
    text: (text) => {
      if (!passed) out.push(escapeHtml(text.replace(/[\0\u202a-\u202e\u2066-\u2069]/g, '')));
    },
    open: (tag, attributes) => {
      if (passed) {
        if (passed.name === tag) passed.depth++;
        return;
      }
      if (dropped.has(tag)) {
        if (tag !== 'embed') passed = { name: tag, depth: 1 };
        return;
      }
      const name = meant[tag] ?? tag;
      if (!(name in allowed)) return;
      closeBefore(name);
      if (open.length >= deepest) return;
      let text = '';
      for (const one of allowed[name]) {
        const value = attributes.get(one);
        const kept = value === undefined ? null : attributeOf(one, value, pictures);
        if (kept !== null) text += ` ${one}="${escapeHtml(kept)}"`;
      }
      if (name === 'img' && !text.includes(' src=')) {
        const alt = attributes.get('alt');
        if (alt) out.push(escapeHtml(withoutTurns(`[${alt}]`)));
        return;
      }
      out.push(`<${name}${text}>`);
      if (!empty.has(name)) open.push(name);
    },
    close: (tag) => {
      if (passed) {
        if (passed.name === tag && --passed.depth === 0) passed = null;
        return;
      }
      const name = meant[tag] ?? tag;
      const at = open.lastIndexOf(name);
      if (at < 0) return;
      closeFrom(at);
    },
  });
  closeFrom(0);
  return out.join('');
}

/** The Content-IDs of the pictures that rich text shows. */
export function picturesShown(html: string): Set<string> {
  const shown = new Set<string>();
  readHtml(html, {
    attributesOf: (name) => name === 'img',
    open: (name, attributes) => {
      const source = attributes.get('src') ?? '';
      if (name === 'img' && source.startsWith('cid:')) shown.add(source.slice(4));
    },
  });
  return shown;
}

/** Plain text as rich text: a paragraph for each stretch between empty lines. */
export const htmlOfText = (text: string): string =>
  text
    .trimEnd()
    .split(/(?:\r?\n){2,}/)
    .map((paragraph) => `<p>${paragraph.split(/\r?\n/).map(escapeHtml).join('<br>')}</p>`)
    .join('');
