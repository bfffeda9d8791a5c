// The browser threw the mailbox away while nobody looked: told before anything is begun, and what is still known is used.
import { expect, test, type Page } from './test';
import { bringIn, counts, downloaded, openOwn, rows } from './desk';

const mail = [1, 2, 3]
  .map(
    (n) =>
      `From x@y.test Thu Aug 22 12:36:23 2002\nFrom: a@b.test\nSubject: No. ${n}\nMessage-ID: <${n}@b.test>\n\nText\n\n`,
  )
  .join('');
const file = { name: 'three.mbox', mimeType: 'application/mbox', buffer: Buffer.from(mail) };

/** Clears what a browser evicts when the disk runs low: all that its quota counts. */
async function evict(page: Page, baseURL: string): Promise<void> {
  await page.goto('about:blank');
  const browser = await page.context().newCDPSession(page);
  await browser.send('Storage.clearDataForOrigin', {
    origin: baseURL,
    storageTypes: 'indexeddb,file_systems,cache_storage',
  });
}

test.beforeEach(async ({ page }) => {
  await openOwn(page);
  expect(await bringIn(page, file)).toContain('3 messages added');
  await page.goto('/labels');
  await page.getByRole('textbox', { name: 'New label' }).fill('Dry dock');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Dry dock').first()).toBeVisible();
  // It is written down every two seconds.
  await expect.poll(() => page.evaluate(() => localStorage.getItem('wide-sort-last-seen'))).toContain('Dry dock');
});

test('an evicted mailbox is no first run: what was here is said, and the setup goes on', async ({ page, baseURL }) => {
  await page.goto('/inbox');
  await rows(page).first().click();
  await page.keyboard.press('e');
  await evict(page, String(baseURL));
  await page.goto('/');
  const told = page.getByRole('alert');
  await expect(told).toContainText('The browser has thrown your mailbox away');
  await expect(told).toContainText('3 messages were here');
  const setup = await downloaded(page, () => told.getByRole('button', { name: 'Save that setup' }).click());
  expect(setup.bytes.toString()).toContain('Dry dock');
  // Not by reloading it either.
  await page.reload();
  await told.getByRole('button', { name: 'Begin anew with that setup' }).click();
  await expect(page.getByRole('heading', { name: 'Mail in and out' })).toBeVisible();
  await expect(page.getByRole('status').first()).toContainText('setup');
  expect(await bringIn(page, file)).toContain('3 messages added');
  await page.goto('/labels');
  await expect(page.getByText('Dry dock').first()).toBeVisible();
  await page.goto('/inbox');
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 3, unread: 3 });
});

test('put away, or erased by the person, it is not missed', async ({ page, baseURL }) => {
  await page.goto('/mail');
  await page.getByRole('button', { name: 'Delete everything' }).click();
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page.getByRole('button', { name: 'Start with my own mail' })).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.getByRole('button', { name: 'Start with my own mail' }).click();
  expect(await bringIn(page, file)).toContain('3 messages added');
  await evict(page, String(baseURL));
  await page.goto('/');
  await page.getByRole('button', { name: 'Put away' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Start with my own mail' })).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
});
