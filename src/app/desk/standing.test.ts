import { shiftOf } from './standing';

const inSight = ['a', 'b', 'c', 'd'].map((_, n) => ({ key: n, index: 10 + n }));
const at = (now: Record<number, number>) => (key: number) => now[key] ?? -1;

test('what comes in above shifts all that is in sight; what leaves above shifts it back', () => {
  expect(shiftOf(inSight, at({ 0: 12, 1: 13, 2: 14, 3: 15 }))).toBe(2);
  expect(shiftOf(inSight, at({ 0: 9, 1: 10, 2: 11, 3: 12 }))).toBe(-1);
});

test('a row that leaves from within moves only what stands below it', () => {
  expect(shiftOf(inSight, at({ 0: 10, 1: 11, 3: 12 }))).toBe(0);
});

test('a conversation that goes to the top is not followed', () => {
  expect(shiftOf(inSight, at({ 0: 0, 1: 11, 2: 12, 3: 13 }))).toBe(0);
  expect(shiftOf(inSight, at({ 0: 10, 1: 0, 2: 13, 3: 14 }))).toBe(1);
});

test('one row alone is gone by; where none is left, nothing is', () => {
  expect(shiftOf(inSight.slice(0, 1), at({ 0: 13 }))).toBe(3);
  expect(shiftOf(inSight, at({}))).toBe(0);
});
