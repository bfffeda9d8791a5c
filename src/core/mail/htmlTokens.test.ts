import { anchorsOf, linksOf } from './links';
import { readHtml } from './htmlTokens';
import { textFromHtml } from './textFromHtml';

/** Everything that is told of some HTML, in its order. */
function told(html: string): string[] {
  const out: string[] = [];
  readHtml(html, {
    text: (text) => out.push(text),
    open: (name, attributes) =>
      out.push(`<${[name, ...[...attributes].map(([key, its]) => `${key}=${its}`)].join(' ')}>`),
    close: (name) => out.push(`</${name}>`),
    attributesOf: (name) => name === 'a',
  });
  return out;
}

// HTML, section 13.2.5 (“Tokenization”): the rules, not its examples.
test.each([
  ['names are of any case', '<P>x</P>', ['<p>', 'x', '</p>']],
  ['entities are decoded', 'a &amp; b', ['a ', '&', ' b']],
  ['attributes where they are asked for', '<a href="x&amp;y" HREF=z>q</a>', ['<a href=x&y>', 'q', '</a>']],
  ['not where they are not', '<b title="x">q', ['<b>', 'q']],
  ['quotes of either kind and none', "<a href='1' rel=2 download>", ['<a href=1 rel=2 download=>']],
  ['a sign that begins no tag', 'a < b', ['a ', '< b']],
  ['a comment', 'a<!-- <b> -->c', ['a', 'c']],
  ['a comment that never ends', 'a<!-- b', ['a']],
  ['a script is no markup', '<script>if (a<b) x()</script>y', ['<script>', 'if (a<b) x()', '</script>', 'y']],
])('%s', (_what, html, expected) => {
  expect(told(html).join('|')).toBe(expected.join('|'));
});

test.each([
  ['blocks stand on lines of their own', '<p>One</p><p>Two<br>Three</p>', 'One\nTwo\nThree'],
  ['cells are apart', '<table><tr><td>1</td><td>2</td></tr></table>', '1 2'],
  ['what is no text is left out', '<head><title>T</title></head><style>b{}</style>x<svg><text>y</text></svg>', 'x'],
  ['what a frame would show in its place is left out', 'x<iframe><p>old browsers</p></iframe>y', 'x y'],
  ['blanks are one', 'a &nbsp; \n b', 'a b'],
])('%s', (_what, html, expected) => expect(textFromHtml(html)).toBe(expected));

test('links with their words; a link within a link ends the one around it', () => {
  const html =
    '<a href=" https://a.test/?x&amp;y ">One <b>two</b></a> <a href=b>Three<a href="mailto:c@d.test">Four</a>';
  expect(anchorsOf(html)).toEqual([
    { href: 'https://a.test/?x&y', text: 'One two' },
    { href: 'b', text: 'Three' },
    { href: 'mailto:c@d.test', text: 'Four' },
  ]);
  expect(linksOf(html)).toEqual(['https://a.test/?x&y', 'mailto:c@d.test']);
});

test('what is nested deeply, never closed or repeated is read to its end', () => {
  const deep = `${'<div>'.repeat(50_000)}x${'</div>'.repeat(50_000)}`;
  expect(textFromHtml(deep)).toBe('x');
  expect(textFromHtml('<p '.repeat(20_000))).toBe('');
  expect(textFromHtml(`${'<svg>'.repeat(20_000)}x`)).toBe('');
  expect(textFromHtml(`a${'&nbsp;'.repeat(20_000)}b`)).toBe('a b');
  expect(linksOf('<a '.repeat(20_000))).toEqual([]);
});
