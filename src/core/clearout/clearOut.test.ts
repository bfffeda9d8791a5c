// A clear-out against choosing one message after another by hand.
import fc from 'fast-check';
import { senderKinds, type SenderKind } from '../senders/kind';
import {
  ageUnits,
  chooseToClear,
  clearOutSchema,
  everythingGoes,
  olderThan,
  outstanding,
  readyClearOuts,
  type ClearOut,
  type ClearOutFacts,
} from './clearOut';

const now = Date.UTC(2026, 10, 24, 12);
const day = 86_400_000;

interface Message {
  age: number;
  size: number;
  read: boolean;
  silenced: boolean;
  redundant: boolean;
  kind: SenderKind;
  sender: string;
  stands: boolean[];
}

const message: fc.Arbitrary<Message> = fc.record({
  age: fc.integer({ min: 0, max: 900 }),
  size: fc.integer({ min: 0, max: 3_000_000 }),
  read: fc.boolean(),
  silenced: fc.boolean(),
  redundant: fc.boolean(),
  kind: fc.constantFrom(...senderKinds),
  sender: fc.constantFrom('a@x.test', 'b@x.test', 'c@sub.x.test', 'd@y.test'),
  stands: fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
});
const choice: fc.Arbitrary<ClearOut> = fc.record({
  older: fc.option(fc.record({ n: fc.integer({ min: 1, max: 20 }), unit: fc.constantFrom(...ageUnits) })),
  state: fc.constantFrom('any' as const, 'read' as const, 'unread' as const),
  from: fc.option(
    fc.constantFrom({ by: 'address' as const, value: 'a@x.test' }, { by: 'domain' as const, value: 'x.test' }),
  ),
  kind: fc.option(fc.constantFrom(...senderKinds)),
  larger: fc.option(fc.integer({ min: 0, max: 3_000_000 })),
  silenced: fc.boolean(),
  redundant: fc.boolean(),
  keepNewest: fc.nat(12),
  keep: fc.array(fc.nat(30), { maxLength: 5 }),
  spare: fc.subarray([...outstanding]),
});

function factsOf(list: readonly Message[]): ClearOutFacts {
  const stands = Object.fromEntries(
    outstanding.map((reason, at) => [reason, (id: number) => list[id].stands[at]]),
  ) as ClearOutFacts['stands'];
  return {
    date: (id) => now - list[id].age * day,
    size: (id) => list[id].size,
    read: (id) => list[id].read,
    silenced: (id) => list[id].silenced,
    redundant: (id) => list[id].redundant,
    kind: (id) => list[id].kind,
    isFrom: (id, { by, value }) =>
      by === 'address' ? list[id].sender === value : new RegExp(`[@.]${value}$`).test(list[id].sender),
    stands,
  };
}

test('what goes is what fits, without the newest, the kept and the spared; every number adds up', () => {
  fc.assert(
    fc.property(fc.array(message, { maxLength: 40 }), choice, (list, chosen) => {
      const facts = factsOf(list);
      const order = Int32Array.from(list.keys()).sort((a, b) => list[a].age - list[b].age || b - a);
      const { ids, standsOut, spared, kept } = chooseToClear(order, chosen, now, facts);
      const fits = [...order].filter((id) => {
        const m = list[id];
        const { older, state, from, kind, larger } = chosen;
        if (older && !(now - m.age * day < olderThan(older, now))) return false;
        if (state !== 'any' && m.read !== (state === 'read')) return false;
        if (from && !facts.isFrom(id, from)) return false;
        if (kind && m.kind !== kind) return false;
        if (larger !== null && m.size <= larger) return false;
        return (!chosen.silenced || m.silenced) && (!chosen.redundant || m.redundant);
      });
      const stay = fits.filter((id, at) => at < chosen.keepNewest || chosen.keep.includes(id));
      const rest = fits.filter((id) => !stay.includes(id));
      const isSpared = (id: number) => chosen.spare.some((reason) => facts.stands[reason](id));
      expect([...ids]).toEqual(rest.filter((id) => !isSpared(id)));
      expect(kept).toBe(stay.length);
      expect(spared).toBe(rest.filter(isSpared).length);
      expect(ids.length + kept + spared).toBe(fits.length);
      for (const reason of outstanding) expect(standsOut[reason]).toBe(rest.filter(facts.stands[reason]).length);
    }),
    { numRuns: 400 },
  );
});

test('older than is counted from the beginning of today; the last day of a month is no trap', () => {
  const at = (y: number, m: number, d: number, h = 0) => new Date(y, m - 1, d, h).getTime();
  expect(olderThan({ n: 6, unit: 'months' }, at(2026, 11, 24, 15))).toBe(at(2026, 5, 24));
  expect(olderThan({ n: 6, unit: 'months' }, at(2026, 8, 31, 15))).toBe(at(2026, 2, 28));
  expect(olderThan({ n: 2, unit: 'weeks' }, at(2026, 11, 24, 23))).toBe(at(2026, 11, 10));
  expect(olderThan({ n: 1, unit: 'years' }, at(2024, 2, 29))).toBe(at(2023, 2, 28));
});

test('all but the newest 50 of 138 are 88 (G5; common practice, no source)', () => {
  const list = Array.from({ length: 138 }, (_, n): Message => ({
    age: n,
    size: 1,
    read: true,
    silenced: false,
    redundant: false,
    kind: 'alone',
    sender: 'a@x.test',
    stands: [false, false, false, false],
  }));
  const { ids, kept } = chooseToClear(
    Int32Array.from(list.keys()),
    { ...everythingGoes, keepNewest: 50 },
    now,
    factsOf(list),
  );
  expect([ids.length, ids[0], kept]).toEqual([88, 50, 50]);
});

test('the ready ones are clear-outs', () => {
  for (const ready of readyClearOuts) expect(clearOutSchema.parse(ready.choice)).toEqual(ready.choice);
  expect(new Set(readyClearOuts.map(({ id }) => id)).size).toBe(readyClearOuts.length);
});
