import { inStretches } from './stretches';

// A Friday, 15:00 of the machine's own time.
const now = new Date(2026, 10, 27, 15).getTime();
const at = (day: number, hour = 9) => new Date(2026, 10, day, hour).getTime();
const titleOf = (due: number | null) => inStretches([{ due }], now).find(({ rows }) => rows.length)?.title;

test.each<[string, number | null]>([
  ['Late', at(26)],
  ['Late', now],
  ['Today', now + 1],
  ['Today', at(27, 23)],
  ['Tomorrow', at(28)],
  ['This week', at(29)],
  // ISO 8601: the week ends on Sunday.
  ['Next week', at(30)],
  ['Next week', at(36)],
  ['Later', at(37)],
  ['Without a date', null],
])('%s', (title, due) => {
  expect(titleOf(due)).toBe(title);
});

test('on a Sunday tomorrow is in the next week, and stands under its own name', () => {
  const sunday = new Date(2026, 10, 29, 12).getTime();
  const [group] = inStretches([{ due: at(30) }], sunday).filter(({ rows }) => rows.length);
  expect(group.title).toBe('Tomorrow');
});

test('an appointment that has begun is not late: it is today’s', () => {
  const groups = inStretches([{ due: at(27, 14) }, { due: at(26) }], now, () => false);
  expect(groups.filter(({ rows }) => rows.length).map(({ title }) => title)).toEqual(['Today']);
});

test('each keeps the order given', () => {
  const rows = [at(26), at(25), at(24)].map((due) => ({ due }));
  expect(inStretches(rows, now)[0].rows).toEqual(rows);
});
