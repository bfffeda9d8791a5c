// Queries by chance, made of what real messages say: for the table of a second implementation, and for the bench.
import { Random } from '../demo/random';
import { dayKeys, queryText, type Query } from '../src/core/search/query';
import type { Words } from './someRules';

const plain = (text: string): string => text.replace(/[^\x20-\x7e]/g, ' ').trim();

/** A word or two that stand side by side, or a part of a word. */
function pieceOf(random: Random, text: string, shortest: number): string {
  const words = plain(text)
    .split(/\s+/)
    .filter((word) => word.length >= shortest);
  if (words.length === 0) return 'nothing';
  const at = random.int(0, words.length - 1);
  if (random.chance(0.3)) return words.slice(at, at + 2).join(' ');
  const [word] = words.slice(at);
  return random.chance(0.3) ? word.slice(random.int(0, Math.max(0, word.length - Math.max(3, shortest)))) : word;
}

function leaf(random: Random, words: Words, shortest: number): Query {
  const piece = (of: Random, text: string) => pieceOf(of, text, shortest);
  const texts = [...words.subjects, ...words.bodies];
  switch (random.int(0, 9)) {
    case 0:
      return { key: 'from', text: piece(random, random.pick(random.chance(0.5) ? words.addresses : words.names)) };
    case 1:
      return { key: random.pick(['to', 'cc'] as const), text: piece(random, random.pick(words.addresses)) };
    case 2:
      return { key: 'subject', text: piece(random, random.pick(words.subjects)) };
    case 3:
    case 4:
      return { key: 'body', text: piece(random, random.pick(words.bodies)) };
    case 5:
      return { key: 'text', text: piece(random, random.pick(texts)) };
    case 6: {
      const { name, text } = random.pick(words.headers);
      return { key: 'header', name, text: random.chance(0.2) ? '' : piece(random, text) };
    }
    case 7:
      return { key: random.pick(dayKeys), day: Date.parse(`${random.pick(words.days)}T00:00Z`) };
    case 8:
      return { key: random.pick(['larger', 'smaller'] as const), bytes: random.pick(words.sizes) };
    default:
      return { key: random.pick(['seen', 'flagged'] as const), value: random.chance(0.3) };
  }
}

function some(random: Random, words: Words, depth: number, shortest: number): Query {
  if (depth === 0 || random.chance(0.4)) return leaf(random, words, shortest);
  const part = () => some(random, words, depth - 1, shortest);
  switch (random.int(0, 3)) {
    case 0:
      return { key: 'not', of: part() };
    case 1:
      return { key: 'or', of: [part(), part()] };
    default:
      return { key: 'and', of: [part(), part()] };
  }
}

/** Queries as text, from a seed; `shortest`: characters that each word of a text has at least. */
export function someQueries(count: number, words: Words, seed = 1, shortest = 1): string[] {
  return Array.from({ length: count }, (_, n) => queryText(some(Random.of(seed, n), words, 2, shortest)));
}
