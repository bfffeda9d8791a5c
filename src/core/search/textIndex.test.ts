import fc from 'fast-check';
import { parseStructure } from '../mail/structure';
import { DeepTexts } from '../rules/deep';
import { foldAscii } from '../text/collation';
import { Dictionary } from './dictionary';
import { TextBatchWriter, type TextBatch } from './textBatch';
import { TextSegment } from './textIndex';
import { segmentSize } from './units';
import { Message } from '../mail/message';

const bodies = ['The tide is high.', 'the TIDEWAY, is', '', 'Höchst high tide', 'is high', 'a-b_c https://x.test/?q=1'];

const bytes = (text: string) => new TextEncoder().encode(text);
const fieldsOf = (header: string) => parseStructure(bytes(`${header}\n\n`)).fields;

function batchOf(list: readonly string[], header: (body: string) => string = () => ''): TextBatch {
  const writer = new TextBatchWriter();
  for (const body of list) writer.add({ text: body, fields: fieldsOf(header(body)) });
  return writer.batch();
}
function segmentOf(list: readonly string[], header?: (body: string) => string): TextSegment {
  const segment = new TextSegment();
  const batch = batchOf(list, header);
  for (const at of list.keys()) segment.add(batch, at);
  return segment;
}
const ids = (marks: Uint8Array) => [...marks.keys()].filter((i) => marks[i]);

test.each<[string, number[]]>([
  ['tide', [0, 1, 3]],
  ['x.test/?q', [5]],
  ['b_', [5]],
  ['höchst', [3]],
  ['nowhere', []],
  ['tide is', [0]],
  ['is high', [0, 4]],
  ['igh tid', [3]],
  // Both words are there, though not side by side.
  ['high. the', []],
  ['tide is high', [0]],
  [' is', [0, 1]],
  ['is ', [0, 4]],
  [' ', [0, 1, 3, 4, 5]],
])('“%s” is found in %j', (text, expected) => {
  const open = segmentOf(bodies);
  for (const segment of [open, TextSegment.of(open.pack())]) expect(ids(segment.holding(text))).toEqual(expected);
});

test('header fields are found by name with what they say, and are no part of the text', () => {
  const header = [
    'Subject: =?utf-8?q?H=C3=B6he?= of Tide',
    'X-Kind: one',
    'x-kind: Two  three,\tfour',
    'Received: from here by there',
    'X-Empty:',
    'X-Mark: a\u0001b',
  ].join('\n');
  const open = segmentOf(['body', 'none', 'tide'], (body) => (body === 'none' ? 'From: a@x.test' : header));
  for (const segment of [open, TextSegment.of(open.pack())]) {
    const said = (name: string) => {
      const out: [number, string | null][] = [];
      segment.eachField(name, (value, messages) => messages.forEach((message) => out.push([message, value])));
      return out.toSorted(([a], [b]) => a - b);
    };
    expect(said('SUBJECT').map(([, value]) => value)).toEqual(['höhe of tide', 'höhe of tide']);
    expect(said('X-Kind')).toEqual(
      [0, 2].flatMap((i) => [
        [i, 'one'],
        [i, 'two  three,\tfour'],
      ]),
    );
    // What nobody looks for, and what looks like our own marks, has to be read in the message.
    for (const name of ['received', 'x-mark'])
      expect(said(name)).toEqual([
        [0, null],
        [2, null],
      ]);
    expect(said('x-empty')).toEqual([
      [0, ''],
      [2, ''],
    ]);
    expect([said('x-kin'), said('x-none')]).toEqual([[], []]);
    expect(ids(segment.holding('tide'))).toEqual([2]);
    expect(ids(segment.holding('x-kind'))).toEqual([]);
  }
});

test('the index finds what reading finds, also after it was stored, cut, and went on', () => {
  const word = fc.constantFrom('fuel', 'Fuel,', 'refuel', 'oil', 'ÖL', 'a', 'ab', '\n', '\u00a0', '\t');
  const body = fc.array(word, { maxLength: 6 }).map((words) => words.join(' '));
  const lists = fc.tuple(fc.array(body, { maxLength: 20 }), fc.nat(20), fc.array(body, { maxLength: 10 }));
  const others = fc.array(word.filter((one) => one.trim() !== ''));
  const sought = fc.constantFrom('fuel', 'el', 'a', 'oil a', 'l, re', 'ab a ab', ' a', 'l ', 'a a', 'ÖL');
  const raw = (text: string) => bytes(`Content-Type: text/plain; charset=utf-8\n\n${text}`);
  fc.assert(
    fc.property(lists, others, sought, ([first, cut, more], before, text) => {
      const keep = Math.min(cut, first.length);
      // Some words have their numbers already, in another order.
      const dictionary = new Dictionary();
      for (const one of before) dictionary.numberOf(foldAscii(one));
      const segment = TextSegment.of(segmentOf(first).pack(), keep, dictionary);
      const batch = batchOf(more);
      for (const at of more.keys()) segment.add(batch, at);
      const all = [...first.slice(0, keep), ...more];
      const reads = (body: string) =>
        new DeepTexts(() => new Message(raw(body))).holds({ field: 'body', how: 'contains', text });
      const fits = new Set(['ÖL', 'öl'].includes(text) ? ['ÖL', 'öl'] : [text]);
      const found = new Set([...fits].flatMap((one) => ids(segment.holding(foldAscii(one)))));
      expect([...found].sort((a, b) => a - b)).toEqual([...all.keys()].filter((i) => reads(all[i])));
    }),
    { numRuns: 300 },
  );
});

test('a full segment is held packed, and still answers; words beyond the first sixty thousand are found like the others', () => {
  const list = Array.from({ length: segmentSize }, (_, i) =>
    Array.from({ length: 20 }, (_, k) => `w${i * 20 + k}`).join(' '),
  );
  const segment = segmentOf(list);
  const last = segmentSize - 1;
  segment.pack();
  for (const one of [segment, TextSegment.of(segment.pack())]) {
    expect(ids(one.holding('w81919'))).toEqual([last]);
    expect(ids(one.holding(`${last * 20 + 3} w${last * 20 + 4} w`))).toEqual([last]);
    expect(ids(one.holding(`w${last * 20 + 4} w${last * 20 + 3}`))).toEqual([]);
    expect(ids(one.holding('w'))).toHaveLength(segmentSize);
    // More parts than have a bit of their own.
    const words = Array.from({ length: 20 }, (_, n) => `w${7 * 20 + n}`).join(' ');
    expect(ids(one.holding(words))).toEqual([7]);
  }
});
