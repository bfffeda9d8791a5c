// Whether what the page says of a strictness on one's own marks is so on mail kept apart: `npm run bench -- --junk-promise`.
import { crossValidate, JunkModel, learnAll, randomFrom, scoreOf, shuffled } from '../src/core';
import { atLine } from '../src/core/junk/atLine';
import { atMost } from '../src/core/junk/margin';
import { lineOf } from '../src/core/junk/settings';
import { corpusExamples } from './junkCorpus';

const seeds = Array.from({ length: 25 }, (_, i) => i + 1);
/** As the page reckons (src/mailroom/questions/junkReport.ts). */
const [folds, rounds] = [5, 4];
const strictest = 95;

/** Prints how often the share lost on mail kept apart is within the margin that is said, by how many were marked. */
export async function benchJunkPromise(): Promise<void> {
  const examples = corpusExamples();
  console.log(
    'marks   said at most   lost apart   within it (of every strictness, 25 seeds)   of the strictest below 1 in 1,000',
  );
  for (const size of [100, 300, 1_000, 3_000]) {
    let [within, lines, chosenWithin, said, lost] = [0, 0, 0, 0, 0];
    for (const seed of seeds) {
      const order = shuffled(examples, randomFrom(seed));
      const [marked, apart] = [order.slice(0, size), order.slice(size)];
      const judged = await crossValidate(marked, folds, 1, new JunkModel(), rounds);
      const own = judged.map(({ margin, junk }) => ({ score: scoreOf(margin), junk }));
      const model = new JunkModel();
      learnAll(model, marked, rounds, 1);
      const others = apart.map(({ features, junk }) => ({ score: scoreOf(model.margin(features)), junk }));
      let chosen: { bound: number; lost: number } | null = null;
      for (let strictness = 1; strictness <= strictest; strictness++) {
        const line = lineOf(strictness) ?? 100;
        const here = atLine(own, line);
        const bound = atMost(here.lostCount, here.good);
        const there = atLine(others, line).lost ?? 0;
        lines++;
        if (there <= bound) within++;
        // Whoever wants to lose no more than one in a thousand takes the strictest that says so: that is the hardest case.
        if ((here.lost ?? 0) <= 0.1) chosen = { bound, lost: there };
      }
      if (!chosen) continue;
      if (chosen.lost <= chosen.bound) chosenWithin++;
      said += chosen.bound / seeds.length;
      lost += chosen.lost / seeds.length;
    }
    console.log(
      `${String(size).padStart(5)}${`${said.toFixed(2)} %`.padStart(15)}${`${lost.toFixed(2)} %`.padStart(13)}${`${((100 * within) / lines).toFixed(1)} %`.padStart(12)}${`${chosenWithin} of ${seeds.length}`.padStart(48)}`,
    );
  }
}
