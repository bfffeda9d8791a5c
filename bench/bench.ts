// `npm run bench -- --junk`: how good the junk filter is (junk.ts), `-- --junk-promise`: whether what it says of itself is so; `-- --search`: finding and clearing out (search.ts);
// `-- --stamps`: stamps and the Agenda (stamps.ts); `-- --delivery`: trays, the hold and the timetable (delivery.ts); `-- --large`: messages of 33 MB (large.ts).
// `-- --many [COUNT]`: a test on 500,000 made-up messages (many.ts).
// `npm run bench [-- COUNT …] [--no-browser]`: one table (table.ts), on the real corpus and on demo mailboxes of 10,000, 100,000
// and 500,000: that takes most of an hour.
import { spawnSync } from 'node:child_process';
import { measureBrowser } from './browser';
import { demoFiles, realFiles } from './files';
import { benchJunk } from './junk';
import { benchJunkPromise } from './junkPromise';
import { benchDelivery } from './delivery';
import { benchLarge } from './large';
import { checkMany } from './many';
import { measureNode, python } from './node';
import { benchSearch } from './search';
import { benchStamps } from './stamps';
import { tableOf, type Column } from './table';
import { measureThreading } from './threading';

const args = process.argv.slice(2);
const counts = args.filter((a) => /^\d+$/.test(a)).map(Number);
const sizes = counts.length ? counts : [10_000, 100_000, 500_000];
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

const mailboxes: [name: string, files: () => string[], large: boolean][] = [
  ['real corpus', realFiles, false],
  ...sizes.map((n): [string, () => string[], boolean] => [
    `demo ${n.toLocaleString('en')}`,
    () => demoFiles(n),
    n > 100_000,
  ]),
];
// Chromium first: what Node.js has to clear away of its own measuring would hold up the server that the page is opened from.
const browsers: Column['browser'][] = [];
if (inBrowser) {
  spawnSync('npx', ['vite', 'build', '--logLevel', 'error'], { stdio: 'inherit' });
  for (const [at, [name, files, large]] of mailboxes.entries()) {
    console.error(`measuring in Chromium: ${name} …`);
    // Python right before it: a machine that others use, too, is another one some minutes later.
    const beside = large ? null : python(files());
    browsers.push({ ...(await measureBrowser(files(), at === 0)), ...(beside && { python: beside }) });
  }
}
const columns: Column[] = [];
for (const [at, [name, files]] of mailboxes.entries()) {
  console.error(`measuring in Node.js: ${name} …`);
  const threading = measureThreading(files(), at === 0);
  columns.push({ name, threading, node: await measureNode(files(), true), browser: browsers[at] ?? null });
}

console.log(tableOf(columns));
