// Stamps as a person uses them: by a digit on one, on many, on a conversation; asked for what they lack; made of what was done;
// run by a rule.
import { expect, test, type Page } from './test';
import { counts, downloaded, goTo, openWith, placeLink, rows, undoButton, type Mail } from './desk';
import { violations } from './axe';

const mail: Mail[] = [
  { id: 'a', subject: 'Invoice 1', from: 'Bo <bo@harbour.test>' },
  { id: 'b', subject: 'Re: Invoice 1', from: 'Cy <cy@harbour.test>', answers: ['a'] },
  { id: 'c', subject: 'Invoice 2', from: 'Bo <bo@harbour.test>' },
  { id: 'd', subject: 'Crew', from: 'Di <di@harbour.test>' },
];

test.beforeEach(async ({ page }) => {
  await openWith(page, mail);
  await goTo(page, '/stamps');
  await expect(page.getByRole('heading', { name: 'Stamps' })).toBeVisible();
});

const take = async (page: Page, name: string) => {
  await page.getByRole('button', { name: `Take it: ${name}` }).click();
  await expect(
    page.getByRole('list', { name: 'Stamps in their order' }).getByText(name, { exact: true }),
  ).toBeVisible();
};

test('by its digit, on one and on many; what it lacks is asked at first use and kept; one Undo', async ({ page }) => {
  await take(page, 'Bills');
  await goTo(page, '/inbox');
  await rows(page).filter({ hasText: 'Crew' }).click();
  await page.keyboard.press('1');
  // First the label, then the folder: each asked once.
  await page.getByLabel(/a label, or the name of a new one/).fill('Bills');
  await page.keyboard.press('Enter');
  await page.getByLabel(/a place, or the name of a new folder/).fill('To pay');
  await page.keyboard.press('Enter');
  await expect(
    page.getByText('Stamp “Bills”: Labelled 1 message Bills; flagged 1 message', { exact: false }).first(),
  ).toBeVisible();
  await expect.poll(() => counts(page, 'To pay')).toEqual({ total: 1, unread: 0 });
  // Now it asks nothing more.
  await page.keyboard.press('Control+a');
  await page.keyboard.press('1');
  await expect.poll(async () => (await counts(page, 'To pay')).total).toBe(4);
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(0);
  await undoButton(page).click();
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(3);
  await goTo(page, '/logbook');
  await expect(
    page
      .getByText(/Stamp “Bills”: Labelled 3 messages Bills; flagged 3 messages for .*; moved 3 messages to To pay/)
      .first(),
  ).toBeVisible();
});

test('on a conversation; it says first what it would do, to how many, and beyond what is chosen', async ({ page }) => {
  await take(page, 'Not for me');
  await goTo(page, '/inbox');
  await expect(rows(page)).toHaveCount(4);
  await page.keyboard.press('g');
  await expect(rows(page)).toHaveCount(3);
  await rows(page).filter({ hasText: 'Invoice 1' }).click();
  const stamp = page.getByRole('toolbar', { name: 'Stamps' }).getByRole('button', { name: /Not for me/ });
  await expect(stamp).toHaveAccessibleDescription(
    /Mark it read and silence its whole conversation, to the Archive\. On 2 messages\./,
  );
  await page.keyboard.press('0');
  await page.keyboard.press('1');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('Silenced 2 messages, to the Archive')).toBeVisible();
  await dialog.getByRole('button', { name: 'Carry out “Not for me” on 2 messages' }).click();
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(2);
});

