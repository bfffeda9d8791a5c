import { JunkModel, randomFrom } from './model';
import { modelVersion, readModel, writeModel } from './modelFile';

function someModel(): JunkModel {
  const random = randomFrom(5);
  const model = new JunkModel();
  for (let i = 0; i < 3_000; i++)
    model.weights[Math.floor(random() * model.weights.length)] = Math.round((random() - 0.5) * 2 ** 28);
  return model;
}

test('a model is read back exactly as it was written', () => {
  const model = someModel();
  model.weights.set([2 ** 31 - 1, -(2 ** 31), 1, -1]);
  const read = readModel(writeModel(model));
  if (!read.ok) throw new Error(read.error);
  expect(Buffer.from(read.model.weights.buffer).equals(Buffer.from(model.weights.buffer))).toBe(true);
});

test('with its lowest bits rounded away it is near enough, and shorter', () => {
  const model = someModel();
  const short = writeModel(model, 12);
  const read = readModel(short);
  expect(short.length).toBeLessThan(writeModel(model).length);
  if (!read.ok) throw new Error(read.error);
  let furthest = 0;
  for (const [slot, weight] of model.weights.entries())
    furthest = Math.max(furthest, Math.abs(read.model.weights[slot] - weight));
  expect(furthest).toBeLessThanOrEqual(2 ** 11);
});

test('an empty model is a file too', () => {
  const read = readModel(writeModel(new JunkModel()));
  expect(read.ok && read.model.weights.every((weight) => weight === 0)).toBe(true);
});

test('cut anywhere it is refused in words', () => {
  const whole = writeModel(someModel());
  for (let length = 0; length < whole.length; length += 97) {
    const read = readModel(whole.subarray(0, length));
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.error).toMatch(/^This (?:is no junk filter model|model is cut off)/);
  }
});

test.each([
  ['another file', (bytes: Uint8Array) => bytes.fill(65), 'This is no junk filter model.'],
  [
    'a newer version',
    (bytes: Uint8Array) => bytes.fill(modelVersion + 1, 4, 5),
    /^This model has version 6, which is newer/,
  ],
  ['an older version', (bytes: Uint8Array) => bytes.fill(1, 4, 5), /^An earlier version made it/],
  ['other features', (bytes: Uint8Array) => bytes.fill(9, 5, 6), /^This model was made for other features/],
  ['one spoilt byte', (bytes: Uint8Array) => bytes.fill(bytes[40] ^ 1, 40, 41), /spoilt/],
])('%s is refused', (_what, spoil, error) => {
  const bytes = writeModel(someModel());
  spoil(bytes);
  const read = readModel(bytes);
  expect(read.ok ? '' : read.error).toMatch(error);
});
