// HTML mail made harmless, by walls of which each holds alone what it is for: what could run or fetch is taken out here;
// the frame that shows the rest runs no script whatever stands in it; and its content security policy lets nothing run or
// be fetched.
import DOMPurify from 'dompurify';
import { cleanDeclarations, cleanSheet } from './cleanCss';
import { framePolicy } from './framePolicy';

/** A message's HTML, cleaned, and how many pictures were not fetched. */
export interface CleanHtml {
  html: string;
  remotePictures: number;
}

/** More of a dead link's target is not shown; it stands whole on hover. */
const longestTarget = 120;

/** Bears what opens a fold: its words are ours, not the message’s. */
export const foldClass = 'wide-sort-fold';

const forbidden = [
  ...['form', 'input', 'button', 'select', 'textarea', 'option', 'optgroup', 'datalist', 'dialog', 'label', 'fieldset'],
  ...['audio', 'video', 'source', 'track', 'picture', 'iframe', 'frame', 'frameset', 'object', 'embed', 'applet'],
  ...['link', 'meta', 'base', 'svg', 'math', 'template', 'noscript', 'portal', 'marquee', 'bgsound', 'area', 'map'],
];

const allowedUri = /^(?:https?:|mailto:|cid:|data:image\/(?:png|gif|jpe?g|webp|bmp);)/i;

/** Pictures that came as data: none that is a document of its own, as SVG is. */
const dataPicture = /^data:image\/(?:png|gif|jpe?g|webp|bmp)[;,]/i;

/**
 * Cleans a message's HTML. `pictures` are those that came within it, as data: URLs by Content-ID; all others are
 * counted and left out. `dead`: links become plain words, each with where it would go.
 */
export function cleanHtml(html: string, pictures: Record<string, string>, dead = false): CleanHtml {
  let remotePictures = 0;
  const purify = DOMPurify(window);
  purify.addHook('uponSanitizeElement', (node) => {
    if (node instanceof HTMLStyleElement) node.textContent = cleanSheet(node.textContent ?? '');
  });
  purify.addHook('afterSanitizeAttributes', (node) => {
    if (!(node instanceof Element)) return;
    if (node instanceof HTMLElement && node.hasAttribute('style')) {
      const style = cleanDeclarations(node.style);
      if (style) node.setAttribute('style', style);
      else node.removeAttribute('style');
    }
    for (const name of ['srcset', 'background', 'ping', 'autofocus', 'target', 'usemap']) node.removeAttribute(name);
    if (node instanceof HTMLImageElement) {
      const src = node.getAttribute('src') ?? '';
      if (/^cid:/i.test(src)) {
        const name = decodeURIComponentSafe(src.slice(4));
        if (Object.hasOwn(pictures, name)) node.setAttribute('src', pictures[name]);
        else node.removeAttribute('src');
      } else if (!dataPicture.test(src)) {
        if (src) remotePictures++;
        node.removeAttribute('src');
      }
    } else if (node.hasAttribute('src')) node.removeAttribute('src');
    if (node.hasAttribute('href')) {
      const href = node.getAttribute('href') ?? '';
      if (node instanceof HTMLAnchorElement && /^(?:https?:|mailto:)/i.test(href)) {
        node.setAttribute('target', '_blank');
        node.setAttribute('rel', 'noopener noreferrer');
        // What a link says and where it goes are two things: the second is shown on hover.
        node.setAttribute('title', href);
      } else node.removeAttribute('href');
    }
  });
  const clean: Node = purify.sanitize(html, {
    USE_PROFILES: { html: true },
    FORBID_TAGS: forbidden,
    FORBID_ATTR: ['id', 'name', 'tabindex', 'accesskey', 'contenteditable', 'slot', 'is'],
    ALLOWED_URI_REGEXP: allowedUri,
    ALLOW_DATA_ATTR: false,
    ALLOW_ARIA_ATTR: false,
    WHOLE_DOCUMENT: true,
    RETURN_DOM: true,
    FORCE_BODY: true,
  });
  // WHOLE_DOCUMENT: what comes back is the document's own element.
  if (!(clean instanceof HTMLElement)) return { html: '', remotePictures };
  if (dead) killLinks(clean);
  foldSignature(clean);
  foldQuotes(clean);
  return { html: clean.outerHTML, remotePictures };
}

