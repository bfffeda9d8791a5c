import { nameClash } from './nameClash';
import { emptySetup, type Setup } from './setup';

const withFolders = (...folders: Setup['folders']): Setup => ({ ...emptySetup, folders });
const oil = { id: 'oil', name: 'Oil' };

test.each<[string, Setup['folders'][0], string | null]>([
  ['another name', { id: 'b', name: 'Water' }, null],
  [
    'the same name, in other letters',
    { id: 'b', name: ' OIL ' },
    'There is a folder “ OIL ” here already: it needs another name.',
  ],
  ['the same name within another', { id: 'b', name: 'Oil', parent: 'oil' }, null],
  ['the name of a place', { id: 'b', name: 'inbox' }, '“inbox” is the name of a place: the folder needs another.'],
  ['the name of a place, within another', { id: 'b', name: 'Inbox', parent: 'oil' }, null],
])('a folder of %s', (_what, folder, expected) => {
  expect(nameClash(withFolders(oil), withFolders(oil, folder))).toBe(expected);
});

test('what was so before stays, and can be put in order', () => {
  const twice = [oil, { id: 'b', name: 'Oil' }];
  expect(nameClash(withFolders(...twice), withFolders(...twice.toReversed()))).toBeNull();
  expect(nameClash(withFolders(...twice), withFolders(oil, { id: 'b', name: 'oil' }))).toBeNull();
});

test('a label may be called as a folder or a place is, but not as another label', () => {
  const label = (id: string, name: string) => ({ id, name, ink: 'plum' as const });
  const setup = { ...withFolders(oil), labels: [label('a', 'Fuel')] };
  expect(nameClash(setup, { ...setup, labels: [...setup.labels, label('b', 'Oil')] })).toBeNull();
  expect(nameClash(setup, { ...setup, labels: [...setup.labels, label('b', 'Inbox')] })).toBeNull();
  expect(nameClash(setup, { ...setup, labels: [...setup.labels, label('b', 'fuel')] })).toMatch(/There is a label/);
});
