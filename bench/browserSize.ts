// What is measured in Chromium at every size, beside browser.ts: the ends of a long list, sorting, saving all of it, clearing
// out what stands whole elsewhere, judging; and the memory that the page takes meanwhile.
import { readdirSync, readFileSync, statSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { bringIn, readAll, until } from './browser';
import { demoFiles } from './files';

/** Resident memory of the largest renderer process below this one, in megabytes: the page with its workers. */
export function rendererMemory(): number {
  let largest = 0;
  for (const pid of readdirSync('/proc')) {
    if (!/^\d+$/.test(pid)) continue;
    try {
      const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
      if (!line.includes('--type=renderer')) continue;
      const kilobytes = Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0);
      largest = Math.max(largest, kilobytes / 1024);
    } catch {
      // The process ended between the listing and the reading.
    }
  }
  return largest;
}

/**
 * The most that the page took from now until `end` is called, looked at twice a second; in megabytes. `lap`: the most since
 * it was asked last.
 */
export function watchMemory(): { lap: () => number; end: () => number } {
  let [most, lately] = [0, 0];
  const timer = setInterval(() => {
    lately = Math.max(lately, rendererMemory());
    most = Math.max(most, lately);
  }, 500);
  return {
    lap: () => {
      const its = lately;
      lately = 0;
      return its;
    },
    end: () => {
      clearInterval(timer);
      return most;
    },
  };
}

/** Times in milliseconds. */
export interface SizeFigures {
  /** Order by subject, to painted rows: the first time, and once more after another order. */
  sortFirst: number;
  sort: number;
  /** To the end of the list, until its last row is painted. */
  lastRow: number;
  /** All of the Inbox as one .mbox, from the press until the file is saved. */
  save: number;
  /** What of the Inbox stands whole in a later message, until it can be archived: the first time, and asked once more. */
  redundant: number;
  redundantAgain: number;
}

const list = `document.querySelector('[role="grid"]')`;

/** The list in another order: its first row is another, and none is loading. */
async function sorted(page: Page, order: string): Promise<number> {
  const top = `${list}?.querySelector('[aria-rowindex="1"][id]')?.id`;
  const before = JSON.stringify(await page.evaluate(top));
  const act = () => page.getByRole('combobox', { name: 'Order' }).selectOption(order);
  return until(page, act, `(${top} ?? ${before}) !== ${before}`, 600_000);
}

/** Goes to a page without loading anew. */
const goWithin = (page: Page, to: string): Promise<unknown> =>
  page.evaluate(
    `history.pushState({ idx: history.length, key: '${to}' }, '', '${to}'), dispatchEvent(new PopStateEvent('popstate', { state: history.state }))`,
  );

/** Until what a clear-out would do stands there. */
async function redundantKnown(page: Page): Promise<number> {
  const start = performance.now();
  await page
    .getByRole('button', { name: /^Archive .* messages?$/ })
    .or(page.getByText('Nothing would go.'))
    .first()
    .waitFor({ timeout: 300_000 });
  return performance.now() - start;
}

function redundant(page: Page): Promise<number> {
  const asked = new URLSearchParams({ of: '/inbox', choice: JSON.stringify({ redundant: true }) });
  return goWithin(page, `/clear-out?${asked.toString()}`).then(() => redundantKnown(page));
}

/** All of it, on a page that has read everything into memory. */
export async function measureSize(page: Page): Promise<SizeFigures> {
  await page.locator('[role="row"][id]').first().waitFor();
  const sortFirst = await sorted(page, 'Subject, Z first');
  await sorted(page, 'Newest first');
  const sort = await sorted(page, 'Subject, Z first');
  await sorted(page, 'Newest first');
  const total = Number(await page.evaluate(`${list}.getAttribute('aria-rowcount')`));
  const lastRow = await until(
    page,
    () => page.evaluate(`${list}.scrollTo({ top: ${list}.scrollHeight })`),
    `${list}.querySelector('[aria-rowindex="${total}"][id]')`,
    600_000,
  );
  await page.evaluate(`${list}.scrollTo({ top: 0 })`);
  await goWithin(page, '/mail');
  const saved = page.waitForEvent('download', { timeout: 900_000 });
  const pressed = performance.now();
  await page.getByRole('button', { name: 'Save as one .mbox' }).click();
  const file = await (await saved).path();
  const save = performance.now() - pressed;
  if (statSync(file).size < 1_000) throw new Error('What was saved is empty.');
  // What is unread stays in any case.
  await goWithin(page, '/inbox');
  await page.locator('[role="row"][id]').first().waitFor();
  await readAll(page);
  const first = await redundant(page);
  // Asked once more on the same page: what is known of each conversation is kept.
  await goWithin(page, '/inbox');
  await page.locator('[role="row"][id]').first().waitFor();
  await page.evaluate('history.back()');
  const redundantAgain = await redundantKnown(page);
  return { sortFirst, sort, lastRow, save, redundant: first, redundantAgain };
}

/**
 * A mailbox of 3,000 messages: from the press that goes to the filter's page, on a page that has been open for a while, until
 * all are judged; and once more after a reload, from the address on. In ms.
 */
export async function measureJudging(page: Page, address: string): Promise<{ judge: number; judgeAgain: number }> {
  await page.goto(address);
  await page.getByRole('button', { name: 'Start with my own mail' }).click();
  for (const file of demoFiles(3_000)) await bringIn(page, file, 'inbox');
  const judged = async (go: () => Promise<unknown>) => {
    const start = performance.now();
    await go();
    await page.getByText(/^All .* messages in the Inbox and Junk/).waitFor({ timeout: 300_000 });
    return performance.now() - start;
  };
  await page.goto(`${address}/inbox`);
  await page.locator('[role="row"][id]').first().waitFor();
  await page.waitForTimeout(8_000);
  const judge = await judged(() => goWithin(page, '/junk-filter?strictness=50'));
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.waitForTimeout(8_000);
  return { judge, judgeAgain: await judged(() => page.goto(`${address}/junk-filter`)) };
}
