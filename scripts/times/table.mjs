// The table of what tests take, docs/test-times.tsv: read and written here alone.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { root } from '../install.mjs';

export const tablePath = path.join(root, 'docs/test-times.tsv');

/**
 * @typedef {object} Row What a browser test, or a suite of unit tests, took. Times are in seconds.
 * @property {'browser' | 'unit'} kind
 * @property {string} file
 * @property {string} test its title; of a suite nothing
 * @property {number} written how many tests its file has, as they are written
 * @property {number} wall on the clock
 * @property {number} cpu of the processors
 * @property {number} waiting for what was expected
 * @property {number} openings how often the application was loaded
 * @property {string[]} pages the addresses that it was on
 */

const columns = ['kind', 'file', 'test', 'written', 'wall', 'cpu', 'waiting', 'openings', 'pages'];

/** How many tests a file has, as they are written: one in a loop is one. */
export const writtenIn = (file) =>
  [...readFileSync(path.join(root, file), 'utf8').matchAll(/^\s*(?:test|setup)(?:\.each\b|[(`])/gm)].length;

/** The test of the table itself: it is not in it. */
export const bound = 'scripts/times/bound.test.ts';

/** All files of tests, by their kind. */
export function testFiles() {
  const out = [];
  const visit = (folder) => {
    for (const name of readdirSync(path.join(root, folder))) {
      const file = `${folder}/${name}`;
      if (statSync(path.join(root, file)).isDirectory()) visit(file);
      else if (file === bound) continue;
      else if (/\.test\.tsx?$/.test(name)) out.push({ kind: 'unit', file });
      else if (/\.(spec|setup)\.ts$/.test(name)) out.push({ kind: 'browser', file });
    }
  };
  for (const folder of ['src', 'server', 'demo', 'cli', 'scripts', 'bench', 'e2e']) visit(folder);
  return out;
}

/** The table as it is committed: its rows, and the processor time of the reference computation in the same run. */
export function readTable() {
  const [head, , ...lines] = readFileSync(tablePath, 'utf8').trim().split('\n');
  const reference = Number(/([\d.]+) s/.exec(head)?.[1]);
  const rows = lines.map((line) => {
    const cells = line.split('\t');
    return {
      ...Object.fromEntries(columns.map((name, at) => [name, cells[at]])),
      ...Object.fromEntries(
        ['written', 'wall', 'cpu', 'waiting', 'openings'].map((name) => [name, Number(cells[columns.indexOf(name)])]),
      ),
      pages: (cells[columns.length - 1] ?? '').split(' ').filter(Boolean),
    };
  });
  return { reference, rows };
}

export function writeTable(reference, rows) {
  const cell = (value) =>
    typeof value === 'number' ? String(Math.round(value * 100) / 100) : Array.isArray(value) ? value.join(' ') : value;
  const lines = rows.map((row) => columns.map((name) => cell(row[name])).join('\t'));
  writeFileSync(
    tablePath,
    [
      `# made by npm run test:times; the reference computation took ${reference.toFixed(2)} s in this run`,
      columns.join('\t'),
      ...lines,
      '',
    ].join('\n'),
  );
}

/** The processor time of all tests, as a multiple of the reference computation’s: alike on a slow machine and a fast one. */
export const costOf = ({ reference, rows }) => rows.reduce((sum, { cpu }) => sum + cpu, 0) / reference;
