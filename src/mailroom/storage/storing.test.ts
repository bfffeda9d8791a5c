// What is stored behind the journal, and when: soon after the last command, and all that changes meanwhile.
import { later } from '../time/turn';
import { memoryStore } from './recordStore';
import { Records } from './records';
import { Storing } from './storing';

/** What follows from commands, here a number, and each of its writings, which takes its time. */
function storing(takes = 0, hears: (n: number) => void = () => undefined) {
  const inner = memoryStore();
  let changed: number | null = null;
  const written: number[] = [];
  const heard = (n: number) => {
    written.push(n);
    hears(n);
  };
  const store = {
    ...inner,
    set: async (key: string, value: unknown) => {
      if (takes) await later(takes);
      await inner.set(key, value);
      if (key === 'derived/0') heard((value as { n: number }).n);
    },
  };
  const records = new Records(store, Date.now, () => undefined);
  const its = new Storing(records, {
    packs: () => [],
    meta: () => ['meta', {}],
    anew: () => {
      if (changed === null) return [];
      const n = changed;
      changed = null;
      return [['derived/0', { n }]];
    },
    trouble: () => undefined,
  });
  const change = (n: number) => {
    changed = n;
    its.soon();
  };
  return { change, written, close: () => its.close() };
}

// Time passes as it is told to: on a busy machine a short wait takes longer than what is tested here.
beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());
const pass = (milliseconds: number) => jest.advanceTimersByTimeAsync(milliseconds);

const until = async (holds: () => boolean) => {
  for (let n = 0; !holds() && n < 500; n++) await pass(20);
};

test('what can be computed anew is stored once, after the last of several commands', async () => {
  const { change, written } = storing();
  for (let n = 0; n < 8; n++) {
    change(n);
    await pass(350);
  }
  expect(written).toEqual([]);
  await until(() => written.length > 0);
  expect(written).toEqual([7]);
});

test('where commands do not end it is stored all the same', async () => {
  const { change, written, close } = storing();
  for (let n = 0; written.length === 0 && n < 1_000; n++) {
    change(n);
    await pass(20);
  }
  expect(written).toHaveLength(1);
  close();
});

test('what changes while it is being stored is stored, too', async () => {
  const { change, written } = storing(100);
  change(1);
  await until(() => written.length > 0);
  change(2);
  await pass(20);
  change(3);
  await until(() => written.includes(3));
  expect(written.at(-1)).toBe(3);
});

test('what changes at the very moment at which the storing ends is stored, too', async () => {
  const all = Array.from({ length: 24 }, async (_, turns) => {
    const its = storing(0, (n) => void (n === 1 && changeAfter()));
    const changeAfter = async () => {
      for (let n = 0; n < turns; n++) await Promise.resolve();
      its.change(2);
    };
    its.change(1);
    return its;
  });
  const each = await Promise.all(all);
  await pass(1_500);
  expect(each.map(({ written }) => written.at(-1))).toEqual(all.map(() => 2));
});
