// Recipients, flowing text, the plain part, what may leave of rich text.
import fc from 'fast-check';
import { unflowed } from '../mail/flow';
import { parseEnvelope } from '../mail/envelope';
import { parseStructure, leaves } from '../mail/structure';
import { attachmentBytes } from '../mail/body';
import { byteText } from '../mail/charset';
import { composeMessage, type WrittenMessage } from './composing';
import { flowed, typedLines, typedText } from './flowed';
import { htmlLines } from './htmlLines';
import { outgoingHtml } from './outgoingHtml';
import { readRecipients } from './recipient';

const plain = (html: string) => typedText(htmlLines(html));
const bytes = (text: string) => new TextEncoder().encode(text);
const message = (some: Partial<WrittenMessage>): WrittenMessage => ({
  messageId: 'a@ferry.test',
  date: Date.UTC(2026, 10, 28),
  zone: 0,
  from: { name: 'Ingrid', address: 'i@ferry.test' },
  to: [{ name: '', address: 'a@b.test' }],
  subject: 'S',
  html: null,
  text: 'T',
  files: [],
  ...some,
});
const written = (some: Partial<WrittenMessage>, own = false) => byteText(composeMessage(message(some), own));

describe('recipients', () => {
  test('as they are typed and pasted: names, lines, semicolons, each once', () => {
    const typed = 'Ann <ann@x.test>; bob@x.test\n"Cy, of X" <cy@x.test>\tANN@x.test';
    expect(readRecipients(typed)).toEqual({
      named: [
        { name: 'Ann', address: 'ann@x.test' },
        { name: '', address: 'bob@x.test' },
        { name: 'Cy, of X', address: 'cy@x.test' },
      ],
      wrong: [],
    });
  });
  test.each([
    ['nobody', /no @/],
    ['a@', /behind its @/],
    ['@b.test', /before its @/],
    ['a..b@x.test', /two in a row/],
    ['a@harbour', /not whole/],
    ['a@x..test', /two in a row/],
    [`${'a'.repeat(65)}@x.test`, /longer than 64/],
    [`a@${'b'.repeat(64)}.test`, /too long/],
    ['ингрид@x.test', /RFC 6531/],
    ['a@-b.test', /must not be there/],
  ])('%s is refused with the reason', (typed, reason) => {
    expect(readRecipients(typed).wrong[0].reason).toMatch(reason);
  });
  test('RFC 5891: a domain in other letters is sent as A-labels', () => {
    expect(readRecipients('a@bücher.example').named[0].address).toBe('a@xn--bcher-kva.example');
  });
});

describe('format=flowed', () => {
  test('RFC 3676, section 4.1: the example of a paragraph that flows, and one that does not', () => {
    const text = "`Take some more tea,' the March Hare said to Alice, very earnestly.";
    expect(flowed(typedLines(text))).toBe(`${text}\r\n`);
    const long = `${text} \`I've had nothing yet,' Alice replied in an offended tone, \`so I can't take more.'`;
    const lines = flowed(typedLines(long)).split('\r\n').slice(0, -1);
    expect(lines.length).toBe(3);
    for (const line of lines.slice(0, -1)) expect(line).toMatch(/ $/);
    expect(unflowed(flowed(typedLines(long)), false)).toBe(`${long}\n`);
  });
  test('RFC 3676, sections 4.3 to 4.5: signatures, stuffing, quotes', () => {
    expect(flowed(typedLines('-- '))).toBe('-- \r\n');
    expect(flowed(typedLines('From me\n  two'))).toBe(' From me\r\n   two\r\n');
    expect(flowed(typedLines('>> deep\n> one'))).toBe('>> deep\r\n> one\r\n');
    expect(flowed([{ depth: 0, text: '> no quote' }])).toBe(' > no quote\r\n');
  });
  test('it goes round: whatever is typed comes back, quoted as deep', () => {
    const word = fc.constantFrom('a', 'harbour', '>', '--', 'From', 'x'.repeat(90), '', '港口', 'é');
    const line = fc
      .tuple(fc.nat(3), fc.array(word, { maxLength: 60 }))
      .map(([depth, list]) => '>'.repeat(depth) + (depth ? ' ' : '') + list.join(' '));
    const meant = (text: string) => typedLines(text).map(({ depth, text: said }) => [depth, said.trimEnd()]);
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 8 }), (list) => {
        const text = list.join('\n');
        expect(meant(unflowed(flowed(typedLines(text)).replace(/\r\n$/, ''), false))).toEqual(meant(text));
      }),
      { numRuns: 1_000 },
    );
  });
});

test('the plain part says what the rich one does', () => {
  expect(plain('<p>One</p><p>Two<br>three</p>')).toBe('One\n\nTwo\nthree');
  expect(plain('<p>A:</p><ul><li><p>b</p></li><li>c<ol start="3"><li>d</li><li>e</li></ol></li></ul><p>f</p>')).toBe(
    'A:\n\n- b\n- c\n  3. d\n  4. e\n\nf',
  );
  expect(plain('<p>x</p><blockquote><p>y</p><blockquote><p>z</p></blockquote></blockquote><p>w</p>')).toBe(
    'x\n\n> y\n>\n>> z\n\nw',
  );
  expect(plain('<p><a href="https://a.test/b">there</a>, <a href="https://a.test">a.test</a></p>')).toBe(
    'there <https://a.test/b>, a.test',
  );
  expect(plain('<p>seen: <img src="cid:a" alt="the berth"></p>')).toBe('seen: [the berth]');
  expect(plain('<pre>a  b\n c</pre>')).toBe('a  b\n c');
});

