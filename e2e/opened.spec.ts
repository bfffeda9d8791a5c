// What is marked as read is what was opened and seen; what goes along from a list is what it shows.
import { expect, test } from './test';
import { bringIn, counts, goTo, mailFile, mbox, openRow, openWith, rows, type Mail } from './desk';

/** Long texts: the messages of a conversation don't fit the screen together. */
const thread = (count: number): Mail[] =>
  Array.from({ length: count }, (_, n) => ({
    id: `t${n}`,
    subject: n ? 'Re: Quay' : 'Quay',
    from: `Person ${n} <p${n}@b.test>`,
    text: Array.from({ length: 90 }, (_, line) => `Line ${line} of message ${n}.`).join('\n'),
    ...(n ? { answers: [`t${n - 1}`] } : {}),
  }));

test('a conversation opens with the open message in sight, its text on the screen; the tree, too; only that is marked', async ({
  page,
}) => {
  await openWith(page, thread(5));
  await page.keyboard.press('g');
  await rows(page).first().click();
  const list = page.getByRole('list', { name: /Messages of the conversation|Who answered whom/ });
  const open = list.locator('> li[aria-current="true"]');
  await expect(open.getByText('Line 0 of message 4.')).toBeInViewport();
  await expect.poll(async () => (await counts(page, 'Inbox')).unread).toBe(4);
  // Its texts have come, and it stands where it stood.
  await page.waitForTimeout(500);
  await expect(open.getByText('Line 0 of message 4.')).toBeInViewport();
  // Whoever scrolls on by keys is not called back when the texts there come.
  await page.keyboard.press('Control+ArrowUp');
  await page.keyboard.press('Control+ArrowUp');
  await page.waitForTimeout(600);
  await expect(open.getByText('Line 0 of message 4.')).not.toBeInViewport();
  // All closed and all opened, it stands in sight again.
  for (const word of ['Close all', 'Open all']) {
    await page.getByRole('button', { name: word }).click();
    await page.waitForTimeout(400);
    await expect(open.getByText('Line 0 of message 4.')).toBeInViewport();
  }
  await page.keyboard.press('k');
  await expect(page.getByRole('list', { name: 'Who answered whom' })).toBeVisible();
  await expect(open.getByText('Line 0 of message 4.')).toBeInViewport();
  expect((await counts(page, 'Inbox')).unread).toBe(4);
});

test('marked unread while it is open a message stays unread, however its list is shown then, and Undo is of that', async ({
  page,
}) => {
  await openWith(page, [...thread(2), { id: 'a', subject: 'Alone' }]);
  const unread = async () => (await counts(page, 'Inbox')).unread;
  await rows(page).filter({ hasText: 'Alone' }).click();
  await expect.poll(unread).toBe(2);
  await page.keyboard.press('u');
  await expect.poll(unread).toBe(3);
  for (const key of ['g', 'g', 'v', 'v', 'o', 'h'])
    await test.step(`then ${key}`, async () => {
      await page.keyboard.press(key);
      await page.waitForTimeout(250);
      expect(await unread()).toBe(3);
    });
  await page.setViewportSize({ width: 390, height: 844 });
  await page.waitForTimeout(250);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.waitForTimeout(250);
  expect(await unread()).toBe(3);
  await page.keyboard.press('Control+z');
  await expect.poll(unread).toBe(2);
  // Another is opened, and this one again: that is opening it.
  await page.goto('/inbox');
  await rows(page).filter({ hasText: 'Alone' }).click();
  await page.keyboard.press('u');
  await expect.poll(unread).toBe(3);
  await page.keyboard.press('Escape');
  await rows(page).filter({ hasText: 'Alone' }).click();
  await expect.poll(unread).toBe(2);
  // Said by hand before its text has come, it is so.
  await rows(page)
    .filter({ hasText: 'Message t1' })
    .or(rows(page).filter({ hasText: 'Person 1' }))
    .first()
    .click();
  await page.keyboard.press('u');
  await page.waitForTimeout(600);
  expect(await unread()).toBe(2);
});

test('clearing out from a list that is narrowed takes what that shows, and says so; Tick takes exactly the unread', async ({
  page,
  context,
}) => {
  await openWith(page, [...thread(3), { id: 'a', subject: 'Alone' }, { id: 'b', subject: 'Another' }]);
  await rows(page).filter({ hasText: 'Alone' }).click();
  await expect.poll(async () => (await counts(page, 'Inbox')).unread).toBe(4);
  await rows(page).filter({ hasText: 'Person 0' }).click();
  await expect.poll(async () => (await counts(page, 'Inbox')).unread).toBe(3);
  await page.keyboard.press('Escape');
  await page.keyboard.press('g');
  await page.getByLabel('Tick', { exact: true }).selectOption('unread');
  await expect(page.getByText('2 conversations, 3 messages ticked')).toBeVisible();
  const box = rows(page).filter({ hasText: 'Quay' }).getByRole('checkbox');
  expect(await box.evaluate((input: HTMLInputElement) => [input.checked, input.indeterminate])).toEqual([false, true]);
  // A press ticks all of it; what comes into it then is not among what is ticked.
  await box.click();
  await expect(page.getByText('2 conversations, 4 messages ticked')).toBeVisible();
  await expect(box).toBeChecked();
  const other = await context.newPage();
  await other.goto('/mail');
  await bringIn(other, mailFile('late.mbox', mbox([{ id: 't9', subject: 'Re: Quay', answers: ['t2'] }])));
  await other.close();
  await expect.poll(() => box.evaluate((input: HTMLInputElement) => input.indeterminate)).toBe(true);
  await expect(page.getByText('2 conversations, 4 messages ticked')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('o');
  await expect(page.getByRole('button', { name: 'Unread', exact: true })).toHaveAttribute('aria-pressed', 'true');
  const unread = (await counts(page, 'Inbox')).unread;
  await page.keyboard.press('z');
  await expect(page.getByRole('heading', { name: 'Clear-out', level: 1 })).toBeVisible();
  await expect(page.getByLabel('Clear out of')).toHaveText(/Inbox: Unread/);
  await page.getByRole('button', { name: 'Choose everything: Inbox: Unread' }).click();
  await page.getByRole('button', { name: `Archive ${unread}` }).click();
  await expect.poll(async () => (await counts(page, 'Inbox')).unread).toBe(0);
  expect((await counts(page, 'Archive')).total).toBe(unread);
  await page.goBack();
  await goTo(page, '/inbox');
  await expect(openRow(page)).toHaveCount(0);
});
