import { bodyBlocks } from './body';
import { deepestElement, longestHtml, longestText, mostElements, mostOpened, shownBlocks, tooMuch } from './shown';
import { parseStructure } from './structure';

test.each<[string, string, ReturnType<typeof tooMuch>]>([
  ['an ordinary page', '<html><body><p>One<p>Two<ul><li>a<li>b</ul><br><img src=x></body></html>', null],
  ['paragraphs and cells without ends', '<p>x<li>y<td>z<tr>'.repeat(5_000), null],
  ['a newsletter of nested tables', '<table><tr><td>'.repeat(60) + 'x' + '</td></tr></table>'.repeat(60), null],
  ['100,000 div', '<div>'.repeat(100_000), 'many'],
  ['div just too deep', '<div>'.repeat(deepestElement + 1), 'deep'],
  ['50,000 b, then a table', '<b>'.repeat(50_000) + '<table>', 'many'],
  [
    'b each of another kind, opened again in each block',
    `${Array.from({ length: 390 }, (_, n) => `<b x=${n}>`).join('')}${'<div></div>'.repeat(2_000)}`,
    'many',
  ],
  ['as many elements as are shown', '<i></i>'.repeat(mostElements), null],
  ['one element more', '<i></i>'.repeat(mostElements + 1), 'many'],
  ['a long one', 'x'.repeat(longestHtml + 1), 'long'],
])('%s', (_what, html, expected) => {
  expect(tooMuch(html)).toBe(expected);
});

test('what is too much is shown as its text, and what is cut is said', () => {
  const [deep, long, plain] = shownBlocks([
    { kind: 'html', content: `${'<div>'.repeat(900)}Hello <b>there</b>` },
    { kind: 'text', content: 'x'.repeat(longestText + 5) },
    { kind: 'html', content: '<p>Small' },
  ]);
  expect(deep).toMatchObject({ kind: 'text', content: 'Hello there', instead: 'deep', cut: false, cutOf: null });
  expect(long).toMatchObject({ kind: 'text', instead: null, cut: true, cutOf: longestText + 5 });
  expect(long.content.length + deep.content.length).toBe(longestText);
  expect(plain).toEqual({ kind: 'html', content: '<p>Small', instead: null, cut: false, cutOf: null });
});

test('a hundred thousand parts are a hundred blocks, and nothing of them is left out', () => {
  const blocks = shownBlocks(
    Array.from({ length: 100_000 }, (_, n) => ({ kind: 'text' as const, content: String(n % 10) })),
  );
  expect(blocks).toHaveLength(100);
  expect(blocks.map(({ content }) => content.replace(/\n/g, '')).join('')).toHaveLength(100_000);
});

test('of HTML that goes on and on no more is read than is shown', () => {
  const [block] = shownBlocks([{ kind: 'html', content: '<p>x '.repeat(6_000_000) }]);
  expect(block).toMatchObject({ kind: 'text', instead: 'long', cut: true, cutOf: null });
  expect(block.content).toHaveLength(longestText);
});

test('of a very long part no more is read than can be shown, and that it goes on is said', () => {
  const line = 'Some words about the tides.\r\n';
  const raw = new TextEncoder().encode(`Content-Type: text/plain\r\n\r\n${line.repeat(300_000)}`);
  const [block] = bodyBlocks(raw, parseStructure(raw), false, mostOpened);
  expect([block.content.length, block.goesOn]).toEqual([mostOpened, true]);
  expect(shownBlocks([block])).toMatchObject([{ kind: 'text', cut: true, cutOf: null }]);
  expect(bodyBlocks(raw, parseStructure(raw), false)[0].goesOn).toBeUndefined();
});
