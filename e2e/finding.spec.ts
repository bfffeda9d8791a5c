// Finding mail through the real page.
import { expect, test, type Page } from '@playwright/test';
import { counts, openDemo, openRow, openWith, rows } from './desk';

const line = (page: Page) => page.getByRole('combobox', { name: 'Query' });

async function search(page: Page, query: string): Promise<void> {
  await page.keyboard.press('/');
  await expect(line(page)).toBeFocused();
  await line(page).fill(query);
  await page.keyboard.press('Enter');
}

test('words are found in people, subject, text and names of attachments, wherever the message is', async ({ page }) => {
  await openWith(page, [
    { id: 'a', from: 'Ann Höchst <ann@x.test>', subject: 'Ropes' },
    { id: 'b', subject: 'Hochst urgent' },
    { id: 'c', text: 'It is the HÖCHST of times,\nand the lowest' },
    { id: 'd', subject: 'Nothing of it' },
  ]);
  await rows(page).filter({ hasText: 'Ropes' }).click();
  await page.keyboard.press('a');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 1 });
  await search(page, 'höchst');
  await expect(page.getByRole('heading', { name: 'Found everywhere' })).toBeVisible();
  await expect(rows(page)).toHaveCount(3);
  // Each says where it is.
  await expect(rows(page).filter({ hasText: 'Ropes' })).toContainText('Archive');
  await expect(rows(page).filter({ hasText: 'urgent' })).toContainText('Inbox');
  // In the place where one came from alone, and everywhere again.
  const where = page.getByRole('group', { name: 'Where to search' });
  await where.getByRole('button', { name: 'Inbox' }).click();
  await expect(page.getByRole('heading', { name: 'Found in Inbox' })).toBeVisible();
  await expect(rows(page)).toHaveCount(2);
  await page.goBack();
  await expect(rows(page)).toHaveCount(3);
  await expect(line(page)).toHaveValue('höchst');
  // A phrase goes over the end of a line; the address can be copied, a message open in it.
  await search(page, 'body "of times, and" not deleted');
  await expect(rows(page)).toHaveCount(1);
  await rows(page).first().click();
  await expect(openRow(page)).toContainText('Message c');
  const copied = await page.context().newPage();
  await copied.goto(page.url());
  await expect(copied.getByRole('article')).toContainText('HÖCHST of times');
  await expect(line(copied)).toHaveValue('body "of times, and" not deleted');
  await copied.close();
  await line(page).press('Escape');
  await expect(page.getByRole('heading', { name: 'Inbox' })).toBeVisible();
});

test('a mistake is shown at its place with what was expected, and what was typed stays', async ({ page }) => {
  await openWith(page, [{ id: 'a' }]);
  await search(page, 'unseen since 31-Feb-2026');
  const trouble = page.getByRole('alert');
  await expect(trouble).toContainText('At “31-Feb-2026”: “31-Feb-2026” is no date: write 1-Sep-2026 or 2026-09-01.');
  await expect(line(page)).toBeFocused();
  await expect(line(page)).toHaveValue('unseen since 31-Feb-2026');
  // What is wrong is marked: typing goes over it.
  await page.keyboard.type('1-Feb-2026');
  await page.keyboard.press('Enter');
  await expect(trouble).toHaveCount(0);
  await expect(rows(page)).toHaveCount(1);
  await search(page, 'from "ann');
  await expect(trouble).toContainText('The quotation mark that opens here is never closed.');
  await search(page, 'subject');
  await expect(trouble).toContainText('At the end: What subject looks for is missing here.');
  // Too long to be read: said, and the page lives.
  await search(page, 'x '.repeat(5_001));
  await expect(trouble).toContainText('A query has at most 10,000 characters.');
  await page.goto('/find/from%20%22ann');
  await expect(page.getByText('This query can’t be read')).toBeVisible();
  await search(page, 'subject nowhere');
  await expect(page.getByText('No message is what the query asks for, in whatever place.')).toBeVisible();
});

test('G7, common practice, no source: 186 matches over several screens archived as one, and undone as one', async ({
  page,
}) => {
  const list = Array.from({ length: 240 }, (_, n) => ({ id: `m${n}`, subject: n < 186 ? `Berth ${n}` : `Rope ${n}` }));
  await openWith(page, list);
  await search(page, 'subject berth undeleted');
  await expect(page.getByText('186 messages')).toBeVisible();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('a');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 186 });
  expect(await counts(page, 'Inbox')).toMatchObject({ total: 54 });
  // They are still what the query asks for.
  await expect(page.getByText('186 messages').first()).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 240 });
});

test('what was found stays in sight when it is read, until the query is applied again', async ({ page }) => {
  await openWith(page, [{ id: 'a' }, { id: 'b' }, { id: 'c' }]);
  await search(page, 'unseen message');
  await expect(rows(page)).toHaveCount(3);
  await rows(page).nth(1).click();
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 3, unread: 2 });
  await expect(rows(page)).toHaveCount(3);
  await page.keyboard.press('p');
  await expect(rows(page)).toHaveCount(2);
  await page.reload();
  await expect(rows(page)).toHaveCount(2);
});

test('what was archived is found by person, period and attachment, and narrowed by a filter', async ({ page }) => {
  await openDemo(page);
  await page.goto('/archive');
  const named = rows(page).first();
  await expect(named).toBeVisible();
  await search(page, 'from skerryline.example before 2026-11-20');
  await expect(page.getByRole('heading', { name: 'Found everywhere' })).toBeVisible();
  await page.getByRole('group', { name: 'Where to search' }).getByRole('button', { name: 'Archive' }).click();
  await expect(page.getByRole('heading', { name: 'Found in Archive' })).toBeVisible();
  await page.getByRole('group', { name: 'Show' }).getByRole('button', { name: 'With attachments' }).click();
  await expect(rows(page).first()).toBeVisible();
  for (const row of await rows(page).all()) {
    await expect(row.getByLabel(/attachments?$/)).toBeVisible();
    await expect(row).toContainText('Archive');
  }
});