/** Makes every link plain words, followed by where it would have gone. */
function killLinks(page: HTMLElement): void {
  for (const link of page.querySelectorAll('a[href]')) {
    const href = link.getAttribute('href') ?? '';
    for (const name of ['href', 'target', 'rel']) link.removeAttribute(name);
    const note = page.ownerDocument.createElement('span');
    note.className = 'goes';
    const shown = href.length > longestTarget ? `${href.slice(0, longestTarget)}…` : href;
    note.textContent = ` [would go to ${shown}]`;
    link.append(note);
  }
}

/** Folds away what was said before: outermost quotes go behind a line of their own, which opens without any script. */
function foldQuotes(page: HTMLElement): void {
  const quotes = [...page.querySelectorAll('blockquote')].filter(
    (quote) => !quote.parentElement?.closest('blockquote'),
  );
  const lengthOf = (element: Element) => (element.textContent ?? '').trim().length;
  // A message that is nothing but quotes is shown as it is.
  if (quotes.length === 0 || lengthOf(page) - quotes.reduce((n, quote) => n + lengthOf(quote), 0) < 2) return;
  for (const quote of quotes) fold('Said before', [quote]);
}

/** Folds away a signature: what follows “-- ” alone on its line (RFC 3676, section 4.3), up to an empty line or quote. */
function foldSignature(page: HTMLElement): void {
  const isBreak = (node: Node | null) => node instanceof HTMLElement && node.tagName === 'BR';
  const walker = page.ownerDocument.createTreeWalker(page, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    if (!/^\s*--\s*$/.test(node.textContent ?? '') || !isBreak(node.nextSibling)) continue;
    const parts: ChildNode[] = [node as Text];
    for (let next = (node as Text).nextSibling; next; next = next.nextSibling) {
      const emptyLine = isBreak(parts.at(-1) ?? null) && (isBreak(next) || next.textContent?.trim() === '');
      if (emptyLine || (next instanceof HTMLElement && next.tagName === 'BLOCKQUOTE')) break;
      parts.push(next);
    }
    fold('Signature', parts);
    return;
  }
}

/** Puts neighbours behind a word that opens them. */
function fold(word: string, parts: ChildNode[]): void {
  const page = parts[0].ownerDocument;
  if (!page) return;
  const details = page.createElement('details');
  const summary = page.createElement('summary');
  summary.textContent = word;
  summary.className = foldClass;
  parts[0].before(details);
  const box = page.createElement('div');
  box.append(...parts);
  details.append(summary, box);
}

function decodeURIComponentSafe(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

const frameStyle =
  'html{background:#fff;color:#16241f}body{margin:12px;font:15px/1.5 "Atkinson Hyperlegible Next Variable",system-ui,sans-serif;overflow-wrap:anywhere}details>summary{cursor:pointer;display:inline-block;padding:0 8px;border:1px solid #cbbf9f;border-radius:4px;font-size:13px}a:not([href]){color:inherit;text-decoration:line-through}.goes{display:inline-block;font:13px monospace;color:#8a2b1d}blockquote{margin:6px 0;padding-left:12px;border-left:2px solid #cbbf9f}img{max-width:100%;height:auto}table{max-width:100%}pre{white-space:pre-wrap}';

/** The whole document for the frame. */
export function frameDocument(clean: string): string {
  return `<!doctype html><html><head><meta http-equiv="Content-Security-Policy" content="${framePolicy}"><meta name="referrer" content="no-referrer"><style>${frameStyle}</style></head>${clean.replace(/^[\s\S]*?<html[^>]*>/i, '')}`;
}
