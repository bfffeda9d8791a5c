// Seeing the desk: needs B1, B2, B4, B5, B6, B10 and C9.
import { expect, test, type Page } from './test';
import { counts, findRow, goTo, openDemo, openRow, openWith, placeLink, rows } from './desk';

const heading = (page: Page) =>
  page.getByRole('banner', { name: 'Desk' }).or(page.locator('header[aria-label="Desk"]'));

/** Sets something on the page of the desk's settings. */
async function set(page: Page, name: string, role: 'radio' | 'switch' | 'checkbox' = 'radio'): Promise<void> {
  await goTo(page, '/desk');
  await page.getByRole(role === 'switch' ? 'checkbox' : role, { name }).click();
  await goTo(page, '/inbox');
  await expect(rows(page).first()).toBeVisible();
}

/** 25 in the Inbox, the newest 9 of them unread. */
async function with25(page: Page): Promise<void> {
  await openWith(
    page,
    Array.from({ length: 25 }, (_, n) => ({ id: `m${n}` })),
  );
  await rows(page).nth(9).getByRole('checkbox').click();
  const last = await findRow(page, 'Message m0');
  await last.getByRole('checkbox').click({ modifiers: ['Shift'] });
  await expect(page.getByText('16 ticked')).toBeVisible();
  await page.keyboard.press('r');
  await page.keyboard.press('Escape');
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 25, unread: 9 });
}

test('B1, common practice, no source: 25 here, 9 unread: 9 rows; two read: still 9; applied again: 7', async ({
  page,
}) => {
  await with25(page);
  await page.getByRole('button', { name: 'Unread', exact: true }).first().click();
  await expect(rows(page)).toHaveCount(9);
  await expect(heading(page)).toContainText('9 messages · 9 unread');
  await rows(page).nth(2).click();
  await expect(heading(page)).toContainText('9 messages · 8 unread');
  await rows(page).nth(5).click();
  await expect(heading(page)).toContainText('9 messages · 7 unread');
  await expect(rows(page)).toHaveCount(9);
  await page.getByRole('button', { name: 'Apply again', exact: true }).click();
  await expect(rows(page)).toHaveCount(7);
  await expect(heading(page)).toContainText('7 messages · 7 unread');
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await expect(page.getByRole('grid')).toHaveAttribute('aria-rowcount', '25');
});

test('B2, common practice, no source: each place counts unread or all by choice, and says which: 9 or 25', async ({
  page,
}) => {
  await with25(page);
  const shown = page.getByRole('button', { name: /^Inbox: / });
  await expect(shown).toHaveText('9 unread');
  await shown.click();
  await expect(shown).toHaveText('25 in all');
  await expect(page.getByRole('button', { name: /^Archive: / })).toHaveText('0 unread');
  await page.reload();
  await expect(shown).toHaveText('25 in all');
  // No number on the line stands without a word for what it counts.
  const bare = await page
    .locator('nav *')
    .evaluateAll((all) => all.map((e) => e.textContent?.trim() ?? '').filter((text) => /^[\d,]+$/.test(text)));
  expect(bare).toEqual([]);
});

test('B4: the reading area right, below or off; its divider is dragged and moved by keys, and keeps its place', async ({
  page,
}) => {
  await openDemo(page);
  const divider = page.getByRole('separator', { name: /^Divider/ });
  const width = async () => (await page.getByRole('region', { name: 'Messages' }).boundingBox())?.width ?? 0;
  const before = await width();
  const box = await divider.boundingBox();
  await page.mouse.move((box?.x ?? 0) + 2, 400);
  await page.mouse.down();
  await page.mouse.move((box?.x ?? 0) - 98, 400, { steps: 4 });
  await page.mouse.up();
  await expect.poll(width).toBeLessThan(before - 80);
  const dragged = await width();
  await divider.focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(width).toBeGreaterThan(dragged);
  const kept = await width();
  await page.reload();
  await expect(rows(page).first()).toBeVisible();
  expect(await width()).toBe(kept);

  await set(page, 'Below');
  await rows(page).first().click();
  const list = await page.getByRole('region', { name: 'Messages' }).boundingBox();
  const reading = await page.getByRole('region', { name: 'Reading' }).boundingBox();
  expect(reading?.y).toBeGreaterThanOrEqual((list?.y ?? 0) + (list?.height ?? 0));

  await set(page, 'Off');
  await rows(page).first().click();
  await expect(page.getByRole('article')).toBeVisible();
  await expect(page.getByRole('grid')).toBeHidden();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('grid')).toBeVisible();
});

