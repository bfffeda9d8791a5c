// `npm run bench [-- COUNT …] [--no-browser]`: one table, on the real corpus and on demo mailboxes of 10,000 and 100,000.
import { spawnSync } from 'node:child_process';
import { measureBrowser, type BrowserFigures } from './browser';
import { demoFiles, realFiles } from './files';
import { measureNode, type NodeFigures } from './node';

const args = process.argv.slice(2);
const counts = args.filter((a) => /^\d+$/.test(a)).map(Number);
const sizes = counts.length ? counts : [10_000, 100_000];
const inBrowser = !args.includes('--no-browser');

interface Column {
  name: string;
  node: NodeFigures;
  browser: BrowserFigures | null;
}

const rate = (n: number | null) => (n === null ? '-' : `${Math.round(n).toLocaleString('en')}/s`);
const ms = (n: number | undefined) => (n === undefined ? '-' : `${Math.round(n).toLocaleString('en')} ms`);
const ratio = (a: number, b: number | null) => (b === null ? '-' : `${(a / b).toFixed(2)} x`);

const lines: [name: string, value: (c: Column) => string][] = [
  ['Node.js: file to stored and listed', (c) => rate(c.node.import)],
  ['  postal-mime alone', (c) => rate(c.node.postalMime)],
  ['  Python mailbox + email', (c) => rate(c.node.python)],
  ['  of postal-mime’s rate', (c) => ratio(c.node.import, c.node.postalMime)],
  ['  of Python’s rate (goal 1.5)', (c) => ratio(c.node.import, c.node.python)],
  ['Chromium: file to stored and shown', (c) => rate(c.browser ? c.node.messages / (c.browser.import / 1000) : null)],
  ['  longest freeze of the page', (c) => ms(c.browser?.longestFreeze)],
  ['  cold open to first rows (goal 1,000 ms)', (c) => ms(c.browser?.coldOpen)],
  ['  open to a dry run over all of it', (c) => ms(c.browser?.allInMemory)],
  ['  change of place', (c) => ms(c.browser?.changePlace)],
  ['  archive half (goal 300 ms)', (c) => ms(c.browser?.archiveHalf)],
  ['  undo that', (c) => ms(c.browser?.undoHalf)],
  [
    '  memory, all of the page’s process (goal 500 MB)',
    (c) => (c.browser ? `${Math.round(c.browser.memory)} MB` : '-'),
  ],
];

const columns: Column[] = [];
if (inBrowser) spawnSync('npx', ['vite', 'build', '--logLevel', 'error'], { stdio: 'inherit' });
for (const [name, files] of [
  ['real corpus', realFiles],
  ...sizes.map((n) => [`demo ${n.toLocaleString('en')}`, () => demoFiles(n)] as const),
] as [string, () => string[]][]) {
  console.error(`measuring: ${name} …`);
  const paths = files();
  columns.push({ name, node: await measureNode(paths, true), browser: inBrowser ? await measureBrowser(paths) : null });
}

const width = Math.max(...lines.map(([name]) => name.length));
const cell = 16;
console.log([''.padEnd(width), ...columns.map((c) => c.name.padStart(cell))].join(''));
console.log(
  ['messages'.padEnd(width), ...columns.map((c) => c.node.messages.toLocaleString('en').padStart(cell))].join(''),
);
for (const [name, value] of lines)
  console.log([name.padEnd(width), ...columns.map((c) => value(c).padStart(cell))].join(''));
