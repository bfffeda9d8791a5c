import { everythingGoes } from '../../core/clearout/clearOut';
import { clearOutPath, isChosen, readClearOut, type ClearOutAt } from './clearOutLink';

const read = (path: string) => readClearOut(new URL(path, 'http://x').searchParams);

test.each<ClearOutAt>([
  { of: { kind: 'place', place: 'inbox' }, choice: everythingGoes },
  {
    of: { kind: 'place', place: 'inbox', filter: { by: 'unread', applied: null }, account: 'a b' },
    choice: everythingGoes,
  },
  { of: null, choice: { ...everythingGoes, older: { n: 6, unit: 'months' }, spare: ['flagged'] } },
  {
    of: { kind: 'found', query: 'from "a b" or seen flagged', within: { kind: 'place', place: 'folder:x y' } },
    choice: { ...everythingGoes, keep: [1, 2], from: { by: 'domain', value: 'x.test' }, keepNewest: 50 },
  },
])('an address says the same when it is read: %j', (at) => {
  expect(read(clearOutPath(at))).toEqual(at);
});

test('what can’t be read chooses nothing of the Inbox, and nothing breaks', () => {
  const plain = { of: { kind: 'place', place: 'inbox' }, choice: everythingGoes };
  expect(read('/clear-out')).toEqual(plain);
  expect(read('/clear-out?of=/nowhere/at/all&choice={"older":{"n":-1}}')).toEqual(plain);
  expect(read('/clear-out?choice={')).toEqual(plain);
  expect(read('/clear-out?choice=7')).toEqual(plain);
});

test('nothing in particular is no choice, unless the person said that everything is meant', () => {
  const at = { of: { kind: 'place', place: 'inbox' } as const, choice: everythingGoes };
  expect(isChosen(at)).toBe(false);
  // What is left here because it stands out chooses nothing by itself.
  expect(isChosen({ ...at, choice: { ...everythingGoes, spare: ['flagged'] } })).toBe(false);
  expect(isChosen({ ...at, choice: { ...everythingGoes, keepNewest: 5 } })).toBe(true);
  expect(isChosen(read(clearOutPath({ ...at, whole: true })))).toBe(true);
});
