import { trimEndOf, trimOf } from './trim';

test.each([
  ['a.b..', 'a.b'],
  ['...', ''],
  ['', ''],
  ['a', 'a'],
])('“%s” without dots at its end', (text, trimmed) => {
  expect(trimEndOf(text, '.')).toBe(trimmed);
});

test('at either end, each character by itself', () => {
  expect(trimOf(' <a b> ', '< >')).toBe('a b');
});
