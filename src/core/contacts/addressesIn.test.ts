// Addresses in texts. What a signature looks like: common practice, no source.
import { addressesIn } from './addressesIn';

const found = (text: string) => addressesIn(text).map(({ name, address }) => (name ? `${name} <${address}>` : address));

test('of a signature: with and without names, marks around them, in brackets, behind words', () => {
  expect(
    found(
      'Best,\nMira\n\n-- \nMira Holm | Harbour Office\nmail: mira.holm@harbour.example, tel. 555\n' +
        'Team: Berth Desk <berths@harbour.example>.\n(also *m+new@pilot.example*)\nmailto:help@pilot.example',
    ),
  ).toEqual([
    'mira.holm@harbour.example',
    'Berth Desk <berths@harbour.example>',
    'm+new@pilot.example',
    'help@pilot.example',
  ]);
});

test('each once; other letters in the domain; at the end of a sentence', () => {
  expect(found('Ask a@ü.example, A@Ü.example or a@xn--tda.example.')).toEqual(['a@xn--tda.example']);
  expect(found('Write to me@harbour.example. Thanks')).toEqual(['me@harbour.example']);
});

test('what is no mailbox: handles, times, links with a name, halves, two @ in a row', () => {
  expect(found('@mira meets @ 5, see https://me@harbour.example/x and a@b, a@@b.example, @b.example, a@')).toEqual([]);
});

test('no more than twenty, and no longer than the text is', () => {
  expect(addressesIn(Array.from({ length: 50 }, (_, n) => `a${n}@b.example`).join(' '))).toHaveLength(20);
  const many = [('a'.repeat(300) + '@').repeat(20_000), '@'.repeat(1_000_000), `${'a '.repeat(400_000)}<a@b.example>`];
  expect(many.map((text) => addressesIn(text).length)).toEqual([0, 0, 1]);
});
