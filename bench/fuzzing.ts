// What a stranger might send, made by chance: real messages altered, messages made by a grammar, and files of settings
// altered. One source of chance, so that a failure can be seen again.

import { joinBytes } from '../src/core/data/bytes';
import type { Random } from './chance';

const pick = <T>(random: Random, list: readonly T[]): T => list[random(list.length)];

/** Pieces that parsers trip over. */
const pieces = [
  ...[
    '\r',
    '\n',
    '\r\n',
    '\r\n\r\n',
    '\0',
    '\t',
    ' ',
    '"',
    "'",
    '(',
    ')',
    '<',
    '>',
    ',',
    ';',
    ':',
    '=',
    '\\',
    '@',
    '.',
  ],
  ...[
    '=?utf-8?q?',
    '?=',
    '=?x?b?',
    '=\r\n',
    '=00',
    '&nbsp;',
    '&#',
    '&#x110000;',
    '<!--',
    '-->',
    '<p',
    '<svg',
    '<a ',
    '<style>',
  ],
  ...[
    '--',
    '--b',
    '\r\n--b\r\n',
    '\r\n--b--\r\n',
    'Content-Type: ',
    'multipart/mixed; boundary=b',
    'message/rfc822',
    'charset=',
  ],
  ...[
    '\u00e9',
    '\ufeff',
    '\u202e',
    '\ud800',
    '\u0301',
    '%41',
    "name*0*=utf-8''",
    'filename="',
    'From ',
    '>From ',
    '//',
    '/*',
    '*/',
  ],
  ...[
    'text:',
    '"""',
    '${hex:',
    'require',
    '[',
    ']',
    '{',
    '}',
    'null',
    '1e300',
    '-1',
    'true',
    '__proto__',
    'constructor',
    '../../',
  ],
];

const encoder = new TextEncoder();
export const bytesOf = (text: string): Uint8Array<ArrayBuffer> => encoder.encode(text);

/** How often a piece is said again at most, and how long what comes of it may be. */
const mostRepeats = 30_000;
const longest = 300_000;

/** One alteration of some bytes. */
function altered(bytes: Uint8Array, random: Random): Uint8Array<ArrayBuffer> {
  const at = random(bytes.length + 1);
  const [before, after] = [bytes.subarray(0, at), bytes.subarray(at)];
  switch (random(7)) {
    case 0:
      return joinBytes([before, after.subarray(random(Math.min(200, after.length + 1)))]);
    case 1:
      return joinBytes([before]);
    case 2: {
      const copy = Uint8Array.from(bytes);
      for (let n = random(20); n >= 0 && copy.length; n--) copy[random(copy.length)] ^= 1 << random(8);
      return copy;
    }
    case 3:
      return joinBytes([before, bytesOf(pick(random, pieces)), after]);
    case 4: {
      // Said again and again: what takes more than linear time shows by it.
      const piece = bytesOf(pick(random, pieces) + (random(2) ? pick(random, pieces) : ''));
      const times = Math.min(random(mostRepeats), Math.floor(longest / piece.length));
      return joinBytes([before, ...Array.from({ length: times }, () => piece), after]);
    }
    case 5: {
      const part = bytes.subarray(at, at + random(300));
      const times = random(Math.floor(longest / (part.length + 1)));
      return joinBytes([before, ...Array.from({ length: Math.min(times, 2_000) }, () => part), after]);
    }
    default: {
      const from = random(bytes.length + 1);
      return joinBytes([before, bytes.subarray(from, from + random(2_000)), after]);
    }
  }
}

/** Some bytes altered once or a few times. */
export function mutated(bytes: Uint8Array, random: Random): Uint8Array<ArrayBuffer> {
  let out = Uint8Array.from(bytes);
  for (let n = random(3); n >= 0; n--) out = altered(out, random);
  return out.subarray(0, 2_000_000);
}

/** A text altered. */
export const mutatedText = (text: string, random: Random): string =>
  new TextDecoder().decode(mutated(bytesOf(text), random));

const word = (random: Random): string =>
  random(4)
    ? pick(random, ['a', 'tide', 'Höchst', 'x'.repeat(random(90)), '日本', 'a.b', '-', ''])
    : pick(random, pieces);

const types = ['text/plain', 'text/html', 'image/png', 'message/rfc822', 'application/pdf', 'text/calendar', 'x', ''];
const encodings = ['base64', 'quoted-printable', '7bit', '8bit', 'binary', 'uuencode', '', 'BASE64 '];

