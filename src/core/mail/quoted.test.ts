import fc from 'fast-check';
import { quote, quoteDepth, stretches } from './quoted';

const kinds = (body: string) =>
  stretches(body).map(({ kind, text }) => `${kind}: ${text.trim().split('\n').join(' / ')}`);

test.each([
  ['text', 0, 'text'],
  ['> text', 1, 'text'],
  ['>text', 1, 'text'],
  ['>> text', 2, 'text'],
  ['> > text', 2, 'text'],
  ['> >> text', 3, 'text'],
  ['>   indented', 1, '  indented'],
  ['>', 1, ''],
])('RFC 3676, section 4.5: “%s” is %i deep', (line, depth, text) => {
  expect(quoteDepth(line)).toEqual({ depth, text });
});

test('what is quoted, with the line that says who wrote it; what is one’s own; RFC 3676, section 4.3: the signature', () => {
  expect(kinds('Yes, Tuesday.\n\nOn Monday, Ann wrote:\n> Tuesday?\n> Ann\n\nBest\n-- \nBob\nBerth 2')).toEqual([
    'own: Yes, Tuesday.',
    'quoted: On Monday, Ann wrote: / > Tuesday? / > Ann',
    'own: Best',
    'signature: --  / Bob / Berth 2',
  ]);
});
test('answers between what is quoted', () => {
  expect(kinds('> One?\nYes.\n> Two?\nNo.')).toEqual(['quoted: > One?', 'own: Yes.', 'quoted: > Two?', 'own: No.']);
});
test('a signature above what is quoted ends there', () => {
  expect(kinds('Yes.\n--\nBob\n\nAnn wrote:\n> Tuesday?')).toEqual([
    'own: Yes.',
    'signature: -- / Bob',
    'quoted: Ann wrote: / > Tuesday?',
  ]);
});
test('an attribution over two lines; a sentence that ends in a colon is only cut off as a line of its own', () => {
  expect(kinds('Yes.\n\nOn Monday at ten o’clock, Ann of\nthe harbour office wrote:\n> Tuesday?')[1]).toContain(
    'On Monday',
  );
  expect(kinds('I find this wrong.\nYou say:\n> Tuesday')).toEqual([
    'own: I find this wrong.',
    'quoted: You say: / > Tuesday',
  ]);
});
test('a whole message below a ruled line with its fields', () => {
  expect(kinds('Yes.\n\n---- Forwarded ----\nFrom: Ann\nSubject: Berth\n\nTuesday?')).toEqual([
    'own: Yes.',
    'quoted: ---- Forwarded ---- / From: Ann / Subject: Berth /  / Tuesday?',
  ]);
  expect(kinds('---- Tides ----\n10:00 high\n')).toHaveLength(1);
});
test('parted and joined again, a body is itself', () => {
  const line = fc.constantFrom(
    '',
    'text',
    '> quoted',
    '>> deeper',
    '-- ',
    'Ann wrote:',
    '--- Old ---',
    'From: Ann',
    '\r',
  );
  fc.assert(
    fc.property(fc.array(line, { maxLength: 20 }), (lines) => {
      const body = lines.join('\n');
      expect(
        stretches(body)
          .map((s) => s.text)
          .join('\n'),
      ).toBe(body);
    }),
  );
});
test('quoting: one deeper, empty lines bare, no signature', () => {
  expect(quote('Tuesday?\n\n> Monday?\n-- \nAnn')).toBe('> Tuesday?\n>\n>> Monday?');
});
