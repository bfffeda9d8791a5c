// How much of a message is shown. What a stranger sends is bounded in size, number and depth before anything is built of
// it; what goes beyond is shown as text, or cut, and either is said.
import type { BodyBlock } from './body';
import { unflowed } from './flow';
import { readHtml } from './htmlTokens';
import { textFromHtml } from './textFromHtml';

/** HTML longer than this is shown as text, in characters. */
export const longestHtml = 1_000_000;
/** Of texts so much is shown, in characters: of all blocks together. */
export const longestText = 300_000;
/** So much of HTML is read for its text, in characters: of most more than is shown. */
const mostRead = 1_000_000;
/** Of each block so much is read to be shown, in bytes as they came: enough for what is shown, however it is written. */
export const mostOpened = 6_000_000;
/** More blocks than this no sender writes. */
export const mostBlocks = 100;
/** HTML of more elements is shown as text. */
export const mostElements = 40_000;
/** HTML in which so many elements stand within one another is shown as text. */
export const deepestElement = 400;
/** Elements that a browser would open again, over all of a document: unclosed `b`, `font` … begin anew in each block. */
const mostReopened = 400_000;

/** A block as it is shown. */
export interface ShownBlock extends BodyBlock {
  /** Why HTML is shown as its text: it is too long, or has too many elements or too deep ones; null where it is not. */
  instead: 'long' | 'many' | 'deep' | null;
  /** Whether only the beginning of it is shown. */
  cut: boolean;
  /** How many characters it has in all, where it is cut and that is known; null elsewhere. */
  cutOf: number | null;
}

/** Elements that hold nothing (HTML, section 13.1.2). */
const empty = new Set('area base br col embed hr img input link meta param source track wbr'.split(' '));
/** Elements whose end may be left out (HTML, section 13.1.2.4): the next of the kind ends them. */
const endless = new Set('p li dt dd td th tr thead tbody tfoot option optgroup rp rt colgroup caption'.split(' '));
/** Elements that are opened again where they were not closed (HTML, section 13.2.4.3). */
const formatting = new Set('a b big code em font i nobr s small strike strong tt u'.split(' '));

/** What of some HTML is too much to be built: null where nothing is. Takes time in step with its length. */
export function tooMuch(html: string): ShownBlock['instead'] {
  if (html.length > longestHtml) return 'long';
  let elements = 0;
  let depth = 0;
  let deepest = 0;
  let styled = 0;
  let reopened = 0;
  const open = new Map<string, number>();
  readHtml(html, {
    open: (name) => {
      elements++;
      if (empty.has(name)) return;
      if (formatting.has(name)) styled++;
      else reopened += styled;
      if (endless.has(name) && (open.get(name) ?? 0) > 0) return;
      open.set(name, (open.get(name) ?? 0) + 1);
      deepest = Math.max(deepest, ++depth);
    },
    close: (name) => {
      const count = open.get(name) ?? 0;
      if (count === 0) return;
      open.set(name, count - 1);
      depth--;
      if (formatting.has(name)) styled--;
    },
  });
  if (elements > mostElements || reopened > mostReopened) return 'many';
  return deepest > deepestElement ? 'deep' : null;
}

/** The blocks of a message as they are shown. */
export function shownBlocks(blocks: readonly BodyBlock[]): ShownBlock[] {
  const out: ShownBlock[] = [];
  let left = longestText;
  let html = longestHtml;
  for (const block of together(blocks)) {
    const instead =
      block.kind === 'html' ? (tooMuch(block.content) ?? (block.content.length > html ? 'long' : null)) : null;
    if (block.kind === 'html' && instead === null) {
      html -= block.content.length;
      out.push({ kind: 'html', content: block.content, instead, cut: block.goesOn === true, cutOf: null });
      continue;
    }
    // Of very long HTML no more is read than is shown.
    const unread = block.goesOn === true || (block.kind === 'html' && block.content.length > mostRead);
    const text = block.kind === 'html' ? textFromHtml(block.content.slice(0, mostRead)) : plainText(block);
    const content = text.slice(0, left);
    left -= content.length;
    const cut = unread || content.length < text.length;
    out.push({ kind: 'text', content, instead, cut, cutOf: cut && !unread ? text.length : null });
  }
  return out;
}

/** A plain text with the lines put together that go on in the next. */
const plainText = ({ content, flowed }: BodyBlock): string => (flowed ? unflowed(content, flowed.delSp) : content);

/** Blocks beyond the first hundred are shown as one text. */
function together(blocks: readonly BodyBlock[]): readonly BodyBlock[] {
  if (blocks.length <= mostBlocks) return blocks;
  const rest = blocks
    .slice(mostBlocks - 1)
    .map((block) => (block.kind === 'html' ? textFromHtml(block.content) : plainText(block)));
  return [...blocks.slice(0, mostBlocks - 1), { kind: 'text', content: rest.join('\n') }];
}
