// Words found by their blocks against looking through all of them.
import fc from 'fast-check';
import { WordBlocks, type WordList } from './wordBlocks';

function listOf(words: readonly string[]): WordList {
  const starts: number[] = [];
  let at = 1;
  for (const word of words) {
    starts.push(at);
    at += word.length + 1;
  }
  return { words: ['', ...words, ''].join('\n'), starts };
}

/** The words, each between its line ends, that have a text. */
const having = (words: readonly string[], sought: string): number[] =>
  words.flatMap((word, at) => (`\n${word}\n`.includes(sought) ? [at] : []));

const letters = fc.string({ unit: fc.constantFrom('a', 'b', 'ß', '東', '\u{1f6a2}'), minLength: 1, maxLength: 5 });

test('every word is found, once, in order: within words, at their beginnings and ends, over block borders', () => {
  fc.assert(
    fc.property(
      fc.array(letters, { maxLength: 400 }),
      letters,
      fc.constantFrom('', '\n'),
      fc.constantFrom('', '\n'),
      fc.nat(400),
      (words, text, before, after, early) => {
        const blocks = new WordBlocks();
        // As it grows: some blocks are masked before the others are there.
        blocks.upTo(listOf(words.slice(0, early)));
        const list = listOf(words);
        blocks.upTo(list);
        const found: number[] = [];
        blocks.each(list, before + text + after, (word) => found.push(word));
        expect(found).toEqual(having(words, before + text + after));
      },
    ),
    { numRuns: 300 },
  );
});

test('an empty text stands in every word, and is found', () => {
  const list = listOf(['ab', '', 'c']);
  const found: number[] = [];
  new WordBlocks().upTo(list).each(list, '', (word) => found.push(word));
  expect(found).toEqual([0, 1, 2]);
});

test('a text that stands nowhere is looked for in few of many blocks', () => {
  const list = listOf(Array.from({ length: 20_000 }, (_, n) => `w${(n * 7_919).toString(36)}x${n}`));
  const blocks = new WordBlocks().upTo(list);
  let looked = 0;
  const slice = jest.spyOn(String.prototype, 'slice').mockImplementation(function (this: string, ...args) {
    looked++;
    return this.substring(args[0] ?? 0, args[1]);
  });
  blocks.each(list, 'harbour', () => undefined);
  slice.mockRestore();
  expect(looked).toBeLessThan(20);
});
