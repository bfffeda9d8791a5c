import { checksumOf } from './checksum';

const content = () => ({
  count: 3,
  says: 'Archived 3',
  ids: Int32Array.from([4, 5, 6]),
  bytes: Uint8Array.from([1, 2, 3, 4, 5]),
  list: [{ id: 'a' }, { id: 'b' }],
  none: null,
});
const whole = checksumOf('journal/1', content());

test('the same is the same, whatever the order of its fields and where its bytes lie', () => {
  const { bytes, ...rest } = content();
  const shifted = Uint8Array.from([9, ...bytes]).subarray(1);
  expect(checksumOf('journal/1', { ...rest, absent: undefined, bytes: shifted })).toBe(whole);
  expect(checksumOf('journal/1', structuredClone(content()))).toBe(whole);
});

test.each<[string, (it: ReturnType<typeof content>) => unknown]>([
  ['a number', (it) => ({ ...it, count: 4 })],
  ['a fraction', (it) => ({ ...it, count: 3.5 })],
  ['a text', (it) => ({ ...it, says: 'Archived 4' })],
  ['an array cut short', (it) => ({ ...it, ids: it.ids.subarray(0, 2) })],
  ['a byte at the end', (it) => ({ ...it, bytes: Uint8Array.from([1, 2, 3, 4, 6]) })],
  ['an item within a list', (it) => ({ ...it, list: [{ id: 'a' }, { id: 'c' }] })],
  ['two fields that changed places', (it) => ({ ...it, none: it.says, says: it.none })],
  ['two characters that changed places', (it) => ({ ...it, says: 'rAchived 3' })],
  ['a field less', (it) => Object.fromEntries(Object.entries(it).filter(([name]) => name !== 'none'))],
])('%s that is another is told', (_what, changed) => {
  expect(checksumOf('journal/1', changed(content()))).not.toBe(whole);
});

test('the same under another key is another', () => {
  expect(checksumOf('journal/2', content())).not.toBe(whole);
});
