import fc from 'fast-check';
import { fromLineOf, MboxSplitter, messageOf, sniffMail, toEml, toMbox } from './mbox';

const bytes = (text: string) => new TextEncoder().encode(text);
const text = (data: Uint8Array) => new TextDecoder().decode(data);

function split(file: Uint8Array, size = file.length || 1): string[] {
  const splitter = new MboxSplitter();
  const out: Uint8Array[] = [];
  for (let at = 0; at < file.length; at += size) out.push(...splitter.push(file.subarray(at, at + size)));
  out.push(...splitter.end());
  return out.map(text);
}

const from = 'From joe@where.test Thu Aug 22 12:36:23 2002\n';

describe('RFC 4155, appendix A', () => {
  const one = `${from}Subject: one\n\nHello\n\n`;
  const two = `${from}Subject: two\n\n>From here on\n\n`;

  test('messages begin with a From_ line and end with an empty line', () => {
    expect(split(bytes(one + two))).toEqual([one, two]);
    expect(fromLineOf(bytes(one))).toBe(from.trimEnd());
  });

  test('the message is what stands between, its “From ” lines unquoted', () => {
    expect(text(messageOf(bytes(one), 'mbox'))).toBe('Subject: one\n\nHello\n');
    expect(text(messageOf(bytes(two), 'mbox'))).toBe('Subject: two\n\nFrom here on\n');
  });

  test('a From_ line is written with the sender and the date in UTC', () => {
    const written = text(
      toMbox(bytes('Subject: x\n\nFrom me\n>From you\n'), 'eml', 'a@b.test', Date.UTC(2026, 0, 5, 9, 8, 7), false),
    );
    expect(written).toBe('From a@b.test Mon Jan  5 09:08:07 2026\nSubject: x\n\n>From me\n>>From you\n\n');
    expect(text(messageOf(bytes(written), 'mbox'))).toBe('Subject: x\n\nFrom me\n>From you\n');
  });
});

describe('files in use (common practice, no source)', () => {
  test.each([
    ['a “From ” within a paragraph', `${from}A: b\n\nthe boat\nFrom Vedra came late\n`, 1],
    [
      'a “From ” after an empty line, but neither dated nor before a header',
      `${from}A: b\n\nHi\n\nFrom Vedra with love,\nTern\n`,
      1,
    ],
    [
      'a dated From_ line with no empty line before it, but a header after it',
      `${from}A: b\n\ncut off${'\n'}${from}C: d\n\nHi\n`,
      2,
    ],
    [
      '“From ” after an empty line and before what looks like a field, without a date',
      `${from}A: b\n\nHi\n\nFrom the site\nNote: closed\n\nHi\n`,
      1,
    ],
    ['a dated From_ line after an empty line, before a damaged header', `${from}A: b\n\nHi\n\n${from}no field\n`, 2],
    ['CRLF line ends', `${from}A: b\n\nHi\n\n${from}C: d\n\nHi\n`.replace(/\n/g, '\r\n'), 2],
    ['what stands before the first From_ line', `X: y\n\nHi\n\n${from}A: b\n\nHi\n`, 2],
  ])('%s', (_what, file, count) => {
    const messages = split(bytes(file));
    expect(messages).toHaveLength(count);
    expect(messages.join('')).toBe(file);
  });

  test('chunks of any size give the same messages, and joined they are the file', () => {
    const line = fc.constantFrom(
      '',
      'A: b',
      from.trimEnd(),
      '>From x',
      'From a to b',
      'text',
      'From x@y.test Mon Jan  5 09:08:07 2026',
      '\r',
    );
    fc.assert(
      fc.property(fc.array(line, { maxLength: 40 }), fc.integer({ min: 1, max: 50 }), (lines, size) => {
        const file = bytes(lines.join('\n'));
        const whole = split(file);
        expect(whole.join('')).toBe(text(file));
        expect(split(file, size)).toEqual(whole);
      }),
      { numRuns: 500 },
    );
  });

  test('a message survives the way through an mbox and back, whatever its lines', () => {
    const line = fc.constantFrom('', 'From a', '>From b', '>>>From c', 'x', '> From d');
    fc.assert(
      fc.property(fc.array(line, { maxLength: 20 }), (lines) => {
        const message = `A: b\n\n${lines.join('\n')}\n`;
        const stored = toMbox(bytes(message), 'eml', 'a@b.test', 0, false);
        expect(text(messageOf(stored, 'mbox'))).toBe(message);
        expect(text(toEml(bytes(message), 'eml'))).toBe(message);
      }),
    );
  });

  test('a cut file gets the line ends that it lacks when another message follows', () => {
    const cut = bytes(`${from}A: b\n\nHi`);
    expect(text(toMbox(cut, 'mbox', '', 0, true))).toBe(text(cut));
    expect(text(toMbox(cut, 'mbox', '', 0, false))).toBe(`${text(cut)}\n\n`);
  });
});

test.each([
  ['an mbox', bytes(from), 'mbox'],
  ['a message', bytes('Received: from x\n'), 'eml'],
  ['a message after empty lines', bytes('\n\nSubject: x\n'), 'eml'],
  ['nothing', bytes(''), 'empty'],
  ['blanks', bytes(' \n\n'), 'empty'],
  ['a picture', Uint8Array.of(137, 80, 78, 71, 13, 10, 26, 10, 0, 0), 'neither'],
  ['a page', bytes('<!doctype html>'), 'neither'],
  ['prose', bytes('Dear all,\nit rains.'), 'neither'],
])('sniffs %s', (_what, start, kind) => {
  expect(sniffMail(start)).toBe(kind);
});
