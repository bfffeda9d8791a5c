// What the picture of a week shows, and what the line above it says.
import type { DatedItem } from '../../mailroom/border/agenda';
import { firstOfDays, hoursOf, thingsOf, thingKinds, weekWords, type Thing } from './things';

const monday = new Date(2026, 10, 23).getTime();
const at = (days: number, hours: number, minutes = 0) => new Date(2026, 10, 23 + days, hours, minutes).getTime();

const item = (over: Partial<DatedItem>): DatedItem =>
  ({
    uid: `${over.at}`,
    on: null,
    kind: 'appointment',
    title: 'x',
    end: 0,
    wholeDay: false,
    done: false,
    ...over,
  }) as DatedItem;
const thingsAt = (...items: DatedItem[]): Thing[] =>
  thingsOf(
    { rows: [], putOff: [], done: [], doneTotal: 0, total: 0 } as never,
    { items, late: [], lateTotal: 0, undated: [], undatedTotal: 0, rounds: [], done: [], total: items.length } as never,
    new Set(thingKinds),
    true,
  );

test.each([
  ['nothing', [], [6, 22]],
  ['by day', [item({ at: at(0, 9), end: at(0, 10) })], [6, 22]],
  ['before work', [item({ at: at(0, 5, 30), end: at(0, 6) })], [5, 22]],
  ['late in the evening', [item({ at: at(3, 21), end: at(3, 22, 30) })], [6, 23]],
  ['a moment before midnight', [item({ at: at(3, 23, 30), end: at(3, 23, 30) })], [0, 24]],
  ['over midnight', [item({ at: at(3, 21), end: at(4, 2) })], [0, 24]],
  ['a whole day', [item({ at: at(3, 0), end: at(4, 0), wholeDay: true })], [6, 22]],
])('no hour that has something is left out of the week: %s', (_what, items, hours) =>
  expect(hoursOf(thingsAt(...items))).toEqual(hours),
);

test('the line of the week is exact', () => {
  const things = thingsAt(
    ...[0, 1, 2, 3, 4].map((day) => item({ at: at(day, 8), end: at(day, 8, 20) })),
    item({ at: at(6, 13), end: at(6, 14) }),
    item({ at: at(2, 0), end: at(3, 0), wholeDay: true }),
    item({ at: at(1, 0), kind: 'task', wholeDay: true }),
    item({ at: at(2, 0), kind: 'task', wholeDay: true, done: true }),
    item({ at: at(7, 9), end: at(7, 10) }),
  );
  expect(weekWords(things, monday, at(7, 0), at(3, 0))).toBe(
    'This week: 7 appointments and 2 tasks, 2 h 40 min of appointments; 1 late.',
  );
  expect(weekWords(things, monday, at(7, 0), at(3, 0), 333)).toContain('; 334 late.');
  const off = thingsAt(item({ at: at(1, 0), kind: 'task', wholeDay: true, status: 'cancelled' }));
  expect(weekWords(off, monday, at(7, 0), at(3, 0))).not.toContain('late');
  expect(weekWords([], monday, at(7, 0), at(3, 0))).toBe('This week nothing has a date.');
});

test('of a day that has more than its picture the rest is counted', () => {
  const things = thingsAt(...[9, 10, 11, 12].map((hours) => item({ at: at(0, hours) })), item({ at: at(1, 9) }));
  const [first, rest] = firstOfDays(things, 3);
  expect(first.map(({ due }) => due)).toEqual([at(0, 9), at(0, 10), at(0, 11), at(1, 9)]);
  expect(rest).toEqual([{ day: at(0, 0), count: 1 }]);
  expect(firstOfDays(things, 4)).toEqual([things, []]);
});
