// Quoted text: what of a plain-text body is the sender's own, what was said before, and what is a signature.

/** A stretch of a body. Joined by line breaks, all stretches are the body again. */
export interface Stretch {
  kind: 'own' | 'quoted' | 'signature';
  text: string;
}

/** How deep a line is quoted, and its words without the marks: “> > text” is two deep (RFC 3676, section 4.5). */
export function quoteDepth(line: string): { depth: number; text: string } {
  let depth = 0;
  let at = 0;
  for (;;) {
    const mark = line[at] === '>' ? at : line[at] === ' ' && line[at + 1] === '>' ? at + 1 : -1;
    if (mark < 0) return { depth, text: depth && line[at] === ' ' ? line.slice(at + 1) : line.slice(at) };
    depth++;
    at = mark + 1;
  }
}

/** “-- ” alone on a line begins the signature (RFC 3676, section 4.3); senders often lose its blank. */
const signatureMark = /^-- ?\r?$/;
/** A line of dashes with words in it, then fields: the whole message before stands below (common practice, no source). */
const ruledOff = /^\s*-{3,}[^-].*[^-]-{3,}\s*$/;
const fieldLine = /^\s*\*?[\p{L}-]{2,12}\s*\*?:\s*\S/u;
/** At most so many lines may say who wrote what is quoted below. */
const longestAttribution = 3;

const blank = (line: string | undefined): boolean => line === undefined || line.trim() === '';

/** Whether a line may go on in the next: it is neither empty nor the end of a sentence. */
const goesOn = (line: string): boolean => !blank(line) && !/[.!?]\s*$/.test(line);

/** Where the lines begin that say who wrote what is quoted at `at`; `at` itself where there are none. */
function attributionStart(lines: readonly string[], from: number, at: number): number {
  let last = at - 1;
  if (last >= from && blank(lines[last])) last--;
  if (last < from || !/:\s*$/.test(lines[last])) return at;
  let first = last;
  while (first > from && last - first < longestAttribution - 1 && goesOn(lines[first - 1])) first--;
  // Without an empty line before it, only its last line is surely no part of the text.
  return first === from || blank(lines[first - 1]) ? first : last;
}

/** Parts a plain-text body into stretches. */
export function stretches(body: string): Stretch[] {
  const lines = body.split('\n');
  const kinds: Stretch['kind'][] = new Array<Stretch['kind']>(lines.length).fill('own');
  let ownFrom = 0;
  let signing = false;
  for (let i = 0; i < lines.length; i++) {
    const quoted = lines[i].startsWith('>');
    if (quoted) {
      if (i === 0 || kinds[i - 1] !== 'quoted') kinds.fill('quoted', attributionStart(lines, ownFrom, i), i);
      kinds[i] = 'quoted';
      ownFrom = i + 1;
      signing = false;
    } else if (
      lines[i] !== '' &&
      ruledOff.test(lines[i]) &&
      lines.slice(i + 1, i + 4).some((line) => fieldLine.test(line))
    ) {
      kinds.fill('quoted', i);
      break;
    } else if (signatureMark.test(lines[i])) signing = true;
    if (signing) kinds[i] = 'signature';
  }
  // Empty lines between two quoted lines are part of what is quoted.
  for (let i = 1; i < lines.length - 1; i++)
    if (kinds[i] === 'own' && kinds[i - 1] === 'quoted' && blank(lines[i]) && lines[i + 1].startsWith('>'))
      kinds[i] = 'quoted';
  const out: Stretch[] = [];
  for (let from = 0, to = 1; from < lines.length; from = to++) {
    while (to < lines.length && kinds[to] === kinds[from]) to++;
    out.push({ kind: kinds[from], text: lines.slice(from, to).join('\n') });
  }
  return out;
}

/** A text without its stretches of a kind. */
export const textWithout = (kind: Stretch['kind'], body: string): string =>
  stretches(body)
    .filter((stretch) => stretch.kind !== kind)
    .map(({ text }) => text)
    .join('\n');

/** A text as an answer quotes it: each line behind “> ”, what was quoted before one deeper, no signature. */
export function quote(body: string): string {
  return textWithout('signature', body)
    .trimEnd()
    .split('\n')
    .map((line) => `>${line.startsWith('>') || line === '' ? '' : ' '}${line}`)
    .join('\n');
}
