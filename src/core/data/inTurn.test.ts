import { InTurn } from './inTurn';

test('one after another, in their order; one that fails holds up nobody, and tells whoever asked for it', async () => {
  const turns = new InTurn();
  const did: string[] = [];
  let letGo: () => void = () => undefined;
  const held = new Promise<void>((done) => (letGo = done));
  const first = turns.do(async () => {
    did.push('first begins');
    await held;
    did.push('first ends');
    return 1;
  });
  const second = turns.do(() => Promise.reject(new Error('no')));
  const third = turns.do(async () => did.push('third'));
  letGo();
  expect(await first).toBe(1);
  await expect(second).rejects.toThrow('no');
  expect(await third).toBe(3);
  await turns.settled;
  expect(did).toEqual(['first begins', 'first ends', 'third']);
});
