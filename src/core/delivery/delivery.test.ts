// When mail is delivered: RFC 5545’s recurrence examples that rounds can say (section 3.8.5.3), moments in the hours that
// are missing or doubled at both changes of the clock in three zones of different rules (IANA time zone database:
// Europe/Copenhagen changes at 01:00 UTC, America/New_York at 02:00 local time, Australia/Lord_Howe by half an hour), and
// that a hold leaves nothing behind.
import fc from 'fast-check';
import { Deliveries, type Delivering } from './delivery';
import { roundWords, type Round } from './rounds';
import { freshDelivery, type DeliverySettings } from './settings';
import { copied, freshTimetable, painted, withTime, type Timetable } from './timetable';
import type { Tray } from './tray';
import { isZone, weekdays, type Weekday } from './week';
import { isoIn } from './weekly';

const at = (text: string) => new Date(text).getTime();
const tray = (round: Round, since = 0): Tray => ({ id: 't', name: 'Bulletins', round, since, when: null, labels: [] });
const hours = (days: readonly Weekday[], times: readonly string[]): Round => ({
  by: 'hours',
  days: [...days],
  times: [...times],
});
const setup = (trays: Tray[], delivery: Partial<DeliverySettings> = {}): Delivering => ({
  trays,
  delivery: { ...freshDelivery, zone: 'America/New_York', ...delivery },
});
const timetable = (part: Partial<Timetable>): Timetable => ({ ...freshTimetable, on: true, ...part });

/** The first moments of a round from one on, as the clock of its zone shows them. */
function first(round: Round, from: string, n: number, zone = 'America/New_York'): string[] {
  const deliveries = new Deliveries(setup([tray(round)], { zone }));
  const out: string[] = [];
  for (let moment = at(from) - 1; out.length < n;) {
    moment = deliveries.nextRound('t', moment) ?? Infinity;
    out.push(isoIn(zone, moment));
  }
  return out;
}

describe('RFC 5545, section 3.8.5.3: what its examples that a round can say come to', () => {
  const everyDay = weekdays;

  test('daily: DTSTART;TZID=America/New_York:19970902T090000, FREQ=DAILY, over the change of the clock', () => {
    const days = first(hours(everyDay, ['09:00']), '1997-09-02T09:00:00-04:00', 113);
    expect(days[0]).toBe('1997-09-02T09:00:00-04:00');
    // “(1997 9:00 AM EDT) September 2-30;October 1-25 / (1997 9:00 AM EST) October 26-31;November 1-30;December 1-23”.
    expect(days.filter((day) => day.endsWith('T09:00:00-04:00'))).toHaveLength(29 + 25);
    expect(days.filter((day) => day.endsWith('T09:00:00-05:00'))).toHaveLength(6 + 30 + 23);
    expect(days.at(-1)).toBe('1997-12-23T09:00:00-05:00');
  });

  test('weekly for 10 occurrences: FREQ=WEEKLY;COUNT=10', () => {
    expect(first(hours(['TU'], ['09:00']), '1997-09-02T09:00:00-04:00', 10)).toEqual([
      ...['09-02', '09-09', '09-16', '09-23', '09-30', '10-07', '10-14', '10-21'].map(
        (d) => `1997-${d}T09:00:00-04:00`,
      ),
      ...['10-28', '11-04'].map((d) => `1997-${d}T09:00:00-05:00`),
    ]);
  });

  test('weekly on Tuesday and Thursday for five weeks: FREQ=WEEKLY;UNTIL=19971007T000000Z;WKST=SU;BYDAY=TU,TH', () => {
    expect(first(hours(['TU', 'TH'], ['09:00']), '1997-09-02T09:00:00-04:00', 10)).toEqual(
      ['09-02', '09-04', '09-09', '09-11', '09-16', '09-18', '09-23', '09-25', '09-30', '10-02'].map(
        (day) => `1997-${day}T09:00:00-04:00`,
      ),
    );
  });

  test('every 20 minutes from 9:00 AM to 4:40 PM every day: FREQ=DAILY;BYHOUR=9,…,16;BYMINUTE=0,20,40', () => {
    const spread = Array.from(
      { length: 24 },
      (_, i) => `${String(9 + Math.floor(i / 3)).padStart(2, '0')}:${['00', '20', '40'][i % 3]}`,
    );
    const all = first(hours(everyDay, spread), '1997-09-02T09:00:00-04:00', 48);
    expect(all[0]).toBe('1997-09-02T09:00:00-04:00');
    expect(all[1]).toBe('1997-09-02T09:20:00-04:00');
    expect(all[23]).toBe('1997-09-02T16:40:00-04:00');
    expect(all[24]).toBe('1997-09-03T09:00:00-04:00');
  });
});

