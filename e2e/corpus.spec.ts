import { createHash } from 'node:crypto';
import { expect, test } from './test';
import { corpusFiles } from './corpus';
import { bringIn, counts, downloaded, openOwn, rows } from './desk';

test('6,046 real messages come in through the page, none lost, none twice, and go out byte for byte', async ({
  page,
}, info) => {
  test.setTimeout(600_000);
  const { files, bytes, messages } = corpusFiles(info.outputPath());
  expect(messages).toBe(6_046);
  await openOwn(page);

  // While it runs: progress with a count, and a page that answers.
  await page.getByTestId('mail-files').setInputFiles(files);
  const strip = page.getByRole('region', { name: 'Import' });
  await expect(strip.getByRole('progressbar', { name: 'Import progress' })).toBeVisible();
  await expect(strip.getByRole('status')).toHaveText(/\d+ added.* of 3\d\.\d MB/);
  await expect(strip.getByRole('button', { name: 'Put away' })).toBeVisible({ timeout: 120_000 });
  await expect(strip.getByRole('status')).toContainText('6,046 messages added, 56 damaged');
  await strip.getByRole('button', { name: 'Put away' }).click();
  expect((await counts(page, 'Inbox')).total).toBe(6_046);

  expect(await bringIn(page, files, 120_000)).toContain('0 messages added, 6,046 here already');
  expect((await counts(page, 'Inbox')).total).toBe(6_046);

  await page.reload();
  const out = await downloaded(page, () => page.getByRole('button', { name: 'Save as one .mbox' }).click(), 120_000);
  expect(out.name).toBe('Inbox.mbox');
  const hash = (data: Buffer) => createHash('sha256').update(data).digest('hex');
  expect(hash(out.bytes)).toBe(hash(bytes));

  await page.getByRole('link', { name: 'Damaged (56)' }).click();
  await expect(page.getByText('56 messages')).toBeVisible();
  await rows(page).first().click();
  await expect(page.getByText(/^This message is damaged\. It .* its bytes are kept as they came\.$/)).toBeVisible();
});
