// Recurrence against RFC 5545, section 3.8.5.3 (its examples, from memory), and against rrule, which reads the same rules by
// itself. What rrule looks for too long is held against the standard’s words alone.
import fc from 'fast-check';
import { rrulestr } from 'rrule';
import { comesAgain, readRecurrence } from './recurrence';
import { recurrenceWords } from './recurrenceWords';
import { numberOf, wallText } from './wallTime';

const far = numberOf('2200-01-01');

function all(start: string, rule: string, to = far, most = 1_000): string[] {
  const read = readRecurrence(rule);
  if (!read.ok) throw new Error(read.says);
  const { until } = read.rule;
  const end = until === null ? null : until.day ? until.number + 86_399_999 : until.number;
  return comesAgain(read.rule, numberOf(start), end, 0, to, most).at.map((at) => wallText(at, false));
}

const days = (start: string, rule: string, most: number): string[] =>
  all(start, rule, far, most).map((at) => at.slice(0, 10));

const tuesday = '1997-09-02T09:00:00';

describe('RFC 5545, section 3.8.5.3', () => {
  test('daily for 10 occurrences; until December 24; every other day; every 10 days', () => {
    expect(days(tuesday, 'FREQ=DAILY;COUNT=10', 100)).toEqual(
      Array.from({ length: 10 }, (_, n) => `1997-09-${String(n + 2).padStart(2, '0')}`),
    );
    // September 2 to December 23: the end is meant in UTC, which 9:00 in New York is before.
    expect(all(tuesday, 'FREQ=DAILY;UNTIL=19971224T000000Z')).toHaveLength(113);
    expect(days(tuesday, 'FREQ=DAILY;INTERVAL=2', 4)).toEqual(['1997-09-02', '1997-09-04', '1997-09-06', '1997-09-08']);
    expect(days(tuesday, 'FREQ=DAILY;INTERVAL=10;COUNT=5', 9)).toEqual([
      '1997-09-02',
      '1997-09-12',
      '1997-09-22',
      '1997-10-02',
      '1997-10-12',
    ]);
  });
  test('every day in January for three years, written in two ways', () => {
    const start = '1998-01-01T09:00:00';
    const daily = all(start, 'FREQ=DAILY;UNTIL=20000131T140000Z;BYMONTH=1');
    expect(daily).toHaveLength(93);
    expect(all(start, 'FREQ=YEARLY;UNTIL=20000131T140000Z;BYMONTH=1;BYDAY=SU,MO,TU,WE,TH,FR,SA')).toEqual(daily);
  });
  test('weekly on Tuesday and Thursday for five weeks; every other week, and where the week begins', () => {
    expect(days(tuesday, 'FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH', 20)).toEqual([
      '1997-09-02',
      '1997-09-04',
      '1997-09-09',
      '1997-09-11',
      '1997-09-16',
      '1997-09-18',
      '1997-09-23',
      '1997-09-25',
      '1997-09-30',
      '1997-10-02',
    ]);
    expect(days('1997-08-05T09:00:00', 'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO', 9)).toEqual([
      '1997-08-05',
      '1997-08-10',
      '1997-08-19',
      '1997-08-24',
    ]);
    expect(days('1997-08-05T09:00:00', 'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU', 9)).toEqual([
      '1997-08-05',
      '1997-08-17',
      '1997-08-19',
      '1997-08-31',
    ]);
  });
  test('monthly by the weekday of the month, from either end, and by the day from the end', () => {
    expect(days('1997-09-05T09:00:00', 'FREQ=MONTHLY;COUNT=4;BYDAY=1FR', 9)).toEqual([
      '1997-09-05',
      '1997-10-03',
      '1997-11-07',
      '1997-12-05',
    ]);
    expect(days('1997-09-22T09:00:00', 'FREQ=MONTHLY;COUNT=6;BYDAY=-2MO', 9)).toEqual([
      '1997-09-22',
      '1997-10-20',
      '1997-11-17',
      '1997-12-22',
      '1998-01-19',
      '1998-02-16',
    ]);
    expect(days('1997-09-28T09:00:00', 'FREQ=MONTHLY;BYMONTHDAY=-3', 6)).toEqual([
      '1997-09-28',
      '1997-10-29',
      '1997-11-28',
      '1997-12-29',
      '1998-01-29',
      '1998-02-26',
    ]);
    expect(days('1997-09-30T09:00:00', 'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1', 20)).toEqual([
      '1997-09-30',
      '1997-10-01',
      '1997-10-31',
      '1997-11-01',
      '1997-11-30',
      '1997-12-01',
      '1997-12-31',
      '1998-01-01',
      '1998-01-31',
      '1998-02-01',
    ]);
  });
  test('every Tuesday, every other month', () => {
    expect(days(tuesday, 'FREQ=MONTHLY;INTERVAL=2;BYDAY=TU', 7)).toEqual([
      '1997-09-02',
      '1997-09-09',
      '1997-09-16',
      '1997-09-23',
      '1997-09-30',
      '1997-11-04',
      '1997-11-11',
    ]);
  });
  test('yearly: in two months; by the day of the year; the 20th Monday; Monday of week 20', () => {
    expect(days('1997-06-10T09:00:00', 'FREQ=YEARLY;COUNT=4;BYMONTH=6,7', 9)).toEqual([
      '1997-06-10',
      '1997-07-10',
      '1998-06-10',
      '1998-07-10',
    ]);
    expect(days('1997-01-01T09:00:00', 'FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200', 20)).toEqual([
      '1997-01-01',
      '1997-04-10',
      '1997-07-19',
      '2000-01-01',
      '2000-04-09',
      '2000-07-18',
      '2003-01-01',
      '2003-04-10',
      '2003-07-19',
      '2006-01-01',
    ]);
    expect(days('1997-05-19T09:00:00', 'FREQ=YEARLY;BYDAY=20MO', 3)).toEqual([
      '1997-05-19',
      '1998-05-18',
      '1999-05-17',
    ]);
    expect(days('1997-05-12T09:00:00', 'FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO', 3)).toEqual([
      '1997-05-12',
      '1998-05-11',
      '1999-05-17',
    ]);
  });
  test('Friday the 13th; the first Saturday after the first Sunday; the day of a US election', () => {
    expect(days('1998-02-13T09:00:00', 'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13', 5)).toEqual([
      '1998-02-13',
      '1998-03-13',
      '1998-11-13',
      '1999-08-13',
      '2000-10-13',
    ]);
    expect(days('1997-09-13T09:00:00', 'FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13', 4)).toEqual([
      '1997-09-13',
      '1997-10-11',
      '1997-11-08',
      '1997-12-13',
    ]);
    expect(
      days('1996-11-05T09:00:00', 'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8', 3),
    ).toEqual(['1996-11-05', '2000-11-07', '2004-11-02']);
  });
  test('by position: the third of Tuesday, Wednesday, Thursday; the last but one workday', () => {
    expect(days('1997-09-04T09:00:00', 'FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3', 9)).toEqual([
      '1997-09-04',
      '1997-10-07',
      '1997-11-06',
    ]);
    expect(days('1997-09-29T09:00:00', 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2', 4)).toEqual([
      '1997-09-29',
      '1997-10-30',
      '1997-11-27',
      '1997-12-30',
    ]);
  });
  test('at several times of a day; a day that a month has not is passed by', () => {
    expect(all(tuesday, 'FREQ=DAILY;BYHOUR=9,10;BYMINUTE=0,20,40', far, 7)).toEqual([
      '1997-09-02T09:00:00',
      '1997-09-02T09:20:00',
      '1997-09-02T09:40:00',
      '1997-09-02T10:00:00',
      '1997-09-02T10:20:00',
      '1997-09-02T10:40:00',
      '1997-09-03T09:00:00',
    ]);
    expect(days('2007-01-15T09:00:00', 'FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5', 9)).toEqual([
      '2007-01-15',
      '2007-01-30',
      '2007-02-15',
      '2007-03-15',
      '2007-03-30',
    ]);
  });
});

