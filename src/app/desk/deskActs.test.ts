import { noTicks } from '../state/ticks';
import { actOf, actsIn, deskActs, rowTarget, target } from './deskActs';

const inbox = { kind: 'place' as const, place: 'inbox' as const };

/** A row that stands for some messages of a conversation, the newest of which is `id`. */
const rowOf = (id: number, ids: number[]) =>
  ({ id, conversation: Math.min(...ids), whole: { ids } }) as unknown as Parameters<typeof rowTarget>[0];
const single = { id: 7, conversation: 2, whole: null } as unknown as Parameters<typeof rowTarget>[0];

test('acts go to what is ticked, else to what is open', () => {
  expect(target(noTicks, null, undefined)).toBeNull();
  expect(target(noTicks, 7, undefined)).toEqual({ selection: { ids: [7] }, rows: 1, open: 'message' });
  expect(target(noTicks, 7, single)).toEqual({ selection: { ids: [7] }, rows: 1, open: 'message' });
  const ticked = new Map([
    [1, [1]],
    [2, [2]],
  ]);
  expect(target(ticked, 7, single)).toEqual({ selection: { ids: [1, 2] }, rows: 2, open: null });
});

test('of a conversation: all of it where its row was opened, one message where that was, or as the person says', () => {
  const row = rowOf(9, [3, 7, 9]);
  expect(rowTarget(row).selection.ids).toEqual([3, 7, 9]);
  expect(target(noTicks, 9, row)).toMatchObject({ selection: { ids: [3, 7, 9] }, open: 'conversation' });
  expect(target(noTicks, 7, row)).toMatchObject({ selection: { ids: [7] }, open: 'message' });
  expect(target(noTicks, 9, row, { open: 9, of: 'message' })).toMatchObject({ selection: { ids: [9] } });
  expect(target(noTicks, 7, row, { open: 7, of: 'conversation' })).toMatchObject({ selection: { ids: [3, 7, 9] } });
  // What was said of another message is not said of this one.
  expect(target(noTicks, 7, row, { open: 3, of: 'conversation' })).toMatchObject({ selection: { ids: [7] } });
  expect(target(noTicks, 9, rowOf(9, [9]))).toMatchObject({ selection: { ids: [9] }, open: 'message' });
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
