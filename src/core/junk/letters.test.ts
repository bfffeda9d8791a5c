import fc from 'fast-check';
import { parseEnvelope } from '../mail/envelope';
import { Message } from '../mail/message';
import { featuresOf, namedFeaturesOf } from './features';
import { readForJunk, type JunkReading } from './junkReading';
import { wordOfPiece } from './letters';
import { JunkModel } from './model';
import { featureKinds, firstLetterSlot, slots } from './slots';
import { evidenceOf } from './evidence';

function read(from: string, subject: string, text: string): JunkReading {
  const raw = new TextEncoder().encode(
    `From: ${from}\r\nSubject: ${subject}\r\nContent-Type: text/plain; charset=utf-8\r\n\r\n${text}\r\n`,
  );
  return readForJunk(new Message(raw), parseEnvelope(raw));
}
const letters = (reading: JunkReading): Set<number> =>
  new Set([...featuresOf(reading, false)].filter((slot) => slot >= firstLetterSlot));
const of = (text: string) => letters(read('a@b.test', 'x', text));

test('two and three letters at a time, with a blank at both ends; any blanks are one, capitals are small letters', () => {
  // Of “ab”: a blank and a, ab, b and a blank; the same with a third.
  const empty = of('');
  expect([...of('ab')].filter((slot) => !empty.has(slot)).length).toBeGreaterThanOrEqual(5 - 1);
  expect(of('Ab\r\n\r\n\t  CD')).toEqual(of('ab cd'));
  expect(of('ab cd')).not.toEqual(of('abcd'));
  // Where a piece was found makes no difference.
  const [subject, text] = [read('a@b.test', 'prize', 'x'), read('a@b.test', 'x', 'prize')].map(letters);
  expect(text).toEqual(subject);
});

test('a word that is spelt otherwise shares most of its pieces with itself', () => {
  const shared = (a: Set<number>, b: Set<number>) => [...a].filter((slot) => b.has(slot)).length / a.size;
  expect(shared(of('guaranteed guaranteed'), of('guarant33d'))).toBeGreaterThan(0.6);
});

test('any text: slots that are there, bounded by how far it is read, and the end beyond that changes nothing', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 300 }), (text) => {
      return [...of(text)].every((slot) => slot < slots);
    }),
    { numRuns: 60 },
  );
  const long = 'abcdefghijklmnop qrstuvw '.repeat(200);
  expect(of(`${long}tail`)).toEqual(of(`${long}another end`));
});

test('a piece is told by the word in which it mostly stands, or before it, or by a whole address', () => {
  const text = '!! see guaranteed, ** prize';
  const at = (piece: string) => [text.indexOf(piece), text.indexOf(piece) + piece.length] as const;
  const words = ['!!', ' se', 'gua', 'ed', 'd,', ', *', '* p', 'pri'].map((piece) =>
    wordOfPiece(featureKinds.indexOf('text piece'), text, ...at(piece)),
  );
  expect(words).toEqual(['!!', 'see', ...Array(4).fill('guaranteed'), 'prize', 'prize']);
  expect(wordOfPiece(featureKinds.indexOf('address piece'), 'eve+x@b.test', 3, 5)).toBe('eve+x@b.test');
  expect(wordOfPiece(featureKinds.indexOf('text piece'), 'x', 0, 2)).toBe('x');
  const named = namedFeaturesOf(read('Ann <ann@b.test>', 'A b', `c!  ${'d'.repeat(90)}`));
  expect(named.filter(({ word }) => word.trim() === '')).toEqual([]);
});

test('in the evidence a word stands once, with its pieces, and all together is the margin', () => {
  const model = new JunkModel();
  model.learn(featuresOf(read('a@b.test', 'x', 'guaranteed prize')), true);
  const reading = read('a@b.test', 'x', 'a guarant33d. berth');
  const evidence = evidenceOf(model, reading, Infinity);
  expect(evidence.find(({ says }) => says === '“guarant33d” in its text')?.weight).toBeGreaterThan(0);
  expect(new Set(evidence.map(({ says }) => says)).size).toBe(evidence.length);
  expect(evidence.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(model.margin(featuresOf(reading)), 9);
});