test('positions are counted from the beginning of a week, also of that in which it begins', () => {
  // RFC 5545, section 3.3.10: “A set of recurrence instances starts at the beginning of the interval”. A Saturday; the week
  // began on Wednesday, so the Monday after is the second of its days (worked out by hand).
  expect(days('2020-09-26T09:00:00', 'FREQ=WEEKLY;WKST=WE;BYDAY=MO,FR;BYSETPOS=2', 3)).toEqual([
    '2020-09-26',
    '2020-09-28',
    '2020-10-05',
  ]);
});

test('what comes, in any stretch, is what rrule finds', () => {
  const some = <T>(list: readonly T[], most: number) => fc.subarray([...list], { minLength: 0, maxLength: most });
  const rules = fc
    .record({
      freq: fc.constantFrom('DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'),
      interval: fc.integer({ min: 1, max: 5 }),
      months: some([1, 2, 3, 6, 11, 12], 3),
      monthDays: some([1, 2, 15, 28, 29, 30, 31, -1, -2, -30], 3),
      days: some(['MO', 'WE', 'FR', 'SU'], 3),
      nth: fc.constantFrom('', '', '1', '2', '-1'),
      positions: some([1, 2, -1], 1),
      weekStart: fc.constantFrom('MO', 'SU', 'WE'),
      end: fc.constantFrom('', '', ';COUNT=7', ';UNTIL=20271105T100000Z'),
    })
    .map(({ freq, interval, months, monthDays, days: named, nth, positions, weekStart, end }) => {
      const dated = freq !== 'WEEKLY' ? monthDays : [];
      const ordinal = freq === 'MONTHLY' || freq === 'YEARLY' ? nth : '';
      const by = [
        ...(months.length ? [`BYMONTH=${months.join(',')}`] : []),
        ...(dated.length ? [`BYMONTHDAY=${dated.join(',')}`] : []),
        ...(named.length ? [`BYDAY=${named.map((day) => ordinal + day).join(',')}`] : []),
        ...(positions.length && (dated.length || named.length) ? [`BYSETPOS=${positions.join(',')}`] : []),
      ];
      return [`FREQ=${freq}`, `INTERVAL=${interval}`, `WKST=${weekStart}`, ...by].join(';') + end;
    });
  const start = fc.integer({ min: numberOf('2020-01-01') / 86_400_000, max: numberOf('2026-12-31') / 86_400_000 });
  fc.assert(
    fc.property(rules, start, fc.integer({ min: 0, max: 900 }), (rule, day, later) => {
      const first = day * 86_400_000 + 9 * 3_600_000;
      const from = first + later * 86_400_000;
      const to = from + 400 * 86_400_000;
      const read = readRecurrence(rule);
      if (!read.ok) throw new Error(`${rule}: ${read.says}`);
      const mine = comesAgain(read.rule, first, read.rule.until?.number ?? null, from, to, 10_000).at;
      const stamp = new Date(first).toISOString().replace(/[-:]|\.\d+/g, '');
      // Where nothing comes rrule looks on to the year 9999.
      if (!mine.some((at) => at > first)) return;
      // rrule leaves the start out where its rule does not name it; the standard counts it. Compared from after it.
      // Of a week's positions rrule counts in its first week only what comes after the start; the standard from the week's
      // beginning (RFC 5545, section 3.3.10: a set begins with its interval). Compared from the week after.
      const compared = first + (/WEEKLY.*BYSETPOS/.test(rule) ? 7 * 86_400_000 : 0);
      const theirs = rrulestr(`DTSTART:${stamp}\nRRULE:${rule.replace(/;COUNT=7/, '')}`)
        .between(new Date(from), new Date(to - 1), true)
        .map((date) => date.getTime())
        .filter((at) => at > compared);
      const after = mine.filter((at) => at > compared);
      if (rule.includes('COUNT')) expect(theirs.slice(0, after.length)).toEqual(after);
      else expect(after).toEqual(theirs);
    }),
    { numRuns: 200 },
  );
});

