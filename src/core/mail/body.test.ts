import { attachmentBytes, bodyBlocks, bodyText, hasAlternatives, inlinePictures } from './body';
import { parseStructure } from './structure';
import { textFromHtml } from './textFromHtml';

const raw = (text: string) => new TextEncoder().encode(text.replace(/\n/g, '\r\n'));

const alternative = raw(`Content-Type: multipart/alternative; boundary=b

--b
Content-Type: text/plain

plain words
--b
Content-Type: multipart/related; boundary=c

--c
Content-Type: text/html

<p>rich <b>words</b> <img src="cid:pic@x"></p>
--c
Content-Type: image/gif
Content-ID: <pic@x>
Content-Transfer-Encoding: base64

R0lG
--c--
--b--
`);

test('the richest alternative is shown, the plain one on request (RFC 2046, section 5.1.4)', () => {
  const structure = parseStructure(alternative);
  expect(bodyBlocks(alternative, structure).map((b) => b.kind)).toEqual(['html']);
  expect(bodyBlocks(alternative, structure, true)).toEqual([{ kind: 'text', content: 'plain words' }]);
  expect(hasAlternatives(structure.root)).toBe(true);
  expect(bodyText(alternative, structure)).toBe('plain words');
});

test('pictures that came within the message are found by Content-ID (RFC 2392)', () => {
  const [picture] = inlinePictures(alternative, parseStructure(alternative));
  expect(picture.contentId).toBe('pic@x');
  expect(new TextDecoder().decode(picture.bytes)).toBe('GIF');
});

test('an attachment’s bytes by its index, and none beyond', () => {
  const structure = parseStructure(alternative);
  expect(new TextDecoder().decode(attachmentBytes(alternative, structure, 0) ?? undefined)).toBe('GIF');
  expect(attachmentBytes(alternative, structure, 1)).toBeNull();
});

test.each([
  ['blocks and blanks', '<p>one</p>\n<p>two  three</p>', 'one\ntwo three'],
  ['what is no text', '<style>p{}</style><script>alert(1)</script><title>t</title>shown<!-- hidden -->', 'shown'],
  ['entities', 'fish &amp; chips &eacute; &#8364; &lt;b&gt;', 'fish & chips é € <b>'],
  ['a tag never closed', 'text<a href="x', 'text'],
  ['a script never closed', 'text<script>alert(1)', 'text'],
  ['a sign that is no tag', '3 < 4 and 5 > 4', '3 < 4 and 5 > 4'],
])('text of HTML: %s', (_what, html, text) => {
  expect(textFromHtml(html)).toBe(text);
});

test('text of hostile HTML is made in time linear to its length', () => {
  const start = process.cpuUsage().user;
  textFromHtml('<'.repeat(200_000));
  textFromHtml('<script'.repeat(30_000));
  textFromHtml('<!--'.repeat(50_000));
  // Not a timing: a quadratic walk would take minutes, so any bound between tells them apart.
  expect(process.cpuUsage().user - start).toBeLessThan(10_000_000);
});
