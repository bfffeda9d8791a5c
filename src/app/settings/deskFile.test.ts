// The desk's settings in the setup file: out and in, and odd ones refused by name.
import type { Preferences } from '../state/preferences';
import { deskSettings, readDeskSettings, withDeskSettings } from './deskFile';

const now = {
  theme: 'system',
  density: 'roomy',
  orders: {},
  markReadSeconds: 30,
  offered: ['x'],
} as unknown as Preferences;
const file = (desk: unknown) => JSON.stringify({ format: 'wide-sort-setup', desk });

test('what was written is read, and what is as here changes nothing', () => {
  const there = { ...now, theme: 'dark' as const, orders: { '/inbox': { by: 'size' as const, turned: true } } };
  const written = withDeskSettings('{"format":"wide-sort-setup","rules":[]}', there);
  expect(JSON.parse(written)).toMatchObject({ format: 'wide-sort-setup', rules: [], desk: { theme: 'dark' } });
  expect(readDeskSettings(written, now)).toEqual({
    changes: { theme: 'dark', orders: there.orders },
    changed: ['theme', 'orders'],
    refused: [],
  });
  expect(readDeskSettings(written, there).changed).toEqual([]);
  // What was offered and put away is no setting.
  expect(Object.keys(deskSettings(now))).not.toContain('offered');
});

test('a file without them changes none; what can’t be is refused by name, and the rest is taken', () => {
  expect(readDeskSettings('{}', now)).toEqual({ changes: {}, changed: [], refused: [] });
  expect(readDeskSettings(file([]), now).refused).toEqual(['desk']);
  const odd = { theme: 'loud', markReadSeconds: 0, hoverActs: ['a', 'b', 'c', 'd'], swipe: 1, density: 'tight' };
  expect(readDeskSettings(file({ ...odd, replaced: null }), now)).toEqual({
    changes: { density: 'tight' },
    changed: ['density'],
    refused: ['theme', 'markReadSeconds', 'hoverActs', 'swipe', 'replaced'],
  });
});
