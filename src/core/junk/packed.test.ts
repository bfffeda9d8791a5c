import fc from 'fast-check';
import { packedFeatures, unpackedFeatures } from './packed';
import { slots } from './slots';

const features = fc
  .uniqueArray(fc.integer({ min: 0, max: slots - 1 }), { maxLength: 400 })
  .map((list) => Uint32Array.from(list).sort());

test('features are unpacked as they were packed', () => {
  fc.assert(fc.property(features, (list) => expect(unpackedFeatures(packedFeatures(list))).toEqual(list)));
});

test('a thousand letters take little more than a byte each', () => {
  const letters = Uint32Array.from({ length: 1_000 }, (_, n) => 2 ** 18 + n * 65);
  expect(packedFeatures(letters)).toHaveLength(1_002);
});
