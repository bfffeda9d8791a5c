import fc from 'fast-check';
import { foldSearch } from '../text/fold';
import { Dictionary, type Fit, type Folding } from './dictionary';

const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c', '-', 'é', 'ß', '東'), minLength: 1, maxLength: 4 });
const holds: Record<Fit, (word: string, text: string) => boolean> = {
  within: (its, text) => its.includes(text),
  whole: (its, text) => its === text,
  begins: (its, text) => its.startsWith(text),
  ends: (its, text) => its.endsWith(text),
};

test('a word has one number, and which words fit is as asking each by itself; as it grows', () => {
  fc.assert(
    fc.property(
      fc.array(word, { maxLength: 200 }),
      word,
      fc.constantFrom<Fit>('within', 'whole', 'begins', 'ends'),
      fc.constantFrom<Folding>('rules', 'search'),
      fc.nat(200),
      (words, asked, fit, folding, early) => {
        const fold = (text: string) => (folding === 'search' ? foldSearch(text) : text);
        const text = fold(asked);
        const different = [...new Set(words)];
        const dictionary = new Dictionary();
        for (const one of words.slice(0, early)) dictionary.numberOf(one);
        dictionary.fitting(fit, text, folding);
        expect(words.map((one) => dictionary.numberOf(one))).toEqual(words.map((one) => different.indexOf(one)));
        expect(dictionary.size).toBe(different.length);
        const { numbers, test } = dictionary.fitting(fit, text, folding);
        expect(numbers).toEqual(different.flatMap((one, at) => (holds[fit](fold(one), text) ? [at] : [])));
        expect([...test.entries()].filter(([, is]) => is).map(([at]) => at)).toEqual(numbers);
        expect(different.map((_, at) => dictionary.word(at))).toEqual(different);
      },
    ),
    { numRuns: 400 },
  );
});

test('a great many words keep their numbers while the table grows', () => {
  const dictionary = new Dictionary();
  const words = Array.from({ length: 30_000 }, (_, n) => `${(n * 7_919).toString(36)}-${n % 7 === 0 ? 'é' : 'e'}`);
  const numbers = words.map((one) => dictionary.numberOf(one));
  expect(new Set(numbers).size).toBe(new Set(words).size);
  expect(words.map((one) => dictionary.numberOf(one))).toEqual(numbers);
  expect(numbers.map((number) => dictionary.word(number))).toEqual(words);
});
