import { chromium } from '@playwright/test';
import { existsSync, writeFileSync } from 'node:fs';
import { bringIn, executablePath, launchArgs } from './browser';
import { demoFiles } from './files';
import { buildApp } from '../server/app';
const n = Number(process.argv[2]);
const times = Number(process.argv[3] ?? 5);
const traced = process.argv[4];
const folder = `/tmp/prof-${n}`;
const dist = new URL('../dist', import.meta.url).pathname;
const had = existsSync(folder);
const app = await buildApp({ dist, count: 0, seed: 1, perMinute: 0, now: Date.now });
const address = await app.listen({ host: '127.0.0.1', port: 4777 });
const launch = () => chromium.launchPersistentContext(folder, { executablePath, args: launchArgs, bypassCSP: true, viewport: { width: 1280, height: 800 } });
let context = await launch();
if (!had) {
  const page = await context.newPage();
  await page.goto(address);
  await page.getByRole('button', { name: 'Start with my own mail' }).click();
  console.log('import', Math.round(await bringIn(page, demoFiles(n), 'line')));
  await page.waitForTimeout(Number(process.env.PAUSE ?? 8000));
  await page.close();
  if (!process.env.KEEP) { await context.close();
  context = await launch(); } else await new Promise((r) => setTimeout(r, 4000));
}
const watchFirstRow = `(function look() {
  if (document.querySelector('[role="row"][id]')) window.first = performance.now();
  else requestAnimationFrame(look);
})()`;
const opens: number[] = [];
for (let k = 0; k < times; k++) {
  const page = await context.newPage();
  await page.addInitScript(watchFirstRow);
  let cdp: any = null;
  const events: any[] = [];
  if (traced && k === times - 1) {
    cdp = await context.newCDPSession(page);
    cdp.on('Tracing.dataCollected', ({ value }: any) => events.push(...value));
    await cdp.send('Tracing.start', { transferMode: 'ReportEvents', traceConfig: { includedCategories: ['devtools.timeline', 'v8', 'blink.user_timing', 'loading', 'disabled-by-default-v8.cpu_profiler', 'toplevel', 'IndexedDB', 'storage', 'navigation', 'disabled-by-default-devtools.timeline'] } });
  }
  await page.goto(`${address}/inbox`, { waitUntil: 'commit' });
  await page.waitForFunction('window.first');
  opens.push(Math.round(Number(await page.evaluate('window.first'))));
  if (process.argv[5]) console.log(JSON.stringify(await page.evaluate(`performance.getEntriesByType('navigation').concat(performance.getEntriesByType('resource')).map(r=>[r.name.split('/').pop().slice(0,12),Math.round(r.startTime),Math.round(r.connectStart),Math.round(r.requestStart),Math.round(r.responseStart),Math.round(r.responseEnd)])`)));
  if (cdp) {
    await page.waitForTimeout(500);
    const done = new Promise((r) => cdp.once('Tracing.tracingComplete', r));
    await cdp.send('Tracing.end');
    await done;
    writeFileSync(traced!, JSON.stringify(events));
  }
  await page.close();
  await new Promise((r) => setTimeout(r, 4000));
}
console.log(opens.join(' '), 'middle', opens.toSorted((a, b) => a - b)[Math.floor(times / 2)]);
await context.close();
await app.close();
process.exit(0);