test('B5: read when opened, after some seconds, or only by hand', async ({ page }) => {
  await openWith(
    page,
    Array.from({ length: 4 }, (_, n) => ({ id: `m${n}` })),
  );
  const unread = () => counts(page, 'Inbox').then((c) => c.unread);
  await rows(page).nth(0).click();
  await expect.poll(unread).toBe(3);

  await set(page, 'Only by hand');
  await rows(page).nth(1).click();
  await expect(page.getByRole('article')).toContainText('Text of m2');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('article')).toContainText('Text of m1');
  expect(await unread()).toBe(3);
  await page.keyboard.press('r');
  await expect.poll(unread).toBe(2);

  await goTo(page, '/desk');
  await page.getByRole('radio', { name: 'After some seconds' }).click();
  await expect(page.getByLabel('Seconds', { exact: true })).toHaveValue('30');
  await page.getByLabel('Seconds', { exact: true }).fill('1');
  await goTo(page, '/inbox');
  await rows(page).nth(3).click();
  await expect(page.getByRole('article')).toContainText('Text of m0');
  expect(await unread()).toBe(2);
  await expect.poll(unread).toBe(1);
});

test('B6: after the open message was archived: the next, the one before, or the list', async ({ page }) => {
  await openWith(
    page,
    Array.from({ length: 9 }, (_, n) => ({ id: `m${n}` })),
  );
  await rows(page).nth(3).click();
  await page.keyboard.press('a');
  await expect(openRow(page)).toContainText('Message m4');
  // Quickly one after the other: none falls on a message that has left already.
  for (const key of ['a', 'Delete', 'f']) await page.keyboard.press(key);
  await expect(openRow(page)).toContainText('Message m2');
  await expect(openRow(page).getByLabel('Flagged')).toBeVisible();
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 2 });
  await expect.poll(() => counts(page, 'Bin')).toMatchObject({ total: 1 });

  await set(page, 'Open the one before');
  await rows(page).nth(4).click();
  await page.keyboard.press('a');
  await expect(openRow(page)).toContainText('Message m2');

  await set(page, 'Back to the list');
  await rows(page).nth(0).click();
  await page.keyboard.press('a');
  await expect(openRow(page)).toHaveCount(0);
  await expect(page).toHaveURL(/\/inbox$/);
});

test('B10 and C9: two densities, three text sizes, subject or people first; kept, and alike in another tab', async ({
  page,
  context,
}) => {
  await openDemo(page);
  const height = async () => (await rows(page).first().boundingBox())?.height ?? 0;
  const roomy = await height();
  await set(page, 'Tight');
  await expect.poll(height).toBeLessThan(roomy * 0.65);
  await set(page, 'Large');
  await expect.poll(height).toBeGreaterThan(roomy * 0.6);
  expect(await page.evaluate(() => getComputedStyle(document.body).fontSize)).toBe('17px');
  const other = await context.newPage();
  await other.goto('/desk');
  await other.getByRole('radio', { name: 'Roomy' }).click();
  await expect.poll(height).toBeGreaterThan(roomy);
  await other.getByRole('radio', { name: 'Subject' }).click();
  await goTo(page, '/inbox');
  const row = rows(page).filter({ hasText: 'Re: ' }).first();
  const first = (await row.getByRole('gridcell').nth(1).innerText()).replace(/^Unread\.\s*/, '');
  expect(first.split('\n')[0]).toContain('Re: ');
});

test('mail to two own addresses is found under both accounts, and what names none of them under none', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a', to: 'me@y.test, desk@y.test' }, { id: 'b', to: 'crew@list.test' }, { id: 'c' }]);
  await goTo(page, '/accounts');
  await page.getByRole('button', { name: 'Add an account' }).click();
  await page.getByLabel('Name, as others see it').fill('Desk');
  await page.getByLabel('Address').fill('desk@y.test');
  await page.getByRole('button', { name: 'Save' }).click();
  const table = page.getByRole('region', { name: 'In the Inbox' }).getByRole('row');
  await expect(table.filter({ hasText: 'To none of them' })).toContainText('1');
  await table.filter({ hasText: 'Desk' }).getByRole('link').click();
  await expect(rows(page)).toHaveCount(1);
  await expect(rows(page).first()).toContainText('Message a');
  await page.getByLabel('Account', { exact: true }).selectOption({ label: 'To none of them · 1 unread' });
  await expect(rows(page)).toHaveCount(1);
  await expect(rows(page).first()).toContainText('Message b');
  await page.reload();
  await expect(rows(page).first()).toContainText('Message b');
});

test('a form that was begun while another was taken off stays open, with what was typed', async ({ page }) => {
  await openWith(page, [{ id: 'a' }]);
  await goTo(page, '/accounts');
  await page.getByRole('button', { name: /^Take off/ }).waitFor();
  // Both in one turn of the page: the answer comes when the form is there.
  await page.evaluate(() => {
    const buttons = [...document.querySelectorAll<HTMLElement>('main button')];
    for (const words of ['Take off', 'Add an account'])
      buttons.find(({ textContent }) => textContent === words)?.click();
  });
  await expect(page.getByText('Took the account me@y.test off.')).toBeVisible();
  await page.getByLabel('Name, as others see it').fill('Desk', { timeout: 2_000 });
});

