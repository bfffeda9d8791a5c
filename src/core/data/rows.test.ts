// Plain loops, against what typed arrays have of their own.
import fc from 'fast-check';
import { filled, kept, numbersWhere } from './rows';

const list = fc.array(fc.integer({ min: -1_000, max: 1_000 })).map((some) => Int32Array.from(some));

test('as filter and from do it', () => {
  fc.assert(
    fc.property(list, fc.integer({ min: 1, max: 7 }), (some, by) => {
      expect(kept(some, (one) => one % by === 0)).toEqual(some.filter((one) => one % by === 0));
      expect(kept(some, (_, at) => at % by === 0)).toEqual(some.filter((_, at) => at % by === 0));
      expect(filled(Uint8Array, some, (one, at) => one + at)).toEqual(Uint8Array.from(some, (one, at) => one + at));
      expect(numbersWhere(some.length, (at) => some[at] > by)).toEqual(
        Int32Array.from(some.keys()).filter((at) => some[at] > by),
      );
    }),
  );
});

test('whoever asks while somebody asks gets a row of its own, and so does whoever asks after one that threw', () => {
  const whole = Int32Array.from({ length: 100 }, (_, n) => n);
  const odd = kept(whole, (one) => kept(whole, (other) => other <= one).length % 2 === 0);
  expect(odd).toEqual(whole.filter((one) => one % 2 === 1));
  expect(() =>
    kept(whole, (one) => {
      if (one === 50) throw new Error('no');
      return true;
    }),
  ).toThrow('no');
  expect(kept(whole, (one) => one < 3)).toEqual(Int32Array.of(0, 1, 2));
  expect(odd).toHaveLength(50);
});
