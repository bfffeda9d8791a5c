// A little of the fuzz, on every run; `npm run fuzz` goes through 20,000 of each.
import { demoSetup } from '../demo/setup';
import type { Mailroom } from '../src/mailroom/border/mailroom';
import { raw, scripted, starter } from '../src/mailroom/testing/serviceTesting';
import { testTime } from '../src/mailroom/testing/testing';
import { fuzzCards, fuzzFiles, fuzzMessages, fuzzSettings } from './fuzz';
import { cases, chance } from './chance';
import { anything } from './fuzzing';

const some = Number(process.env.FUZZ ?? cases(60));

test('messages, altered and made: none throws, none stops the next', async () => {
  expect((await fuzzMessages(some, 1, 0)).count).toBe(some);
}, 3_600_000);

test('files of mail, altered: none throws, nothing comes out twice', async () => {
  expect((await fuzzFiles(some, 2, 0)).count).toBe(some);
}, 3_600_000);

test('setup, CSV and Sieve, altered: each is taken or refused in words', async () => {
  expect((await fuzzSettings(some, 3, 0)).count).toBe(some);
}, 3_600_000);

test('cards, altered, given to whoever reads files: none throws', async () => {
  expect((await fuzzCards(some, 4, 0)).count).toBe(some);
}, 3_600_000);

test('every call of the border with anything: an answer or an error, and the mailbox as it was', async () => {
  const post = scripted([
    [1, 2, 3].map((n) => ({ raw: raw(n), place: 'inbox' as const, seen: false, flagged: false })),
  ]);
  const { service } = await starter(() => demoSetup(testTime))(post);
  await service.begin('demo');
  await service.checkNow();
  const random = chance(4);
  // These do what they say, whatever they are given.
  const apart = new Set(['eraseAll', 'begin', 'checkNow', 'setPostRate']);
  const names = (Object.keys(service) as (keyof Mailroom)[]).filter((name) => !apart.has(name));
  for (let n = 0; n < some * 4; n++) {
    const name = names[random(names.length)];
    const args = Array.from({ length: random(5) }, () => anything(random));
    const call = service[name] as (...args: unknown[]) => Promise<unknown>;
    // A call that throws before it is a promise is one that rejects.
    const answer = await Promise.resolve()
      .then(() => call(...args))
      .catch((error: unknown) => {
        // Not by instanceof: an error of the host is of another realm here.
        if (typeof (error as Error | null)?.message !== 'string') throw new Error(`${name} rejects with no error`);
        return null;
      });
    structuredClone(answer);
  }
  const { total, setup } = await service.overview();
  expect(total).toBe(3);
  expect(setup.rules).toEqual(demoSetup(testTime).rules);
  expect(
    (await service.rows({ kind: 'place', place: 'inbox' }, { grouped: false, elsewhere: true }, 0, 9)).rows.length,
  ).toBeGreaterThan(0);
}, 3_600_000);