test('a rule that never comes, or for ever, is looked at no longer than the stretch', () => {
  for (const rule of [
    'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30',
    'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30',
    'FREQ=MONTHLY;BYDAY=MO;BYSETPOS=7',
    'FREQ=YEARLY;BYWEEKNO=53;BYMONTH=6',
  ])
    expect(all(tuesday, rule, numberOf('2026-12-01')).slice(1)).toEqual([]);
  const read = readRecurrence('FREQ=DAILY;INTERVAL=999999999');
  expect(read.ok && comesAgain(read.rule, numberOf(tuesday), null, 0, Infinity, 10).at).toHaveLength(1);
  const counted = readRecurrence('FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30;COUNT=5');
  expect(counted.ok && comesAgain(counted.rule, numberOf(tuesday), null, 0, Infinity, 10).cut).toBe(true);
});

test.each([
  ['FREQ=SECONDLY', /more often than a day/],
  ['FREQ=DAILY;BYHOUR=25', /BYHOUR=25/],
  ['FREQ=DAILY;COUNT=0', /COUNT=0/],
  ['FREQ=DAILY;UNTIL=20269999', /UNTIL/],
  ['FREQ=WEEKLY;BYDAY=XX', /BYDAY=XX/],
  ['INTERVAL=2', /how often/],
  ['FREQ=DAILY;RSCALE=HEBREW', /RSCALE/],
  ['nonsense', /nonsense/],
])('%s is refused in words', (rule, says) => {
  const read = readRecurrence(rule);
  expect(read.ok ? '' : read.says).toMatch(says);
});

test('one that is too long is refused', () => {
  expect(readRecurrence(`FREQ=DAILY;BYHOUR=${'1,'.repeat(2_000)}`)).toEqual({ ok: false, says: 'it is too long' });
});

test('in words', () => {
  expect(recurrenceWords('FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,FR')).toBe('every 2 weeks on Monday and Friday');
  expect(recurrenceWords('FREQ=MONTHLY;BYDAY=-1FR;COUNT=6')).toBe('every month on the last Friday, 6 times');
  expect(recurrenceWords('FREQ=YEARLY;BYMONTH=6;BYMONTHDAY=1')).toBe('every year on day 1 in June');
});
