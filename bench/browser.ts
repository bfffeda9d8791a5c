// Measured in Chromium: the real page over the real server, from file to stored and shown, and what follows.
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { chromium, type BrowserContext, type Page } from '@playwright/test';
import { mbox, total } from '../e2e/desk';
import { buildApp } from '../server/app';
import { measureJudging, measureSize, rendererMemory, watchMemory, type SizeFigures } from './browserSize';

/** Times in milliseconds, memory in megabytes. */
export interface BrowserFigures extends SizeFigures {
  import: number;
  /** The longest that the page could not answer while the import ran. */
  longestFreeze: number;
  coldOpen: number;
  /** From opening the page until a dry run over all mail has answered. */
  allInMemory: number;
  changePlace: number;
  /** From pressing a filter until its rows are painted; and from gathering into conversations. */
  filter: number;
  group: number;
  /** From pressing its row until a conversation of 500 messages is painted. */
  openLong: number;
  /** The longest frame while the list is scrolled through: at a wheel’s pace, and a whole screen in each frame. */
  wheel: number;
  scroll: number;
  archiveHalf: number;
  undoHalf: number;
  /** From Enter until what a word finds is painted: right after the first rows of a new page, also until all of it is; and later. */
  findFirst: number;
  findWhole: number;
  find: number;
  /** A clear-out of all but the newest four of ten, from the press that confirms it until it is told; and its undo. */
  clearOut: number;
  clearOutUndo: number;
  /** 3,000 messages judged after the filter is switched on; and asked for after a reload. */
  judge: number;
  judgeAgain: number;
  /** At its most, and once all is read and nothing is done. */
  memoryPeak: number;
  memory: number;
}

export const executablePath =
  process.env.CHROMIUM ?? ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync);

export const launchArgs = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--disable-background-networking',
  '--disable-component-update',
];

// What runs within the page is given as text: the compiler's helpers for functions are not there.
const watchFirstRow = `(function look() {
  if (document.querySelector('[role="row"][id]')) window.first = performance.now();
  else requestAnimationFrame(look);
})()`;
const watchFreezes = `{
  window.longest = 0;
  let last = performance.now();
  setInterval(() => {
    const now = performance.now();
    window.longest = Math.max(window.longest, now - last - 10);
    last = now;
  }, 10);
}`;
/** From the key or press that follows until the condition holds. */
const watchFor = (condition: string) => `{
  window.took = null;
  let began = performance.now();
  for (const kind of ['keydown', 'click'])
    addEventListener(kind, () => (began = performance.now()), { capture: true, once: true });
  (function look() {
    if (${condition}) window.took = performance.now() - began;
    else requestAnimationFrame(look);
  })();
}`;

async function value(page: Page, name: string, timeout = 120_000): Promise<number> {
  const handle = await page.waitForFunction(`window.${name}`, undefined, { timeout });
  return Number(await handle.jsonValue());
}

/** How long it takes from an act, as the page hears of it, until a condition on the document holds. */
export async function until(
  page: Page,
  act: () => Promise<unknown>,
  condition: string,
  timeout?: number,
): Promise<number> {
  await page.evaluate(watchFor(condition));
  await act();
  return value(page, 'took', timeout);
}

const firstRow = `document.querySelector('[role="row"][id]')`;

/** A wheel turned fast, in pixels a frame: 120 frames of it are some thirty screens in two seconds. */
const wheelPace = 150;

/** Scrolls through the list by so many pixels in each frame; the longest time between two frames. */
async function longestFrame(page: Page, by: string): Promise<number> {
  await page.evaluate(`{
    window.scrolled = null;
    const grid = document.querySelector('[role="grid"]');
    let last = performance.now(), longest = 0, frames = 0;
    (function step() {
      const now = performance.now();
      if (frames > 2) longest = Math.max(longest, now - last);
      last = now;
      grid.scrollTop += ${by};
      if (++frames < 120) requestAnimationFrame(step);
      else { grid.scrollTop = 0; window.scrolled = longest; }
    })();
  }`);
  return value(page, 'scrolled');
}

/** One conversation of 500 messages, the newest of all. */
export function longConversation(): string {
  const file = path.join(os.tmpdir(), `wide-sort-long-${process.pid}.mbox`);
  const now = Date.now();
  const list = Array.from({ length: 500 }, (_, n) => ({
    id: `long${n}`,
    from: `Person ${n % 40} <p${n % 40}@x.test>`,
    subject: n ? 'Re: Out of hand' : 'Out of hand',
    answers: n ? ['long0', `long${Math.floor(n / 2)}`] : [],
    date: new Date(now - (500 - n) * 1_000).toISOString(),
  }));
  writeFileSync(file, mbox(list));
  return file;
}

