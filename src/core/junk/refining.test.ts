import fc from 'fast-check';
import { JunkModel } from './model';
import { refine, refinedOf, type Taught } from './refining';

test('in ten marks each of the newest thousand has its turn once, and none beyond them', () => {
  fc.assert(
    fc.property(fc.integer({ min: 10, max: 5_000 }), (first) => {
      const times = new Map<number, number>();
      for (let count = first; count < first + 10; count++)
        for (const at of refinedOf(count, 1)) times.set(at, (times.get(at) ?? 0) + 1);
      // What stood among the newest all the while: of the rest some had no turn, and none two.
      const asItMust = (at: number): boolean => {
        const its = times.get(at) ?? 0;
        if (at < first - 990) return at >= first - 1_000 ? its <= 1 : its === 0;
        return at >= first || its === 1;
      };
      return Array.from({ length: first + 10 }, (_, at) => at).every(asItMust);
    }),
  );
});

test('after many marks at once all of the newest are gone through', () => {
  expect(refinedOf(30, 30)).toHaveLength(30);
  expect(refinedOf(3_000, 21)).toEqual(Array.from({ length: 1_000 }, (_, n) => 2_000 + n));
  expect(refinedOf(0, 1)).toEqual([]);
});

test('a row of one kind leaves less of a lean once it is gone through again', () => {
  const model = new JunkModel();
  const taught: Taught[] = Array.from({ length: 40 }, (_, i) => {
    const one = { features: Uint32Array.of(1, 10 + i), junk: i < 30 };
    return { ...one, step: model.learn(one.features, one.junk) };
  });
  const wrong = () =>
    taught.reduce((sum, { features, junk }) => sum + Math.max(0, 1 - (junk ? 1 : -1) * model.margin(features)), 0);
  const before = wrong();
  refine(model, taught, taught.length);
  expect(wrong()).toBeLessThan(before);
});
