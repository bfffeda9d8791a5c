import { deskActs, target } from './acts';

test('acts go to what is ticked, else to the open message', () => {
  const view = { kind: 'place' as const, place: 'inbox' as const };
  expect(target(new Set(), null, null)).toBeNull();
  expect(target(new Set(), null, 7)).toEqual({ selection: { ids: [7] }, count: 1 });
  expect(target(new Set([1, 2]), null, 7)).toEqual({ selection: { ids: [1, 2] }, count: 2 });
  expect(target(new Set([1]), view, 7)).toEqual({ selection: { view }, count: null });
});

test('every act has a key of its own: the first letter of its word, or the platform’s', () => {
  const keys = deskActs.map((act) => act.key);
  expect(new Set(keys).size).toBe(keys.length);
  for (const act of deskActs) if (act.key.length === 1) expect(act.word.toLowerCase().startsWith(act.key)).toBe(true);
});