test('the order of a list is the person’s: by sender, subject, size, date, and by score in Junk; kept for that place', async ({
  page,
}) => {
  const sizes = [40, 4_000, 400];
  await openWith(
    page,
    ['Zoë <zoe@x.test>', 'Östen <osten@x.test>', 'bo@x.test'].map((from, n) => ({
      id: `m${n}`,
      from,
      subject: ['Re: Anchor', 'tide', 'Buoy'][n],
      text: 'x '.repeat(sizes[n]),
    })),
  );
  const order = page.getByLabel('Order', { exact: true });
  const subjects = () =>
    rows(page).evaluateAll((all) => all.map((row) => /Anchor|tide|Buoy/.exec(row.textContent ?? '')?.[0]));
  await expect.poll(subjects).toEqual(['Buoy', 'tide', 'Anchor']);
  for (const [name, expected] of [
    ['Oldest first', ['Anchor', 'tide', 'Buoy']],
    ['Sender, A first', ['Buoy', 'tide', 'Anchor']],
    ['Subject, Z first', ['tide', 'Buoy', 'Anchor']],
    ['Largest first', ['tide', 'Buoy', 'Anchor']],
    ['Smallest first', ['Anchor', 'Buoy', 'tide']],
  ] as const) {
    await order.selectOption(name);
    await expect.poll(subjects).toEqual(expected);
  }
  await expect(order.locator('option', { hasText: 'score' })).toHaveCount(0);
  // Keys and ranges go by what is in sight.
  await rows(page).first().click();
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('2 ticked')).toBeVisible();
  await page.keyboard.press('a');
  await expect.poll(subjects).toEqual(['tide']);
  await page.reload();
  await expect(order).toHaveValue('size turned');
  await placeLink(page, 'Archive').click();
  await expect(order).toHaveValue('date');
  await expect.poll(subjects).toEqual(['Buoy', 'Anchor']);
  await placeLink(page, 'Junk').click();
  await expect(order.locator('option', { hasText: 'score' })).toHaveCount(2);
});

test('filters and accounts stand in the address; each says when it leaves nothing', async ({ page }) => {
  await openDemo(page);
  const all = (await counts(page, 'Inbox')).total;
  const shown = async () => Number((await heading(page).innerText()).match(/([\d,]+) messages?/)?.[1]);
  let sum = 0;
  for (const name of ['Mara Lindqvist', 'Operations Desk']) {
    const option = page.getByLabel('Account').locator('option', { hasText: name });
    await page.getByLabel('Account').selectOption((await option.getAttribute('value')) ?? '');
    await expect(page).toHaveURL(/account=/);
    await expect.poll(shown).toBeLessThan(all);
    sum += await shown();
  }
  expect(sum).toBe(all);
  // All of the demo's mail names one of its accounts, none of it both.
  await expect(page.getByLabel('Account').locator('option')).toHaveCount(3);
  await page.getByLabel('Account').selectOption('all');
  await page.keyboard.press('o');
  await expect(page).toHaveURL(/show=unread/);
  for (const show of ['flagged', 'alone', 'attachments']) {
    await page.keyboard.press('o');
    await expect(page).toHaveURL(new RegExp(`show=${show}`));
    await expect.poll(shown).toBeGreaterThan(0);
    expect(await shown()).toBeLessThan(all);
  }
  await page.keyboard.press('o');
  await expect(page).not.toHaveURL(/show=/);
  await placeLink(page, 'Archive').click();
  await page.getByRole('button', { name: 'Unread', exact: true }).click();
  await expect(page.getByText('Nothing here is of that kind')).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(rows(page).first()).toBeVisible();
});

test('a list taller than any element can be is scrolled from its first row to its last, and passes none over', async ({
  page,
}) => {
  // As if the browser made no element taller than 3,000 pixels: the list has 11,600.
  await page.addInitScript(() => {
    const real = Element.prototype.getBoundingClientRect;
    Element.prototype.getBoundingClientRect = function (this: HTMLElement) {
      const box = real.call(this);
      return this.style.height === '1e+09px' ? new DOMRect(box.x, box.y, box.width, 3_000) : box;
    };
  });
  await openWith(
    page,
    Array.from({ length: 200 }, (_, n) => ({ id: `m${n}` })),
  );
  const grid = page.getByRole('grid');
  await expect(rows(page).first()).toContainText('Message m199');
  expect(await grid.evaluate((list) => list.scrollHeight)).toBeLessThan(3_000);
  const seen = new Set<string>();
  for (let top = 0; top < 3_000; top += 100) {
    await grid.evaluate((list, to) => list.scrollTo({ top: to }), top);
    await expect(rows(page).filter({ has: page.getByLabel('Loading') })).toHaveCount(0);
    for (const text of await rows(page).allInnerTexts()) seen.add(/Message m\d+/.exec(text)?.[0] ?? '');
  }
  expect([...seen].filter((subject) => subject !== '')).toHaveLength(200);
  const last = rows(page).filter({ hasText: /Message m0\b/ });
  await expect(last).toBeInViewport({ ratio: 1 });
  await last.click();
  await expect(page.getByRole('article').getByRole('heading', { name: 'Message m0' })).toBeVisible();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('article').getByRole('heading', { name: 'Message m1' })).toBeVisible();
  // Back at the top the first row is the first.
  await grid.evaluate((list) => list.scrollTo({ top: 0 }));
  await expect(rows(page).filter({ hasText: 'Message m199' })).toBeInViewport({ ratio: 1 });
});
