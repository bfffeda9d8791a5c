import fc from 'fast-check';
import { filters, type View } from '../mailroom/border/views';
import { readWhere, settingPath, viewPath, wherePath, type Where } from './paths';

test.each<[View, number | null, string]>([
  [{ kind: 'place', place: 'inbox' }, null, '/inbox'],
  [{ kind: 'place', place: 'archive' }, 12, '/archive/m/12'],
  [{ kind: 'place', place: 'folder:weather' }, 0, '/folder/weather/m/0'],
  [{ kind: 'label', label: 'a b/c' }, null, '/label/a%20b%2Fc'],
  [{ kind: 'damaged' }, 7, '/damaged/m/7'],
  [{ kind: 'found', query: 'from "a/b" 100%', within: null }, 7, '/find/from%20%22a%2Fb%22%20100%25/m/7'],
  [{ kind: 'found', query: 'in', within: { kind: 'place', place: 'inbox' } }, null, '/find/in/in/%2Finbox'],
  [
    { kind: 'found', query: 'x', within: { kind: 'label', label: 'a b/c' } },
    3,
    '/find/x/in/%2Flabel%2Fa%2520b%252Fc/m/3',
  ],
])('%j with %s open is at %s, and read back', (view, message, path) => {
  expect(viewPath(view, message)).toBe(path);
  expect(readWhere(path)).toMatchObject({ view, message, show: null, account: null, lanes: false });
});

test.each([
  '/',
  '/attic',
  '/folder',
  '/label',
  '/inbox/m',
  '/inbox/m/x',
  '/archive/m/-1',
  '/inbox/x/1',
  '/find',
  '/find/x/in',
  '/find/x/in/attic',
])('%s is no view’s address', (path) => {
  expect(readWhere(path)).toBeNull();
});

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

test('a spoilt address is nobody’s, and breaks nothing', () => {
  expect(readWhere('/label/%E0%A4%A')).toMatchObject({ view: { kind: 'label', label: '%E0%A4%A' } });
  expect(readWhere('/find/x/in/%2Flabel%2F%25E0')).toMatchObject({ view: { within: { label: '%E0' } } });
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