// RFC 5545, section 3.3.5: a time that occurs twice is the first of the two; one that does not occur is taken by the offset
// before the gap, and so comes as much after it.
describe.each([
  ['Europe/Copenhagen', '2026-03-28T12:00:00+01:00', '02:30', '2026-03-29T03:30:00+02:00', 'missing'],
  ['Europe/Copenhagen', '2026-10-24T12:00:00+02:00', '02:30', '2026-10-25T02:30:00+02:00', 'doubled'],
  ['Europe/Copenhagen', '2026-10-24T12:00:00+02:00', '07:00', '2026-10-25T07:00:00+01:00', 'after it'],
  ['America/New_York', '2026-03-07T12:00:00-05:00', '02:30', '2026-03-08T03:30:00-04:00', 'missing'],
  ['America/New_York', '2026-10-31T12:00:00-04:00', '01:30', '2026-11-01T01:30:00-04:00', 'doubled'],
  ['America/New_York', '2026-10-31T12:00:00-04:00', '07:00', '2026-11-01T07:00:00-05:00', 'after it'],
  ['Australia/Lord_Howe', '2026-10-03T12:00:00+10:30', '02:15', '2026-10-04T02:45:00+11:00', 'missing'],
  ['Australia/Lord_Howe', '2026-04-04T12:00:00+11:00', '01:45', '2026-04-05T01:45:00+11:00', 'doubled'],
  ['Australia/Lord_Howe', '2026-04-04T12:00:00+11:00', '07:00', '2026-04-05T07:00:00+10:30', 'after it'],
])('%s from %s: %s is %s', (zone, from, time, moment, which) => {
  test(`the hour that is ${which}, and once only`, () => {
    const [next, after] = first(hours(weekdays, [time]), from, 2, zone);
    expect(next).toBe(moment);
    // The next one is a day on by the calendar.
    expect(new Date(after).getTime() - new Date(next).getTime()).toBeGreaterThan(22 * 3_600_000);
    expect(after.slice(11, 16)).toBe(time);
  });

  test('a fixed time of the timetable and hours that begin then are at the same moment', () => {
    const begin = { ...setup([], { zone }), trays: [] };
    const times = new Deliveries({
      ...begin,
      delivery: { ...begin.delivery, timetable: timetable({ times: weekdays.map((day) => ({ day, at: time })) }) },
    });
    expect(isoIn(zone, times.release(at(from), null, false).at)).toBe(moment);
  });
});

