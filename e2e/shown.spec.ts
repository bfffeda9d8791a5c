// What the screen says is what happens: an act goes to what was shown and counted, and Undo takes back what was done here.
import { expect, test, type Page } from './test';
import { bringIn, counts, goTo, mailFile, mbox, openOwn, openRow, openWith, rows, type Mail, undoButton } from './desk';

const some = (count: number): Mail[] =>
  Array.from({ length: count }, (_, n) => ({ from: `a${n}@b.test`, subject: `Message ${n}`, id: `m${n}` }));

/** A conversation of so many messages, each answering the one before. */
const long = (count: number): Mail[] =>
  Array.from({ length: count }, (_, n) => ({
    from: `a${n % 3}@b.test`,
    subject: n ? 'Re: Rope' : 'Rope',
    id: `r${n}`,
    ...(n ? { answers: [`r${n - 1}`] } : {}),
  }));

const tickMenu = (page: Page) => page.getByLabel('Tick', { exact: true });
const ticked = (page: Page) => page.getByText(/ ticked$/);

test('ticks stay within the filter, and the menu says how many they will be', async ({ page }) => {
  await openWith(page, some(12));
  for (const n of [0, 1]) {
    await rows(page).nth(n).click();
    await page.keyboard.press('f');
    await expect(rows(page).nth(n).getByLabel('Flagged')).toBeVisible();
    await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 12, unread: 11 - n });
  }
  await page.keyboard.press('Escape');
  await page.getByRole('group', { name: 'Show' }).getByRole('button', { name: 'Flagged' }).click();
  await expect(rows(page)).toHaveCount(2);
  await tickMenu(page).hover();
  await expect(tickMenu(page).getByRole('option')).toHaveText(['All · 2', 'Unread only · 0', 'Read only · 2', 'None'], {
    useInnerText: false,
  });
  // Ten read or unread ones stand outside the filter, and stay there.
  await tickMenu(page).selectOption('read');
  await expect(ticked(page)).toHaveText('2 ticked');
  await page.keyboard.press('a');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 2 });
  expect(await counts(page, 'Inbox')).toMatchObject({ total: 10 });
});

test('all means those that were there: what comes in meanwhile stays, and one unticked leaves the others', async ({
  page,
  context,
}) => {
  await openWith(page, some(5));
  await page.keyboard.press('Control+a');
  await expect(ticked(page)).toHaveText('5 ticked');
  await rows(page).nth(1).getByRole('checkbox').click();
  await expect(ticked(page)).toHaveText('4 ticked');
  const other = await context.newPage();
  await other.goto('/mail');
  await bringIn(other, mailFile('late.mbox', mbox([{ from: 'late@b.test', subject: 'Came late', id: 'late' }])));
  await other.close();
  await expect(rows(page)).toHaveCount(6);
  await expect(ticked(page)).toHaveText('4 ticked');
  await page.keyboard.press('a');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 4 });
  await expect(rows(page)).toHaveCount(2);
  await expect(rows(page).filter({ hasText: 'Came late' })).toHaveCount(1);
});

test('a range holds what was scrolled past; Shift with the arrows goes on from the open row', async ({ page }) => {
  await openWith(page, some(400));
  await rows(page).nth(2).click();
  await expect(openRow(page)).toBeVisible();
  const grid = page.getByRole('grid');
  await grid.evaluate((element) => element.scrollTo(0, element.scrollHeight));
  const last = page.locator('[role="row"][aria-rowindex="390"]');
  await expect(last.getByRole('checkbox')).toBeVisible();
  await last.click({ modifiers: ['Shift'] });
  await expect(ticked(page)).toHaveText('388 ticked');
  await page.keyboard.press('Escape');
  await expect(ticked(page)).toHaveCount(0);
  await page.keyboard.press('Home');
  await expect(page.locator('[role="row"][aria-rowindex="1"]')).toHaveAttribute('aria-current', 'true');
  for (let n = 0; n < 3; n++) await page.keyboard.press('Shift+ArrowDown');
  await expect(ticked(page)).toHaveText('4 ticked');
  await page.keyboard.press('Shift+ArrowUp');
  await expect(ticked(page)).toHaveText('3 ticked');
  // To look into another does not untick them.
  await rows(page).nth(8).click();
  await expect(ticked(page)).toHaveText('3 ticked');
  // However quickly the keys come: where a message stands that was passed already pulls nothing back.
  for (const pause of [0, 6, 14, 27]) {
    await page.keyboard.press('Escape');
    await expect(ticked(page)).toHaveCount(0);
    await page.keyboard.press('Home');
    for (let n = 0; n < 5; n++) {
      await page.keyboard.press('Shift+ArrowDown');
      await page.waitForTimeout(pause);
    }
    await expect(ticked(page)).toHaveText('6 ticked');
    await page.keyboard.press('Home');
    await expect(page.locator('[role="row"][aria-rowindex="1"]')).toHaveAttribute('aria-current', 'true');
  }
});