test('what can’t be carried out says why, and a stamp that deletes asks once', async ({ page }) => {
  await page.getByRole('link', { name: 'New stamp' }).click();
  await page.getByLabel('Name').fill('Gone');
  await page.getByLabel('What else it does').selectOption('read');
  await page.getByLabel('What else it does').selectOption('delete');
  await page.getByLabel('What else it does').selectOption('move');
  await expect(page.getByText('It goes to one place only')).toBeVisible();
  await page.getByRole('button', { name: 'Do not move it to' }).click();
  await page.getByRole('button', { name: 'Save the stamp' }).click();
  await goTo(page, '/inbox');
  const stamp = page.getByRole('toolbar', { name: 'Stamps' }).getByRole('button', { name: /Gone.*deletes for good/ });
  await expect(stamp).toHaveAttribute('aria-disabled', 'true');
  await expect(stamp).toHaveAccessibleDescription(/Tick messages first/);
  await page.keyboard.press('Control+a');
  await page.keyboard.press('1');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('This stamp deletes for good: that no Undo takes back.')).toBeVisible();
  await expect(dialog.getByText('Deleted 4 messages for good')).toBeVisible();
  await dialog.getByRole('button', { name: 'Carry out “Gone” on 4 messages' }).click();
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(0);
});

test('made of what was just done; in another order; as a file and back', async ({ page }) => {
  await goTo(page, '/inbox');
  await rows(page).filter({ hasText: 'Crew' }).click();
  await page.keyboard.press('f');
  await page.keyboard.press('r');
  await page.keyboard.press('u');
  const offer = page.getByRole('link', { name: 'Make a stamp of this' });
  await expect(offer).toHaveAttribute('title', /You just did: flag it without a date/);
  await offer.click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Mine');
  await expect(page.getByRole('list', { name: 'Acts in their order' }).getByRole('listitem')).toHaveCount(3);
  await expect(page.getByText('It can’t be marked read and unread.')).toBeVisible();
  await page.getByRole('button', { name: 'Do not mark it unread' }).click();
  await expect(page.getByRole('region', { name: 'What it would do' })).toContainText('Of 1 message');
  await page.getByRole('button', { name: 'Save the stamp' }).click();
  await take(page, 'Read this week');
  await page.getByRole('button', { name: 'Move “Read this week” up' }).click();
  await expect(page.getByRole('list', { name: 'Stamps in their order' }).getByRole('listitem').first()).toContainText(
    'Read this week',
  );
  const { bytes } = await downloaded(page, () => page.getByRole('button', { name: 'Save “Mine” as a file' }).click());
  await page.getByRole('button', { name: 'Take off “Mine”' }).click();
  await expect(page.getByRole('button', { name: 'Take off “Mine”' })).toHaveCount(0);
  await page
    .getByTestId('stamp-file')
    .setInputFiles({ name: 'mine.json', mimeType: 'application/json', buffer: bytes });
  await expect(page.getByRole('button', { name: 'Take off “Mine”' })).toBeVisible();
  await page
    .getByTestId('stamp-file')
    .setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from('[]') });
  await expect(page.getByText(/x\.json: This is no file of a stamp/)).toBeVisible();
  expect(await violations(page)).toEqual([]);
});

test('a rule runs a stamp: its dry run, and what it did', async ({ page }) => {
  await page.getByRole('link', { name: 'New stamp' }).click();
  await page.getByLabel('Name').fill('Away');
  await page.getByLabel('What else it does').selectOption('read');
  await page.getByLabel('What else it does').selectOption('move');
  await page.getByLabel('Where to').selectOption('archive');
  await page.getByRole('button', { name: 'Save the stamp' }).click();
  await expect(page.getByRole('heading', { name: 'Stamps' })).toBeVisible();
  await goTo(page, '/rules/new');
  await page
    .getByRole('textbox', { name: /what it looks for/i })
    .or(page.getByLabel('Text'))
    .first()
    .fill('Invoice');
  await page.getByLabel('What else it does').selectOption('stamp');
  await expect(page.getByText('then run the stamp Away.')).toBeVisible();
  await page.getByRole('button', { name: 'Save the rule' }).click();
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(3);
  await goTo(page, '/stamps');
  await page.getByRole('button', { name: 'Take off “Away”' }).click();
  await expect(page.getByText(/The rule “.*” runs it: take it out of there first/)).toBeVisible();
  await expect(placeLink(page, 'Archive')).toBeVisible();
});
