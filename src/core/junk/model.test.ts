import fc from 'fast-check';
import { firstLetterSlot, slots } from './slots';
import { JunkModel, learnAll, randomFrom, shuffled } from './model';

const features = fc
  .uniqueArray(fc.integer({ min: 0, max: 60 }), { minLength: 1, maxLength: 20 })
  .map((list) => Uint32Array.from(list));
/** Compared at once: a matcher would look at each of the 262,144 weights by itself. */
const same = (a: Int32Array, b: Int32Array): boolean => Buffer.from(a.buffer).equals(Buffer.from(b.buffer));
const example = fc.record({ features, junk: fc.boolean() });

test('what was learned last is forgotten bit for bit', () => {
  fc.assert(
    fc.property(fc.array(example, { maxLength: 30 }), example, (before, last) => {
      const model = new JunkModel();
      learnAll(model, before, 3, 1);
      const was = model.weights.slice();
      const step = model.learn(last.features, last.junk);
      model.forget(last.features, step);
      expect(same(model.weights, was)).toBe(true);
    }),
  );
});

test('all marks forgotten, in any order, leave what was there before the first', () => {
  fc.assert(
    fc.property(fc.array(example, { minLength: 1, maxLength: 20 }), fc.integer(), (marks, seed) => {
      const base = new JunkModel();
      base.weights[7] = 12_345;
      const model = base.copy();
      const steps = marks.map(({ features: f, junk }) => model.learn(f, junk));
      for (const i of shuffled(
        marks.map((_, n) => n),
        randomFrom(seed),
      ))
        model.forget(marks[i].features, steps[i]);
      expect(same(model.weights, base.weights)).toBe(true);
    }),
  );
});

test('one mark moves its message to its own side, and says nothing new of what it knows already', () => {
  const model = new JunkModel();
  const mail = Uint32Array.of(1, 2, 3);
  expect(model.margin(mail)).toBe(0);
  const step = model.learn(mail, true);
  expect(model.margin(mail)).toBeGreaterThan(0.8);
  expect(model.learn(mail, true, step)).toBe(step);
  // Another message of the same kind is judged by what they share.
  expect(model.margin(Uint32Array.of(1, 2, 9))).toBeGreaterThan(0.4);
  expect(model.margin(Uint32Array.of(20, 21))).toBe(0);
});

test('letters count by how many of the words are known, from four of five on as much as words', () => {
  const model = new JunkModel();
  const words = [1, 2, 3, 4];
  const letters = [firstLetterSlot, firstLetterSlot + 1];
  model.learn(Uint32Array.of(...words, ...letters), true);
  const lettersOf = (list: number[]) => model.judgingShares([...list, ...letters]).letters * Math.SQRT2;
  expect(lettersOf([...words, 9])).toBeCloseTo(1, 9);
  expect(lettersOf([1, 2, 8, 9, 10])).toBeCloseTo(0.5, 9);
  expect(lettersOf([8, 9])).toBe(0);
  // Nothing but letters: there is nothing else to go by.
  expect(lettersOf([])).toBeCloseTo(1, 9);
  expect(model.margin(Uint32Array.of(8, 9, ...letters))).toBe(0);
});

test('a model without another, and beyond it again, is bit for bit what it was', () => {
  const [base, model] = [new JunkModel(), new JunkModel()];
  base.weights.set([5, -(2 ** 31), 7]);
  model.weights.set([3, 2 ** 31 - 1, 0, 9]);
  expect(same(model.without(base).beyond(base).weights, model.weights)).toBe(true);
  expect([...model.without(base).weights.subarray(2, 5)]).toEqual([-7, 9, 0]);
});

test('a message of nothing teaches nothing', () => {
  const model = new JunkModel();
  expect(model.learn(new Uint32Array(0), true)).toBe(0);
  expect(model.margin(new Uint32Array(0))).toBe(0);
});

test('what can be told apart is told apart', () => {
  const good = Array.from({ length: 40 }, (_, i) => ({
    features: Uint32Array.of(1, 100 + i, 200 + (i % 7)),
    junk: false,
  }));
  const junk = Array.from({ length: 40 }, (_, i) => ({
    features: Uint32Array.of(2, 300 + i, 200 + (i % 7)),
    junk: true,
  }));
  const model = new JunkModel();
  learnAll(model, [...good, ...junk], 20, 1);
  expect(model.margin(Uint32Array.of(1, 999))).toBeLessThan(-0.3);
  expect(model.margin(Uint32Array.of(2, 999))).toBeGreaterThan(0.3);
});

test('a model of another size is a fault of the program', () => {
  expect(() => new JunkModel(new Int32Array(slots - 1))).toThrow(/weights/);
});
