import fc from 'fast-check';
import { fieldWord, indexedWords, segmentSize, TextSegment } from './textIndex';

const bodies = ['The tide is high.', 'the TIDEWAY, is', '', 'Höchst high tide', 'is high', 'a-b_c https://x.test/?q=1'];

function segmentOf(list: readonly string[]): TextSegment {
  const segment = new TextSegment();
  for (const body of list) segment.add(indexedWords(body, ['Subject', 'X-Kind'].slice(0, body.length % 3)));
  return segment;
}
const ids = (marks: Uint8Array) => [...marks.keys()].filter((i) => marks[i]);

test.each<[string, number[], boolean]>([
  ['tide', [0, 1, 3], true],
  ['x.test/?q', [5], true],
  ['b_', [5], true],
  ['höchst', [3], true],
  ['nowhere', [], true],
  ['tide is', [0], false],
  ['is high', [0, 4], false],
  ['igh tid', [3], false],
  // Both words are there, though not side by side: whoever asks must look.
  ['high. the', [0], false],
])('“%s” is found in %j', (text, expected, sure) => {
  const open = segmentOf(bodies);
  const stored = TextSegment.of(open.pack());
  for (const segment of [open, stored]) {
    const found = segment.holding(text);
    expect([ids(found.messages), found.sure]).toEqual([expected, sure]);
  }
});

test('names of header fields are found, and never taken for words', () => {
  const segment = segmentOf(bodies);
  expect(ids(segment.having(fieldWord('SUBJECT')))).toEqual([0, 3, 4, 5].filter((i) => bodies[i].length % 3 > 0));
  expect(ids(segment.holding('x-kind').messages)).toEqual([]);
});

test('the index finds what a scan finds, also after it was stored, cut, and went on', () => {
  const word = fc.constantFrom('fuel', 'Fuel,', 'refuel', 'oil', 'ÖL', 'a', 'ab');
  const body = fc.array(word, { maxLength: 5 }).map((words) => words.join(' '));
  const lists = fc.tuple(fc.array(body, { maxLength: 20 }), fc.nat(20), fc.array(body, { maxLength: 10 }));
  fc.assert(
    fc.property(lists, fc.constantFrom('fuel', 'el', 'a', 'oil a', 'l, re', 'ab a ab'), ([first, cut, more], text) => {
      const keep = Math.min(cut, first.length);
      const segment = TextSegment.of(segmentOf(first).pack(), keep);
      for (const one of more) segment.add(indexedWords(one, []));
      const all = [...first.slice(0, keep), ...more];
      const scanned = [...all.keys()].filter((i) => all[i].toLowerCase().replace('ö', 'ö').includes(text));
      const { messages, sure } = segment.holding(text);
      const found = ids(messages);
      if (sure) expect(found).toEqual(scanned);
      // With blanks in it nothing is missed.
      else expect(scanned.every((i) => found.includes(i))).toBe(true);
    }),
  );
});

test('a full segment is held packed, and still answers', () => {
  const segment = new TextSegment();
  for (let i = 0; i < segmentSize; i++) segment.add(indexedWords(`number ${i}`, []));
  segment.pack();
  expect(ids(segment.holding('4095').messages)).toEqual([4095]);
  expect(ids(segment.holding('number').messages)).toHaveLength(segmentSize);
});
