import { keyWords } from './query';
import { accepted, expectedAt, keyMeanings } from './suggest';

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
