// How good the junk filter is on the real corpus, in folds, early to late, and as one lives with it, beside scikit-learn on
// the same folds and orders: `npm run bench -- --junk`; with `--write` the table goes into docs/junk.md.
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import {
  crossValidate,
  figuresOf,
  foldsOf,
  JunkModel,
  judgeOnline,
  learnAll,
  manyRounds,
  randomFrom,
  shuffled,
  writeModel,
  type Figures,
} from '../src/core';
import { corpusExamples, type CorpusExample } from './junkCorpus';

const seeds = [1, 2, 3, 4, 5];
const folds = 5;
const early = ['easy-ham-1', 'spam-1'];
const root = path.join(import.meta.dirname, '..');
const cache = path.join(root, '.cache');

type Row = Pick<Figures, 'auc1' | 'recall0' | 'recall01' | 'recall05'>;
const keys = ['auc1', 'recall0', 'recall01', 'recall05'] as const;
type Table = [name: string, row: Row][];

/** scikit-learn's models on the same folds or order; nothing where it is not installed. */
function sklearn(
  rows: { file: string; junk: boolean; fold: number }[],
  name: string,
  ...options: string[]
): (Row & { model: string })[] {
  mkdirSync(cache, { recursive: true });
  const file = path.join(cache, `folds-${name}.json`);
  writeFileSync(file, JSON.stringify(rows));
  try {
    const out = execFileSync('/usr/bin/python3', [path.join(root, 'scripts/junk-sklearn.py'), file, ...options], {
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

/** What one more mark costs, in milliseconds, and how long the model is as a file. */
function speeds(examples: readonly CorpusExample[]) {
  const model = new JunkModel();
  const marks = examples.map(({ features, junk }) => {
    const start = performance.now();
    model.learn(features, junk);
    return performance.now() - start;
  });
  return { mark: median(marks), longestMark: Math.max(...marks), bytes: writeModel(model).length };
}

async function inFolds(examples: readonly CorpusExample[]): Promise<Table> {
  const table: Table = [];
  for (const seed of seeds)
    table.push([`folds: Wide Sort, seed ${seed}`, figuresOf(await crossValidate(examples, folds, seed))]);
  const fold = foldsOf(examples, folds, 1);
  const rows = examples.map(({ file, junk }, i) => ({ file, junk, fold: fold[i] }));
  for (const row of sklearn(rows, 'seed-1')) table.push([`folds: scikit-learn, ${row.model}, seed 1`, row]);
  return table;
}

function earlyToLate(examples: readonly CorpusExample[]): Table {
  const [first, late] = [true, false].map((is) => examples.filter(({ group }) => early.includes(group) === is));
  const table: Table = seeds.map((seed) => {
    const model = new JunkModel();
    learnAll(model, first, manyRounds, seed);
    const judged = late.map(({ features, junk }) => ({ margin: model.margin(features), junk }));
    return [`early to late: Wide Sort, seed ${seed}`, figuresOf(judged)];
  });
  const rows = examples.map(({ file, junk, group }) => ({ file, junk, fold: early.includes(group) ? -1 : 0 }));
  for (const row of sklearn(rows, 'late')) table.push([`early to late: scikit-learn, ${row.model}`, row]);
  return table;
}

async function online(examples: readonly CorpusExample[]): Promise<Table> {
  const table: Table = [];
  const orders: [string, CorpusExample[]][] = [
    ['as it arrived', [...examples].sort((a, b) => a.at - b.at)],
    ...seeds.map((seed): [string, CorpusExample[]] => [`seed ${seed}`, shuffled(examples, randomFrom(seed))]),
  ];
  for (const [name, order] of orders) {
    const all = await judgeOnline(order);
    table.push([`one by one, ${name}: Wide Sort`, figuresOf(all.judged)]);
    const few = await judgeOnline(order, true);
    const says = `Wide Sort, ${few.marks.toLocaleString('en')} of ${order.length.toLocaleString('en')} marked`;
    table.push([`one by one, ${name}: ${says}`, figuresOf(few.judged)]);
    if (name !== 'as it arrived' && name !== 'seed 1') continue;
    const rows = order.map(({ file, junk }) => ({ file, junk, fold: 0 }));
    for (const row of sklearn(rows, 'online', '--online'))
      table.push([`one by one, ${name}: scikit-learn, ${row.model}`, row]);
  }
  return table;
}

/** The table in Markdown. */
function markdown(table: Table): string {
  const cell = (n: number | null, digits: number) => (n === null ? '-' : n.toFixed(digits));
  const lines = table.map(([name, row]) =>
    [name, cell(row.auc1, 4), ...keys.slice(1).map((key) => cell(row[key], 1))].join(' | '),
  );
  return ['', ' | 1-AUC | at 0 % | at 0.1 % | at 0.5 %', '--- | --- | --- | --- | ---', ...lines, '']
    .map((line) => (line ? `| ${line} |` : ''))
    .join('\n');
}

/** Puts the table between its marks in docs/junk.md. */
function writeTable(text: string): void {
  const file = path.join(root, 'docs/junk.md');
  const [begin, end] = ['<!-- table -->', '<!-- end of the table -->'];
  const doc = readFileSync(file, 'utf8');
  const [from, to] = [doc.indexOf(begin) + begin.length, doc.indexOf(end)];
  writeFileSync(file, `${doc.slice(0, from)}\n${text}\n${doc.slice(to)}`);
  execFileSync('npx', ['prettier', '--write', file], { cwd: root, stdio: 'ignore' });
}

/** Prints the table; `write`: and puts it into docs/junk.md. */
export async function benchJunk(write: boolean): Promise<void> {
  corpusExamples();
  // The second reading is measured: the first compiles.
  const examples = corpusExamples();
  const table = [...(await inFolds(examples)), ...earlyToLate(examples), ...(await online(examples))];
  console.log(markdown(table));
  if (write) writeTable(markdown(table));
  const { mark, longestMark, bytes } = speeds(examples);
  console.log(
    `one mark learned: ${mark.toFixed(3)} ms, the longest ${longestMark.toFixed(2)} ms (goal 2); model of all 6,046: ${bytes.toLocaleString('en')} bytes`,
  );
}
