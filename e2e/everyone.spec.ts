// For everyone: axe on every view in both themes, the keyboard alone, small screens.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { expect, test, type Page } from '@playwright/test';
import { bringIn, counts, findRow, mailFile, openDemo, openOwn, rows } from './desk';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What axe finds against WCAG 2.2 AA on the page as it stands. */
async function violations(page: Page): Promise<string[]> {
  await page.evaluate(axe);
  return page.evaluate(async () => {
    const { axe: run } = window as unknown as {
      axe: {
        run: (
          context: unknown,
          options: unknown,
        ) => Promise<{ violations: { id: string; nodes: { html: string; failureSummary?: string }[] }[] }>;
      };
    };
    const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
    const result = await run.run({ exclude: ['iframe'] }, { runOnly: { type: 'tag', values: tags }, iframes: false });
    return result.violations.map((v) => `${v.id}: ${v.nodes[0].html.slice(0, 160)} ${v.nodes[0].failureSummary ?? ''}`);
  });
}

for (const colorScheme of ['light', 'dark'] as const)
  test(`axe finds nothing on any view, ${colorScheme}`, async ({ browser }) => {
    test.setTimeout(120_000);
    const page = await browser.newPage({ colorScheme, viewport: { width: 1280, height: 800 } });
    await page.goto('/');
    await expect(page.getByRole('heading', { name: 'Wide Sort' })).toBeVisible();
    expect(await violations(page)).toEqual([]);
    await openDemo(page);
    expect(await violations(page)).toEqual([]);
    await rows(page).first().click();
    await expect(page.getByRole('article')).toBeVisible();
    await page.keyboard.press('w');
    await rows(page).nth(1).getByRole('checkbox').click();
    expect(await violations(page)).toEqual([]);
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
    expect(await violations(page)).toEqual([]);
    await page.keyboard.press('Escape');
    for (const [path, heading] of [
      ['/junk', 'Junk'],
      ['/drafts', 'Drafts'],
      ['/label/alarm', 'Alarm'],
      ['/register', 'Register'],
      ['/register/new?value=office%40stonness-harbour.example', 'New entry in the Register'],
      ['/rules', 'Rules'],
      ['/rules/machines', 'Ticket machines'],
      ['/logbook?who=all', 'Logbook'],
      ['/mail', 'Mail in and out'],
      ['/folder/nowhere', 'There is nothing at this address'],
    ]) {
      await page.goto(path);
      await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
      await expect(page.getByText(/checking …/)).toHaveCount(0);
      expect(await violations(page), path).toEqual([]);
    }
    await page.close();
  });

test('with the keyboard alone: begin, read, act, block, undo', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Open the demo mailbox' }).waitFor();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'Open the demo mailbox' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(rows(page).first()).toBeVisible();
  await expect.poll(async () => (await counts(page, 'Inbox')).total, { timeout: 30_000 }).toBeGreaterThan(100);
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[aria-current="true"]')).toHaveAttribute('aria-rowindex', '1');
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[aria-current="true"]')).toHaveAttribute('aria-rowindex', '2');
  await page.keyboard.press('End');
  const { total } = await counts(page, 'Inbox');
  await expect(page.locator('[aria-current="true"]')).toHaveAttribute('aria-rowindex', String(total));
  await page.keyboard.press('Home');
  await expect(page.locator('[aria-current="true"]')).toHaveAttribute('aria-rowindex', '1');
  await page.keyboard.press(' ');
  await expect(page.getByText('1 ticked')).toBeVisible();
  await page.keyboard.press('f');
  await expect(page.getByText(/^Flagged “/).first()).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('b');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^(New entry|Entry)/);
  await page.getByLabel('Address or domain').focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^(Blocked|Marked as safe) /).first()).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Undid: (Blocked|Marked as safe) /).first()).toBeVisible();
});

test('what a screen reader hears of a row, the list, and what was done', async ({ page }) => {
  await openDemo(page);
  const grid = page.getByRole('grid', { name: 'Inbox' });
  const { total } = await counts(page, 'Inbox');
  await expect(grid).toHaveAttribute('aria-rowcount', String(total));
  const row = await findRow(page, 'Unread.');
  await expect(row.getByRole('checkbox', { name: /^Tick “/ })).toBeAttached();
  await row.click();
  await expect(grid).toHaveAttribute('aria-activedescendant', /^row-\d+$/);
  await page.keyboard.press('u');
  await expect(page.getByRole('status').filter({ hasText: /^Marked “.*” as unread\.$/ })).toBeVisible();
});

test('390x844: the line is a drawer, a message fills the screen, and nothing runs over the edge', async ({
  browser,
}) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true });
  await openDemo(page);
  const wide = () => page.evaluate(() => document.documentElement.scrollWidth);
  expect(await wide()).toBe(390);
  await rows(page).first().tap();
  await expect(page.getByRole('article')).toBeVisible();
  await expect(page.getByRole('grid')).toBeHidden();
  expect(await wide()).toBe(390);
  await page.getByRole('button', { name: 'Archive' }).tap();
  await expect(page.getByText(/^Archived “/).first()).toBeAttached();
  await page.getByRole('link', { name: 'Back to the list' }).tap();
  await expect(page.getByRole('grid')).toBeVisible();
  await page.getByRole('button', { name: 'Line and places' }).tap();
  await page.getByRole('link', { name: 'Rules', exact: false }).first().tap();
  await expect(page.getByRole('heading', { name: 'Rules', level: 1 })).toBeVisible();
  expect(await wide()).toBe(390);
  await page.close();
});

test('long names, long subjects, right to left and emoji keep their rows whole', async ({ page }) => {
  await openOwn(page);
  const word = (text: string) => `=?utf-8?B?${Buffer.from(text).toString('base64')}?=`;
  const subjects = ['x'.repeat(5_000), 'שלום לכולם, הודעה ארוכה '.repeat(20), '⛴️🌊🧜‍♀️ '.repeat(60), ''];
  await bringIn(
    page,
    subjects.map((subject, n) =>
      mailFile(`${n}.eml`, `From: ${word(`${'Name '.repeat(200)}🦑`)} <a@b.test>\nSubject: ${word(subject)}\n\nText\n`),
    ),
  );
  await page.goto('/inbox');
  await expect(rows(page)).toHaveCount(4);
  for (const row of await rows(page).all()) {
    const box = await row.boundingBox();
    expect(box?.height).toBe(58);
    expect(box?.width).toBeLessThan(500);
  }
  await rows(page).first().click();
  await expect(page.getByRole('article')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(1280);
});
