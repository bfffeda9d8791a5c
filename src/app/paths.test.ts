import fc from 'fast-check';
import { filters, type View } from '../mailroom/api';
import { readWhere, settingPath, viewPath, wherePath, type Where } from './paths';

test.each<[View, number | null, string]>([
  [{ kind: 'place', place: 'inbox' }, null, '/inbox'],
  [{ kind: 'place', place: 'archive' }, 12, '/archive/m/12'],
  [{ kind: 'place', place: 'folder:weather' }, 0, '/folder/weather/m/0'],
  [{ kind: 'label', label: 'a b/c' }, null, '/label/a%20b%2Fc'],
  [{ kind: 'damaged' }, 7, '/damaged/m/7'],
])('%j with %s open is at %s, and read back', (view, message, path) => {
  expect(viewPath(view, message)).toBe(path);
  expect(readWhere(path)).toMatchObject({ view, message, show: null, account: null, lanes: false });
});

test.each(['/', '/attic', '/folder', '/label', '/inbox/m', '/inbox/m/x', '/inbox/m/-1', '/inbox/x/1'])(
  '%s is no view’s address',
  (path) => {
    expect(readWhere(path)).toBeNull();
  },
);

test('any folder and label, whatever its id, is found again', () => {
  fc.assert(
    fc.property(fc.string({ minLength: 1 }), fc.nat(), (id, message) => {
      const label: View = { kind: 'label', label: id };
      const folder: View = { kind: 'place', place: `folder:${id}` };
      expect(readWhere(viewPath(label, message))).toMatchObject({ view: label, message });
      expect(readWhere(viewPath(folder))).toMatchObject({ view: folder, message: null });
    }),
  );
});

test('what is shown, of which account, and whether in lanes, stands in the address', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(null, ...filters),
      fc.option(fc.string({ minLength: 1 })),
      fc.boolean(),
      (show, account, lanes) => {
        const where: Where = { view: { kind: 'place', place: 'inbox' }, message: 3, show, account, lanes };
        const [path, search] = wherePath(where).split('?');
        expect(readWhere(path, search)).toEqual(where);
      },
    ),
  );
  expect(readWhere('/inbox', '?show=nonsense')?.show).toBeNull();
});

test('the settings that a trace names', () => {
  expect(settingPath('entry:a/b')).toBe('/register/a%2Fb');
  expect(settingPath('rule:x')).toBe('/rules/x');
});
