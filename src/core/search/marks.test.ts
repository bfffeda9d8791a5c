import fc from 'fast-check';
import { foldSearch } from '../text/fold';
import { marksIn, piecesOf, soughtIn } from './marks';
import { parseQuery } from './query';

const marked = (text: string, sought: string[]) =>
  piecesOf(text, sought)
    .map((piece) => (piece.marked ? `[${piece.text}]` : piece.text))
    .join('');

test.each([
  ['It is the HÖCHST of times', ['hochst'], 'It is the [HÖCHST] of times'],
  ['over the\n  end of a line', ['the end'], 'over [the\n  end] of a line'],
  // One character that is two when it is folded, and one that is two characters.
  ['der Großmann', ['ssm'], 'der Gro[ßm]ann'],
  ['e\u0301clair', ['ecl'], '[e\u0301cl]air'],
  ['𝔘nicode here', ['unicode'], '[𝔘nicode] here'],
  ['aaa', ['aa', 'a'], '[aaa]'],
  ['ab bc', ['ab', 'b b'], '[ab b]c'],
  ['nothing', [], 'nothing'],
  ['', ['a'], ''],
])('%s', (text, sought, expected) => {
  expect(marked(text, sought)).toBe(expected);
});

test('the pieces are the text, and whatever is marked is, folded, made of what is sought', () => {
  fc.assert(
    fc.property(
      fc.string({ unit: 'grapheme', maxLength: 40 }),
      fc.string({ minLength: 1, maxLength: 3 }),
      (text, word) => {
        const sought = foldSearch(word.replace(/\s+/g, ' '));
        expect(
          piecesOf(text, [sought])
            .map((piece) => piece.text)
            .join(''),
        ).toBe(text);
        for (const [from, to] of marksIn(text, [sought]))
          expect(foldSearch(text.slice(from, to).replace(/\s+/g, ' '))).toContain(sought);
      },
    ),
  );
});

test('sought is what must stand there: in the parts that each key looks into, not what NOT takes out', () => {
  const parsed = parseQuery('harbour from Ann or subject "Fuel  oil" body tank not text rope unseen');
  const query = parsed.ok ? parsed.query : null;
  if (!query) throw new Error('It can be read.');
  expect(soughtIn('people', query)).toEqual(['harbour', 'ann']);
  expect(soughtIn('subject', query)).toEqual(['harbour', 'fuel oil']);
  expect(soughtIn('text', query)).toEqual(['harbour', 'tank']);
});

test('an empty text marks nothing', () => {
  expect(marksIn('harbour', [''])).toEqual([]);
  expect(marksIn('harbour', ['', 'bo'])).toEqual([[3, 5]]);
});
