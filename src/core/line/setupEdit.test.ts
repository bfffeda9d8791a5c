import fc from 'fast-check';
import { edited, editSetup, takenBack, withInverses, type SetupEdit } from './setupEdit';
import { emptySetup, type Setup } from './setup';

test('setup edits: put in, replaced in place, moved, taken off', () => {
  const folder = (id: string, name = id) => ({ list: 'folders' as const, id, item: { id, name } });
  const three = editSetup(
    emptySetup,
    ['a', 'b', 'c'].map((id) => folder(id)),
  );
  const names = (setup: typeof three) => setup.folders.map((f) => f.name);
  expect(names(three)).toEqual(['a', 'b', 'c']);
  expect(names(editSetup(three, [folder('b', 'B')]))).toEqual(['a', 'B', 'c']);
  expect(names(editSetup(three, [{ ...folder('c'), at: 0 }]))).toEqual(['c', 'a', 'b']);
  expect(names(editSetup(three, [{ ...folder('a'), at: 99 }]))).toEqual(['b', 'c', 'a']);
  expect(names(editSetup(three, [{ list: 'folders', id: 'b', item: null }]))).toEqual(['a', 'c']);
  expect(emptySetup.folders).toEqual([]);
});

const edit = fc
  .record({
    id: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
    name: fc.option(fc.constantFrom('One', 'Two')),
    at: fc.option(fc.nat(6), { nil: undefined }),
  })
  .map(({ id, name, at }): SetupEdit => ({ list: 'folders', id, item: name === null ? null : { id, name }, at }));

/** One edit as it is defined, on a list. */
function plainly(folders: Setup['folders'], { id, item, at }: SetupEdit & { at?: number }): Setup['folders'] {
  const was = folders.findIndex((one) => one.id === id);
  const rest = folders.filter((one) => one.id !== id);
  if (item === null) return rest;
  const to = Math.min(at ?? (was < 0 ? rest.length : was), rest.length);
  return [...rest.slice(0, to), item as Setup['folders'][0], ...rest.slice(to)];
}

test('many edits at once are what they are one by one, and are taken back from the last to the first', () => {
  fc.assert(
    fc.property(fc.array(edit, { maxLength: 20 }), (edits) => {
      const next = editSetup(emptySetup, edits);
      expect(next.folders).toEqual(edits.reduce(plainly, []));
      const inverses = withInverses(emptySetup, edits).map(({ before }) => before);
      expect(editSetup(next, inverses.toReversed()).folders).toEqual([]);
    }),
  );
});

test('what was changed again stays as it is', () => {
  const [first, second] = ['a', 'b'].map((id): SetupEdit => ({ list: 'folders', id, item: { id, name: id } }));
  const changes = withInverses(emptySetup, [first, second]);
  const later = editSetup(emptySetup, [first, second, { list: 'folders', id: 'a', item: { id: 'a', name: 'Other' } }]);
  const { edits, kept } = takenBack(later, changes);
  expect(kept).toBe(1);
  expect(editSetup(later, edits).folders.map(({ name }) => name)).toEqual(['Other']);
});

test('50,000 entries are put in at once', () => {
  const edits = Array.from({ length: 50_000 }, (_, i): SetupEdit => {
    const item = { id: `m${i}`, kind: 'domain', value: `s${i}.test`, standing: 'blocked', since: 0, why: '' } as const;
    return { list: 'register', id: item.id, item };
  });
  const next = edited(emptySetup, edits);
  expect(next.ok && next.setup.register.length).toBe(50_000);
  const back = withInverses(emptySetup, edits).map(({ before }) => before);
  expect(next.ok && editSetup(next.setup, back.toReversed()).register).toEqual([]);
});