test('whoever scrolls on from the row just opened is not called back, by where it stands or by mail that comes in', async ({
  page,
  context,
}) => {
  await openWith(page, some(400));
  const grid = page.getByRole('grid');
  const last = page.locator('[role="row"][aria-rowindex="390"]');
  // In one task: before the mailroom can have said where the message stands.
  await grid.evaluate((element) => {
    element.querySelector<HTMLElement>('[aria-rowindex="3"]')?.click();
    element.scrollTo(0, element.scrollHeight);
  });
  await expect(page.getByRole('article')).toBeVisible();
  await page.waitForTimeout(500);
  await expect(last.getByRole('checkbox')).toBeVisible();
  const other = await context.newPage();
  await other.goto('/mail');
  await bringIn(other, mailFile('late.mbox', mbox([{ from: 'late@b.test', subject: 'Came late', id: 'late' }])));
  await other.close();
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 401 });
  await page.waitForTimeout(500);
  await expect(page.locator('[role="row"][aria-rowindex="395"]').getByRole('checkbox')).toBeVisible();
  // A key goes on from the open row, and brings the next into sight.
  await page.keyboard.press('j');
  await expect(openRow(page)).toBeInViewport();
});

test('of a conversation: the bar says whether an act goes to one message or to all of it, and it does', async ({
  page,
}) => {
  await openWith(page, [...long(6), ...some(2)]);
  await page.keyboard.press('g');
  await rows(page).filter({ hasText: 'Rope' }).click();
  const reach = page.getByRole('group', { name: 'Acts go to' });
  await expect(reach.getByRole('button', { name: 'All 6 here' })).toHaveAttribute('aria-pressed', 'true');
  await reach.getByRole('button', { name: 'This message' }).click();
  await page.keyboard.press('f');
  await expect(rows(page).getByText('1 flagged')).toBeVisible();
  await page.keyboard.press('.');
  await expect(reach.getByRole('button', { name: 'All 6 here' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('f');
  await expect(rows(page).getByText('6 flagged')).toBeVisible();
  // One of six goes; the conversation stays open at the next.
  await reach.getByRole('button', { name: 'This message' }).click();
  await page.keyboard.press('a');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 1 });
  await expect(page.getByRole('article').first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Rope' }).first()).toBeVisible();
});

test('under a filter an act on a conversation goes to what the filter shows of it', async ({ page }) => {
  await openWith(page, long(6));
  await page.keyboard.press('Control+a');
  await page.keyboard.press('r');
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 6, unread: 0 });
  await page.keyboard.press('Escape');
  for (const n of [0, 1]) {
    await rows(page).nth(n).getByRole('checkbox').click();
  }
  await page.keyboard.press('u');
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 6, unread: 2 });
  await page.keyboard.press('Escape');
  await page.keyboard.press('g');
  await page.getByRole('group', { name: 'Show' }).getByRole('button', { name: 'Unread' }).click();
  await expect(rows(page)).toHaveCount(1);
  await rows(page).first().getByRole('checkbox').click();
  await expect(ticked(page)).toHaveText('1 conversation, 2 messages ticked');
  await page.keyboard.press('a');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 2 });
  expect(await counts(page, 'Inbox')).toEqual({ total: 4, unread: 0 });
});

