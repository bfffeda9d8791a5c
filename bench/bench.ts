// `npm run bench -- --junk`: how good the junk filter is (junk.ts), `-- --junk-promise`: whether what it says of itself is so; `-- --search`: finding and clearing out (search.ts);
// `-- --stamps`: stamps and the Agenda (stamps.ts); `-- --delivery`: trays, the hold and the timetable (delivery.ts); `-- --large`: messages of 33 MB (large.ts).
// `-- --many [COUNT]`: a test on 500,000 made-up messages (many.ts).
// `npm run bench [-- COUNT …] [--no-browser]`: one table, on the real corpus and on demo mailboxes of 10,000 and 100,000.
import { spawnSync } from 'node:child_process';
import { measureBrowser, type BrowserFigures } from './browser';
import { demoFiles, realFiles } from './files';
import { benchJunk } from './junk';
import { benchJunkPromise } from './junkPromise';
import { benchDelivery } from './delivery';
import { benchLarge } from './large';
import { checkMany } from './many';
import { measureNode, type NodeFigures } from './node';
import { benchSearch } from './search';
import { benchStamps } from './stamps';
import { measureThreading, type ThreadingFigures } from './threading';

const args = process.argv.slice(2);
const counts = args.filter((a) => /^\d+$/.test(a)).map(Number);
const sizes = counts.length ? counts : [10_000, 100_000];
const inBrowser = !args.includes('--no-browser');

if (args.includes('--junk')) {
  await benchJunk(args.includes('--write'));
  process.exit(0);
}

if (args.includes('--junk-promise')) {
  await benchJunkPromise();
  process.exit(0);
}

if (args.includes('--large')) {
  await benchLarge();
  process.exit(0);
}

if (args.includes('--many')) {
  spawnSync('npx', ['vite', 'build', '--logLevel', 'error'], { stdio: 'inherit' });
  await checkMany(counts[0] ?? 500_000);
  process.exit(0);
}

if (args.includes('--delivery')) {
  await benchDelivery(sizes.at(-1) ?? 100_000);
  process.exit(0);
}

if (args.includes('--stamps')) {
  await benchStamps(sizes.at(-1) ?? 100_000);
  process.exit(0);
}

if (args.includes('--search')) {
  await benchSearch(sizes);
  process.exit(0);
}

interface Column {
  name: string;
  node: NodeFigures;
  threading: ThreadingFigures;
  browser: BrowserFigures | null;
}

const rate = (n: number | null) => (n === null ? '-' : `${Math.round(n).toLocaleString('en')}/s`);
const ms = (n: number | undefined) => (n === undefined ? '-' : `${Math.round(n).toLocaleString('en')} ms`);
const mb = (n: number | undefined) => (n === undefined ? '-' : `${Math.round(n).toLocaleString('en')} MB`);
const ratio = (a: number, b: number | null) => (b === null ? '-' : `${(a / b).toFixed(2)} x`);

