// Acting: needs A3, A5, B3, B7, B8, B9, lanes, and that where the person is is kept.
import { expect, test, type Page } from './test';
import { dragRow, counts, goTo, openDemo, openRow, openWith, placeLink, rows } from './desk';

const some = (n: number) => Array.from({ length: n }, (_, i) => ({ id: `m${i}` }));
const lane = (page: Page, name: string) => page.getByRole('region', { name: `Lane ${name}` });

test('B3: unread only, read only, all that match beyond what is loaded; leaving selection clears it', async ({
  page,
}) => {
  await openWith(page, some(300));
  await rows(page).nth(0).click();
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 300, unread: 299 });
  await rows(page).nth(1).click();
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 300, unread: 298 });
  const tick = page.getByLabel('Tick', { exact: true });
  await tick.selectOption('read');
  await expect(page.getByText('2 ticked')).toBeVisible();
  await expect(rows(page).nth(0).getByRole('checkbox')).toBeChecked();
  await expect(rows(page).nth(3).getByRole('checkbox')).not.toBeChecked();
  await page.keyboard.press('j');
  await expect.poll(() => counts(page, 'Junk')).toEqual({ total: 2, unread: 0 });
  // The next one is open now, and read.
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 298, unread: 297 });
  await tick.hover();
  await expect(tick.getByRole('option', { name: 'Unread only · 297' })).toHaveCount(1);
  await tick.selectOption('unread');
  await expect(page.getByText('297 ticked')).toBeVisible();
  await page.keyboard.press('l');
  await expect(page.getByRole('dialog', { name: 'Label' })).toContainText('Label, or the name of a new one');
  await page.keyboard.press('Escape');
  await page.keyboard.press('r');
  await expect(page.getByText('Marked 297 messages as read.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/ ticked$/)).toHaveCount(0);
  await page.keyboard.press('Control+a');
  await expect(page.getByText('298 ticked')).toBeVisible();
  await placeLink(page, 'Junk').click();
  await expect(page.getByText(/ ticked$/)).toHaveCount(0);
  // Not junk, by its key.
  await page.keyboard.press('ArrowDown');
  await expect(openRow(page)).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('button', { name: /^1 Only this message/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 299 });
});

test('B7: acts under the pointer, picked by the person', async ({ page }) => {
  await openWith(page, some(5));
  await rows(page).nth(1).hover();
  await rows(page).nth(1).getByRole('button', { name: 'Archive' }).click();
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 1 });
  await expect(openRow(page)).toHaveCount(0);
  await goTo(page, '/desk');
  const group = page.getByRole('group', { name: /^Acts on a row/ });
  await expect(group.getByLabel('Junk')).toBeDisabled();
  await group.getByLabel('Archive').uncheck();
  await group.getByLabel('Junk').check();
  await goTo(page, '/inbox');
  await rows(page).nth(0).hover();
  await expect(rows(page).nth(0).getByRole('button', { name: 'Archive' })).toHaveCount(0);
  await rows(page).nth(0).getByRole('button', { name: 'Junk' }).click();
  await expect.poll(() => counts(page, 'Junk')).toMatchObject({ total: 1 });
});

/** A finger goes over a row, sideways by `by` pixels. */
async function swipe(page: Page, index: number, by: number): Promise<void> {
  const box = await rows(page).nth(index).boundingBox();
  const [x, y] = [(box?.x ?? 0) + 150, (box?.y ?? 0) + 20];
  const session = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', to: number) =>
    session.send('Input.dispatchTouchEvent', { type, touchPoints: type === 'touchEnd' ? [] : [{ x: x + to, y }] });
  await touch('touchStart', 0);
  for (let step = 1; step <= 6; step++) await touch('touchMove', (by * step) / 6);
  await touch('touchEnd', by);
}

test('B7: swipes at 390x844, picked by the person; a short one does nothing', async ({ browser }) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  await openWith(page, some(6));
  await swipe(page, 1, 130);
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 1 });
  await swipe(page, 0, 40);
  await swipe(page, 0, -130);
  await expect.poll(() => counts(page, 'Bin')).toMatchObject({ total: 1 });
  expect(await counts(page, 'Archive')).toMatchObject({ total: 1 });
  await goTo(page, '/desk');
  await page.getByLabel('To the left').selectOption('Flag');
  await goTo(page, '/inbox');
  await expect(rows(page).first()).toBeVisible();
  await swipe(page, 0, -130);
  await expect(rows(page).nth(0).getByLabel('Flagged')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await page.close();
});

test('B8: dragged to a place, to a label, and back to the Inbox; many at once', async ({ page }) => {
  await openDemo(page);
  const before = { inbox: await counts(page, 'Inbox'), weather: await counts(page, 'Weather') };
  await dragRow(page, rows(page).nth(0), placeLink(page, 'Weather'));
  await expect.poll(() => counts(page, 'Weather')).toMatchObject({ total: before.weather.total + 1 });
  await rows(page).nth(1).getByRole('checkbox').click();
  await rows(page).nth(2).getByRole('checkbox').click();
  await dragRow(page, rows(page).nth(2), page.locator('nav').getByRole('link', { name: 'Engine room' }));
  await expect(page.getByText('Labelled 2 messages Engine room.')).toBeVisible();
  await page.keyboard.press('Escape');
  await placeLink(page, 'Weather').click();
  await expect(page.getByRole('heading', { name: 'Weather', level: 1 })).toBeVisible();
  await dragRow(page, rows(page).nth(0), placeLink(page, 'Inbox').last());
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: before.inbox.total });
});

