// `npm run screenshots`: the pictures in docs/screenshots/, from the demo mailbox, at the sizes that README says.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { chromium, type Browser, type BrowserContextOptions, type Page } from '@playwright/test';
import { findRow, goTo, openDemoAnew, rows } from '../e2e/desk';
import { buildApp } from '../server/app';

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
  await page.getByText('Opening…').waitFor({ state: 'hidden' });
  // What is still being counted or checked is shown by dots.
  await page.waitForFunction(
    () =>
      ![...document.querySelectorAll('td, nav span')].some(({ textContent }) =>
        /^(checking )?…$/.test(textContent ?? ''),
      ),
  );
  await page.mouse.move(0, 0);
  await page.screenshot({ path: `${folder}${name}.png`, animations: 'disabled' });
}

const page = await open();
await openDemoAnew(page);
// Of the conversation that got out of hand a message with others of it in sight.
const jackets = rows(page).filter({ hasText: 'jackets' });
await (await findRow(page, 'jackets')).waitFor();
for (let top = 200; (await jackets.count()) < 3; top += 200) {
  await page.getByRole('grid').evaluate((grid, to) => grid.scrollTo({ top: to }), top);
  await page.waitForTimeout(200);
}
await jackets.nth(1).click();
await page.getByRole('article').getByRole('button', { name: 'Reply', exact: true }).waitFor();
await shot(page, 'desk');

// The conversation that got out of hand: as a stack, as a tree, and answered.
await page.keyboard.press('g');
await page.getByRole('toolbar', { name: 'Conversation' }).waitFor();
await page.getByRole('button', { name: /^(Open|Close) all$/ }).click();
await shot(page, 'stack');
await page.keyboard.press('y');
await page.getByRole('region', { name: 'Reply' }).getByRole('textbox', { name: 'Text' }).click();
await page.keyboard.type('Medium for me, please. The list of sizes is attached.');
await page.getByText('It speaks of something attached').waitFor();
await shot(page, 'writing');
await page.getByRole('button', { name: 'Throw away' }).click();
await page.keyboard.press('Escape');
await page.keyboard.press('g');
await page.keyboard.press('v');
await page.getByRole('region', { name: 'Lane Machines' }).getByText('in all').waitFor();
await shot(page, 'lanes');
await page.keyboard.press('v');

await page.goto('/inbox');
await (await findRow(page, 'Winter timetable, last look')).click();
await page.getByRole('button', { name: /^Why here/ }).click();
await page.getByText('In the way at that time').scrollIntoViewIfNeeded();
await shot(page, 'reading');

await page.goto('/inbox');
await (await findRow(page, 'jackets')).click();
await page.getByRole('article').getByRole('link', { name: 'Sort mail like this' }).click();
// What it proposes besides the sender depends on whose message comes first that day.
await page
  .getByRole('button', { name: /^(Subject contains|To or Cc is)/ })
  .first()
  .click();
await page.getByRole('button', { name: 'Unless …' }).click();
await page.getByLabel('What it looks at').last().selectOption('Addressed');
await page.getByRole('table').waitFor();
await shot(page, 'rule');
// A stamp, with what it would do to the open message.
await page.goto('/inbox');
await (await findRow(page, 'jackets')).click();
await page.getByRole('article').getByRole('button', { name: 'Reply', exact: true }).waitFor();
await goTo(page, '/stamps/charter');
await page.getByText('the Logbook would say').waitFor();
await shot(page, 'stamps');
await page.goto('/trays/crew');
await page.getByText('Would have waited longest').waitFor();
await shot(page, 'trays');
// Something waits for the Agenda and for Held.
await page.goto('/inbox');
await page.locator('[role="row"][id]').nth(2).click();
await page.getByRole('article').waitFor();
await page.keyboard.press('Shift+D');
await page.getByRole('button', { name: /^Next week/ }).click();
await page.getByText(/^Put off “/).waitFor();
await page.goto('/agenda');
await page.getByRole('region', { name: 'Late', exact: true }).waitFor();
await shot(page, 'agenda');
await page.goto('/register');
await page.getByRole('table').waitFor();
await shot(page, 'register');
await page.goto('/junk-filter');
await page.getByText(/% of junk caught/).waitFor();
await page.getByRole('slider').fill('35');
await page.getByRole('table', { name: 'Messages that would change' }).waitFor();
await shot(page, 'junk-filter');
await page.goto('/second-look');
await page.getByText('because of').waitFor();
await page.keyboard.press('n');
await page.getByText(/^Learned from/).waitFor();
await shot(page, 'second-look');
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
await page.goto('/logbook?who=all');
await page
  .getByRole('table')
  .getByRole('button', { name: /^2,500 messages arrived/ })
  .click();
await page.getByRole('list', { name: 'Who decided' }).waitFor();
await shot(page, 'logbook');

// A clear-out with what it would touch; a sender with its list.
await page.goto('/clear-out?of=everywhere');
await page.getByRole('button', { name: /^Bulletins older than two weeks [\d,]+$/ }).click();
await page.getByText(/would go\.$/).waitFor();
await shot(page, 'clear-out');
await page.goto('/senders');
await page.getByRole('grid').getByRole('row').filter({ hasText: 'Crew Welfare' }).click();
await page.getByRole('button', { name: 'Leave the list …' }).waitFor();
await shot(page, 'senders');
await page.goto('/delivery');
await page.getByLabel('Deliver by the timetable').check();
const hours = page.getByRole('group', { name: 'Hours by their beginning and end' });
await hours.getByRole('button', { name: 'Mail comes' }).click();
await hours.getByLabel('Days of the hours').selectOption('Wednesday');
await hours.getByLabel('Hours from').selectOption('10:00');
await hours.getByLabel('Hours to').selectOption('15:00');
await hours.getByRole('button', { name: 'Mail comes' }).click();
await page.getByLabel('Time of delivery').fill('16:00');
await page.getByRole('button', { name: 'Fixed time' }).click();
await page.getByText('Would have waited longest').waitFor();
await page.getByRole('grid').scrollIntoViewIfNeeded();
await page.getByRole('list', { name: 'The timetable in words' }).scrollIntoViewIfNeeded();
await shot(page, 'hold');
await page.context().close();

const dark = await open({ colorScheme: 'dark' });
await openDemoAnew(dark);
await dark.goto('/agenda?view=week');
await dark.locator('.fc-event').first().waitFor();
await shot(dark, 'agenda-week');
await dark.context().close();

const narrow = await open({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
await openDemoAnew(narrow);
await shot(narrow, 'narrow');

// A query, and what it finds in all places.
const finding = await open();
await openDemoAnew(finding);
await finding.keyboard.press('/');
await finding.keyboard.type('harbour berth unflagged since 2026-10-01');
await finding.keyboard.press('Enter');
await finding.getByRole('button', { name: 'Form of the query' }).click();
await finding.getByRole('heading', { name: 'Found everywhere' }).waitFor();
await rows(finding).first().click();
await finding.getByRole('article').waitFor();
await shot(finding, 'found');

await browser.close();
await app.close();
