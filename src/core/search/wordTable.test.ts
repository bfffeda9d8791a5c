// Words as bytes, against the same words as strings: split at blanks and kept in a Map.
import { isDeepStrictEqual } from 'node:util';
import fc from 'fast-check';
import { hashOfText } from '../data/hash';
import { foldAscii } from '../text/collation';
import { WordTable } from './wordTable';

/** What the table says of some texts, and what strings say. */
function both(texts: readonly string[]) {
  const table = new WordTable();
  const ours: number[] = [];
  const words = new Map<string, number>();
  const theirs: number[] = [];
  for (const text of texts) {
    table.eachOf(text, (position) => ours.push(position));
    for (const word of foldAscii(text).split(/\s+/)) {
      if (word === '') continue;
      if (!words.has(word)) words.set(word, words.size);
      theirs.push(words.get(word) ?? -1);
    }
  }
  return { ours: [ours, table.words(), table.size], theirs: [theirs, [...words.keys(), ''].join('\n'), words.size] };
}

test('property: words of any texts, with any blanks between them, have the positions that they would have as strings', () => {
  const unit = fc.oneof(
    fc.constantFrom(...'aAbB zZ\t\n\r\u00a0\u2003\u3000\ufeff\u0000éÉ漢😀'),
    fc.string({ unit: 'grapheme', maxLength: 3 }),
  );
  const text = fc.array(unit, { maxLength: 60 }).map((units) => units.join(''));
  fc.assert(
    fc.property(fc.array(text, { maxLength: 8 }), (texts) => {
      const { ours, theirs } = both(texts);
      expect(ours).toEqual(theirs);
    }),
    { numRuns: 500 },
  );
});

test('words and texts of any length, characters of several bytes wherever they fall', () => {
  const long = '漢字😀x'.repeat(40_000);
  for (const text of [long, `a ${long}`, `${long} b`, `${'word '.repeat(30_000)}${long}`, '漢 😀 '.repeat(50_000)]) {
    const { ours, theirs } = both([text, 'a b', text]);
    expect(isDeepStrictEqual(ours, theirs)).toBe(true);
  }
});

test('words whose hashes are all alike are found, too, and take time in step with their number', () => {
  // Where the table looks first: a stranger can compute it as well.
  const place = (word: string) => {
    const hash = hashOfText(word);
    return (hash ^ (hash >>> 15)) & 1_023;
  };
  const alike: string[] = [];
  for (let n = 0; alike.length < 600; n++) if (place(`w${n}`) === 7) alike.push(`w${n}`);
  const { ours, theirs } = both([alike.join(' '), alike.reverse().join(' ')]);
  expect(isDeepStrictEqual(ours, theirs)).toBe(true);
});

test('a name of a field is one word, whatever stands in it, and a word like others', () => {
  const table = new WordTable();
  expect(table.positionOfWhole('\u0001subject')).toBe(0);
  table.eachOf('subject', (position) => expect(position).toBe(1));
  expect([table.positionOfWhole('\u0001subject'), table.positionOfWhole('subject')]).toEqual([0, 1]);
  expect(table.words()).toBe('\u0001subject\nsubject\n');
});
