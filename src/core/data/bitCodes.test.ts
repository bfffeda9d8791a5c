import fc from 'fast-check';
import { BitReader, BitWriter, orderFor } from './bitCodes';

const written = (numbers: readonly number[], k: number): Uint8Array => {
  const bits = new BitWriter();
  for (const n of numbers) bits.number(n, k);
  return bits.end();
};
const digits = (bytes: Uint8Array): string => [...bytes].map((byte) => byte.toString(2).padStart(8, '0')).join('');

test.each([
  // ITU-T H.264, table 9-2.
  [0, '1'],
  [1, '010'],
  [2, '011'],
  [3, '00100'],
  [6, '00111'],
  [7, '0001000'],
  [8, '0001001'],
])('%i is written as the standard has it', (n, bits) => {
  expect(digits(written([n], 0))).toBe(bits.padEnd(8, '0'));
});

test('any numbers are read back, by any order', () => {
  const number = fc.oneof(fc.integer({ min: 0, max: 2 ** 32 - 2 }), fc.integer({ min: 0, max: 9 }));
  fc.assert(
    fc.property(fc.array(number), fc.integer({ min: 0, max: 31 }), (numbers, k) => {
      const bits = new BitReader(written(numbers, k));
      expect(numbers.map(() => bits.number(k))).toEqual(numbers);
    }),
  );
});

test('what is cut off is no number, and bytes without an end of zeros come to one', () => {
  const bits = new BitReader(written([5, 900_000], 2).subarray(0, 2));
  expect([bits.number(2), bits.number(2), bits.number(2)]).toEqual([5, NaN, NaN]);
  expect(new BitReader(new Uint8Array(1_000)).number(0)).toBeNaN();
});

test('the order follows the mean', () => {
  expect([0, 3, 100, 100_000].map(orderFor)).toEqual([0, 2, 6, 16]);
});
