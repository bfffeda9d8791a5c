import fc from 'fast-check';
import { foldSearch } from '../mail/fold';
import { WordTable, type Fit, type Folding } from './wordTable';

const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c', '-', 'é', 'ß', '東'), minLength: 1, maxLength: 4 });
const holds: Record<Fit, (word: string, text: string) => boolean> = {
  within: (its, text) => its.includes(text),
  whole: (its, text) => its === text,
  begins: (its, text) => its.startsWith(text),
  ends: (its, text) => its.endsWith(text),
};

test('which words fit, as asking each by itself; as it grows, and after it was stored', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(word, { maxLength: 200 }),
      word,
      fc.constantFrom<Fit>('within', 'whole', 'begins', 'ends'),
      fc.constantFrom<Folding>('rules', 'search'),
      fc.nat(200),
      (words, asked, fit, folding, early) => {
        const fold = (text: string) => (folding === 'search' ? foldSearch(text) : text);
        const text = fold(asked);
        const grown = new WordTable();
        for (const one of words.slice(0, early)) grown.add(one);
        grown.fitting(fit, text, folding);
        for (const one of words.slice(early)) grown.add(one);
        const expected = words.flatMap((one, at) => (holds[fit](fold(one), text) ? [at] : []));
        const stored = WordTable.of(grown.joined());
        expect(grown.joined()).toBe(words.length ? `\n${words.join('\n')}\n` : '\n');
        for (const table of [grown, stored, stored.trim()]) {
          expect(table.size).toBe(words.length);
          expect(table.fitting(fit, text, folding).toSorted((a, b) => a - b)).toEqual(expected);
          expect(words.map((_, at) => table.word(at))).toEqual(words);
          expect(table.joined()).toBe(grown.joined());
        }
      },
    ),
    { numRuns: 400 },
  );
});
