// What a stranger sends is read in time in step with its length: each of these took the square of it, or threw, once. No
// time is measured: what takes the square of such lengths would not end before the test’s.
import { featuresOf } from '../junk/features';
import { readForJunk } from '../junk/junkReading';
import { RegisterIndex } from '../senders/register';
import { Conversations } from '../conversations/threading';
import { readScript, type ReadResult } from '../rules/sieve/read';
import { emptySetup } from './setup';
import { envelopeOf } from '../mail/envelope';
import { Message } from '../mail/message';

const encoder = new TextEncoder();

/** Reads a message as the import does. */
function read(text: string): void {
  const message = new Message(encoder.encode(text));
  const envelope = envelopeOf(message);
  featuresOf(readForJunk(message, envelope));
  new RegisterIndex([{ id: '1', kind: 'domain', value: 'x.test', standing: 'blocked', since: 0, why: '' }]).lookUp(
    envelope,
  );
  void message.text;
}

const html = (body: string): string => `From: a@b.test\nContent-Type: text/html\n\n${body}`;

test.each<[string, (n: number) => string]>([
  ['a parameter', (n) => `Content-Type: text/plain; name="${'x'.repeat(8 * n)}"\n\nx`],
  ['quoted pairs in a parameter', (n) => `Content-Type: text/plain; name="${'\\x'.repeat(4 * n)}"\n\nx`],
  ['many parameters', (n) => `Content-Type: text/plain${'; a="b"'.repeat(n)}\n\nx`],
  ['parts of a parameter', (n) => `Content-Type: text/plain${'; a*1*="b"'.repeat(n)}\n\nx`],
  ['dots in a domain', (n) => `From: a@${'.'.repeat(n)}b.test\n\nx`],
  ['labels of a domain', (n) => `From: a@${'a.'.repeat(n)}test\n\nx`],
  ['brackets in a Content-ID', (n) => `Content-Type: image/png\nContent-ID: ${'>'.repeat(n)}x\n\nx`],
  ['blanks in a subject', (n) => `Subject: a${' '.repeat(n)}b c\n\nx`],
  ['encoded words', (n) => `Subject: ${'=?utf-8?q?a?= '.repeat(n / 4)}\n\nx`],
  ['dots in a file name', (n) => `Content-Disposition: attachment; filename="a${'.'.repeat(n)}b"\n\nx`],
  ['brackets around a name', (n) => `From: ${'('.repeat(n)} a@b.test\n\nx`],
  ['references', (n) => `References: ${'<a@b> '.repeat(n)}\n\nx`],
  ['recipients', (n) => `To: ${'a@b.test, '.repeat(n / 4)}\n\nx`],
  ['&nbsp;', (n) => html('&nbsp;'.repeat(n))],
  ['<p', (n) => html('<p'.repeat(n))],
  ['<svg', (n) => html('<svg'.repeat(n))],
  ['<a ', (n) => html('<a '.repeat(n))],
  ['<div>', (n) => html('<div>'.repeat(n))],
  ['<!--', (n) => html('<!--'.repeat(n))],
  ['lines of >', (n) => `From: a@b.test\n\n${'>\n'.repeat(n)}`],
])('%s', (_what, text) => {
  expect(() => read(text(200_000))).not.toThrow();
});

test('a parameter of 12 MB is read', () => {
  const name = 'x'.repeat(12_000_000);
  const message = new Message(encoder.encode(`Content-Type: text/plain; name="${name}"\n\nx`));
  expect(() => envelopeOf(message)).not.toThrow();
});

/** Messages that answer one another. */
const tied = (id: string, references: string[]) => ({
  messageId: id,
  references,
  subject: 'Tide',
  date: 0,
  from: 'a@b.test',
  recipients: ['c@d.test'],
  listId: '',
});

test.each<[string, (n: number) => [id: string, references: string[]][]]>([
  [
    'replies that are tied anew, each to another',
    (n) => [
      ...Array.from({ length: n }, (_, i): [string, string[]] => [`z${i}`, ['r', `m${i}`]]),
      ...Array.from({ length: n }, (_, i): [string, string[]] => [`m${i}`, [`z${(i + 1) % n}`]]),
    ],
  ],
  [
    'a conversation that gets an older one above it each time',
    (n) => [
      ...Array.from({ length: n }, (_, i): [string, string[]] => [`s${i}`, []]),
      ...Array.from({ length: n - 1 }, (_, i): [string, string[]] => [`y${i}`, [`s${n - 2 - i}`, `s${n - 1 - i}`]]),
    ],
  ],
])('%s', (_what, mail) => {
  const conversations = new Conversations();
  for (const [id, references] of mail(15_000)) conversations.add(tied(id, references));
  expect(conversations.count).toBeGreaterThan(29_000);
});

test.each<[string, string, (read: ReadResult) => boolean]>([
  ['keep, again and again', 'keep;'.repeat(100_000), (read) => read.ok],
  [
    'a folder for each of 4,000 rules',
    `require "fileinto";\n${Array.from({ length: 4_000 }, (_, i) => `if header :contains "subject" "x${i}" { fileinto "New ${i}"; }\n`).join('')}`,
    (read) => read.ok && read.read.folders.length === 4_000,
  ],
  ['300,000 words in one line', 'keep; '.repeat(300_000), (read) => read.ok],
])('a Sieve script: %s', (_what, script, right) => {
  let id = 0;
  expect(right(readScript(script, emptySetup, () => `n${id++}`))).toBe(true);
});
