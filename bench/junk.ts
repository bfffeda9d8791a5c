// How good the junk filter is on the real corpus, over five seeds, beside scikit-learn on the same folds:
// `npm run bench -- --junk`.
import { execFileSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import {
  crossValidate,
  figuresOf,
  foldsOf,
  JunkModel,
  learnAll,
  manyRounds,
  writeModel,
  type Figures,
} from '../src/core';
import { corpusExamples, type CorpusExample } from './junkCorpus';

const seeds = [1, 2, 3, 4, 5];
const folds = 5;
const early = ['easy-ham-1', 'spam-1'];
const cache = path.join(import.meta.dirname, '../.cache');

type Row = Pick<Figures, 'auc1' | 'recall0' | 'recall01' | 'recall05'>;
const keys = ['auc1', 'recall0', 'recall01', 'recall05'] as const;

const cell = (n: number | null, digits: number) => (n === null ? '-' : n.toFixed(digits)).padStart(9);
const line = (name: string, row: Row) =>
  console.log(
    name.padEnd(44) +
      cell(row.auc1, 4) +
      keys
        .slice(1)
        .map((key) => cell(row[key], 2))
        .join(''),
  );

/** scikit-learn's models on the same folds; nothing where it is not installed. */
function sklearn(rows: { file: string; junk: boolean; fold: number }[], name: string): (Row & { model: string })[] {
  mkdirSync(cache, { recursive: true });
  const file = path.join(cache, `folds-${name}.json`);
  writeFileSync(file, JSON.stringify(rows));
  try {
    const script = path.join(import.meta.dirname, '../scripts/junk-sklearn.py');
    const out = execFileSync('/usr/bin/python3', [script, file], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    return out
      .trim()
      .split('\n')
      .map((text) => JSON.parse(text) as Row & { model: string });
  } catch (error) {
    console.error(`scikit-learn is not there (Debian: python3-sklearn): ${String(error).split('\n')[0]}`);
    return [];
  }
}

function median(numbers: number[]): number {
  return numbers.sort((a, b) => a - b)[Math.floor(numbers.length / 2)];
}

/** What one more mark costs, in milliseconds, and messages a second for scoring with their features at hand. */
function speeds(examples: readonly CorpusExample[]) {
  const model = new JunkModel();
  const marks = examples.map(({ features, junk }) => {
    const start = performance.now();
    model.learn(features, junk);
    return performance.now() - start;
  });
  return { mark: median(marks), longestMark: Math.max(...marks), bytes: writeModel(model).length };
}

/** Prints the table. */
export async function benchJunk(): Promise<void> {
  corpusExamples();
  // The second reading is measured: the first compiles.
  const examples = corpusExamples();
  console.log(
    `${'real corpus, 5 folds'.padEnd(44)}${['1-AUC %', 'at 0 %', 'at 0.1 %', 'at 0.5 %'].map((w) => w.padStart(9)).join('')}`,
  );
  const ours: Row[] = [];
  for (const seed of seeds) {
    ours.push(figuresOf(await crossValidate(examples, folds, seed)));
    line(`Wide Sort, seed ${seed}`, ours[ours.length - 1]);
  }
  for (const [word, pick] of [
    ['lowest', Math.min],
    ['highest', Math.max],
  ] as const)
    line(
      `Wide Sort, ${word} of five`,
      Object.fromEntries(keys.map((key) => [key, pick(...ours.map((row) => row[key] ?? 0))])) as unknown as Row,
    );
  line(
    'Wide Sort, each mark learned once, seed 1',
    figuresOf(await crossValidate(examples, folds, 1, new JunkModel(), 1)),
  );
  const fold = foldsOf(examples, folds, 1);
  for (const row of sklearn(
    examples.map(({ file, junk }, i) => ({ file, junk, fold: fold[i] })),
    'seed-1',
  ))
    line(`scikit-learn, ${row.model}, seed 1`, row);

  console.log('\nearly to late (easy-ham-1 and spam-1 → the rest)');
  const model = new JunkModel();
  learnAll(
    model,
    examples.filter(({ group }) => early.includes(group)),
    manyRounds,
    1,
  );
  const late = examples.filter(({ group }) => !early.includes(group));
  line('Wide Sort', figuresOf(late.map(({ features, junk }) => ({ margin: model.margin(features), junk }))));
  const apart = examples.map(({ file, junk, group }) => ({ file, junk, fold: early.includes(group) ? -1 : 0 }));
  for (const row of sklearn(apart, 'late')) line(`scikit-learn, ${row.model}`, row);
  const { mark, longestMark, bytes } = speeds(examples);
  console.log(
    `\none mark learned: ${mark.toFixed(3)} ms, the longest ${longestMark.toFixed(2)} ms (goal 10); model of all 6,046: ${bytes.toLocaleString('en')} bytes (goal 5,000,000)`,
  );
}
