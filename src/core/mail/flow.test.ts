// Flowed text (RFC 3676) and text broken by hand. The examples of quoting are after RFC 3676, section 4.5; the others made up.
import fc from 'fast-check';
import { joinedParagraphs, unflowed } from './flow';

test.each<[string, string, boolean, string]>([
  [
    'lines that end in a blank go on',
    'Fixed.\nThis goes \non and \non.\nEnd',
    false,
    'Fixed.\nThis goes on and on.\nEnd',
  ],
  ['CRLF, as it comes', 'One \r\ntwo\r\nthree', false, 'One two\nthree'],
  ['DelSp: the blank is no part of it', 'Donau \ndampf \nschiff', true, 'Donaudampfschiff'],
  ['quoted, each depth by itself', '>> Thou \n>> villain\n> Ha \nNo', false, '>> Thou villain\n> Ha \nNo'],
  ['stuffed lines', ' From here\n >not quoted\n  two', false, 'From here\n >not quoted\n two'],
  ['a signature ends what goes on', 'Best \n-- \nAna', false, 'Best \n-- \nAna'],
  ['an empty line ends a paragraph', 'a \n\nb', false, 'a \nb'],
])('flowed: %s', (_what, text, delSp, expected) => expect(unflowed(text, delSp)).toBe(expected));

const byHand = `Dear all,

the ferry of Tuesday will not sail from the usual berth, since the ramp
there is being painted. Please go to berth 4, which is behind the ice
house, and bring your own lights.

  indented lines stay
- one thing, which is long enough that it might have been broken by hand
- another

Name        Berth
Solveig         4

Best wishes
Ana
Harbour office`;

test('paragraphs that were broken by hand flow; lists, columns and signatures stay', () => {
  const lines = joinedParagraphs(byHand).split('\n');
  expect(lines[2]).toMatch(/^the ferry of Tuesday .* the ramp there is .* ice house, and bring your own lights\.$/);
  for (const kept of ['Dear all,', '  indented lines stay', '- another', 'Solveig         4', 'Best wishes', 'Ana'])
    expect(lines).toContain(kept);
});

test('quotes and verses stay', () => {
  for (const text of [
    '> a line that is quoted and long enough to be taken for full\n> goes on',
    'Roses are red\nthe sea is wide',
  ])
    expect(joinedParagraphs(text)).toBe(text);
});

test('nothing but blanks and line ends is ever changed', () => {
  const some = fc.array(fc.constantFrom('tide', ' ', '\n', '>', '- ', 'a'.repeat(30), '-- ', '\r\n', 'x y '), {
    maxLength: 40,
  });
  const bare = (text: string) => text.replace(/[\s>]/g, '');
  fc.assert(
    fc.property(some, fc.boolean(), (pieces, delSp) => {
      const text = pieces.join('');
      expect(bare(joinedParagraphs(text))).toBe(bare(text));
      expect(bare(unflowed(text, delSp))).toBe(bare(text));
    }),
  );
});