const lines: [name: string, value: (c: Column) => string][] = [
  ['Node.js: file to stored and listed', (c) => rate(c.node.import)],
  ['  postal-mime alone', (c) => rate(c.node.postalMime)],
  ['  Python mailbox + email', (c) => rate(c.node.python)],
  ['  of postal-mime’s rate', (c) => ratio(c.node.import, c.node.postalMime)],
  ['  of Python’s rate (goal 1.5)', (c) => ratio(c.node.import, c.node.python)],
  ['Threading: all', (c) => ms(c.threading.all)],
  ['  messages a second', (c) => rate(c.threading.rate)],
  ['  Perl’s Mail::Thread', (c) => rate(c.threading.perl)],
  ['  of its rate (goal 20)', (c) => ratio(c.threading.rate, c.threading.perl)],
  ['  one more message (goal 1 ms)', (c) => `${c.threading.oneMore.toFixed(3)} ms`],
  ['Rules: dry run of 10', (c) => ms(c.node.rules.dryRun[10])],
  ['  of 50 (goal 1,000 ms)', (c) => ms(c.node.rules.dryRun[50])],
  ['  of 200', (c) => ms(c.node.rules.dryRun[200])],
  ['  one message by 50 (goal 50 µs)', (c) => `${c.node.rules.decide.toFixed(1)} µs`],
  ['  preview of one of 50, a word being typed (goal 150 ms)', (c) => ms(c.node.rules.preview)],
  ['  the same, a phrase', (c) => ms(c.node.rules.phrase)],
  ['A list by subject: first rows', (c) => ms(c.node.order.first)],
  ['  again, after an act (goal 100 ms)', (c) => ms(c.node.order.again)],
  ['  text index, of the import’s time (goal 33 %)', (c) => `${(c.node.indexing * 100).toFixed(0)} %`],
  ['Chromium: file to stored and shown', (c) => rate(c.browser ? c.node.messages / (c.browser.import / 1000) : null)],
  [
    '  of Python’s rate (goal 1.0 of real mail, 1.5 at 100,000)',
    (c) => (c.browser ? ratio(c.node.messages / (c.browser.import / 1000), c.node.python) : '-'),
  ],
  ['  longest freeze of the page', (c) => ms(c.browser?.longestFreeze)],
  ['  cold open to first rows (goal 800 ms at 100,000, 1,200 at 500,000)', (c) => ms(c.browser?.coldOpen)],
  ['  open to a dry run over all of it', (c) => ms(c.browser?.allInMemory)],
  ['  change of place', (c) => ms(c.browser?.changePlace)],
  ['  filter to painted rows (goal 100 ms)', (c) => ms(c.browser?.filter)],
  ['  group all to painted rows', (c) => ms(c.browser?.group)],
  ['  open a conversation of 500 (goal 300 ms)', (c) => ms(c.browser?.openLong)],
  ['  longest frame, scrolled by wheel (goal 50 ms)', (c) => ms(c.browser?.wheel)],
  ['  the same, a whole screen each frame', (c) => ms(c.browser?.scroll)],
  ['  archive half (goal 300 ms)', (c) => ms(c.browser?.archiveHalf)],
  ['  undo that', (c) => ms(c.browser?.undoHalf)],
  [
    '  first of what a word finds, right after the first rows (goal 1,000 ms at 100,000, 3,000 at 500,000)',
    (c) => ms(c.browser?.findFirst),
  ],
  ['  until all of it is found', (c) => ms(c.browser?.findWhole)],
  ['  find a word, Enter to painted rows', (c) => ms(c.browser?.find)],
  ['  clear-out of six of ten (goal 300 ms)', (c) => ms(c.browser?.clearOut)],
  ['  undo that', (c) => ms(c.browser?.clearOutUndo)],
  ['  order by subject, the first time', (c) => ms(c.browser?.sortFirst)],
  ['  again', (c) => ms(c.browser?.sort)],
  ['  to the last row', (c) => ms(c.browser?.lastRow)],
  ['  save the Inbox as one .mbox', (c) => ms(c.browser?.save)],
  ['  what of the Inbox stands whole elsewhere (goal 30 s)', (c) => ms(c.browser?.redundant)],
  ['  asked once more (goal 1,000 ms)', (c) => ms(c.browser?.redundantAgain)],
  ['  3,000 judged once the filter is on (goal 1,000 ms)', (c) => ms(c.browser?.judge)],
  ['  the same after a reload', (c) => ms(c.browser?.judgeAgain)],
  ['  memory of the page’s process at its most (goal 1,200 MB)', (c) => mb(c.browser?.memoryPeak)],
  ['  at rest (goal 900 MB)', (c) => mb(c.browser?.memory)],
];

const columns: Column[] = [];
if (inBrowser) spawnSync('npx', ['vite', 'build', '--logLevel', 'error'], { stdio: 'inherit' });
for (const [name, files] of [
  ['real corpus', realFiles],
  ...sizes.map((n) => [`demo ${n.toLocaleString('en')}`, () => demoFiles(n)] as const),
] as [string, () => string[]][]) {
  console.error(`measuring: ${name} …`);
  const paths = files();
  columns.push({
    name,
    threading: measureThreading(paths, name === 'real corpus'),
    node: await measureNode(paths, true),
    browser: inBrowser ? await measureBrowser(paths) : null,
  });
}

const width = Math.max(...lines.map(([name]) => name.length));
const cell = 16;
console.log([''.padEnd(width), ...columns.map((c) => c.name.padStart(cell))].join(''));
console.log(
  ['messages'.padEnd(width), ...columns.map((c) => c.node.messages.toLocaleString('en').padStart(cell))].join(''),
);
for (const [name, value] of lines)
  console.log([name.padEnd(width), ...columns.map((c) => value(c).padStart(cell))].join(''));
