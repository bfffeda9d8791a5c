// Every field of a setup is bounded by what it means.
import { checkSetup, emptySetup } from './setup';

test.each<[string, (setup: Record<string, unknown>) => void]>([
  ['an id of a megabyte', (setup) => (setup.folders = [{ id: 'x'.repeat(1_000_000), name: 'Berths' }])],
  [
    'a moment that is none',
    (setup) =>
      (setup.register = [{ id: 'a', kind: 'address', value: 'a@b.test', standing: 'safe', since: 1e300, why: '' }]),
  ],
  ['a list left at no moment', (setup) => (setup.left = [{ id: 'a', list: 'l', name: 'L', at: 1e300, by: 'mail' }])],
  ['junk kept from no moment', (setup) => (setup.junk = { strictness: 0, keepDays: 30, keepFrom: 1e300 })],
  [
    'a search of a megabyte',
    (setup) => (setup.searches = [{ id: 's', name: 'S', query: 'x'.repeat(1_000_000), view: { kind: 'everywhere' } }]),
  ],
])('a setup file with %s is refused in words', (_what, spoil) => {
  const setup = { ...emptySetup } as Record<string, unknown>;
  spoil(setup);
  const read = checkSetup(setup);
  expect(read.ok).toBe(false);
  expect(read.ok ? '' : read.error.length).toBeLessThan(500);
});
