// Taking up a setup from elsewhere: what it changes is told item by item, and no folder or label goes under its mail.
import { emptySetup, checkSetup, type Setup } from './setup';
import { setupDifference, takeUp } from './takingUp';

const folder = (id: string, name: string, parent?: string) => ({ id, name, ...(parent ? { parent } : {}) });
const label = (id: string, name: string, parent?: string) => ({ ...folder(id, name, parent), ink: 'sea' as const });
const entry = (id: string, value: string, standing: 'safe' | 'blocked') => ({
  id,
  kind: 'domain' as const,
  value,
  standing,
  since: 1,
  why: '',
});
const rule = (id: string, name: string, on = true) => ({
  id,
  name,
  on,
  when: { match: 'all' as const, of: [{ field: 'subject' as const, how: 'contains' as const, text: 'x' }] },
  unless: null,
  then: [{ do: 'stop' as const }],
});
const nothing = { folders: new Set<string>(), labels: new Set<string>() };

test('folders and labels with mail stay, or are found again by name, at their depth', () => {
  const now: Setup = {
    ...emptySetup,
    folders: [folder('w', 'Weather'), folder('s', 'Storms', 'w'), folder('i', 'Ice', 'w'), folder('e', 'Empty')],
    labels: [label('l', 'Urgent'), label('m', 'Mine')],
  };
  const next: Setup = {
    ...emptySetup,
    folders: [folder('W', 'Weather'), folder('S', 'Storms', 'W')],
    labels: [label('L', 'Urgent')],
  };
  const used = { folders: new Set(['s', 'i']), labels: new Set(['l', 'm']) };
  const taken = takeUp(now, next, used);
  expect([...taken.folders]).toEqual([
    ['w', 'W'],
    ['s', 'S'],
  ]);
  expect([...taken.labels]).toEqual([['l', 'L']]);
  expect(taken.setup.folders).toEqual([...next.folders, folder('i', 'Ice', 'W')]);
  expect(taken.kept).toEqual({ folders: ['Weather / Ice'], labels: ['Mine'] });
  expect(checkSetup(taken.setup)).toMatchObject({ ok: true });
  expect(takeUp(now, next, nothing).setup).toEqual(next);
  // What stays keeps what it stands within.
  expect(takeUp(now, emptySetup, used).setup.folders.map(({ id }) => id)).toEqual(['w', 's', 'i']);
});

test('what comes, changes and goes is told by name; another id alone is no change; the order of rules is one', () => {
  const now: Setup = {
    ...emptySetup,
    register: [entry('a', 'pills.test', 'blocked'), entry('b', 'port.test', 'safe'), entry('c', 'old.test', 'safe')],
    rules: [rule('1', 'One'), rule('2', 'Two'), rule('3', 'Three')],
  };
  const next: Setup = {
    ...emptySetup,
    register: [entry('x', 'pills.test', 'blocked'), entry('b', 'port.test', 'blocked'), entry('n', 'new.test', 'safe')],
    rules: [rule('2', 'Two'), rule('1', 'One'), rule('3', 'Three', false)],
    junk: { ...emptySetup.junk, strictness: 20, keepFrom: 5 },
  };
  const { lists, junk } = setupDifference(now, next);
  expect(lists.find(({ list }) => list === 'register')).toMatchObject({
    comes: [expect.stringContaining('new.test')],
    changes: [expect.stringContaining('port.test')],
    goes: [expect.stringContaining('old.test')],
    stays: 1,
    reordered: false,
  });
  expect(lists.find(({ list }) => list === 'rules')).toMatchObject({ changes: ['Three'], stays: 2, reordered: true });
  expect(junk).toEqual(['strictness']);
  const same = setupDifference(now, now);
  expect(same.junk).toEqual([]);
  expect(same.lists.flatMap((l) => [...l.comes, ...l.changes, ...l.goes])).toEqual([]);
});
