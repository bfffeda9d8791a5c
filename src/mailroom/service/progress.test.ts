import { progressOf } from './progress';

test('progress is told at once, then ten times a second, and that all is done', () => {
  const told: number[] = [];
  let now = 0;
  const tell = progressOf({ tell: (event) => event.kind === 'progress' && told.push(event.done) }, 'job', () => now);
  for (let done = 1; done <= 100; done++) {
    now += 30;
    tell(done, 100);
  }
  expect(told.slice(0, 3)).toEqual([1, 5, 9]);
  expect(told.at(-1)).toBe(100);
  expect(told.length).toBeLessThan(30);
});
