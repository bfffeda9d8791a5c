// `npm run fuzz`: 20,000 messages, as many files of mail, of settings and of cards; FUZZ=1000 for fewer, SEED=7 for others,
// `npm run fuzz -- cards` for one kind alone. Prints how long the slowest took for its length.
import { fuzzCards, fuzzFiles, fuzzMessages, fuzzSettings } from './fuzz';

const count = Number(process.env.FUZZ ?? 20_000);
const seed = Number(process.env.SEED ?? 1);
const kinds = { messages: fuzzMessages, files: fuzzFiles, settings: fuzzSettings, cards: fuzzCards };
const asked = process.argv.slice(2);

for (const [n, [what, fuzz]] of Object.entries(kinds).entries()) {
  if (asked.length && !asked.includes(what)) continue;
  const { megabytes, seconds, slow, slowest } = await fuzz(count, seed + n);
  console.log(
    `${what.padEnd(10)} ${count} in ${seconds.toFixed(0)} s, ${megabytes.toFixed(0)} MB, ${((seconds * 1_000) / megabytes).toFixed(0)} ms/MB; ` +
      `${slow} over 250 ms/MB, slowest ${slowest.rate.toFixed(0)}\n           ${slowest.what.slice(0, 200)}`,
  );
}
