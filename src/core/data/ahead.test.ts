import { ahead } from './ahead';

test('the next is asked for while one is waited for, none twice, each in its turn', async () => {
  const events: string[] = [];
  const fetch = async (one: number) => {
    events.push(`asked ${one}`);
    await Promise.resolve();
    return one * 10;
  };
  for await (const [one, fetched] of ahead([1, 2, 3], fetch)) events.push(`had ${one} ${fetched}`);
  expect(events).toEqual(['asked 1', 'asked 2', 'had 1 10', 'asked 3', 'had 2 20', 'had 3 30']);
  for await (const nothing of ahead([], fetch)) throw new Error(String(nothing));
});

test('as many are asked for ahead as is said', async () => {
  const asked: number[] = [];
  const fetch = (one: number) => Promise.resolve(asked.push(one));
  for await (const [one] of ahead([1, 2, 3, 4, 5, 6], fetch, 3)) expect(asked).toHaveLength(Math.min(6, one + 3));
  expect(asked).toEqual([1, 2, 3, 4, 5, 6]);
});

test('what fails is thrown when its turn comes, after what came before it; who stops is owed nothing', async () => {
  const had: number[] = [];
  const fetch = (one: number) => (one === 2 ? Promise.reject(new Error('no two')) : Promise.resolve(one));
  const all = async () => {
    for await (const [one] of ahead([1, 2, 3], fetch)) had.push(one);
  };
  await expect(all()).rejects.toThrow('no two');
  expect(had).toEqual([1]);
  for await (const [one] of ahead([1, 2], fetch)) if (one === 1) break;
});