export async function bringIn(page: Page, file: string | string[], target: string): Promise<number> {
  await page.getByLabel('Put the messages').selectOption(target);
  const start = performance.now();
  await page.getByTestId('mail-files').setInputFiles(file);
  // Looked for now and then: to look in each frame takes as much of the processor as it is measured for.
  await page.waitForFunction(
    `[...document.querySelectorAll('button')].some((one) => one.textContent === 'Put away')`,
    undefined,
    { timeout: 1_800_000, polling: 100 },
  );
  const took = performance.now() - start;
  await page.getByRole('button', { name: 'Put away' }).click();
  return took;
}

/** Brings files in: the first half goes into the Inbox, the rest into Junk. */
async function importing(page: Page, files: string[], address: string) {
  await page.goto(address);
  await page.getByRole('button', { name: 'Start with my own mail' }).click();
  await page.evaluate(watchFreezes);
  const half = Math.ceil(files.length / 2);
  let time = await bringIn(page, files.slice(0, half), 'line');
  time += await bringIn(page, files.slice(half), 'junk');
  await bringIn(page, longConversation(), 'line');
  const longestFreeze = Number(await page.evaluate('window.longest'));
  return { import: time, longestFreeze };
}

/** Opens it again and again, and reads all of it into memory. */
async function opening(context: BrowserContext, page: Page, address: string) {
  // A new page, as after a restart: the old one, and all that it had in memory, is gone. The middle one of five.
  const opens: number[] = [];
  for (let n = 0; n < 5; n++) {
    await page.close();
    // A worker that was in the midst of something takes a moment to end, and has the mailbox for so long.
    await new Promise((resolve) => setTimeout(resolve, 4_000));
    page = await context.newPage();
    await page.addInitScript(watchFirstRow);
    await page.goto(`${address}/inbox`);
    opens.push(await value(page, 'first'));
  }
  const coldOpen = opens.sort((x, y) => x - y)[2];
  // A dry run reads every envelope: once it answers, all of the mailbox is in memory.
  const asked = performance.now();
  await page.goto(`${address}/register/new?value=nobody.example`);
  await page.getByText('No message here would change.').waitFor({ timeout: 120_000 });
  const allInMemory = performance.now() - asked;
  const memory = rendererMemory();
  await page.locator('nav a[title^="Inbox: "]').last().click();
  await page.locator('[role="row"][id]').first().waitFor();

  return { page, coldOpen, allInMemory, memory };
}

/** Goes about: places, filters, scrolling, conversations. */
async function looking(page: Page) {
  const heading = (name: string) =>
    `document.querySelector('h1')?.textContent === '${name}' && document.querySelector('[role="grid"][aria-label="${name}"] [role="row"][id]')`;
  const changePlace = await until(page, () => page.locator('nav a[title^="Junk: "]').click(), heading('Junk'));
  await page.locator('nav a[title^="Inbox: "]').last().click();
  await page.waitForFunction(heading('Inbox'));
  const attached = page.getByRole('button', { name: 'With attachments' });
  const edge = `document.querySelector('header[aria-label="Desk"] p')?.textContent`;
  const before = await page.evaluate(edge);
  const filter = await until(page, () => attached.click(), `${edge} !== ${JSON.stringify(before)} && ${firstRow}`);
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await page.waitForFunction(`${edge} === ${JSON.stringify(before)}`);
  const wheel = await longestFrame(page, String(wheelPace));
  const scroll = await longestFrame(page, 'grid.clientHeight');
  const group = await until(
    page,
    () => page.getByRole('button', { name: 'Conversations' }).click(),
    `/conversation/.test(${edge} ?? '') && ${firstRow}`,
  );
  const openLong = await until(
    page,
    () => page.getByRole('row').filter({ hasText: '500 received' }).click(),
    `document.querySelectorAll('[id^="member-"]').length >= 60 && document.querySelector('[id^="member-"] article, [id^="member-"] header')`,
  );
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Conversations' }).click();
  await page.waitForFunction(`!/conversation/.test(${edge} ?? '')`);
  return { changePlace, filter, wheel, scroll, group, openLong };
}

/** What the list says it did. */
const told = (says: string) => `${says}.test(document.querySelector('footer [aria-live]')?.textContent ?? '')`;

/** Archives all of the list, as answered where more than a thousand are asked about. */
export async function archiveAll(page: Page, timeout?: number): Promise<number> {
  await page.keyboard.press('Control+a');
  await page.keyboard.press('a');
  const confirm = page.getByRole('dialog').getByRole('button', { name: /^Move .* to Archive$/ });
  return until(page, () => confirm.click(), told('/^Archived .* messages/'), timeout);
}

/** Marks all of the list as read: nothing is asked before that. */
export async function readAll(page: Page): Promise<void> {
  await page.keyboard.press('Control+a');
  await until(page, () => page.keyboard.press('r'), told('/^Marked .* messages as read/'));
}