test('Undo is of this tab: it says what it would take back, survives a reload, and passes over what was overtaken', async ({
  page,
  context,
}) => {
  // A page that was loaded just now: nothing was done in it yet.
  await page.goto('about:blank');
  await openWith(page, some(4));
  await expect(undoButton(page)).toHaveCount(0);
  await rows(page).filter({ hasText: 'Message 3' }).click();
  // Once it was seen it is read.
  await expect(openRow(page).getByText('Unread.')).toHaveCount(0);
  await page.keyboard.press('u');
  await expect(undoButton(page)).toHaveAccessibleName(/^Undo: Marked “Message 3”/);
  await rows(page).filter({ hasText: 'Message 1' }).click();
  await page.keyboard.press('a');
  await expect(undoButton(page)).toHaveAccessibleName('Undo: Archived “Message 1”');
  const other = await context.newPage();
  await other.goto('/inbox');
  await expect(rows(other)).toHaveCount(3);
  // Nothing was done there.
  await expect(undoButton(other)).toHaveCount(0);
  await other.keyboard.press('Control+z');
  await expect(other.getByText('Nothing that was done here is left to undo.')).toBeVisible();
  await rows(other).filter({ hasText: 'Message 2' }).click();
  await other.keyboard.press('Delete');
  await expect.poll(() => counts(page, 'Bin')).toMatchObject({ total: 1 });
  await page.reload();
  await expect(undoButton(page)).toHaveAccessibleName('Undo: Archived “Message 1”');
  // What this tab archived the other bins: nothing of it is left to undo here.
  await other.goto('/archive');
  await rows(other).first().click();
  await other.keyboard.press('Delete');
  await expect.poll(() => counts(page, 'Bin')).toMatchObject({ total: 2 });
  await expect(undoButton(page)).toHaveAccessibleName(/^Undo: Marked “Message 3”/);
  // The tab that did both takes both back, the last first.
  await undoButton(other).click();
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 1 });
  await undoButton(other).click();
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 3 });
});

test('a key that would move more than 1,000 messages asks once', async ({ page }) => {
  await openOwn(page);
  await bringIn(page, mailFile('many.mbox', mbox(some(1_001))));
  await goTo(page, '/inbox');
  await expect(rows(page).first()).toBeVisible();
  await page.keyboard.press('Control+a');
  await expect(ticked(page)).toHaveText('1,001 ticked');
  await page.keyboard.press('a');
  const dialog = page.getByRole('dialog', { name: 'Move 1,001 messages to Archive?' });
  await dialog.getByRole('button', { name: 'Leave it' }).click();
  expect(await counts(page, 'Archive')).toMatchObject({ total: 0 });
  await page.keyboard.press('a');
  await page.keyboard.press('Enter');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 1_001 });
});

test('what comes in moves nothing that is in sight, at the top or scrolled; above the list stands how many', async ({
  page,
  context,
}) => {
  await openWith(page, some(200));
  const other = await context.newPage();
  await other.goto('/mail');
  const late = (from: number, count: number) =>
    Array.from({ length: count }, (_, n) => ({
      id: `late${from + n}`,
      subject: `Late ${from + n}`,
      date: new Date(Date.UTC(2026, 10, 25, 9, from + n)).toISOString(),
    }));
  const inSight = () =>
    page
      .getByRole('grid')
      .evaluate((grid) =>
        [...grid.querySelectorAll('[aria-rowindex]')]
          .map((row) => [
            Math.round(row.getBoundingClientRect().top),
            row.textContent?.match(/(Message|Late) \w+/)?.[0],
          ])
          .filter(([top]) => Number(top) >= grid.getBoundingClientRect().top - 2 && Number(top) < 600),
      );
  await rows(page).nth(1).hover();
  const atTop = await inSight();
  await bringIn(other, mailFile('late.mbox', mbox(late(0, 3))));
  await expect(page.getByText('3 more above')).toBeVisible();
  expect(await inSight()).toEqual(atTop);
  await page.getByRole('grid').evaluate((grid) => grid.scrollTo(0, 2_000));
  await expect(page.locator('[aria-rowindex="40"]')).toBeVisible();
  const scrolled = await inSight();
  await bringIn(other, mailFile('later.mbox', mbox(late(3, 2))));
  await expect(page.getByText('5 more above')).toBeVisible();
  expect(await inSight()).toEqual(scrolled);
  await page.getByText('5 more above').click();
  await expect(rows(page).first()).toContainText('Late 4');
  await expect(page.getByText(/more above/)).toHaveCount(0);
});
