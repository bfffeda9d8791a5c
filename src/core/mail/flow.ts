// Plain text that flows: lines that the sender's program or hand broke only because they were full are put together again.

/** Lines of this length were hardly broken by hand because they were full, or are no text; in characters. */
const [narrowestBreak, widestBreak] = [50, 100];
/** A shorter line ends where its writer wanted it to end. */
const shortestFull = 40;

/** The marks of a list, or of something that was laid out: such a line begins anew. */
const beginsAnew = /^(?:\s|>|[-*+•–—=_#|]|\(?\d{1,3}[.):]\s|\p{L}[.)]\s)/u;
/** Columns, or something drawn. */
const laidOut = /\S {2,}\S|\t|[-=_*~]{4,}/;

/**
 * Text of the form “format=flowed” with its paragraphs in one line each (RFC 3676, section 4); quoted ones keep their marks.
 * `delSp`: the blank at the end of a line that goes on is no part of the text (section 4.2).
 */
export function unflowed(text: string, delSp: boolean): string {
  const out: string[] = [];
  let pieces: string[] = [];
  let at = 0;
  const close = () => {
    if (pieces.length) out.push((at ? `${'>'.repeat(at)} ` : '') + pieces.join(''));
    pieces = [];
  };
  for (const line of text.split(/\r?\n/)) {
    let depth = 0;
    while (line[depth] === '>') depth++;
    const stuffed = line[depth] === ' ';
    let content = line.slice(depth + (stuffed ? 1 : 0));
    const signature = content === '-- ';
    if (depth !== at || signature) close();
    at = depth;
    // What was stuffed so that it is no quote must not look like one.
    if (depth === 0 && stuffed && pieces.length === 0 && content.startsWith('>')) content = ` ${content}`;
    const goesOn = content.endsWith(' ') && !signature;
    pieces.push(goesOn && delSp ? content.slice(0, -1) : content);
    if (!goesOn) close();
  }
  close();
  return out.join('\n');
}

const isBlank = (line: string): boolean => line === '' || line.trim() === '';

/** Whether a line is prose that may go on in another or be the rest of one. */
const isProse = (line: string): boolean =>
  line.length > 0 && line.length <= widestBreak && !line.startsWith('>') && !laidOut.test(line);

/**
 * Text in which paragraphs that were broken by hand are one line each: a line goes on in the next where that one's first
 * word had no more room in it. Lists, columns, quotes, verses and signatures stay as they are. Common practice, no source.
 */
export function joinedParagraphs(text: string): string {
  const lines = text.split('\n');
  const out: string[] = [];
  for (let from = 0; from < lines.length;) {
    if (isBlank(lines[from])) {
      out.push(lines[from++]);
      continue;
    }
    let end = from;
    let width = 0;
    while (end < lines.length && !isBlank(lines[end])) width = Math.max(width, lines[end++].trimEnd().length);
    const block = lines.slice(from, end);
    from = end;
    if (width < narrowestBreak || width > widestBreak) {
      out.push(...block);
      continue;
    }
    let paragraph = [block[0]];
    for (let at = 1; at < block.length; at++) {
      const [before, line] = [block[at - 1].trimEnd(), block[at]];
      const word = /^\S+/.exec(line)?.[0] ?? '';
      const full = before.length >= shortestFull && before.length + 1 + word.length > width;
      if (full && isProse(before) && isProse(line) && !beginsAnew.test(line)) paragraph.push(line);
      else {
        out.push(paragraph.map((one) => one.trimEnd()).join(' '));
        paragraph = [line];
      }
    }
    out.push(paragraph.map((one, i) => (i < paragraph.length - 1 ? one.trimEnd() : one)).join(' '));
  }
  return out.join('\n');
}
