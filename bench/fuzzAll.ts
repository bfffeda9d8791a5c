// `npm run fuzz`: 20,000 messages, as many files of mail, of settings and of cards; FUZZ=1000 for fewer, SEED=7 for others. Prints how
// long the slowest took for its length.
import { fuzzCards, fuzzFiles, fuzzMessages, fuzzSettings, type FuzzFigures } from './fuzz';

const count = Number(process.env.FUZZ ?? 20_000);
const seed = Number(process.env.SEED ?? 1);

const told = (what: string, { megabytes, seconds, slow, slowest }: FuzzFigures) =>
  console.log(
    `${what.padEnd(10)} ${count} in ${seconds.toFixed(0)} s, ${megabytes.toFixed(0)} MB, ${((seconds * 1_000) / megabytes).toFixed(0)} ms/MB; ` +
      `${slow} over 250 ms/MB, slowest ${slowest.rate.toFixed(0)}\n           ${slowest.what.slice(0, 200)}`,
  );

told('messages', await fuzzMessages(count, seed));
told('files', await fuzzFiles(count, seed + 1));
told('settings', await fuzzSettings(count, seed + 2));
told('cards', await fuzzCards(count, seed + 3));
