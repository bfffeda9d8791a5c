import { parseEnvelope } from '../mail/envelope';
import { featuresOf, namedFeaturesOf } from './features';
import { withSender } from './senderFeatures';
import { JunkModel } from './model';
import { readForJunk, type JunkReading } from './junkReading';
import { signalsOf } from './signals';
import { evidenceOf } from './evidence';
import { scoreOf } from './verdict';
import { Message } from '../mail/message';

function read(text: string): JunkReading {
  const raw = new TextEncoder().encode(text.replace(/\n/g, '\r\n'));
  return readForJunk(new Message(raw), parseEnvelope(raw));
}

const plain = 'From: Ana <ana@harbour.example>\nTo: desk@ferry.example\nSubject: Berth 4\n';
const words = (reading: JunkReading, kind: string) =>
  namedFeaturesOf(reading).flatMap((feature) => (feature.kind === kind ? [feature.word] : []));
const signals = (reading: JunkReading) => signalsOf(reading, true).map(({ name }) => name);

test('words of text, subject, sender and links, each once', () => {
  const reading = read(`${plain}\nThe berth is free. The pilot waits: https://news.harbour.example/tide/table?x=1\n`);
  expect(words(reading, 'text')).toEqual(expect.arrayContaining(['the', 'berth', 'pilot', 'waits']));
  expect(words(reading, 'text').filter((word) => word === 'the')).toHaveLength(1);
  expect(words(reading, 'subject')).toEqual(['berth']);
  expect(words(reading, 'sender')).toEqual(['ana@harbour.example', 'harbour.example', 'example']);
  expect(words(reading, 'sender name')).toEqual(['ana']);
  expect(words(reading, 'link')).toEqual(['news.harbour.example', 'harbour.example', 'example']);
});

test('a script without spaces is read in pairs of characters', () => {
  const reading = read(`${plain}Content-Type: text/plain; charset=utf-8\n\n港口通知 ab\n`);
  expect(words(reading, 'text')).toEqual(['港口', '口通', '通知', 'ab']);
});

test('the slots are those of the named features', () => {
  const reading = read(`${plain}\nFree money now!!! 港口通知 Straße $100 http://10.0.0.1/pay\n`);
  const named = namedFeaturesOf(reading).map(({ slot }) => slot);
  expect([...featuresOf(reading)]).toEqual(named.sort((a, b) => a - b));
});

test('what tells who delivered or wrote it, and when, is not read', () => {
  const more =
    'Received: from a by b\nDate: Tue, 24 Nov 2026 10:00:00 +0000\nMessage-ID: <1@x>\nReferences: <2@x>\n' +
    'X-Mailer: Post 5\nX-Spam-Flag: YES\nReturn-Path: <q@z>\nUser-Agent: Q\nPrecedence: bulk\n';
  expect(featuresOf(read(`${more}${plain}\nText\n`))).toEqual(featuresOf(read(`${plain}\nText\n`)));
});

test('what mailing software and servers say counts only where it is asked for', () => {
  const list = `${plain}List-Id: <crew.ferry.example>\nList-Unsubscribe: <mailto:x@y.example>\nAuto-Submitted: auto-generated\nAuthentication-Results: mx.ferry.example; dmarc=fail; spf=pass\n\nText\n`;
  expect(featuresOf(read(list), false)).toEqual(featuresOf(read(`${plain}\nText\n`), false));
  expect(signals(read(list))).toEqual(
    expect.arrayContaining(['bulk list', 'bulk leave', 'bulk automatic', 'dmarc fail', 'spf pass']),
  );
});

test.each([
  ['reply elsewhere', 'Reply-To: x@other.example\n', ''],
  ['money', '', 'Only $99'],
  ['link to a number', '', 'http://10.1.2.3/x'],
  ['links to sender all', '', 'https://www.harbour.example/'],
  ['links to sender none', '', 'https://www.elsewhere.test/'],
  ['quotes 1', '', '> said before'],
  ['only html', 'Content-Type: text/html\n', '<p>Hello</p>'],
  ['form', 'Content-Type: text/html\n', '<form><input></form>'],
])('the signal “%s”', (name, header, text) => {
  expect(signals(read(`${plain}${header}\n${text}\n`))).toContain(name);
  expect(signals(read(`${plain}\nNothing of the kind\n`))).not.toContain(name);
});

test('twenty megabytes, and bytes that are no text, are read in parts and without a fault', () => {
  const large = new Uint8Array(20_000_000).fill(97);
  large.set(new TextEncoder().encode(`${plain}\n`.replace(/\n/g, '\r\n')));
  expect(featuresOf(readForJunk(new Message(large), parseEnvelope(large))).length).toBeGreaterThan(10);
  const noise = Uint8Array.from({ length: 50_000 }, (_, i) => (i * 7919) % 256);
  expect(featuresOf(readForJunk(new Message(noise), parseEnvelope(noise))).length).toBeGreaterThan(0);
});

test('the evidence is in words, for and against, the heaviest first', () => {
  const model = new JunkModel();
  model.learn(featuresOf(read(`${plain}\nguaranteed prize\n`)), true);
  model.learn(featuresOf(read(`${plain}\ngangway rota\n`)), false);
  const evidence = evidenceOf(model, read(`${plain}\nguaranteed gangway\n`), 50);
  expect(evidence.find(({ says }) => says === '“guaranteed” in its text')?.weight).toBeGreaterThan(0);
  expect(evidence.find(({ says }) => says === '“gangway” in its text')?.weight).toBeLessThan(0);
  const weights = evidence.map(({ weight }) => Math.abs(weight));
  expect(weights).toEqual([...weights].sort((a, b) => b - a));
  expect(evidenceOf(new JunkModel(), read(`${plain}\nx\n`))).toEqual([]);
});

test('what is known of a sender is weighed with the rest', () => {
  const reading = read(`${plain}\nHello\n`);
  const features = withSender(featuresOf(reading), ['imitates a name']);
  expect(features.length).toBe(featuresOf(reading).length + 1);
  expect(features).toEqual(features.slice().sort());
  expect(withSender(features, [])).toBe(features);
  const model = new JunkModel();
  model.learn(features, true);
  const says = evidenceOf(model, reading, 50, ['imitates a name']).map((one) => one.says);
  expect(says).toContain('it bears the name of somebody you know, from elsewhere');
});

test('a score is 50 in the middle, near 0 and 100 where it is clear', () => {
  expect([-1, 0, 1].map(scoreOf)).toEqual([1.8, 50, 98.2]);
});
