// Whatever happens in between, everything is delivered once, and never before its moment. The oracle goes through all minutes
// by itself (UTC, so that a minute is a minute).
import fc from 'fast-check';
import type { DeliverySettings } from '../../core/delivery/settings';
import { freshTimetable, painted, withTime, type Timetable } from '../../core/delivery/timetable';
import type { Tray } from '../../core/delivery/tray';
import { minutesOf, weekdays } from '../../core/delivery/week';
import { memoryStore } from '../storage/recordStore';
import { openMailbox, storeWithPowerCut } from '../testing/testing';
import { boxOf, come, day, held, id, inbox, minute, monday, set, wake } from '../testing/deliveryTesting';
import { hold, lift } from './delivering';

/** Whether what came at a moment could have been delivered by another, gone through minute by minute. */
function oracle(
  setup: { trays: readonly Tray[]; delivery: DeliverySettings },
  came: number,
  trayId: string,
  now: number,
) {
  const its = setup.trays.find((one) => one.id === trayId);
  const { hold: on, quiet, timetable } = setup.delivery;
  const weekday = (t: number) => weekdays[(new Date(t).getUTCDay() + 6) % 7];
  const ofDay = (t: number) => Math.floor((t % day) / minute);
  const onMinute = (t: number) => t % minute === 0;
  const isRound = (t: number) =>
    its?.round.by === 'hours' &&
    onMinute(t) &&
    its.round.days.includes(weekday(t)) &&
    its.round.times.some((time) => minutesOf(time) === ofDay(t));
  const isOpen = (t: number) => {
    if (quiet.some((one) => one.from <= t && t < one.until)) return false;
    if (!timetable.on) return true;
    const within = timetable.open.some(
      (one) => one.day === weekday(t) && minutesOf(one.from) <= ofDay(t) && ofDay(t) < minutesOf(one.to),
    );
    return (
      within || (onMinute(t) && timetable.times.some((one) => one.day === weekday(t) && minutesOf(one.at) === ofDay(t)))
    );
  };
  let due = !its || its.round.by === 'coming';
  for (let t = came; t <= now; t = (Math.floor(t / minute) + 1) * minute) {
    if (!due && its && t > Math.max(came, its.since) && isRound(t)) due = true;
    if (!due || !isOpen(t)) continue;
    // What would have come while the hold was on comes as it ends.
    return !on || t < on.since || t >= (on.until ?? Infinity) || now >= (on.until ?? Infinity);
  }
  return false;
}

const timeOf = fc.integer({ min: 0, max: 47 }).map((n) => `${String(n >> 1).padStart(2, '0')}:${n % 2 ? '30' : '00'}`);
const daysOf = fc.uniqueArray(fc.constantFrom(...weekdays), { minLength: 1, maxLength: 7 });
const roundOf: fc.Arbitrary<Tray['round']> = fc.oneof(
  fc.constant<Tray['round']>({ by: 'coming' }),
  fc.constant<Tray['round']>({ by: 'never' }),
  fc
    .record({ days: daysOf, times: fc.uniqueArray(timeOf, { minLength: 1, maxLength: 3 }) })
    .map(({ days, times }): Tray['round'] => ({ by: 'hours', days, times })),
);
const timetableOf = fc
  .tuple(fc.boolean(), daysOf, timeOf, fc.constantFrom(...weekdays), fc.nat(40))
  .map(([on, days, time, one, at]): Timetable =>
    painted(withTime({ ...freshTimetable, on }, days, time), one, at, at + 6, true),
  );
const minutes = fc.integer({ min: 1, max: 3_000 });
const step = fc.oneof(
  { weight: 4, arbitrary: fc.record({ do: fc.constant('come' as const), n: fc.integer({ min: 1, max: 4 }) }) },
  { weight: 4, arbitrary: fc.record({ do: fc.constant('pass' as const), minutes }) },
  fc.record({ do: fc.constant('jump' as const), minutes: fc.integer({ min: -2_000, max: 2_000 }) }),
  fc.record({ do: fc.constant('round' as const), round: roundOf }),
  fc.record({ do: fc.constant('timetable' as const), timetable: timetableOf }),
  fc.record({ do: fc.constant('quiet' as const), after: minutes, length: minutes }),
  fc.record({ do: fc.constant('hold' as const), minutes: fc.option(minutes, { nil: null }) }),
  fc.record({ do: fc.constant('lift' as const) }),
  fc.record({ do: fc.constant('kill' as const), writes: fc.integer({ min: 1, max: 3 }) }),
);

