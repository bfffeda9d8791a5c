// Plain text of HTML mail, for previews, searching and counting. What is shown is cleaned elsewhere (app/reading).
import { decodeHTML } from 'entities';

// No honest tag is longer than 4,000 characters: without that bound, a thousand tags that never close would each be
// looked through to the end of the message.

/** Elements whose content is no text of the message. */
const silent = /<(script|style|head|title|template|noscript|svg|object)\b[^>]{0,4000}>[\s\S]*?(?:<\/\1\s*>|$)/gi;

/** Elements that stand on lines of their own. */
export const lineElements =
  'p div br hr tr table li ul ol h1 h2 h3 h4 h5 h6 blockquote pre section article header footer'.split(' ');
const breaks = new RegExp(`</?(?:${lineElements.join('|')})\\b[^>]{0,4000}>`, 'gi');

/**
 * The text a reader would see in an HTML body, roughly laid out: one line for each block, blanks folded. It is text,
 * not safe HTML: whoever puts it on a page escapes it like any other text.
 */
export function textFromHtml(html: string): string {
  const text = html
    .replace(/<!--[\s\S]*?(?:-->|$)/g, '')
    .replace(silent, ' ')
    .replace(/[ \t\r\n\f]+/g, ' ')
    .replace(/<\/t[dh]\s*>/gi, ' ')
    .replace(breaks, '\n')
    .replace(/<[a-z/!?][^>]*(?:>|$)/gi, '');
  return (text.includes('&') ? decodeHTML(text) : text)
    .replace(/[ \u00a0]*\n[ \u00a0\n]*/g, '\n')
    .replace(/[ \u00a0]{2,}/g, ' ')
    .trim();
}
