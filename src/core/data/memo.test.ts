import { keepNewest, remembering } from './memo';

test('work is done once for each text, until there are too many', () => {
  const asked: string[] = [];
  const long = remembering((text) => {
    asked.push(text);
    return text.length;
  }, 2);
  expect(['a', 'bb', 'a', 'bb'].map(long)).toEqual([1, 2, 1, 2]);
  expect(asked).toEqual(['a', 'bb']);
  expect(['ccc', 'a'].map(long)).toEqual([3, 1]);
  expect(asked).toEqual(['a', 'bb', 'ccc', 'a']);
});

test('the oldest go; what is kept again is the newest', () => {
  const kept = new Map<string, number>();
  for (const [at, key] of ['a', 'b', 'a', 'c'].entries()) keepNewest(kept, key, at, 2);
  expect([...kept]).toEqual([
    ['a', 2],
    ['c', 3],
  ]);
});