describe('release', () => {
  const monday = tray(hours(['MO'], ['07:00']));
  const tuesday = at('2026-11-24T10:00:00-05:00');
  const next = at('2026-11-30T07:00:00-05:00');

  test('a tray waits for its round, which is after the moment at which mail came', () => {
    const deliveries = new Deliveries(setup([monday]));
    expect(deliveries.release(tuesday, 't', false)).toEqual({ at: next, stands: next, round: next, by: 'tray' });
    expect(deliveries.release(next, 't', false).at).toBe(at('2026-12-07T07:00:00-05:00'));
    expect(deliveries.release(next - 1, 't', false).at).toBe(next);
    // A tray that is gone holds nothing back.
    expect(deliveries.release(tuesday, 'gone', false)).toEqual({
      at: tuesday,
      stands: tuesday,
      round: tuesday,
      by: null,
    });
  });

  test('as mail comes, or never by itself', () => {
    expect(new Deliveries(setup([tray({ by: 'coming' })])).release(tuesday, 't', false).at).toBe(tuesday);
    expect(new Deliveries(setup([tray({ by: 'never' })])).release(tuesday, 't', false).at).toBe(Infinity);
  });

  test('a round that was changed counts from then on: nothing that waited is due in the past', () => {
    const friday = at('2026-11-27T12:00:00-05:00');
    const changed = tray(hours(weekdays, ['09:00']), friday);
    expect(new Deliveries(setup([changed])).release(tuesday, 't', false).at).toBe(at('2026-11-28T09:00:00-05:00'));
  });

  test('a round within a hold waits for its end, and then stands as of its own moment', () => {
    const hold = { since: next - 3_600_000, until: next + 3_600_000 };
    expect(new Deliveries(setup([monday], { hold })).release(tuesday, 't', false)).toEqual({
      at: hold.until,
      stands: next,
      round: next,
      by: 'hold',
    });
    const lifted = { ...hold, until: null };
    expect(new Deliveries(setup([monday], { hold: lifted })).release(tuesday, 't', false)).toEqual({
      at: Infinity,
      stands: next,
      round: next,
      by: 'hold',
    });
  });

  test('hours, a fixed time, a period of quiet: whichever is next, and what they keep apart', () => {
    const on = timetable({
      open: [{ day: 'MO', from: '09:00', to: '12:00' }],
      times: [{ day: 'MO', at: '16:00' }],
    });
    const deliveries = new Deliveries(setup([], { timetable: on }));
    const of = (moment: string) => isoIn('America/New_York', deliveries.release(at(moment), null, false).at);
    expect(of('2026-11-29T20:00:00-05:00')).toBe('2026-11-30T09:00:00-05:00');
    expect(of('2026-11-30T09:00:00-05:00')).toBe('2026-11-30T09:00:00-05:00');
    expect(of('2026-11-30T11:59:59-05:00')).toBe('2026-11-30T11:59:59-05:00');
    expect(of('2026-11-30T12:00:00-05:00')).toBe('2026-11-30T16:00:00-05:00');
    expect(of('2026-11-30T16:00:00-05:00')).toBe('2026-11-30T16:00:00-05:00');
    expect(of('2026-11-30T16:00:01-05:00')).toBe('2026-12-07T09:00:00-05:00');
    const quiet = [{ from: at('2026-11-30T10:00:00-05:00'), until: at('2026-11-30T13:00:00-05:00') }];
    const hushed = new Deliveries(setup([], { timetable: on, quiet }));
    expect(isoIn('America/New_York', hushed.release(at('2026-11-30T10:30:00-05:00'), null, false).at)).toBe(
      '2026-11-30T16:00:00-05:00',
    );
    expect(hushed.release(at('2026-11-30T10:30:00-05:00'), null, true).by).toBeNull();
  });

  test('a timetable with neither hours nor times delivers nothing by itself; hours over midnight begin once', () => {
    expect(new Deliveries(setup([], { timetable: timetable({}) })).release(tuesday, null, false).at).toBe(Infinity);
    const night = timetable({
      open: [
        { day: 'MO', from: '22:00', to: '24:00' },
        { day: 'TU', from: '00:00', to: '06:00' },
      ],
    });
    const list = new Deliveries(setup([monday], { timetable: night })).between(tuesday, tuesday + 8 * 86_400_000);
    expect(list.map(({ at: moment, what }) => `${isoIn('America/New_York', moment)} ${what}`)).toEqual([
      '2026-11-30T07:00:00-05:00 tray',
      '2026-11-30T22:00:00-05:00 timetable',
    ]);
  });

  test('dates that no clock shows are answered, too', () => {
    const deliveries = new Deliveries(
      setup([monday], { timetable: timetable({ times: [{ day: 'MO', at: '07:00' }] }) }),
    );
    for (const moment of [8.64e15, -8.64e15, 9e15, -62_135_596_800_000, 253_402_300_800_000])
      expect(() => deliveries.release(moment, 't', false)).not.toThrow();
  });
});

