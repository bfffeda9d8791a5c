import { oneLine, withBlanks, withoutTurns } from './oneLine';

test.each([
  ['invoice\u202efdp.exe', 'invoice fdp.exe'],
  ['a\u0000b', 'a b'],
  ['a\r\nBcc: x', 'a Bcc: x'],
  ['  a \t b ', 'a b'],
  ['\u2066a\u2069', 'a'],
])('%j becomes %j', (text, line) => {
  expect(oneLine(text)).toBe(line);
});

test('a line is no longer than a line', () => {
  expect(oneLine('x'.repeat(1e6))).toHaveLength(2_000);
});

test('an address keeps its blanks and loses what turns it around', () => {
  expect(withoutTurns('"a  b"\u202e@x.test')).toBe('"a  b"@x.test');
});

test('a file’s name shows where something stood', () => {
  expect(withBlanks('evil\u202etxt  .exe')).toBe('evil txt  .exe');
});
