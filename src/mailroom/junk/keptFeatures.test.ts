import { KeptFeatures } from './keptFeatures';

test('what was kept is there again, the oldest leaves when there is too much, and a message kept anew counts once', () => {
  const kept = new KeptFeatures(10);
  const four = Uint32Array.of(1, 2, 3, 4);
  for (const id of [1, 2, 1, 1]) kept.set(id, four);
  expect([kept.get(1), kept.get(2), kept.get(3)]).toEqual([four, four, null]);
  kept.set(3, four);
  expect([kept.get(1), kept.get(2), kept.get(3)]).toEqual([four, null, four]);
  kept.set(
    4,
    Uint32Array.from({ length: 11 }, (_, n) => n),
  );
  expect([1, 2, 3, 4].map((id) => kept.get(id))).toEqual([null, null, null, null]);
});
