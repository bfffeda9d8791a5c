// `npm run test:near [-- REVISION]`: the tests that are near to what was changed since a revision (main, where one is on
// another branch; else since the last commit), unit tests and browser tests, the nearest first, until a minute of them is
// chosen by what they took last (docs/test-times.tsv).
import { execFileSync, spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { importGraph } from '../imports.mjs';
import { installForTests, root, runBeside } from '../install.mjs';
import { readTable } from './table.mjs';

/** So many seconds of the processors are given to each kind of test. */
const most = { unit: 50, browser: 50 };

const git = (...args) => execFileSync('git', args, { cwd: root, encoding: 'utf8' }).trim();
const onMain = git('rev-parse', '--abbrev-ref', 'HEAD') === 'main';
const since = process.argv[2] ?? (onMain ? 'HEAD' : git('merge-base', 'HEAD', 'main'));
const changed = [
  ...git('diff', '--name-only', '--diff-filter=d', since).split('\n'),
  ...git('ls-files', '-o', '--exclude-standard').split('\n'),
].filter(Boolean);
if (changed.length === 0) {
  console.log(`Nothing was changed since ${since}.`);
  process.exit(0);
}

/** The tests nearest first, until so many seconds are chosen; always one. */
function upTo(seconds, list) {
  let sum = 0;
  return list.filter(({ cpu }, at) => (sum += cpu) <= seconds || at === 0);
}

const { rows } = readTable();

/** How far a suite is from the nearest change: in the same folder, in the same floor, elsewhere. */
function distance(file) {
  const steps = changed.map((one) => {
    const [a, b] = [path.posix.dirname(file).split('/'), path.posix.dirname(one).split('/')];
    const same = a.findIndex((part, at) => part !== b[at]);
    const common = same < 0 ? Math.min(a.length, b.length) : same;
    return a.length + b.length - 2 * common;
  });
  return Math.min(...steps);
}

function nearUnit() {
  const sources = changed.filter((file) => /\.(ts|tsx|mjs|cjs)$/.test(file) && !file.startsWith('e2e/'));
  if (sources.length === 0) return [];
  const listed = spawnSync('npx', ['jest', '--listTests', '--findRelatedTests', ...sources], {
    cwd: root,
    encoding: 'utf8',
  }).stdout;
  const files = listed
    .split('\n')
    .filter((line) => line.startsWith(root))
    .map((file) => file.slice(root.length));
  const cpu = new Map(rows.filter(({ kind }) => kind === 'unit').map((row) => [row.file, row.cpu]));
  return upTo(
    most.unit,
    files
      .map((file) => ({ file, cpu: cpu.get(file) ?? 1, far: distance(file) }))
      .sort((a, b) => a.far - b.far || a.cpu - b.cpu),
  );
}

/** The pages of the application by their addresses, and all that runs with each. */
function pagesWith() {
  const main = readFileSync(path.join(root, 'src/app/main.tsx'), 'utf8');
  const graph = importGraph(root, ['src']);
  const reach = (entry) => {
    const out = new Set([entry]);
    for (const file of out) for (const next of graph.get(file) ?? []) out.add(next);
    return out;
  };
  const routes = [
    ...main.matchAll(
      /path: '([^'*:]+?)(?:\/[^']*)?',\s+lazy: async \(\) => \(\{ Component: \(await import\('\.\/([^']+)'\)/g,
    ),
  ];
  return routes.map(([, address, module]) => ({ address: `/${address}`, files: reach(`src/app/${module}.tsx`) }));
}

function nearBrowser() {
  const pages = pagesWith();
  const own = (file) => pages.filter(({ files }) => files.has(file)).length;
  // What few pages have speaks for these; what most have says nothing of where to look.
  const weights = new Map();
  for (const file of changed.filter((one) => one.startsWith('src/')))
    for (const { address, files } of pages)
      if (files.has(file)) weights.set(address, Math.max(weights.get(address) ?? 0, 1 / own(file)));
  const tests = rows.filter(({ kind, file }) => kind === 'browser' && file.endsWith('.spec.ts'));
  const scored = tests.map((row) => {
    if (changed.includes(row.file)) return { ...row, near: 10 };
    const on = row.pages.map((address) => weights.get(`/${address.split('/')[1]}`) ?? 0);
    return { ...row, near: on.length ? Math.max(...on) / Math.sqrt(on.length) : 0 };
  });
  const floor = changed.some((file) => /^(src|server|demo|public)\//.test(file)) ? 0 : 1;
  return upTo(
    most.browser,
    scored.filter(({ near }) => near >= floor).sort((a, b) => b.near - a.near || a.cpu - b.cpu),
  );
}

const chromium = await installForTests();
const [unit, browser] = [nearUnit(), nearBrowser()];
console.log(
  `Changed since ${since}: ${changed.length} files. Near to them: ${unit.length} suites, ${browser.length} browser tests.`,
);
let failed = 0;
if (unit.length) failed |= await runBeside('npx', ['jest', '--runTestsByPath', ...unit.map(({ file }) => file)]);
if (browser.length) {
  const escaped = (text) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const names = browser.map(({ test }) => escaped(test.split(' › ').join(' '))).join('|');
  failed |= await runBeside('npx', ['playwright', 'test', '--grep', `(${names})$|is kept$`], {
    CHROMIUM: chromium,
  });
}
process.exitCode = failed;
