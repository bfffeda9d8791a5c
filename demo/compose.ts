// From words to raw messages: bodies plain and HTML, quoted answers, attachments.
import type { Address } from '../src/core/mail/address';
import { writeMessage, type MessageToWrite, type MultipartToWrite, type PartToWrite } from '../src/core/mail/writing';
import { encodeCharset } from './charsets';
import { csv, pdf, png } from './files';
import { expand, type Matter, type Random } from './random';
import { lexicon } from './lexicon';

const encoder = new TextEncoder();

/** What a template says, begun with a capital as sentences and subjects are. */
export const say = (template: string, random: Random, matter?: Matter): string =>
  expand(template, lexicon, random, matter).replace(/^[a-z]/, (letter) => letter.toUpperCase());

/** A body as plain text, in the encoding that its characters need. */
export function textPart(text: string, charset = 'utf-8'): PartToWrite {
  const bytes = encodeCharset(text.replace(/\r?\n/g, '\r\n'), charset);
  const ascii = bytes.every((b) => b < 128);
  const long = text.split('\n').some((line) => line.length > 900);
  return {
    type: 'text/plain',
    charset: ascii ? 'us-ascii' : charset,
    bytes,
    encoding: ascii && !long ? '7bit' : /^(gb|shift|koi)/.test(charset) ? 'base64' : 'quoted-printable',
  };
}

const escapeHtml = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** A body as HTML: paragraphs, perhaps a table and pictures that would have to be fetched. */
export function htmlPart(html: string, charset = 'utf-8'): PartToWrite {
  return { type: 'text/html', charset, bytes: encodeCharset(html, charset), encoding: 'quoted-printable' };
}

export function paragraphs(lines: readonly string[]): string {
  return lines.map((line) => `<p>${escapeHtml(line)}</p>`).join('\n');
}

/** Plain text as HTML: lines kept, what is quoted set in. */
function htmlOfText(text: string): string {
  let depth = 0;
  let out = '';
  for (const line of text.split('\n')) {
    const [, marks, rest] = /^((?:> ?)*)(.*)$/.exec(line) ?? ['', '', line];
    const level = marks.replace(/ /g, '').length;
    for (; depth < level; depth++) out += '<blockquote>';
    for (; depth > level; depth--) out += '</blockquote>';
    out += `${escapeHtml(rest)}<br>\n`;
  }
  return out + '</blockquote>'.repeat(depth);
}

/** A part with a boundary of its own. */
export function multipart(
  type: MultipartToWrite['type'],
  parts: MultipartToWrite['parts'],
  random: Random,
): MultipartToWrite {
  return { type, boundary: `=_${random.hex(20)}`, parts };
}

/** A file that belongs to a topic of the ferry trade. */
export function attachment(random: Random, about: string, matter: Matter): PartToWrite {
  const kind = random.pick(['pdf', 'png', 'csv', 'pdf', 'png', 'txt'] as const);
  const stem = random.pick([
    'survey',
    'plate',
    'freight list',
    'rota',
    'Skizze Dichtung',
    'photo',
    'förteckning',
    'report',
  ]);
  const filename = `${stem} ${random.int(1, 60)}.${kind}`;
  const encoding = 'base64' as const;
  switch (kind) {
    case 'pdf':
      return {
        type: 'application/pdf',
        bytes: pdf([about, '', say('{aside}', random, matter), say('{money}', random)]),
        encoding,
        filename,
      };
    case 'png':
      return { type: 'image/png', bytes: png(random), encoding, filename };
    case 'csv':
      return {
        type: 'text/csv',
        charset: 'utf-8',
        bytes: csv([
          ['harbour', 'time', 'cars'],
          ...Array.from({ length: random.int(3, 12) }, () => [
            say('{harbour}', random),
            say('{time}', random),
            random.int(0, 40),
          ]),
        ]),
        encoding,
        filename,
      };
    case 'txt':
      return {
        type: 'text/plain',
        charset: 'utf-8',
        bytes: encoder.encode(`${about}\n${say('{aside}', random, matter)}\n`),
        encoding,
        filename,
      };
  }
}

/** A message's own words, as they are quoted by an answer. */
export function quote(text: string): string {
  return text
    .split('\n')
    .map((line) => `>${line.startsWith('>') ? '' : ' '}${line}`)
    .join('\n');
}

/** Folds words to lines of at most 72 characters, as mail in plain text has always been written. */
export function fill(text: string): string {
  let out = '';
  let line = '';
  for (const word of text.split(' ')) {
    if (line && line.length + word.length + 1 > 72) {
      out += `${line}\n`;
      line = word;
    } else line = line ? `${line} ${word}` : word;
  }
  return out + line;
}

/** A plain message with perhaps an HTML twin and perhaps attachments. */
export function bodyOf(
  text: string,
  random: Random,
  options: { charset?: string; html?: boolean; files?: PartToWrite[] },
): MessageToWrite['body'] {
  const plain = textPart(text, options.charset);
  let body: MessageToWrite['body'] = plain;
  if (options.html) {
    const html = `<html><body style="font-family: sans-serif">${htmlOfText(text)}</body></html>`;
    body = multipart('multipart/alternative', [plain, htmlPart(html, options.charset ?? 'utf-8')], random);
  }
  if (options.files?.length) body = multipart('multipart/mixed', [body, ...options.files], random);
  return body;
}

/** Trace fields that every delivered message bears (RFC 5321, section 4.4). */
export function traceFields(from: Address, to: string, date: string, random: Random): [string, string][] {
  const domain = from.address.slice(from.address.lastIndexOf('@') + 1);
  return [
    ['Return-Path', `<${from.address}>`],
    [
      'Received',
      `from mx.${domain} (mx.${domain} [192.0.2.${random.int(1, 254)}]) by mail.skerryline.example with ESMTPS id ${random.hex(10)} for <${to}>; ${date}`,
    ],
  ];
}

export { writeMessage };
