// `npm run test:times`: runs all tests, writes what each took into docs/test-times.tsv, and prints the twenty that took most.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { root, runBeside } from '../install.mjs';
import { bound, costOf, writeTable, writtenIn } from './table.mjs';

const notes = path.join(root, '.cache/times');

/** The processor time, in seconds, of a computation that is always the same: the median of five. */
function reference() {
  const bytes = Buffer.alloc(8_000_000, 'Wide Sort');
  const once = () => {
    const before = process.cpuUsage();
    let sum = 0;
    for (let n = 0; n < 200_000_000; n++) sum = (sum * 31 + n) | 0;
    for (let n = 0; n < 20; n++) createHash('sha256').update(bytes).update(String(sum)).digest();
    const { user, system } = process.cpuUsage(before);
    return (user + system) / 1e6;
  };
  return Array.from({ length: 5 }, once).sort((a, b) => a - b)[2];
}

rmSync(notes, { recursive: true, force: true });
const took = reference();
const status = await runBeside('node', ['scripts/test.mjs', `--testPathIgnorePatterns=${bound}`]);
if (status !== 0) {
  console.error('The tests failed: no table was written.');
  process.exit(status);
}
const unit = existsSync(path.join(notes, 'unit.jsonl'))
  ? readFileSync(path.join(notes, 'unit.jsonl'), 'utf8')
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line))
  : [];
const rows = [
  ...JSON.parse(readFileSync(path.join(notes, 'browser.json'), 'utf8')).map((row) => ({ kind: 'browser', ...row })),
  ...unit.map(({ suite, wall, cpu }) => ({
    kind: 'unit',
    file: suite,
    test: '',
    wall,
    cpu,
    waiting: 0,
    openings: 0,
    pages: [],
  })),
]
  .map((row) => ({ ...row, written: writtenIn(row.file) }))
  .sort((a, b) => b.cpu - a.cpu);
writeTable(took, rows);
const sum = (kind, of) => rows.filter((row) => row.kind === kind).reduce((total, row) => total + row[of], 0);
console.log(
  `\n  browser: ${sum('browser', 'cpu').toFixed(0)} s of the processors, ${sum('browser', 'openings')} openings, ${sum('browser', 'waiting').toFixed(0)} s of waiting`,
);
console.log(`  unit: ${sum('unit', 'cpu').toFixed(0)} s of the processors`);
console.log(
  `  in all ${costOf({ reference: took, rows }).toFixed(0)} times the reference computation (${took.toFixed(2)} s)\n`,
);
for (const { cpu, wall, waiting, openings, file, test } of rows.slice(0, 20))
  console.log(
    `  ${cpu.toFixed(1).padStart(6)} s, on the clock ${wall.toFixed(1)}, waiting ${waiting.toFixed(1)}, ${openings} openings: ${file} ${test}`,
  );
