// What of a subject repeats in others: the examples are made up.
import fc from 'fast-check';
import { repeatedWords } from './repeats';

test.each<[string, string[], string | null]>([
  ['order 85166 confirmed: hose', ['order 85170 confirmed: valve', 'order 85201 confirmed: pump'], 'confirmed:'],
  ['tide table for 12 november', ['tide table for 13 november', 'tide table for 14 november'], 'tide table for'],
  ['backup failed', ['backup failed', 'backup failed'], 'backup failed'],
  // Twice says more than once, though once is longer.
  ['crew rota week 48 late', ['crew rota week 48', 'crew rota week 49'], 'crew rota week'],
  ['berth 2 on tuesday', ['berth 2 on friday'], 'berth 2 on'],
  ['a lost glove', ['the menu', 'fuel'], null],
  // A day says when, not what.
  ['jackets by wednesday', ['swap on wednesday', 'works on wednesday'], null],
  ['rota from wednesday', ['rota from friday', 'rota from sunday'], 'rota from'],
  ['protokoll vom mittwoch', ['fragen zum mittwoch'], null],
  // Two letters that stand everywhere say nothing.
  ['on it', ['on time', 'on deck'], null],
  ['', ['x'], null],
])('%j among %j', (subject, others, expected) => {
  expect(repeatedWords(subject, others)).toBe(expected);
});

test('what is said to repeat stands in the subject and in another', () => {
  const text = fc.array(fc.constantFrom('tide', 'table', 'för', '12', '-', 'rota'), { maxLength: 6 });
  fc.assert(
    fc.property(text, fc.array(text, { maxLength: 5 }), (words, lists) => {
      const [subject, others] = [words.join(' '), lists.map((list) => list.join(' '))];
      const said = repeatedWords(subject, others);
      if (said === null) return;
      expect(subject).toContain(said);
      expect(others.some((other) => other.includes(said))).toBe(true);
    }),
  );
});
