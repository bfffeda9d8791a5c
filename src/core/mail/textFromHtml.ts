// Plain text of HTML mail, for previews, searching and counting. What is shown is cleaned elsewhere (app/reading).
import { readHtml } from './htmlTokens';

/** Elements whose content is no text of the message. */
const silent = new Set([
  'script',
  'style',
  'head',
  'title',
  'template',
  'noscript',
  'svg',
  'object',
  'iframe',
  'noembed',
  'noframes',
]);

/** Elements that stand on lines of their own. */
export const lineElements =
  'p div br hr tr table li ul ol h1 h2 h3 h4 h5 h6 blockquote pre section article header footer'.split(' ');
const breaks = new Set(lineElements);

/** Lines without blanks at their ends, and no empty ones; elsewhere a run of blanks is one. */
function laidOut(text: string): string {
  // A blank by itself stays as it is: of most text there is nothing to replace.
  return text.replace(/[ \u00a0\n]{2,}/g, (run) => (run.includes('\n') ? '\n' : ' ')).trim();
}

/**
 * The text a reader would see in an HTML body, roughly laid out: one line for each block, blanks folded. It is text,
 * not safe HTML: whoever puts it on a page escapes it like any other text.
 */
export function textFromHtml(html: string): string {
  const parts: string[] = [];
  /** The element that is passed over, with all that is in it. */
  let passed: string | null = null;
  readHtml(html, {
    text: (text) => {
      if (passed === null) parts.push(text.replace(/[\t\r\n\f ]{2,}|[\t\r\n\f]/g, ' '));
    },
    open: (name) => {
      if (passed !== null) return;
      if (silent.has(name)) {
        passed = name;
        parts.push(' ');
      } else if (breaks.has(name)) parts.push('\n');
    },
    close: (name) => {
      if (passed === name) passed = null;
      else if (passed !== null) return;
      else if (breaks.has(name)) parts.push('\n');
      else if (name === 'td' || name === 'th') parts.push(' ');
    },
  });
  return laidOut(parts.join(''));
}
