// The line on the left, going anywhere and doing anything by typing, and keys that say why they can’t.
import { expect, test } from './test';
import { counts, goTo, openDemo, openRow, rows } from './desk';

for (const height of [800, 720])
  test(`1280x${height}: the work, what is set up and the typed line are in sight; what lies where scrolls and folds`, async ({
    page,
  }) => {
    await page.setViewportSize({ width: 1280, height });
    await openDemo(page);
    const line = page.getByRole('navigation', { name: 'Sorting line and places' });
    const work = ['Agenda', 'Clear-out', 'Senders', 'Where did my mail go?', 'Logbook', 'Set up'];
    for (const name of [...work, 'Register', 'Junk filter', 'Rules'])
      await expect(
        line.getByRole('link', { name, exact: name !== 'Register' && name !== 'Rules' && name !== 'Junk filter' }),
      ).toBeInViewport({ ratio: 1 });
    await expect(page.getByRole('button', { name: 'Go or do' })).toBeInViewport({ ratio: 1 });
    expect(await line.evaluate((nav) => nav.scrollHeight - nav.clientHeight)).toBe(0);
    // A zero is not counted, but where one points.
    const archive = line.getByRole('button', { name: /^Archive: 0 unread/ });
    await expect(archive).toHaveCSS('opacity', '0');
    await archive.hover();
    await expect(archive).toHaveCSS('opacity', '1');
    await line.getByRole('button', { name: 'Folders', exact: true }).click();
    await expect(line.getByRole('link', { name: 'Bulletins' })).toHaveCount(0);
    await page.reload();
    await expect(line.getByRole('button', { name: 'Folders', exact: true })).toHaveAttribute('aria-expanded', 'false');
  });

test('all that is set up stands behind one entry, and its pages know it', async ({ page }) => {
  await openDemo(page);
  const line = page.getByRole('navigation', { name: 'Sorting line and places' });
  await line.getByRole('link', { name: 'Set up' }).click();
  const main = page.getByRole('main');
  await expect(main.getByRole('link', { name: /^Labels and folders.*4 labels, 4 folders/ })).toBeVisible();
  await main.getByRole('link', { name: /^Accounts/ }).click();
  await expect(page).toHaveTitle('Accounts – Wide Sort');
  await main.getByRole('link', { name: 'Set up' }).click();
  await expect(main.getByRole('heading', { name: 'Set up' })).toBeVisible();
});

test('a colon goes anywhere and does anything by a few letters, with the key of each', async ({ page }) => {
  await openDemo(page);
  const { unread } = await counts(page, 'Inbox');
  await expect(page).toHaveTitle(`Inbox · ${unread} unread – Wide Sort`);
  await page.keyboard.press(':');
  const dialog = page.getByRole('dialog', { name: 'Go or do' });
  await page.keyboard.type('tid');
  await expect(dialog.getByRole('option').first()).toHaveText('Weather / Tides');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/folder\//);
  await goTo(page, '/inbox');
  await rows(page).first().click();
  await expect(openRow(page)).toBeVisible();
  const address = page.url();
  await page.keyboard.press(':');
  await page.keyboard.type('clear fl');
  await expect(dialog.getByRole('option').first()).toHaveText('Clear flagC');
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
  await page.keyboard.press(':');
  await page.keyboard.type('archive');
  // A place is called as the act is: by the keyboard alone each can be had.
  const chosen = dialog.getByRole('option', { selected: true });
  await expect(chosen).toHaveCount(1);
  for (let n = 0; n < 8 && (await chosen.innerText()).replace(/\s/g, '') !== 'ArchiveA'; n++)
    await page.keyboard.press('ArrowDown');
  await expect(chosen).toHaveText('ArchiveA');
  await page.keyboard.press('Enter');
  await expect(dialog).toHaveCount(0);
  await expect(page).not.toHaveURL(address);
  await page.keyboard.press(':');
  await page.keyboard.type('gearbox');
  await dialog.getByRole('option', { name: 'Find mail with “gearbox”' }).click();
  await expect(page).toHaveURL(/\/find\/gearbox/);
});

test('a key that can’t do a thing says why: B with ticks, Del in the Bin, keys of a message while none is open', async ({
  page,
}) => {
  await openDemo(page);
  const says = page.getByRole('status').filter({ hasText: /\S/ });
  await page.keyboard.press('b');
  await expect(says.filter({ hasText: 'B blocks the sender of the open message. Open one first.' })).toBeVisible();
  await rows(page).nth(1).getByRole('checkbox').check();
  await rows(page).nth(2).getByRole('checkbox').check();
  await page.keyboard.press('Shift+B');
  await expect(says.filter({ hasText: 'not of the 2 that are ticked' })).toBeVisible();
  await goTo(page, '/bin');
  await expect(page.getByRole('grid', { name: 'Bin' })).toBeVisible();
  await page.keyboard.press('Delete');
  await expect(says.filter({ hasText: '“Bin” does nothing in Bin.' })).toBeVisible();
  await goTo(page, '/inbox');
  await expect(page.getByRole('grid', { name: 'Inbox' })).toBeVisible();
  await rows(page).first().click();
  await page.keyboard.press('Shift+R');
  await expect(page).toHaveURL(/\/rules\/new\?from=/);
});
