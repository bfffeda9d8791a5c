import { parseEnvelope } from '../mail/envelope';
import { Message } from '../mail/message';
import { featuresOf, namedFeaturesOf } from './features';
import { readForJunk, type JunkReading } from './junkReading';
import { featureWords } from './verdict';

function read(from: string, subject: string, text: string): JunkReading {
  const raw = new TextEncoder().encode(`From: ${from}\r\nSubject: ${subject}\r\n\r\n${text}\r\n`);
  return readForJunk(new Message(raw), parseEnvelope(raw));
}
const of = (reading: JunkReading, kind: string) => namedFeaturesOf(reading, false).filter((one) => one.kind === kind);
const slots = (reading: JunkReading, kind: string) => new Set(of(reading, kind).map(({ slot }) => slot));

test('a word that is spelt otherwise shares pieces with itself, and is told by its word', () => {
  const [one, other, third] = ['guaranteed prize', 'guarant33d prize', 'berth four'].map((subject) =>
    read('a@b.test', subject, 'x'),
  );
  const shared = (a: JunkReading, b: JunkReading) =>
    [...slots(a, 'subject piece')].filter((slot) => slots(b, 'subject piece').has(slot)).length;
  expect(shared(one, other)).toBeGreaterThan(8);
  expect(shared(one, third)).toBe(0);
  // A piece that lies mostly between words is told as it is.
  expect(new Set(of(one, 'subject piece').map(featureWords))).toEqual(
    new Set(['“guaranteed” in its subject', '“prize” in its subject', '“d pr” in its subject']),
  );
});

test('pieces of a sender are told by their name and their whole address', () => {
  const words = new Set(of(read('Ann Lee <ann.lee@harbour.example>', 'x', 'x'), 'sender piece').map(featureWords));
  expect([...words]).toEqual(
    expect.arrayContaining(['“lee” in its sender’s name', 'the sender ann.lee@harbour.example']),
  );
});

test('runs of marks, and how things are built', () => {
  const reading = read('Bob17 <xz99q@b.test>', 'WIN 100', 'Dear FRIEND, act now!!! http://b17.test/a/9x');
  expect(of(reading, 'marks').map(({ word }) => word)).toEqual(['!!!', '://']);
  expect(of(reading, 'shape').map(featureWords)).toEqual([
    'a sender’s address written like “abc123abc”',
    'a sender’s name written like “Abc123”',
    'a subject written like “ABC 123”',
    'a link written like “abc/123abc”',
    'a link to a host written like “abc123.abc”',
  ]);
});

test('what is endless is read in part, what is empty has no pieces', () => {
  const long = read(`${'n'.repeat(100_000)} <a@b.test>`, 'S!'.repeat(100_000), '!?'.repeat(5_000));
  expect(of(long, 'subject piece').length).toBeLessThan(20);
  expect(Math.max(...of(long, 'shape').map(({ word }) => word.length))).toBeLessThan(40);
  expect(of(long, 'marks').every(({ word }) => word.length <= 6)).toBe(true);
  expect(of(read('', '', ''), 'marks')).toEqual([]);
  // Letters whose small form is longer.
  expect(featuresOf(read('İİİ <i@b.test>', 'İİİ İİİ', 'İİİ')).length).toBeGreaterThan(0);
});
