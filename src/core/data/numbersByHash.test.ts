import fc from 'fast-check';
import { hashed, hashSeed } from './hash';
import { NumbersByHash } from './numbersByHash';

test('what was added is found, and nothing else, however many have the same hash', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.nat(5_000), { maxLength: 3_000 }),
      fc.constantFrom(1, 7, 2 ** 32),
      (things, hashes) => {
        const hashOf = (thing: number) => hashed(hashSeed, thing) % hashes;
        const table = new NumbersByHash((number) => String(things[number]));
        for (const [number, thing] of things.entries()) {
          expect(
            table.find(
              hashOf(thing),
              (one) => things[one] === thing,
              () => String(thing),
            ),
          ).toBe(-1);
          table.add(hashOf(thing), number);
        }
        for (const [number, thing] of things.entries())
          expect(
            table.find(
              hashOf(thing),
              (one) => things[one] === thing,
              () => String(thing),
            ),
          ).toBe(number);
      },
    ),
    { numRuns: 20 },
  );
});
