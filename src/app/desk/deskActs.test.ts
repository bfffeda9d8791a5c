import { actOf, actsIn, deskActs, target } from './deskActs';

const inbox = { kind: 'place' as const, place: 'inbox' as const };

test('acts go to what is ticked, else to what is open', () => {
  expect(target(new Set(), null, null, null)).toBeNull();
  expect(target(new Set(), null, 7, null)).toEqual({ selection: { ids: [7] }, count: 1 });
  expect(target(new Set([1, 2]), null, 7, null)).toEqual({ selection: { ids: [1, 2] }, count: 2 });
  expect(target(new Set([1]), inbox, 7, null)).toEqual({ selection: { view: inbox }, count: null });
});
test('where rows are conversations, what the view holds of them is meant', () => {
  expect(target(new Set([3]), null, 7, inbox)).toEqual({
    selection: { conversationsOf: [3], within: inbox },
    count: 1,
  });
});

test('every act has a key of its own: the first letter of its word, or the platform’s', () => {
  const keys = deskActs.map((act) => act.pressed);
  expect(new Set(keys).size).toBe(keys.length);
  for (const act of deskActs)
    if (act.pressed.length === 1) expect(act.word.toLowerCase().startsWith(act.pressed)).toBe(true);
});

test('no act is offered that would have nothing to do', () => {
  const words = (place: 'inbox' | 'junk' | 'archive' | 'sent') =>
    actsIn({ kind: 'place', place }).map((act) => act.word);
  expect(words('inbox')).not.toContain('Inbox');
  expect(words('inbox')).toContain('Junk');
  expect(words('junk')).toContain('Not junk');
  expect(words('junk')).not.toContain('Junk');
  expect(words('archive')).not.toContain('Archive');
  expect(words('sent')).not.toContain('Junk');
  expect(actsIn({ kind: 'damaged' })).toContain(actOf('bin', { kind: 'damaged' }));
  expect(actOf('not-junk', inbox)).toBeUndefined();
});
