import fc from 'fast-check';
import type { View } from '../mailroom/api';
import { readPath, settingPath, viewPath } from './paths';

test.each<[View, number | null, string]>([
  [{ kind: 'place', place: 'inbox' }, null, '/inbox'],
  [{ kind: 'place', place: 'archive' }, 12, '/archive/m/12'],
  [{ kind: 'place', place: 'folder:weather' }, 0, '/folder/weather/m/0'],
  [{ kind: 'label', label: 'a b/c' }, null, '/label/a%20b%2Fc'],
  [{ kind: 'damaged' }, 7, '/damaged/m/7'],
])('%j with %s open is at %s, and read back', (view, message, path) => {
  expect(viewPath(view, message)).toBe(path);
  expect(readPath(path)).toEqual({ view, message });
});

test.each(['/', '/attic', '/folder', '/label', '/inbox/m', '/inbox/m/x', '/inbox/m/-1', '/inbox/x/1'])(
  '%s is no view’s address',
  (path) => {
    expect(readPath(path)).toBeNull();
  },
);

test('any folder and label, whatever its id, is found again', () => {
  fc.assert(
    fc.property(fc.string({ minLength: 1 }), fc.nat(), (id, message) => {
      const label: View = { kind: 'label', label: id };
      const folder: View = { kind: 'place', place: `folder:${id}` };
      expect(readPath(viewPath(label, message))).toEqual({ view: label, message });
      expect(readPath(viewPath(folder))).toEqual({ view: folder, message: null });
    }),
  );
});

test('the settings that a trace names', () => {
  expect(settingPath('entry:a/b')).toBe('/register/a%2Fb');
  expect(settingPath('rule:x')).toBe('/rules/x');
});
