// The plain part of what is written in rich text: the same words, with what its layout means told by marks.
import { readHtml } from '../mail/htmlTokens';
import type { TextLine } from './flowed';

const silent = new Set(['script', 'style', 'title', 'template', 'noscript', 'svg', 'object', 'iframe']);
/** Blocks between which an empty line stands. */
const paragraphs = new Set(['p', 'ul', 'ol', 'blockquote', 'pre', 'table', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'hr']);
const lineBlocks = new Set(['div', 'li', 'tr', 'section', 'article', 'header', 'footer', 'dl', 'dt', 'dd']);
/** Nothing is indented or quoted deeper, however deep it is nested. */
const deepest = 20;

interface List {
  /** The number of the next item; null where they are not numbered. */
  next: number | null;
}

/** Collects lines; empty ones never stand at the beginning nor twice. */
class Lines {
  readonly out: TextLine[] = [];
  depth = 0;
  preformatted = 0;
  /** What stands before the first words of the next line: the mark of a list’s item. */
  mark = '';
  private indents = 0;
  private text = '';
  private wantsBlank = false;
  readonly lists: List[] = [];

  add(text: string): void {
    if (this.preformatted) {
      const [first, ...rest] = text.split(/\r?\n/);
      this.text += first;
      for (const line of rest) {
        this.break();
        this.text = line;
      }
      return;
    }
    const words = text.replace(/[ \t\r\n\f]+/g, ' ');
    this.text += this.text === '' || this.text.endsWith(' ') ? words.replace(/^ /, '') : words;
  }

  /** Ends the line, though nothing stands on it. */
  break(): void {
    this.push(this.text);
  }

  /** Ends the line where something stands on it. */
  end(blankAfter = false): void {
    if (this.text.trim() !== '' || this.mark) this.push(this.text);
    this.text = '';
    if (blankAfter) this.wantsBlank = true;
  }

  /** Begins the item of a list. */
  item(): void {
    this.end();
    const list = this.lists.at(-1);
    this.indents = Math.max(0, Math.min(this.lists.length, deepest) - 1);
    this.mark = !list || list.next === null ? '- ' : `${list.next++}. `;
  }

  private push(text: string): void {
    const tidy = this.preformatted ? text.trimEnd() : text.trim().replace(/\u00a0/g, ' ');
    const depth = Math.min(this.depth, deepest);
    if (this.wantsBlank && this.out.length > 0) {
      const before = this.out[this.out.length - 1].depth;
      this.out.push({ depth: Math.min(before, depth), text: '' });
    }
    this.wantsBlank = false;
    const indent = this.lists.length ? '  '.repeat(this.indents) + (this.mark || '  ') : '';
    // The mark of a signature keeps its blank (RFC 3676, section 4.3).
    this.out.push({ depth, text: tidy === '--' && !indent ? '-- ' : (indent + tidy).trimEnd() });
    this.mark = '';
    this.text = '';
  }
}

/** The address of a link, where it says more than its words. */
function linkTail(words: string, href: string): string {
  const plain = href.replace(/^mailto:/i, '').replace(/\/$/, '');
  const said = words.trim().replace(/\/$/, '');
  return !/^(https?|mailto):/i.test(href) || said === plain || said === plain.replace(/^https?:\/\//i, '')
    ? ''
    : ` <${href.replace(/^mailto:/i, '')}>`;
}

/**
 * The lines of rich text as plain text: paragraphs with an empty line between, items behind “- ” or their number, quotes
 * one deeper, links with their address behind them, pictures as their words. Never throws; in step with the length.
 */
export function htmlLines(html: string): TextLine[] {
  const lines = new Lines();
  let passed: string | null = null;
  let link: { href: string; words: string } | null = null;
  readHtml(html, {
    attributesOf: (name) => name === 'a' || name === 'img' || name === 'ol',
    text: (text) => {
      if (passed !== null) return;
      if (link) link.words += text;
      lines.add(text);
    },
    open: (name, attributes) => {
      if (passed !== null) return;
      if (silent.has(name)) passed = name;
      else if (name === 'br') lines.break();
      else if (name === 'img') lines.add(attributes.get('alt') ? `[${attributes.get('alt')}]` : '[picture]');
      else if (name === 'a') link = { href: attributes.get('href') ?? '', words: '' };
      else if (name === 'li') lines.item();
      else if (name === 'td' || name === 'th') lines.add(' ');
      else if (paragraphs.has(name) || lineBlocks.has(name)) {
        // A list within an item, and the paragraph of an item, stand close to it.
        const close = lines.lists.length > 0 && name !== 'blockquote';
        if (!(close && name === 'p' && lines.mark)) lines.end(paragraphs.has(name) && !close);
        if (name === 'hr') {
          lines.add('---');
          lines.end(true);
        } else if (name === 'blockquote') lines.depth++;
        else if (name === 'pre') lines.preformatted++;
        else if (name === 'ul' || name === 'ol')
          lines.lists.push({ next: name === 'ul' ? null : Number.parseInt(attributes.get('start') ?? '1', 10) || 1 });
      }
    },
    close: (name) => {
      if (passed !== null) {
        if (passed === name) passed = null;
      } else if (name === 'a' && link) {
        lines.add(linkTail(link.words, link.href));
        link = null;
      } else if (paragraphs.has(name) || lineBlocks.has(name)) {
        const within = lines.lists.length > 0;
        if (name === 'ul' || name === 'ol') {
          lines.end();
          lines.lists.pop();
          lines.end(lines.lists.length === 0);
        } else lines.end(paragraphs.has(name) && !within);
        if (name === 'blockquote') lines.depth = Math.max(0, lines.depth - 1);
        else if (name === 'pre') lines.preformatted = Math.max(0, lines.preformatted - 1);
      }
    },
  });
  lines.end();
  return lines.out;
}
