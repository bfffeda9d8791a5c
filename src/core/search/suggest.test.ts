import { keyWords, parseQuery } from './query';
import { accepted, expectedAt, keyMeanings, suggestionsFor } from './suggest';

/** The caret stands where the bar is. */
const at = (marked: string) => {
  const caret = marked.indexOf('|');
  return { text: marked.replace('|', ''), caret };
};

test.each([
  ['|', 'key', ''],
  ['fr|', 'key', 'fr'],
  ['from |', 'person', ''],
  ['from an|', 'person', 'an'],
  ['FROM "Ann Hö|', 'person', 'Ann Hö'],
  ['from "Ann" |', 'key', ''],
  ['from "Ann"|', 'key', ''],
  ['not cc b|', 'person', 'b'],
  ['subject fu|', 'text', 'fu'],
  ['header X-Prio|', 'text', 'X-Prio'],
  ['header X-Priority 1|', 'text', '1'],
  ['header X-Priority 1 un|', 'key', 'un'],
  ['keyword en|', 'label', 'en'],
  ['unkeyword |', 'label', ''],
  ['since 2026|', 'day', '2026'],
  ['larger |', 'size', ''],
  ['(or unseen f|', 'key', 'f'],
  ['(|', 'key', ''],
  ['harbour |', 'key', ''],
  // A key in quotation marks is a word, and one that stands for a text is no key.
  ['"from" a|', 'key', 'a'],
  ['subject from |', 'key', ''],
])('%s', (marked, what, typed) => {
  const { text, caret } = at(marked);
  expect(expectedAt(text, caret)).toMatchObject({ what, typed });
});

test('a suggestion goes in the place of what is typed, the rest of the word with it', () => {
  const put = (marked: string, suggestion: string) => {
    const { text, caret } = at(marked);
    const { text: now, caret: then } = accepted(text, expectedAt(text, caret), suggestion);
    return `${now.slice(0, then)}|${now.slice(then)}`;
  };
  expect(put('fr|', 'from')).toBe('from |');
  expect(put('from an|xious unseen', 'ann@x.test')).toBe('from ann@x.test |unseen');
  expect(put('unseen from "Ann H|', '"Ann Höchst"')).toBe('unseen from "Ann Höchst" |');
  expect(put('unseen |', 'flagged')).toBe('unseen flagged |');
});

test('every key is explained, and nothing that is none', () => {
  const explained = keyMeanings.map(([key]) => key);
  const notOffered = ['uid', 'return', 'charset'];
  expect([...explained, ...notOffered].sort()).toEqual([...keyWords].sort());
});

describe('what is suggested', () => {
  const labels = ['Engine room', 'Alarm'];
  const people = [{ name: 'Ann Höchst', address: 'ann@x.test' }];
  const now = new Date(2026, 10, 24, 12).getTime();
  const puts = (marked: string, known = people) => {
    const { text, caret } = at(marked);
    return suggestionsFor(expectedAt(text, caret), labels, known, now).map((one) => one.puts);
  };

  test.each([
    ['|', ['from', 'to', 'subject', 'since', 'before', 'unseen', 'flagged', 'keyword']],
    ['sent|', ['sentsince', 'sentbefore', 'senton', 'from ann@x.test']],
    ['SM|', ['smaller', 'from ann@x.test']],
    ['al|', ['all', 'from ann@x.test', 'keyword Alarm']],
    ['from |', ['ann@x.test']],
    ['keyword |', ['"Engine room"', 'Alarm']],
    ['keyword "eng|', ['"Engine room"']],
    ['before |', ['2026-11-24', '2026-11-17', '2026-10-24', '2026-05-24', '2025-11-24']],
    ['since 2026-1|', ['2026-11-24', '2026-11-17', '2026-10-24']],
    ['larger 1|', ['100000', '1000000', '10000000']],
    ['subject |', []],
    ['from ann@x.test unkeyword zz|', []],
  ])('%s', (marked, expected) => {
    expect(puts(marked)).toEqual(expected);
  });

  test('whatever is suggested can be read once it is put in', () => {
    for (const marked of ['|', 'unseen |', 'from |', 'keyword |', 'unkeyword al|', 'on |', 'smaller |', 'en|', 'an|']) {
      const { text, caret } = at(marked);
      const expected = expectedAt(text, caret);
      for (const { puts: put } of suggestionsFor(expected, labels, people, now)) {
        const query = accepted(text, expected, put).text;
        // A key may still wait for its value.
        const [whole, withText] = [parseQuery(query), parseQuery(`${query} 2026-01-01`)];
        const withTwo = parseQuery(`${query} seen flagged`);
        const withSize = parseQuery(`${query} 5`);
        if (![whole, withText, withTwo, withSize].some(({ ok }) => ok)) expect(query).toBe('a query');
      }
    }
  });

  test('a name is not looked for by one letter, and never more than eight stand there', () => {
    const many = Array.from({ length: 30 }, (_, n) => ({ name: `Ann ${n}`, address: `ann${n}@x.test` }));
    expect(puts('a|', many)).toEqual(['answered', 'all']);
    expect(puts('an|', many).length).toBeLessThanOrEqual(8);
    expect(puts('from a|', many)).toHaveLength(8);
    // What is no plain word stands in quotation marks.
    expect(puts('from o|', [{ name: '', address: '"o k"@x.test' }])).toEqual(['"\\"o k\\"@x.test"']);
  });
});