test('over random mail, setups, edits, jumps and kills everything is delivered once, and never before its moment', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 4, maxLength: 16 }), async (steps) => {
      const first = await boxOf([monday]);
      const { records, clock } = first;
      let { mailbox } = first;
      /** Of each message that waits when it came; and what was delivered. */
      const waiting = new Map<number, { came: number; tray: string }>();
      const delivered = new Set<number>();
      let latest = clock.now;
      const check = async () => {
        const came = await wake(mailbox);
        const lies = new Set(mailbox.views.list(held));
        for (const [one, its] of waiting) {
          // By the clock as it is now; what came later than that by it came now at the earliest.
          const due = oracle(mailbox.setup, Math.min(its.came, clock.now), its.tray, clock.now);
          expect({ one, waits: lies.has(one) }).toEqual({ one, waits: !due });
          if (due) {
            expect(delivered.has(one)).toBe(false);
            delivered.add(one);
            waiting.delete(one);
          }
        }
        for (const one of came) expect(delivered.has(one)).toBe(true);
        const all = mailbox.views.list(inbox).length + lies.size;
        expect(all).toBe(mailbox.columns.count);
      };
      for (const one of steps) {
        switch (one.do) {
          case 'come': {
            const senders = Array.from({ length: one.n }, (_, i) => (i % 2 ? 'a@x.test' : 'b@tray.test'));
            const ids = await come(mailbox, senders);
            for (const message of ids)
              if (mailbox.tables.place(mailbox.columns.place[message]) === 'held')
                waiting.set(message, {
                  came: mailbox.columns.placedAt[message],
                  tray: mailbox.tables.trays.items[mailbox.columns.tray[message]],
                });
            break;
          }
          case 'pass':
            clock.now += one.minutes * minute;
            break;
          case 'jump':
            // Back no further than something was seen: what came later than now is a test of its own.
            clock.now = Math.max(latest, clock.now + one.minutes * minute);
            break;
          case 'round':
            await set(mailbox, { trays: [{ ...monday, round: one.round, since: clock.now }] });
            break;
          case 'timetable':
            await set(mailbox, { delivery: { timetable: one.timetable } });
            break;
          case 'quiet': {
            const begins = clock.now + one.after * minute;
            await set(mailbox, { delivery: { quiet: [{ from: begins, until: begins + one.length * minute }] } });
            break;
          }
          case 'hold':
            await hold(mailbox, id(), one.minutes === null ? null : clock.now + one.minutes * minute);
            break;
          case 'lift':
            await lift(mailbox, id());
            break;
          case 'kill': {
            const broken = await openMailbox(storeWithPowerCut(records, one.writes), () => clock.now);
            await wake(broken).catch(() => undefined);
            mailbox = await openMailbox(memoryStore(records), () => clock.now);
            // What the one that was killed has delivered counts.
            break;
          }
        }
        latest = Math.max(latest, clock.now);
        await check();
      }
    }),
    { numRuns: Number(process.env.RUNS ?? 15) },
  );
});

test('lifting a hold gives exactly the Inbox that no hold would have given', async () => {
  const quietly = fc.oneof(
    fc.record({ do: fc.constant('come' as const), n: fc.integer({ min: 1, max: 4 }) }),
    fc.record({ do: fc.constant('pass' as const), minutes }),
  );
  await fc.assert(
    fc.asyncProperty(
      roundOf,
      timetableOf,
      fc.array(quietly, { maxLength: 8 }),
      fc.array(quietly, { minLength: 1, maxLength: 8 }),
      async (round, timetable, before, during) => {
        const trays = [{ ...monday, round }];
        const [one, twin] = [await boxOf(trays, { timetable }), await boxOf(trays, { timetable })];
        const go = async (steps: typeof before) => {
          for (const now of steps)
            for (const { mailbox, clock } of [one, twin]) {
              if (now.do === 'pass') clock.now += now.minutes * minute;
              else
                await come(
                  mailbox,
                  Array.from({ length: now.n }, (_, i) => (i % 2 ? 'a@x.test' : 'b@tray.test')),
                );
              await wake(mailbox);
            }
        };
        await go(before);
        await hold(one.mailbox, id(), null);
        await go(during);
        await lift(one.mailbox, id());
        for (const { mailbox } of [one, twin]) await wake(mailbox);
        for (const view of [inbox, held])
          expect([...one.mailbox.views.list(view)]).toEqual([...twin.mailbox.views.list(view)]);
        expect([...one.mailbox.columns.delivered]).toEqual([...twin.mailbox.columns.delivered]);
      },
    ),
    { numRuns: Number(process.env.RUNS ?? 15) },
  );
});
