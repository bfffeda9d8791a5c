// Patterns with * and ?, as Sieve's “:matches” has them (RFC 5228, section 2.7.1). No regular expression of a person's
// or a stranger's is ever run: the time here grows with text times pattern, whatever the pattern is.

/** A pattern made ready: what each of its characters stands for. */
export type Pattern = readonly (string | { any: 'text' | 'character' })[];

/** Reads a pattern. A backslash takes the special meaning from what follows it. */
export function readPattern(text: string): Pattern {
  const out: (string | { any: 'text' | 'character' })[] = [];
  const chars = [...text];
  for (let i = 0; i < chars.length; i++) {
    if (chars[i] === '\\' && i + 1 < chars.length) out.push(chars[++i]);
    else if (chars[i] === '*') out.push({ any: 'text' });
    else if (chars[i] === '?') out.push({ any: 'character' });
    else out.push(chars[i]);
  }
  return out;
}

/** A text as a pattern that matches it and nothing else. */
export const asPattern = (text: string): string => text.replace(/[\\*?]/g, (special) => `\\${special}`);

/** Whether all of a text is as the pattern says. Both are folded already. */
export function fits(pattern: Pattern, text: string): boolean {
  const chars = [...text];
  let [p, t] = [0, 0];
  // Where the last * stood, and up to where it has taken so far: only that one ever need take more.
  let [star, taken] = [-1, 0];
  while (t < chars.length) {
    const part = pattern[p];
    if (part !== undefined && (typeof part === 'string' ? part === chars[t] : part.any === 'character')) {
      p++;
      t++;
    } else if (part !== undefined && typeof part !== 'string') {
      star = p++;
      taken = t;
    } else if (star >= 0) {
      p = star + 1;
      t = ++taken;
    } else return false;
  }
  while (p < pattern.length) {
    const part = pattern[p];
    if (typeof part === 'string' || part.any !== 'text') return false;
    p++;
  }
  return true;
}
