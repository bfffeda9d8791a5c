// HTML mail made harmless. Three walls, each enough by itself: what could run or fetch is taken out here; the frame
// that shows the rest allows no scripts; and the frame's content security policy lets nothing run or be fetched.
import DOMPurify from 'dompurify';

/** A message's HTML, cleaned, and how many pictures were not fetched. */
export interface CleanHtml {
  html: string;
  remotePictures: number;
}

/** The policy inside the frame: no scripts, no network; styles of the message itself, pictures that came within it. */
export const framePolicy = "default-src 'none'; img-src data:; style-src 'unsafe-inline'";

const forbidden = [
  ...['form', 'input', 'button', 'select', 'textarea', 'option', 'optgroup', 'datalist', 'dialog', 'label', 'fieldset'],
  ...['audio', 'video', 'source', 'track', 'picture', 'iframe', 'frame', 'frameset', 'object', 'embed', 'applet'],
  ...['link', 'meta', 'base', 'svg', 'math', 'template', 'noscript', 'portal', 'marquee', 'bgsound', 'area', 'map'],
];

const allowedUri = /^(?:https?:|mailto:|cid:|data:image\/(?:png|gif|jpe?g|webp|bmp);)/i;

/** CSS that could fetch: url(), image-set(), @import. The policy would stop it too. */
function withoutFetches(css: string): string {
  return css
    .replace(/@import[^;]*;?/gi, '')
    .replace(/(?:url|image-set|image|cross-fade|element|src)\s*\([^)]*\)?/gi, 'none')
    .replace(/(?:expression|behavior|-moz-binding)\s*[:(][^;]*/gi, '');
}

/**
 * Cleans a message's HTML. `pictures` are those that came within it, as data: URLs by Content-ID; all others are
 * counted and left out.
 */
export function cleanHtml(html: string, pictures: Record<string, string>): CleanHtml {
  let remotePictures = 0;
  const purify = DOMPurify(window);
  purify.addHook('uponSanitizeElement', (node) => {
    if (node instanceof HTMLStyleElement) node.textContent = withoutFetches(node.textContent ?? '');
  });
  purify.addHook('afterSanitizeAttributes', (node) => {
    if (!(node instanceof Element)) return;
    if (node.hasAttribute('style')) node.setAttribute('style', withoutFetches(node.getAttribute('style') ?? ''));
    for (const name of ['srcset', 'background', 'ping', 'autofocus', 'target', 'usemap']) node.removeAttribute(name);
    if (node instanceof HTMLImageElement) {
      const src = node.getAttribute('src') ?? '';
      if (/^cid:/i.test(src)) {
        const picture = pictures[decodeURIComponentSafe(src.slice(4))];
        if (picture) node.setAttribute('src', picture);
        else node.removeAttribute('src');
      } else if (!/^data:image\//i.test(src)) {
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
  const clean = purify.sanitize(html, {
    USE_PROFILES: { html: true },
    FORBID_TAGS: forbidden,
    FORBID_ATTR: ['id', 'name', 'tabindex', 'accesskey', 'contenteditable', 'slot', 'is'],
    ALLOWED_URI_REGEXP: allowedUri,
    ALLOW_DATA_ATTR: false,
    ALLOW_ARIA_ATTR: false,
    WHOLE_DOCUMENT: true,
    FORCE_BODY: true,
  });
  return { html: clean, remotePictures };
}

function decodeURIComponentSafe(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

const frameStyle =
  'html{background:#fff;color:#16241f}body{margin:12px;font:15px/1.5 "Atkinson Hyperlegible Next Variable",system-ui,sans-serif;overflow-wrap:anywhere}img{max-width:100%;height:auto}table{max-width:100%}pre{white-space:pre-wrap}';

/** The whole document for the frame. */
export function frameDocument(clean: string): string {
  return `<!doctype html><html><head><meta http-equiv="Content-Security-Policy" content="${framePolicy}"><meta name="referrer" content="no-referrer"><style>${frameStyle}</style></head>${clean.replace(/^[\s\S]*?<html[^>]*>/i, '')}`;
}
