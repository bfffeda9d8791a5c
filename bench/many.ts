// `npm run bench -- --many [COUNT]`: a test that takes too long for every day. 500,000 made-up messages are brought in, the
// page is opened anew, searched, all of the Inbox archived and that undone; after each the counts are what they must be.
import type { Page } from '@playwright/test';
import { counts, total } from '../e2e/desk';
import { archiveAll, bringIn, inBrowser, longConversation, undoArchive, until } from './browser';
import { watchMemory } from './browserSize';
import { demoFiles } from './files';

/** How long the counts may take to follow, in milliseconds. */
const patience = 120_000;

/** Waits until a number is what it must be; throws where it never is. */
async function becomes(what: string, wanted: number, look: () => Promise<number>): Promise<void> {
  const start = performance.now();
  let found = await look();
  while (found !== wanted) {
    if (performance.now() - start > patience) throw new Error(`${what}: ${found}, not ${wanted}.`);
    await new Promise((resolve) => setTimeout(resolve, 250));
    found = await look();
  }
  console.log(`${what}: ${wanted.toLocaleString('en')}, as it must be`);
}

const inPlace = (page: Page, name: string) => async () => (await counts(page, name)).total;

async function search(page: Page, query: string, count: number): Promise<void> {
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Query' }).fill(query);
  const heading = `document.querySelector('header[aria-label="Desk"] p')?.textContent`;
  const took = await until(
    page,
    () => page.keyboard.press('Enter'),
    `document.querySelector('h1')?.textContent === 'Found everywhere' && ${heading}?.startsWith('${count} messages')`,
    patience,
  );
  console.log(`searched: ${count} found in ${Math.round(took)} ms`);
}

export async function checkMany(count: number): Promise<void> {
  const memory = watchMemory();
  await inBrowser(async (context, address) => {
    let page = await context.newPage();
    await page.goto(address);
    await page.getByRole('button', { name: 'Start with my own mail' }).click();
    const took = await bringIn(page, [...demoFiles(count), longConversation()], 'line');
    const stage = (what: string) => console.log(`  memory at its most, ${what}: ${Math.round(memory.lap())} MB`);
    console.log(`brought in: in ${Math.round(took / 1_000)} s`);
    stage('bringing in');
    const all = count + 500;
    await becomes('messages', all, () => total(page));
    await page.close();
    page = await context.newPage();
    await page.goto(`${address}/inbox`);
    await page.locator('[role="row"][id]').first().waitFor();
    stage('opening anew');
    await search(page, 'subject "out of hand"', 500);
    await page.waitForTimeout(30_000);
    stage('searching, and reading all');
    await page.locator('nav a[title^="Inbox: "]').last().click();
    await page.locator('[role="grid"][aria-label="Inbox"] [role="row"][id]').first().waitFor();
    const inbox = await inPlace(page, 'Inbox')();
    await archiveAll(page, patience);
    await becomes('in the Archive', inbox, inPlace(page, 'Archive'));
    await becomes('in the Inbox', 0, inPlace(page, 'Inbox'));
    stage('archiving');
    await undoArchive(page, patience);
    stage('undoing');
    await becomes('in the Inbox again', inbox, inPlace(page, 'Inbox'));
    await page.waitForTimeout(5_000);
    await page.reload();
    await page.locator('[role="row"][id]').first().waitFor();
    await becomes('in the Inbox after a reload', inbox, inPlace(page, 'Inbox'));
    await becomes('messages after a reload', all, () => total(page));
    console.log(`memory at its most: ${Math.round(memory.end())} MB`);
  }).finally(() => memory.end());
}
