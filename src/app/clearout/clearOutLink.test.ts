import { everythingGoes } from '../../core/clearout/clearOut';
import { clearOutPath, readClearOut, type ClearOutAt } from './clearOutLink';

const read = (path: string) => readClearOut(new URL(path, 'http://x').searchParams);

test.each<ClearOutAt>([
  { of: { kind: 'place', place: 'inbox' }, choice: everythingGoes },
  { of: null, choice: { ...everythingGoes, older: { n: 6, unit: 'months' }, spare: ['flagged'] } },
  {
    of: { kind: 'found', query: 'from "a b" or seen flagged', within: { kind: 'place', place: 'folder:x y' } },
    choice: { ...everythingGoes, keep: [1, 2], from: { by: 'domain', value: 'x.test' }, keepNewest: 50 },
  },
])('an address says the same when it is read: %j', (at) => {
  expect(read(clearOutPath(at))).toEqual(at);
});

test('what can’t be read chooses everything of the Inbox, and nothing breaks', () => {
  const plain = { of: { kind: 'place', place: 'inbox' }, choice: everythingGoes };
  expect(read('/clear-out')).toEqual(plain);
  expect(read('/clear-out?of=/nowhere/at/all&choice={"older":{"n":-1}}')).toEqual(plain);
  expect(read('/clear-out?choice={')).toEqual(plain);
  expect(read('/clear-out?choice=7')).toEqual(plain);
});