describe('what may leave of rich text', () => {
  test('elements by a list, and nothing that runs or is fetched', () => {
    expect(outgoingHtml('<p onclick=x style="color:red">a<script>b</script><b>c</b></p>')).toBe(
      '<p>a<strong>c</strong></p>',
    );
    expect(outgoingHtml('<a href="javascript:x">a</a><a href=" JAVA&#10;SCRIPT:x">b</a>')).toBe('<a>a</a><a>b</a>');
    expect(outgoingHtml('<img src="https://t.test/p.gif" alt="p"><img src="cid:a@b" alt="q">')).toBe(
      '[p]<img src="cid:a@b" alt="q">',
    );
    expect(outgoingHtml('<svg><a href="x">y</a></svg><math><mi>z</mi></math>')).toBe('');
    expect(outgoingHtml('a &lt;script&gt; \u202e')).toBe('a &lt;script&gt; ');
    expect(outgoingHtml('<ul><li>a<li>b</ul><p>c<p>d')).toBe('<ul><li>a</li><li>b</li></ul><p>c</p><p>d</p>');
  });
  test('cleaned twice is cleaned once, for whatever is given', () => {
    const piece = fc.constantFrom(
      '<p>',
      '</p>',
      '<ul><li>',
      '</ul>',
      '<a href="x:y">',
      '<svg>',
      '<b',
      '>',
      '"',
      '&amp;',
      '<!--',
      'text',
      '<style>',
      '</style>',
      '<blockquote>',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 30 }), (list) => {
        const once = outgoingHtml(list.join(''));
        expect(outgoingHtml(once)).toBe(once);
      }),
      { numRuns: 1_000 },
    );
  });
});

describe('a message as it leaves', () => {
  test('Bcc is in one’s own copy alone', () => {
    const bcc = [{ name: 'Cy', address: 'cy@x.test' }];
    expect(written({ bcc })).not.toMatch(/cy@x/i);
    expect(written({ bcc }, true)).toMatch(/^Bcc: Cy <cy@x\.test>\r$/m);
    expect(written({ to: [], bcc })).toMatch(/^To: undisclosed-recipients:;\r$/m);
  });
  test('no field is smuggled in by a subject, a name or a file’s name', () => {
    const evil = 'x\r\nBcc: e@e.test\r\n\r\n\0<script>\u202e';
    const raw = written({
      subject: evil,
      from: { name: evil, address: 'i@ferry.test' },
      to: [{ name: evil, address: 'a@b.test' }],
      files: [{ name: evil, type: `text/plain\r\nBcc: e@e.test`, bytes: bytes('f') }],
    });
    expect(raw).not.toMatch(/^(Bcc|<script)/m);
    expect(raw).not.toMatch(/\0|\u202e/);
    expect(parseEnvelope(bytes(raw)).attachments[0].type).toBe('application/octet-stream');
  });
  test('RFC 2231, section 3: a long name of a file is continued, and read back', () => {
    const name = `${'Förteckning över båtar '.repeat(4).trim()}.csv`;
    const raw = written({ files: [{ name, type: 'text/csv', bytes: bytes('a') }] });
    expect(raw).toMatch(/filename\*0\*=UTF-8''/);
    expect(raw).toMatch(/filename\*1\*=/);
    expect(parseEnvelope(bytes(raw)).attachments[0].name).toBe(name);
  });
  test('RFC 2046, section 5.2.1: a forwarded message goes byte for byte', () => {
    for (const original of [
      'Subject: a\r\n\r\nb =_x é\r\n',
      'Subject: a\r\n\r\nno line end',
      `Subject: a\r\n\r\n${'x'.repeat(2_000)}\r\n`,
      'Subject: a\r\n\r\nb\rc\r\n',
    ]) {
      const file = { name: 'a.eml', type: 'message/rfc822', bytes: bytes(original) };
      const raw = composeMessage(message({ files: [file] }));
      expect(attachmentBytes(raw, parseStructure(raw), 0)).toEqual(file.bytes);
    }
    const sent = composeMessage(
      message({ files: [{ name: 'a.eml', type: 'message/rfc822', bytes: bytes('Subject: a\n\nb\n') }] }),
    );
    expect(byteText(attachmentBytes(sent, parseStructure(sent), 0) ?? bytes(''))).toBe('Subject: a\r\n\r\nb\r\n');
  });
  test('pictures that the text shows are related to it, others are left out', () => {
    const picture = { name: 'p.png', type: 'image/png', bytes: bytes('p'), contentId: 'p@w' };
    const shown = composeMessage(message({ html: '<p><img src="cid:p@w"></p>', files: [picture] }));
    expect(leaves(parseStructure(shown).root).map(({ type }) => type)).toEqual([
      'text/plain',
      'text/html',
      'image/png',
    ]);
    expect(byteText(shown)).toMatch(/^Content-Type: multipart\/related; type="text\/html"; boundary=/m);
    const gone = composeMessage(message({ html: '<p>a</p>', files: [picture] }));
    expect(leaves(parseStructure(gone).root).map(({ type }) => type)).toEqual(['text/plain', 'text/html']);
  });
});
