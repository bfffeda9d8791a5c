import fc from 'fast-check';
import { crossValidate, figuresOf, foldsOf, type Judged } from './evaluate';

const judged = fc.array(fc.record({ margin: fc.integer({ min: -5, max: 5 }), junk: fc.boolean() }), { maxLength: 60 });

/** By its definition: the share of pairs in which the good message looks more like junk. */
function aucByPairs(list: readonly Judged[]): number | null {
  const [good, junk] = [list.filter((one) => !one.junk), list.filter((one) => one.junk)];
  if (!good.length || !junk.length) return null;
  let wrong = 0;
  for (const g of good) for (const j of junk) wrong += g.margin > j.margin ? 1 : g.margin === j.margin ? 0.5 : 0;
  return (100 * wrong) / (good.length * junk.length);
}

test('1-AUC is the share of pairs in the wrong order (TREC 2005 spam track, overview)', () => {
  fc.assert(
    fc.property(judged, (list) => {
      const expected = aucByPairs(list);
      const { auc1 } = figuresOf(list);
      if (expected === null) expect(auc1).toBeNull();
      else expect(auc1).toBeCloseTo(expected, 9);
    }),
  );
});

test('recall is counted at the line that loses no more good mail than allowed', () => {
  const list = (margins: number[], junk: boolean) => margins.map((margin) => ({ margin, junk }));
  const good = list([...Array<number>(999).fill(-1), 4], false);
  // One good message in a thousand lies above most of the junk: 0.1 % may be lost, none may not.
  const figures = figuresOf([...good, ...list([5, 3, 3, 3, -2], true)]);
  expect(figures).toMatchObject({ good: 1_000, junk: 5, recall0: 20, recall01: 80, recall05: 80 });
});

test('equal margins count against the filter', () => {
  const figures = figuresOf([
    { margin: 1, junk: true },
    { margin: 1, junk: false },
  ]);
  expect(figures).toMatchObject({ auc1: 50, recall0: 0 });
});

test.each([
  ['nothing at all', []],
  ['only junk', [{ margin: 1, junk: true }]],
  ['only good mail', [{ margin: 1, junk: false }]],
])('%s says nothing', (_what, list: Judged[]) => {
  expect(figuresOf(list)).toMatchObject({ auc1: null, recall0: null, recall01: null, recall05: null });
});

test('folds deal junk and good mail out evenly, the same for the same seed', () => {
  const examples = Array.from({ length: 53 }, (_, i) => ({ junk: i % 3 === 0 }));
  const fold = foldsOf(examples, 5, 7);
  expect(foldsOf(examples, 5, 7)).toEqual(fold);
  expect(foldsOf(examples, 5, 8)).not.toEqual(fold);
  for (const junk of [true, false]) {
    const sizes = [0, 1, 2, 3, 4].map((f) => examples.filter((one, i) => one.junk === junk && fold[i] === f).length);
    expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
  }
});

test('nobody is judged by a model that has seen them: labels drawn by lot can’t be told', async () => {
  const examples = Array.from({ length: 400 }, (_, i) => ({
    features: Uint32Array.of(1_000 + i, 5_000 + i),
    junk: i % 2 === 0,
  }));
  const { auc1 } = figuresOf(await crossValidate(examples, 5, 1));
  expect(auc1).toBe(50);
});
