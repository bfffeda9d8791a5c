// Moments to which mail is put off, over both changes of the clock in three zones of different rules (IANA time zone
// database: Europe/Copenhagen changes at 01:00 UTC, America/New_York at 02:00 local time, Australia/Lord_Howe by half an
// hour). The machine’s zone can’t be changed within a process, so each zone is a process of its own.
import { execFileSync } from 'node:child_process';
import { putOffTo, readPutOff } from './putOff';

const at = (text: string) => new Date(text).getTime();
const iso = (time: number | null) => (time === null ? null : new Date(time).toISOString());

describe('in UTC, as the tests run', () => {
  const thursday = at('2026-11-26T09:20:00Z');

  test('later today is a full hour, two to three hours on, and never another day', () => {
    expect(iso(putOffTo('later today', thursday, 8))).toBe('2026-11-26T12:00:00.000Z');
    expect(iso(putOffTo('later today', at('2026-11-26T20:59:00Z'), 8))).toBe('2026-11-26T23:00:00.000Z');
    expect(putOffTo('later today', at('2026-11-26T21:00:00Z'), 8)).toBeNull();
  });

  test('tomorrow morning and next week go by the hour at which a morning begins', () => {
    expect(iso(putOffTo('tomorrow morning', thursday, 8))).toBe('2026-11-27T08:00:00.000Z');
    expect(iso(putOffTo('tomorrow morning', thursday, 0))).toBe('2026-11-27T00:00:00.000Z');
    expect(iso(putOffTo('next week', thursday, 7))).toBe('2026-11-30T07:00:00.000Z');
    // On a Monday it is the next one.
    expect(iso(putOffTo('next week', at('2026-11-30T06:00:00Z'), 7))).toBe('2026-12-07T07:00:00.000Z');
  });

  test.each([
    ['fri 3pm', '2026-11-27T15:00:00.000Z'],
    ['3 Dec', '2026-12-03T08:00:00.000Z'],
    ['1.12.', '2026-12-01T08:00:00.000Z'],
    ['tomorrow 9', '2026-11-27T09:00:00.000Z'],
    ['today 23:30', '2026-11-26T23:30:00.000Z'],
  ])('%s is read as flags read it; a day alone is its morning', (typed, moment) => {
    const read = readPutOff(typed, thursday, 8);
    expect(read.ok ? iso(read.at) : read.error).toBe(moment);
  });

  test.each(['today', 'yesterday', 'soon', '', 'today 8'])('%s is refused in words', (typed) => {
    const read = readPutOff(typed, thursday, 8);
    expect(read.ok ? read.at : read.error).toMatch(/past|no date|Type a date/);
  });
});

/** Tomorrow mornings in another zone, each of a moment and the hour at which mornings begin, as ISO 8601. */
function tomorrowIn(zone: string, cases: readonly (readonly [now: string, morning: number])[]): string[] {
  const code = `import('./src/core/delivery/putOff.ts').then(({ putOffTo }) => {
    for (const [now, morning] of ${JSON.stringify(cases)})
      console.log(new Date(putOffTo('tomorrow morning', Date.parse(now), morning)).toISOString());
  })`;
  const env = { ...process.env, TZ: zone };
  return execFileSync(process.execPath, ['--import', 'tsx', '-e', code], { env, encoding: 'utf8' }).trim().split('\n');
}

// Eight in the morning after a change is eight by the clock, an hour (in Lord Howe half an hour) more or less away. Of an
// hour that the clock skips it is the moment after the gap, of one that it strikes twice the first.
test.each([
  [
    'Europe/Copenhagen',
    [
      ['2026-03-28T12:00:00+01:00', 8, '2026-03-29T06:00:00.000Z'],
      ['2026-10-24T12:00:00+02:00', 8, '2026-10-25T07:00:00.000Z'],
      ['2026-03-28T12:00:00+01:00', 2, '2026-03-29T01:00:00.000Z'],
      ['2026-10-24T12:00:00+02:00', 2, '2026-10-25T00:00:00.000Z'],
    ],
  ],
  [
    'America/New_York',
    [
      ['2026-03-07T12:00:00-05:00', 8, '2026-03-08T12:00:00.000Z'],
      ['2026-10-31T12:00:00-04:00', 8, '2026-11-01T13:00:00.000Z'],
      ['2026-03-07T12:00:00-05:00', 2, '2026-03-08T07:00:00.000Z'],
      ['2026-10-31T12:00:00-04:00', 1, '2026-11-01T05:00:00.000Z'],
    ],
  ],
  [
    'Australia/Lord_Howe',
    [
      ['2026-10-03T12:00:00+10:30', 8, '2026-10-03T21:00:00.000Z'],
      ['2026-04-04T12:00:00+11:00', 8, '2026-04-04T21:30:00.000Z'],
      ['2026-10-03T12:00:00+10:30', 2, '2026-10-03T15:30:00.000Z'],
    ],
  ],
] as const)('over both changes of the clock in %s, also in the hours that are missing or doubled', (zone, cases) => {
  expect(
    tomorrowIn(
      zone,
      cases.map(([now, morning]) => [now, morning]),
    ),
  ).toEqual(cases.map(([, , moment]) => moment));
});
