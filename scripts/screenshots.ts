// `npm run screenshots`: the pictures in docs/screenshots/, from the demo mailbox, at the sizes that README says.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { chromium, type Browser, type BrowserContextOptions, type Page } from '@playwright/test';
import { findRow, openDemo, rows } from '../e2e/desk';
import { buildApp } from '../server/app';
import { demoFiles } from '../bench/files';

const folder = new URL('../docs/screenshots/', import.meta.url).pathname;
const executablePath = process.env.CHROMIUM ?? ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync);

spawnSync('npx', ['vite', 'build', '--logLevel', 'error'], { stdio: 'inherit' });
const app = await buildApp({
  dist: new URL('../dist', import.meta.url).pathname,
  count: 2_500,
  seed: 7,
  perMinute: 0,
  now: Date.now,
});
const baseURL = await app.listen({ host: '127.0.0.1', port: 0 });
const browser: Browser = await chromium.launch({
  executablePath,
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic'],
});

async function open(options: BrowserContextOptions = {}): Promise<Page> {
  const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 }, ...options });
  return context.newPage();
}

/** Takes a picture once nothing moves any more. */
async function shot(page: Page, name: string): Promise<void> {
  await page.evaluate(() => document.fonts.ready);
  await page.waitForFunction(() => !document.querySelector('[aria-busy="true"]'));
  await page.mouse.move(0, 0);
  await page.screenshot({ path: `${folder}${name}.png`, animations: 'disabled' });
}

const page = await open();
await page.goto('/');
await page.getByRole('button', { name: 'Open the demo mailbox' }).waitFor();
await shot(page, 'welcome');
await openDemo(page);
await (await findRow(page, 'jackets')).click();
await page.getByRole('article').waitFor();
await shot(page, 'desk');

await page.getByRole('link', { name: /^Junk/ }).click();
await (await findRow(page, 'Parts Direct')).click();
await page.getByRole('button', { name: /^Why here/ }).click();
await shot(page, 'reading');

await page.goto('/register/new?value=office%40stonness-harbour.example');
await page.getByRole('table').waitFor();
await shot(page, 'block');
await page.goto('/rules/new');
await page.getByLabel('Text in Subject').fill('jackets');
await page.getByLabel('move it to').selectOption('a new folder …');
await page.getByLabel('called').fill('Clothes');
await page.getByRole('table').waitFor();
await shot(page, 'rule');
await page.getByRole('button', { name: /^Save the rule/ }).click();
await page.getByRole('link', { name: 'Subject contains “jackets”' }).waitFor();
await shot(page, 'rules');
await page.goto('/register');
await shot(page, 'register');
await page.goto('/inbox');
await rows(page).first().click();
for (const key of ['a', 'Delete', 'f', 'a']) {
  await page.keyboard.press(key);
  await page.waitForTimeout(300);
}
await page.keyboard.press('Control+z');
await page
  .getByText(/^Undid/)
  .first()
  .waitFor();
await page.goto('/logbook');
await page.getByRole('table').waitFor();
await shot(page, 'logbook');
await page.goto('/mail');
await page.getByTestId('mail-files').setInputFiles(demoFiles(10_000));
await page.getByText(/[1-9],\d+ added/).waitFor();
await page.screenshot({ path: `${folder}import.png` });
await page.context().close();

const dark = await open({ colorScheme: 'dark' });
await openDemo(dark);
await rows(dark).nth(1).getByRole('checkbox').click();
await rows(dark)
  .nth(4)
  .getByRole('checkbox')
  .click({ modifiers: ['Shift'] });
await shot(dark, 'desk-dark');
await dark.context().close();

const narrow = await open({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
await openDemo(narrow);
await shot(narrow, 'narrow');
await (await findRow(narrow, 'jackets')).tap();
await narrow.getByRole('article').waitFor();
await shot(narrow, 'narrow-reading');

await browser.close();
await app.close();
