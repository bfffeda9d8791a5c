import fc from 'fast-check';
import { groupsBy } from './groups';

test('every thing stands in the group of its key, in order', () => {
  const { starts, members } = groupsBy([1, 0, 1], 2);
  expect([...starts]).toEqual([0, 1, 3]);
  expect([...members]).toEqual([1, 0, 2]);
  fc.assert(
    fc.property(fc.array(fc.nat(9)), (keys) => {
      const { starts, members } = groupsBy(keys, 10);
      for (let key = 0; key < 10; key++)
        expect([...members.subarray(starts[key], starts[key + 1])]).toEqual(
          keys.flatMap((its, at) => (its === key ? [at] : [])),
        );
    }),
  );
});
