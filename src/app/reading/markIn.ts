// Marking what is looked for in a message's own document: its text stays as it is.
import { lineElements } from '../../core/mail/textFromHtml';
import { marksIn } from '../../core/search/marks';
import { foldClass } from './cleanHtml';

/** More marks than these help nobody, and hold up the page. */
const mostMarks = 500;

/** Between these, words do not run on: as in the text that is searched (textFromHtml.ts), and where quotes are folded. */
const apart = new Set([...lineElements, 'td', 'th', 'details', 'summary'].map((name) => name.toUpperCase()));

/** A text of the document, and where it begins in all of them together. */
interface Placed {
  node: Text;
  from: number;
}

/** All texts of a document as one, with a line end where they do not run on. */
function textsOf(inside: Document): { text: string; placed: Placed[] } {
  const walker = inside.createTreeWalker(inside.body, NodeFilter.SHOW_TEXT | NodeFilter.SHOW_ELEMENT);
  const placed: Placed[] = [];
  const parts: string[] = [];
  let length = 0;
  const put = (part: string) => {
    parts.push(part);
    length += part.length;
  };
  let before: Node = inside.body;
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    // What was left on the way here.
    for (let left: Node | null = before; left && !left.contains(node); left = left.parentNode)
      if (apart.has(left.nodeName)) put('\n');
    // What a fold says is ours.
    if (node.parentElement?.classList.contains(foldClass)) continue;
    if (node.nodeType === Node.TEXT_NODE) {
      const text = node as Text;
      placed.push({ node: text, from: length });
      put(text.data);
    } else if (apart.has(node.nodeName)) put('\n');
    before = node;
  }
  return { text: parts.join(''), placed };
}

/** Marks what is looked for in a document, also where it goes over several of its texts, and unfolds what holds it. */
export function markIn(inside: Document, sought: readonly string[]): void {
  if (sought.length === 0) return;
  const { text, placed } = textsOf(inside);
  const marks = marksIn(text, sought).slice(0, mostMarks);
  let at = placed.length - 1;
  // From the last to the first, so that the places of the others stay.
  for (const [from, to] of marks.reverse()) {
    while (at > 0 && placed[at].from >= to) at--;
    for (let n = at; n >= 0 && placed[n].from + placed[n].node.length > from; n--) {
      const { node, from: begin } = placed[n];
      const [first, after] = [Math.max(0, from - begin), Math.min(node.length, to - begin)];
      if (first < after && node.data.slice(first, after).trim() !== '') mark(inside, node, first, after);
    }
  }
}

function mark(inside: Document, node: Text, from: number, to: number): void {
  const found = node.splitText(from);
  found.splitText(to - from);
  const mark = inside.createElement('mark');
  found.replaceWith(mark);
  mark.append(found);
  for (let at = mark.closest('details'); at; at = at.parentElement?.closest('details') ?? null) at.open = true;
}