/** Takes that back. */
export const undoArchive = (page: Page, timeout?: number): Promise<number> =>
  until(page, () => page.keyboard.press('Control+z'), told('/^Undid: Archived/'), timeout);

async function finding(page: Page, address: string) {
  const line = page.getByRole('combobox', { name: 'Query' });
  const find = async (word: string) => {
    await page.keyboard.press('/');
    await line.fill(word);
    const painted = `document.querySelector('[role="grid"][aria-label="Found everywhere"] [role="row"][id]') && location.pathname === '/find/${word}'`;
    return until(page, () => page.keyboard.press('Enter'), painted);
  };
  // Right after the first rows: the rest of the mailbox, and the text index, have to be read first.
  await page.goto(`${address}/inbox`);
  await page.locator('[role="row"][id]').first().waitFor();
  const began = performance.now();
  const findFirst = await find('harbour');
  await page.waitForFunction(`!/looked through/.test(document.querySelector('header[aria-label="Desk"]').textContent)`);
  const findWhole = performance.now() - began;
  // The index is warmed some seconds after all is in memory.
  await page.waitForTimeout(15_000);
  const finds: number[] = [];
  for (const word of ['morning', 'ferry', 'please', 'engine', 'report']) finds.push(await find(word));
  return { findFirst, findWhole, find: finds.sort((x, y) => x - y)[2] };
}

async function clearing(page: Page, address: string) {
  const keep = Math.round((await total(page)) * 0.4);
  const everything = new URLSearchParams({ of: '/find/all', choice: JSON.stringify({ keepNewest: keep }) });
  await page.goto(`${address}/clear-out?${everything.toString()}`);
  await page.getByRole('button', { name: /^Archive .* messages$/ }).click({ timeout: 120_000 });
  const toldAnywhere = (says: string) =>
    `[...document.querySelectorAll('[role="status"]')].some((status) => ${says}.test(status.textContent))`;
  const confirm = page.getByRole('dialog').getByRole('button', { name: /^Archive/ });
  const clearOut = await until(page, () => confirm.click(), toldAnywhere('/^Archived .* messages/'));
  const clearOutUndo = await until(page, () => page.keyboard.press('Control+z'), toldAnywhere('/^Undid: Archived/'));
  return { clearOut, clearOutUndo };
}

/** What was measured by some work; nothing, and why, where it came to no end: the rest is measured all the same. */
async function tried<T extends object>(work: () => Promise<T>): Promise<Partial<T>> {
  try {
    return said(await work());
  } catch (error) {
    console.error(String(error));
    return {};
  }
}

/** Says figures as they come, in whole numbers: a large mailbox takes half an hour. */
function said<T extends object>(figures: T): T {
  console.error(
    JSON.stringify(figures, (_, value: unknown) => (typeof value === 'number' ? Math.round(value) : value)),
  );
  return figures;
}

/**
 * Runs something in a browser of its own that keeps what it stores on the disk, as a person's does: one that keeps it in
 * memory takes several times as long to open a large mailbox.
 */
export async function inBrowser<T>(work: (context: BrowserContext, address: string) => Promise<T>): Promise<T> {
  const dist = new URL('../dist', import.meta.url).pathname;
  const app = await buildApp({ dist, count: 0, seed: 1, perMinute: 0, now: Date.now });
  const address = await app.listen({ host: '127.0.0.1', port: 0 });
  const folder = mkdtempSync(path.join(os.tmpdir(), 'wide-sort-browser-'));
  const viewport = { width: 1280, height: 800 };
  try {
    const context = await chromium.launchPersistentContext(folder, {
      executablePath,
      args: launchArgs,
      bypassCSP: true,
      viewport,
    });
    // Half a million messages take their time.
    context.setDefaultTimeout(300_000);
    try {
      return await work(context, address);
    } finally {
      await context.close();
    }
  } finally {
    await app.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

/**
 * Measures on files: the first half of them goes into the Inbox, the rest into Junk. `judging`: and the junk filter, which is
 * measured on a mailbox of its own.
 */
export async function measureBrowser(files: string[], judging: boolean): Promise<Partial<BrowserFigures>> {
  const figures = await inBrowser(async (context, address) => {
    const first = await context.newPage();
    const memory = watchMemory();
    const imported = said(await importing(first, files, address));
    const { page, ...opened } = await opening(context, first, address);
    return {
      ...imported,
      ...said(opened),
      ...(await tried(() => looking(page))),
      ...(await tried(async () => ({ archiveHalf: await archiveAll(page), undoHalf: await undoArchive(page) }))),
      ...(await tried(() => measureSize(page))),
      ...(await tried(() => finding(page, address))),
      ...(await tried(() => clearing(page, address))),
      memoryPeak: memory.end(),
    };
  });
  if (!judging) return figures;
  const judged = await inBrowser(async (context, address) => measureJudging(await context.newPage(), address));
  return { ...figures, ...said(judged) };
}
