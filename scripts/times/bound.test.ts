// A bound on what all tests take, so that whoever adds one takes away another: by the table that `npm run test:times` wrote,
// not by a clock on a machine that others use, too.
import { execFileSync } from 'node:child_process';
import path from 'node:path';

/** The processor time of all tests when they were last made quick, as a multiple of the reference computation's. */
const reached = 1500;

const root = path.join(__dirname, '../..');
const code = `import { costOf, readTable, testFiles, writtenIn } from './scripts/times/table.mjs';
  const table = readTable();
  const files = testFiles().map(({ kind, file }) => ({ kind, file, written: writtenIn(file) }));
  process.stdout.write(JSON.stringify({ cost: costOf(table), files, rows: table.rows }));`;

interface Told {
  cost: number;
  files: { kind: string; file: string; written: number }[];
  rows: { kind: string; file: string; written: number }[];
}

const { cost, files, rows } = JSON.parse(
  execFileSync('node', ['--input-type=module', '-e', code], { cwd: root, encoding: 'utf8', maxBuffer: 1 << 26 }),
) as Told;

test('all tests together take at most a tenth more than was reached', () => {
  expect(rows.length).toBeGreaterThan(300);
  expect(cost).toBeLessThan(1.1 * reached);
});

test('the table has all tests that there are, and none that is gone: npm run test:times writes it anew', () => {
  const recorded = new Map(rows.map(({ kind, file, written }) => [`${kind} ${file}`, written]));
  expect(Object.fromEntries([...recorded].sort())).toEqual(
    Object.fromEntries(files.map(({ kind, file, written }) => [`${kind} ${file}`, written]).sort()),
  );
});
