// What is not here any more, and what is not counted: the numbers of the page say so.
import { randomBytes } from 'node:crypto';
import { expect, test } from './test';
import { bringIn, counts, goTo, mailFile, moveClock, openOwn, openWith, rows } from './desk';

const day = 86_400_000;

test('deleted for good after its time: the Logbook names it by subject and sender until the page is closed', async ({
  page,
}) => {
  await openWith(page, [
    { id: 'a', from: 'Zephyrine <zephyrine@quayside.test>', subject: 'Casino on deck 4' },
    { id: 'b', subject: 'Berth 5' },
  ]);
  await rows(page).filter({ hasText: 'Casino' }).click();
  await page.keyboard.press('j');
  await expect.poll(() => counts(page, 'Junk')).toMatchObject({ total: 1 });
  await goTo(page, '/junk-filter');
  await page.getByLabel('Days in Junk').fill('1');
  await page.getByRole('button', { name: /^Save/ }).click();
  // Saved, it can't be saved again; before that, whoever leaves takes the mailroom away from under it.
  await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeDisabled();
  for (let n = 1; n <= 3; n++) {
    await moveClock(page, n * day);
    await page.goto('/junk');
    await expect(page.getByRole('heading', { name: 'Junk', level: 1 })).toBeVisible();
    await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 1 });
    // Deleting takes its time, and who leaves meanwhile closes the page that knows the names.
    const emptied = expect.poll(() => counts(page, 'Junk'), { timeout: 10_000 }).toMatchObject({ total: 0 });
    const isEmpty = await emptied.then(
      () => true,
      () => false,
    );
    if (isEmpty) break;
  }
  await expect.poll(() => counts(page, 'Junk')).toMatchObject({ total: 0 });
  await goTo(page, '/logbook?who=all');
  const entry = page.getByRole('row').filter({ hasText: /Deleted 1 message for good, after 1 day in Junk/ });
  await entry.getByRole('button', { expanded: false }).click();
  const named = page.getByRole('list', { name: /^Deleted for good/ });
  await expect(named).toContainText('Zephyrine');
  await expect(named).toContainText('Casino on deck 4');
  await page.reload();
  await entry.getByRole('button', { expanded: false }).click();
  await expect(page.getByText('1 message of it is not here any more.')).toBeVisible();
  await expect(named).toHaveCount(0);
  await expect(page.getByText('Casino on deck 4')).toHaveCount(0);
});

test('Senders says what of the mail it does not count, so that its total agrees with the line', async ({ page }) => {
  await openOwn(page);
  const mbox = ['From: a@b.test\nSubject: One', 'From: a@b.test\nSubject: Two', 'Subject: Nobody'].map(
    (head, n) => `From x@y.test Thu Aug 22 12:36:23 2002\n${head}\nMessage-ID: <${n}@b.test>\n\nText\n\n`,
  );
  expect(await bringIn(page, mailFile('three.mbox', mbox.join('')))).toContain('3 messages added');
  await goTo(page, '/senders');
  await expect(page.getByRole('main')).toContainText('2 messages');
  await expect(page.getByText(/^Not counted: .*1 without a sender/)).toBeVisible();
});

test('what the browser stores goes up with the mail that came in, and is what the browser says', async ({ page }) => {
  await openOwn(page);
  const storage = page.getByRole('region', { name: 'Storage' });
  const said = async () => {
    const [, number, unit] = /stores ([\d.]+) (bytes|KB|MB)/.exec(await storage.innerText()) ?? [];
    return Number(number) * { bytes: 1, KB: 1e3, MB: 1e6 }[unit as 'bytes' | 'KB' | 'MB'];
  };
  await expect(storage).toBeVisible();
  const before = await said();
  // What no storage makes smaller.
  const text = randomBytes(3_000_000).toString('base64').replace(/.{70}/g, '$&\n');
  expect(await bringIn(page, mailFile('big.eml', `From: a@b.test\nSubject: Big\n\n${text}`))).toContain('1 message');
  await expect.poll(said).toBeGreaterThan(before + 3e6);
  const truly = await page.evaluate(async () => (await navigator.storage.estimate()).usage ?? 0);
  await expect.poll(async () => Math.abs((await said()) - truly)).toBeLessThan(truly * 0.2);
});
