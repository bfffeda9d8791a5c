import { hashOf, hashOfText, hashSeed } from './hash';

test('the published values: FNV-1a of nothing, of “a” and of “foobar” (from memory)', () => {
  expect([hashOfText(''), hashOfText('a'), hashOfText('foobar')]).toEqual([0x811c9dc5, 0xe40c292c, 0xbf9cf968]);
  expect(hashOfText('bar', hashOfText('foo'))).toBe(hashOfText('foobar'));
  expect(hashOf(new TextEncoder().encode('foobar'))).toBe(0xbf9cf968);
  expect(hashOf([98, 97, 114], hashOfText('foo'))).toBe(hashOfText('foobar'));
  expect(hashSeed).toBe(hashOfText(''));
});