function parameters(random: Random): string {
  const one = () =>
    `${pick(random, ['charset', 'name', 'name*', 'name*0*', 'name*1', 'boundary', 'x', ''])}=${word(random)}`;
  return Array.from({ length: random(4) }, () => `;${random(2) ? ' ' : '\r\n\t'}${one()}`).join('');
}

function html(random: Random): string {
  const names = ['p', 'b', 'div', 'table', 'td', 'a', 'style', 'svg', 'blockquote', 'br', 'img', 'x', '!--'];
  return Array.from(
    { length: random(60) },
    () =>
      `<${random(3) ? '' : '/'}${pick(random, names)}${random(3) ? '' : ` href=${word(random)}`}${random(9) ? '>' : ''}${word(random)}`,
  ).join('');
}

function part(random: Random, depth: number): string {
  const many = depth < 6 && random(3) === 0;
  const boundary = `b${random(3)}`;
  const type = many
    ? pick(random, ['multipart/mixed', 'multipart/alternative', 'multipart/related', 'multipart/digest'])
    : pick(random, types);
  const head =
    `Content-Type: ${type}${many ? `; boundary=${boundary}` : ''}${parameters(random)}\r\n` +
    (random(2) ? `Content-Transfer-Encoding: ${pick(random, encodings)}\r\n` : '') +
    (random(3) ? '' : `Content-Disposition: attachment${parameters(random)}\r\nContent-ID: <${word(random)}>\r\n`);
  if (!many)
    return `${head}\r\n${random(2) ? html(random) : Array.from({ length: random(30) }, () => word(random)).join(' ')}`;
  const inner = Array.from({ length: random(4) }, () => `--${boundary}\r\n${part(random, depth + 1)}\r\n`).join('');
  return `${head}\r\n${inner}${random(4) ? `--${boundary}--\r\n` : ''}`;
}

/** A message made by a grammar that is a little wrong everywhere. */
export function madeMessage(random: Random): Uint8Array<ArrayBuffer> {
  const names = [
    'From',
    'To',
    'Cc',
    'Subject',
    'Date',
    'Message-ID',
    'References',
    'In-Reply-To',
    'Received',
    'List-Id',
    'Reply-To',
  ];
  const value = () =>
    random(3)
      ? Array.from({ length: random(8) }, () => word(random)).join(random(2) ? ' ' : ', ')
      : pick(random, [
          'A <a@b.test>',
          '=?utf-8?q?=41?= <a@b>',
          '<x@y>',
          'Tue, 3 Nov 2026 10:00:00 +0100',
          'a@b; c@d;',
          '(',
          '"',
        ]);
  const fields = Array.from(
    { length: random(15) },
    () => `${pick(random, names)}:${random(5) ? ' ' : ''}${value()}${pick(random, ['\r\n', '\r\n', '\n', '\r'])}`,
  );
  return bytesOf(`${fields.join('')}${part(random, 0)}`);
}

/** Any value that JSON knows, and some it does not. */
export function anything(random: Random, depth = 0): unknown {
  const simple = [
    null,
    undefined,
    true,
    0,
    -1,
    1.5,
    NaN,
    Infinity,
    1e300,
    2 ** 31,
    '',
    'inbox',
    'x'.repeat(3_000),
    '__proto__',
  ];
  switch (random(depth > 3 ? 2 : 6)) {
    case 0:
      return pick(random, simple);
    case 1:
      return pick(random, [...pieces, 'folder:f', 'subject tide', 'do', 'move', 'mbox', 'own', 'demo']);
    case 2:
      return Array.from({ length: random(4) }, () => anything(random, depth + 1));
    case 3:
      return new Uint8Array(random(9));
    default: {
      const keys = [
        'ids',
        'view',
        'kind',
        'place',
        'do',
        'value',
        'list',
        'id',
        'item',
        'to',
        'text',
        'label',
        'name',
        'grouped',
      ];
      return Object.fromEntries(
        Array.from({ length: random(5) }, () => [pick(random, keys), anything(random, depth + 1)]),
      );
    }
  }
}

/** JSON in which one value is another. */
export function mutatedJson(value: unknown, random: Random): unknown {
  if (random(5) === 0 || typeof value !== 'object' || value === null) return anything(random);
  if (Array.isArray(value)) {
    if (value.length === 0 || random(6) === 0) return [...(value as unknown[]), anything(random)];
    const at = random(value.length);
    return value.map((item: unknown, i) => (i === at ? mutatedJson(item, random) : item));
  }
  const keys = Object.keys(value);
  if (keys.length === 0) return anything(random);
  const key = pick(random, keys);
  return { ...value, [key]: mutatedJson((value as Record<string, unknown>)[key], random) };
}
