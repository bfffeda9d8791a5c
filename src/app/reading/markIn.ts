// Marking what is looked for in a message's own document: its text stays as it is.
import { marksIn } from '../../core/search/marks';

/** More marks than these help nobody, and hold up the page. */
const mostMarks = 500;

/** Marks what is looked for in each text of a document, and unfolds what holds it. */
export function markIn(inside: Document, sought: readonly string[]): void {
  if (sought.length === 0) return;
  const walker = inside.createTreeWalker(inside.body, NodeFilter.SHOW_TEXT);
  const texts: Text[] = [];
  for (let node = walker.nextNode(); node; node = walker.nextNode()) texts.push(node as Text);
  let left = mostMarks;
  for (const text of texts) {
    // From the last to the first, so that the places of the others stay.
    for (const [from, to] of marksIn(text.data, sought).reverse()) {
      if (left-- <= 0) return;
      const found = text.splitText(from);
      found.splitText(to - from);
      const mark = inside.createElement('mark');
      found.replaceWith(mark);
      mark.append(found);
      for (let at = mark.closest('details'); at; at = at.parentElement?.closest('details') ?? null) at.open = true;
    }
  }
}