test('B9: archived is kept and no longer in the Inbox; binned says until when', async ({ page }) => {
  await openWith(page, some(3));
  await rows(page).nth(0).click();
  await page.keyboard.press('a');
  await page.keyboard.press('Delete');
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 1 });
  await placeLink(page, 'Archive').click();
  await expect(rows(page)).toHaveCount(1);
  await placeLink(page, 'Bin').click();
  await expect(rows(page).first()).toContainText(/until \d+ \w+ \d{4}/);
});

test('lanes: the ready ones part the place, the rest is in sight, one act goes to a whole lane; the same keys', async ({
  page,
}) => {
  await openDemo(page);
  const all = (await counts(page, 'Inbox')).total;
  await page.keyboard.press('v');
  await expect(page).toHaveURL(/as=lanes/);
  const inLane = async (name: string) =>
    Number((await lane(page, name).locator('header').innerText()).match(/([\d,]+) in all/)?.[1]);
  const names = ['To me alone', 'With others', 'Lists', 'Machines', 'The rest'];
  for (const name of names) await expect(lane(page, name).locator('header')).toContainText('in all');
  const numbers = await Promise.all(names.map(inLane));
  expect(numbers.reduce((a, b) => a + b, 0)).toBe(all);
  expect(numbers[4]).toBe(0);
  const { archived, machines } = { archived: (await counts(page, 'Archive')).total, machines: numbers[3] };
  await page.getByRole('button', { name: 'Archive all: Machines' }).click();
  await expect(lane(page, 'Machines')).toContainText('Nothing in this lane.');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: archived + machines });
  await page.keyboard.press('Control+z');
  await expect.poll(() => inLane('Machines')).toBe(machines);

  // The last press was in the fourth lane; the second is two to the left.
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowDown');
  await expect(lane(page, 'With others').locator('[aria-current="true"]')).toHaveAttribute('aria-rowindex', '1');
  await page.keyboard.press('a');
  await expect.poll(() => inLane('With others')).toBe(numbers[1] - 1);
  await page.reload();
  await expect(lane(page, 'Machines')).toBeVisible();
});

test('lanes made, named, ordered, changed and taken off by the person; a mistake in a query is told at its place', async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, '/inbox?as=lanes');
  await page.getByRole('link', { name: 'Set up the lanes' }).click();
  await page.getByRole('button', { name: 'Add a lane' }).click();
  await page.getByLabel('Name').fill('Jackets');
  const query = page.getByRole('textbox', { name: 'Query' });
  await query.fill('subject "jackets');
  await expect(page.getByText('The quotation mark that opens here is never closed. (at character 9)')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save the lane' })).toBeDisabled();
  await query.fill('subject jackets unseen');
  await page.getByRole('button', { name: 'Save the lane' }).click();
  const list = page.getByRole('listitem').filter({ has: page.getByRole('button', { name: /^Take off / }) });
  await expect(list).toHaveCount(5);
  for (let at = 3; at >= 0; at--) {
    await page.getByRole('button', { name: 'Move Jackets to the left' }).click();
    await expect(list.nth(at)).toContainText('Jackets');
  }
  await expect(list.first()).toContainText('Jackets');
  await page.getByRole('button', { name: 'Take off Machines' }).click();
  await expect(list).toHaveCount(4);
  await page.getByRole('link', { name: 'To the lanes' }).click();
  await expect(page.locator('section[aria-label^="Lane "]')).toHaveCount(5);
  await expect(lane(page, 'Jackets')).toContainText('jackets');
  // Machines have no lane any more, and stand in the rest.
  await expect(lane(page, 'The rest').getByRole('row').first()).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.locator('section[aria-label^="Lane "]')).toHaveCount(6);
  await goTo(page, '/lanes?of=/inbox');
  await page.getByRole('button', { name: 'Back to the ready lanes' }).click();
  await expect(list).toHaveCount(4);
});

test('reload, back and forward, a copied link and a second tab: where the person is, but no selection, is kept', async ({
  page,
  context,
}) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Flagged', exact: true }).click();
  await rows(page).nth(1).click();
  await expect(openRow(page)).toBeVisible();
  await page.getByRole('button', { name: 'Conversations' }).click();
  await rows(page).nth(0).getByRole('checkbox').click();
  const link = page.url();
  await page.getByRole('button', { name: 'Lanes' }).click();
  await expect(page.locator('section[aria-label^="Lane "]').first()).toBeVisible();
  await page.goBack();
  await expect(page).toHaveURL(link);
  // Several lanes may hold a row of the open conversation.
  await expect(page.locator('section[aria-label^="Lane "]')).toHaveCount(0);
  await expect(openRow(page)).toBeVisible();
  await page.goForward();
  await expect(page.locator('section[aria-label^="Lane "]').first()).toBeVisible();
  await page.goBack();
  await page.reload();
  await expect(openRow(page)).toBeVisible();
  await expect(page.getByText(/ticked$/)).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Flagged', exact: true })).toHaveAttribute('aria-pressed', 'true');
  const other = await context.newPage();
  await other.goto(link);
  await expect(openRow(other)).toBeVisible();
  await expect(other.getByRole('button', { name: 'Conversations' })).toHaveAttribute('aria-pressed', 'true');
  // What is done in one tab is seen in the other.
  await other.getByRole('button', { name: 'Conversations' }).click();
  await expect(page.getByRole('button', { name: 'Conversations' })).toHaveAttribute('aria-pressed', 'false');
  const opened = (await openRow(other).getAttribute('id')) ?? '';
  await other.keyboard.press('a');
  await expect(page.locator(`#${opened}`)).toHaveCount(0);
});
