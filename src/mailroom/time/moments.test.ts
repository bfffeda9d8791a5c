import { TestClock } from '../testing/testClock';
import { every, longestSleep, Moments, type Moment } from './moments';

const hour = 3_600_000;
const begin = Date.UTC(2026, 10, 24, 9);

/** Things that fall due at given times, each once; `done` holds when each was. */
function list(...times: number[]) {
  const open = [...times].sort((a, b) => a - b);
  const done: number[] = [];
  const moment: Moment = {
    name: 'list',
    next: () => open[0] ?? null,
    due: async (now) => {
      while (open.length && open[0] <= now) {
        open.shift();
        done.push(now);
      }
    },
  };
  return { moment, done, open };
}

function queue(...moments: Moment[]) {
  const clock = new TestClock(begin);
  const failed: string[] = [];
  const it = new Moments(clock, moments, (name, error) => failed.push(`${name}: ${String(error)}`));
  it.changed();
  return { clock, it, failed };
}

test('each is done at its time, exactly, and once', async () => {
  const { moment, done } = list(begin + 5, begin + hour, begin + 3 * hour + 7);
  const { clock } = queue(moment);
  await clock.pass(4 * hour);
  expect(done).toEqual([begin + 5, begin + hour, begin + 3 * hour + 7]);
});

test('what fell due while the machine slept is done soon after it wakes', async () => {
  const { moment, done } = list(begin + hour);
  const { clock } = queue(moment);
  clock.set(begin + 8 * hour);
  await clock.pass(longestSleep);
  expect(done).toEqual([begin + 8 * hour + longestSleep]);
});

test('a clock that is set back puts off what is not due yet, and brings nothing twice', async () => {
  const { moment, done } = list(begin + 1, begin + hour);
  const { clock } = queue(moment);
  await clock.pass(2);
  clock.set(begin - 24 * hour);
  await clock.pass(hour);
  expect(done).toEqual([begin + 1]);
  await clock.pass(24 * hour);
  expect(done).toEqual([begin + 1, begin + hour]);
});

test('after a reload the past is done at once: a queue of its own over the same moments', async () => {
  const { moment, done } = list(begin - hour, begin + hour);
  const { it, clock } = queue(moment);
  await clock.pass(0);
  it.close();
  await clock.pass(2 * hour);
  expect(done).toEqual([begin]);
  const again = new Moments(clock, [moment]);
  await again.wake();
  expect(done).toEqual([begin, begin + 2 * hour]);
  again.close();
});

test('what comes nearer is planned anew', async () => {
  const { moment, done, open } = list();
  const { clock, it } = queue(moment);
  await clock.pass(3);
  open.push(begin + 10);
  it.changed();
  await clock.pass(10);
  expect(done).toEqual([begin + 10]);
});

test('one that fails is told, tried again, and holds up no other', async () => {
  let tries = 0;
  const bad: Moment = {
    name: 'bad',
    next: () => begin,
    due: async () => {
      tries++;
      throw new Error('no');
    },
  };
  const { moment, done } = list(begin + 10);
  const { clock, failed } = queue(bad, moment);
  await clock.pass(5_000);
  expect(done).toEqual([begin + 10]);
  expect(failed[0]).toBe('bad: Error: no');
  expect(tries).toBeGreaterThan(2);
  expect(tries).toBeLessThan(10);
});

test('what comes again and again', async () => {
  const times: number[] = [];
  const { clock } = queue(every('check', 10_000, async (now) => times.push(now)));
  await clock.pass(25_000);
  expect(times).toEqual([begin, begin + 10_000, begin + 20_000]);
});
