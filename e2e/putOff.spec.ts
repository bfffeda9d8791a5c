// Put off, through the real page: out of the Inbox until a moment, back on top of it, or earlier by an answer.
import { expect, test, type Page } from './test';
import { bringIn, counts, goTo, mailFile, mbox, moveClock, openWith, placeLink, rows, undoButton } from './desk';

const hour = 3_600_000;

/** What is put off, as the Agenda shows it. */
const inAgenda = (page: Page) =>
  page.getByRole('listitem').filter({ has: page.getByTitle('Put off', { exact: true }) });

test('put off until tomorrow morning by keys: listed in Held and in the Agenda, and on top of the Inbox the day after', async ({
  page,
}) => {
  await openWith(page, [
    { id: 'a', subject: 'Berth 4' },
    { id: 'b', subject: 'Berth 5' },
    { id: 'c', subject: 'Berth 6' },
  ]);
  await expect(placeLink(page, 'Held')).toHaveCount(0);
  await rows(page).filter({ hasText: 'Berth 4' }).click();
  await page.keyboard.press('Shift+D');
  const dialog = page.getByRole('dialog', { name: 'Put off until' });
  await dialog.getByLabel(/^Type a date/).fill('yesterday');
  await expect(dialog).toContainText(/past/);
  await dialog.getByLabel(/^Type a date/).fill('tomorrow');
  await expect(dialog).toContainText('tomorrow 08:00');
  // The hour at which mornings begin is the person’s.
  await dialog.getByLabel('A morning begins at').selectOption('07:00');
  await expect(dialog).toContainText('tomorrow 07:00');
  await dialog.getByRole('button', { name: /^Tomorrow morning/ }).click();
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 2 });
  await expect(page.locator('footer').getByRole('status').last()).toContainText(/^Put off “Berth 4” until .*, 07:00/);
  await expect(placeLink(page, 'Held')).toBeVisible();
  // One Undo, and again.
  await page.keyboard.press('Control+z');
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 3 });
  await expect(placeLink(page, 'Held')).toHaveCount(0);
  await rows(page).filter({ hasText: 'Berth 4' }).click();
  await page.keyboard.press('Shift+D');
  await dialog.getByRole('button', { name: /^Tomorrow morning/ }).click();
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 2 });

  await goTo(page, '/held');
  await expect(rows(page).first()).toContainText(/Berth 4.*until tomorrow 07:00/s);
  await goTo(page, '/find/subject%20%22berth%204%22');
  await expect(rows(page).first()).toContainText('Berth 4');
  await goTo(page, '/agenda');
  await expect(inAgenda(page)).toContainText(/Berth 4.*until tomorrow 07:00/s);

  await moveClock(page, 36 * hour);
  await page.goto('/inbox');
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 3 });
  await expect(rows(page).first()).toContainText('Berth 4');
  await expect(rows(page).first()).toContainText('back');
  await expect(placeLink(page, 'Held')).toHaveCount(0);
  await goTo(page, '/logbook?who=all');
  await expect(page.getByText('Back in the Inbox, as put off: “Berth 4”')).toHaveCount(1);
  await page.reload();
  await expect(page.getByText('Back in the Inbox, as put off: “Berth 4”')).toHaveCount(1);
});

test('an answer brings back what is put off; from the Agenda it comes back by hand, or waits for another moment', async ({
  page,
}) => {
  await openWith(page, [
    { id: 'a', subject: 'Berth 4' },
    { id: 'b', subject: 'Berth 5' },
  ]);
  for (const subject of ['Berth 4', 'Berth 5']) {
    await rows(page).filter({ hasText: subject }).click();
    await page.keyboard.press('Shift+D');
    await page.getByRole('button', { name: /^Next week/ }).click();
    await expect(rows(page).filter({ hasText: subject })).toHaveCount(0);
  }
  await goTo(page, '/mail');
  await bringIn(page, mailFile('answer.mbox', mbox([{ id: 'c', subject: 'Re: Berth 4', answers: ['a'] }])));
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 2 });
  await goTo(page, '/inbox');
  await expect(rows(page).first()).toContainText('Berth 4');
  await goTo(page, '/agenda');
  const putOff = inAgenda(page);
  await expect(putOff).toContainText('Berth 5');
  await expect(putOff).not.toContainText('Berth 4');
  await putOff.getByRole('button', { name: 'Another moment: Berth 5' }).click();
  await page.getByLabel(/^Type a date/).fill('in 3 weeks');
  await page.getByRole('button', { name: 'Put off', exact: true }).click();
  await expect(putOff.locator('time')).toContainText(/until \w+ \d+ \w+|until \d+ \w+ \d{4}/);
  await putOff.getByRole('button', { name: 'Back to the Inbox: Berth 5' }).click();
  await expect(putOff).toHaveCount(0);
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 3 });
  await undoButton(page).click();
  await expect(putOff).toContainText('Berth 5');
});

test('a whole conversation is put off and taken back; two tabs bring it back once', async ({ page }) => {
  await openWith(page, [
    { id: 'a', subject: 'Berth 4' },
    { id: 'b', subject: 'Re: Berth 4', answers: ['a'] },
    { id: 'c', subject: 'Re: Berth 4', answers: ['a', 'b'] },
    { id: 'd', subject: 'Berth 5' },
  ]);
  await page.getByRole('button', { name: 'Conversations' }).click();
  const row = rows(page).filter({ hasText: '3 received' });
  await row.getByRole('checkbox').click();
  await page.keyboard.press('Shift+D');
  await page.getByRole('button', { name: /^Tomorrow morning/ }).click();
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 1 });
  expect(await counts(page, 'Held')).toMatchObject({ total: 3 });
  await moveClock(page, 33 * hour);
  await page.goto('/inbox');
  const second = await page.context().newPage();
  await second.goto('/held');
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 4 });
  await expect(rows(second)).toHaveCount(0);
  await goTo(page, '/logbook?who=all');
  await expect(page.getByText('Back in the Inbox, as put off: 3 messages')).toHaveCount(1);
});
