// Days where the person is, over both changes of the clock (IANA time zones, as the host knows them). Each zone in a
// process of its own: a running one keeps the zone that it began with.
import { execFileSync } from 'node:child_process';

/** What some code says, as JSON, where the clock is that of a zone. */
function inZone(zone: string, code: string): unknown {
  const script = `
    import { dayTest, sentClock } from './src/core/search/find.ts';
    import { conditionTest } from './src/core/rules/match.ts';
    import { parseEnvelope } from './src/core/mail/envelope.ts';
    import { boundsOfDay, zoneOnDay } from './src/core/text/day.ts';
    const day = (text) => Date.parse(text + 'T00:00Z');
    const hours = (text) => { const [from, to] = boundsOfDay(day(text)); return (to - from) / 3_600_000; };
    console.log(JSON.stringify(${code}));`;
  const args = ['--import', 'tsx', '--input-type=module', '-e', script];
  return JSON.parse(execFileSync(process.execPath, args, { env: { ...process.env, TZ: zone }, encoding: 'utf8' }));
}

test('a day is as long as it is there', () => {
  expect(
    inZone(
      'Europe/Berlin',
      `[hours('2026-03-29'), hours('2026-10-25'), new Date(boundsOfDay(day('2026-07-01'))[0]).toISOString(),
        zoneOnDay(day('2026-07-01')), zoneOnDay(day('2026-12-01'))]`,
    ),
  ).toEqual([23, 25, '2026-06-30T22:00:00.000Z', 120, 60]);
});

test('BEFORE, ON and SINCE go by the days where the person is, SENT* by the day that the Date field names', () => {
  // Where it was sent it was the 3rd; in UTC the 4th; here half past five in the afternoon of the 4th.
  const envelope = `parseEnvelope(new TextEncoder().encode('From: a@b.test\\nDate: Tue, 03 Nov 2026 23:30:00 -0500\\n\\nx\\n'))`;
  expect(
    inZone(
      'Pacific/Auckland',
      `((envelope) => [
        dayTest({ key: 'senton', day: day('2026-11-03') })(sentClock(envelope)),
        dayTest({ key: 'sentbefore', day: day('2026-11-04') })(sentClock(envelope)),
        dayTest({ key: 'on', day: day('2026-11-04') })(envelope.date),
        dayTest({ key: 'on', day: day('2026-11-04') })(envelope.date - 12 * 3_600_000),
        dayTest({ key: 'on', day: day('2026-11-04') })(null),
      ])(${envelope})`,
    ),
  ).toEqual([true, true, true, true, false]);
});

test('days in rules are those where the person is', () => {
  expect(
    inZone(
      'America/New_York',
      `((test) => ['2026-11-04T04:59Z', '2026-11-04T05:00Z', '2026-11-03T03:59Z', '2026-11-03T05:00Z'].map((at) =>
        test.holds({ date: Date.parse(at) })))(conditionTest({ field: 'date', how: 'on', day: '2026-11-03' }))`,
    ),
  ).toEqual([true, false, false, true]);
});