const timeOf = fc.integer({ min: 0, max: 47 }).map((n) => `${String(n >> 1).padStart(2, '0')}:${n % 2 ? '30' : '00'}`);
const daysOf = fc.uniqueArray(fc.constantFrom(...weekdays), { minLength: 1, maxLength: 7 });
const roundOf: fc.Arbitrary<Round> = fc.oneof(
  fc.constant<Round>({ by: 'coming' }),
  fc.constant<Round>({ by: 'never' }),
  fc
    .record({ days: daysOf, times: fc.uniqueArray(timeOf, { minLength: 1, maxLength: 4 }) })
    .map(({ days, times }): Round => ({ by: 'hours', days, times })),
);
const year = at('2026-01-01T00:00:00Z');
const momentOf = fc.integer({ min: 0, max: 365 * 24 * 60 }).map((minute) => year + minute * 60_000);
const timetableOf = fc
  .tuple(
    fc.boolean(),
    fc.array(fc.tuple(daysOf, timeOf), { maxLength: 3 }),
    fc.array(fc.tuple(fc.constantFrom(...weekdays), fc.nat(47), fc.nat(10)), { maxLength: 6 }),
  )
  .map(([on, times, cells]): Timetable => {
    let table: Timetable = { ...freshTimetable, on };
    for (const [days, time] of times) table = withTime(table, days, time);
    for (const [day, from, length] of cells) table = painted(table, day, from, Math.min(47, from + length), true);
    return table;
  });

test('nothing is ever delivered before it came or before its round, and lifting a hold leaves what none would have left', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('Europe/Copenhagen', 'America/New_York', 'Australia/Lord_Howe', 'UTC', 'Asia/Kathmandu'),
      roundOf,
      timetableOf,
      momentOf,
      momentOf,
      fc.option(momentOf, { nil: null }),
      fc.array(fc.tuple(momentOf, fc.integer({ min: 1, max: 3_000 })), { maxLength: 3 }),
      (zone, round, table, came, since, until, periods) => {
        const quiet = periods.map(([from, length]) => ({ from, until: from + length * 60_000 }));
        const trays = [tray(round)];
        const hold = until === null || until > since ? { since, until } : null;
        const settings = { zone, timetable: table, quiet };
        const held = new Deliveries(setup(trays, { ...settings, hold })).release(came, 't', false);
        const free = new Deliveries(setup(trays, settings)).release(came, 't', false);
        const alone = new Deliveries(setup(trays, { zone })).release(came, 't', false);
        expect(held.stands).toBe(free.at);
        expect(free.at).toBeGreaterThanOrEqual(alone.at);
        expect(alone.at).toBeGreaterThanOrEqual(came);
        expect(held.at).toBeGreaterThanOrEqual(free.at);
        // At its moment it is delivered: asked again then, nothing holds it back.
        if (free.at < Infinity)
          expect(new Deliveries(setup([], settings)).release(free.at, null, false).at).toBe(free.at);
      },
    ),
    { numRuns: Number(process.env.RUNS ?? 300) },
  );
});

test('painting a week: cells on and off, days copied, times on several days', () => {
  let table = painted(freshTimetable, 'MO', 18, 23, true);
  expect(table.open).toEqual([{ day: 'MO', from: '09:00', to: '12:00' }]);
  table = painted(table, 'MO', 20, 20, false);
  expect(table.open).toEqual([
    { day: 'MO', from: '09:00', to: '10:00' },
    { day: 'MO', from: '10:30', to: '12:00' },
  ]);
  table = withTime(table, ['MO'], '16:00');
  const week = copied(table, 'MO', ['TU', 'MO']);
  expect(week.open.map(({ day }) => day)).toEqual(['MO', 'MO', 'TU', 'TU']);
  expect(week.times).toEqual([
    { day: 'MO', at: '16:00' },
    { day: 'TU', at: '16:00' },
  ]);
  expect(painted(table, 'MO', 0, 47, true).open).toEqual([{ day: 'MO', from: '00:00', to: '24:00' }]);
});

test('rounds in words; what is a time zone', () => {
  expect(roundWords(hours(['MO'], ['07:00']))).toBe('Monday at 07:00');
  expect(roundWords(hours(['FR', 'MO', 'TU', 'WE', 'TH'], ['16:00', '09:00']))).toBe(
    'Monday to Friday at 09:00 and 16:00',
  );
  expect(roundWords(hours(weekdays, ['12:00']))).toBe('every day at 12:00');
  expect(['Europe/Copenhagen', 'UTC', '+01:00', 'Nowhere/At_All', ''].map(isZone)).toEqual([
    true,
    true,
    false,
    false,
    false,
  ]);
});
