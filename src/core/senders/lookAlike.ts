// Look-alikes: names written so that the eye takes them for others (UTS #39).
import { unicodeDomain } from './normal';
// Unicode's confusables.txt, written by scripts/confusables-table.py.
import prototypes from './confusables.json';

const map: Record<string, string> = prototypes;

/**
 * The skeleton of a text (UTS #39, section 4): two texts that look alike have the same. Case is folded besides, as
 * domains have none.
 */
export function skeleton(text: string): string {
  let out = '';
  for (const character of text.toLowerCase().normalize('NFD')) out += map[character] ?? character;
  return out.normalize('NFD').toLowerCase();
}

/** How many letters must be put in, taken out, changed or swapped with their neighbour to make one text of another; at most `most` + 1. */
export function editDistance(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let before: number[] = [];
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const change = a[i - 1] === b[j - 1] ? 0 : 1;
      let best = Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + change);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) best = Math.min(best, before[j - 2] + 1);
      next.push(best);
    }
    [before, row] = [row, next];
  }
  return row[b.length];
}

/** Shorter names than this are one letter apart by chance. */
const shortest = 6;

/**
 * The domain of `known` that a domain could be taken for, though it is another: it looks the same, or is one letter
 * apart (common practice, no source). Null where there is none.
 */
export function lookAlikeOf(domain: string, known: ReadonlySet<string>): string | null {
  if (!domain || known.has(domain)) return null;
  const shown = unicodeDomain(domain);
  const bones = skeleton(shown);
  for (const other of known) {
    // What lies below a known domain, or above it, is no imitation of it.
    if (domain.endsWith(`.${other}`) || other.endsWith(`.${domain}`)) continue;
    if (skeleton(unicodeDomain(other)) === bones) return other;
    if (other.length >= shortest && editDistance(shown, other, 1) === 1) return other;
  }
  return null;
}
