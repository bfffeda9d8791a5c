// Labels and folders through the real page: made, nested, merged, taken off.
import { expect, test } from './test';
import { list, drag } from './rulesPage';
import { counts, goTo, openRow, openWith, rows, undoButton } from './desk';

test('labels made, nested, merged, and all of it undone', async ({ page }) => {
  await openWith(page, [{ id: 'a' }, { id: 'b' }, { id: 'c' }]);
  await rows(page).first().click();
  await page.keyboard.press('l');
  await page.getByLabel('Label, or the name of a new one').fill('Fuel');
  await page.getByRole('button', { name: 'Make the label “Fuel”' }).click();
  await expect(openRow(page)).toContainText('Fuel');
  await goTo(page, '/labels');
  const labels = page.getByRole('region', { name: 'Labels' });
  for (const name of ['Engine', 'Oil']) {
    await labels.getByLabel('Name of a new label').fill(name);
    await page.keyboard.press('Enter');
    await expect(labels.getByLabel(`Name of the label ${name}`)).toBeVisible();
  }
  // Each is the only one of its name where it stands, and no folder is called as a place is.
  await labels.getByLabel('Name of a new label').fill('engine');
  await page.keyboard.press('Enter');
  await expect(page.getByText('There is a label “engine” here already: it needs another name.')).toBeVisible();
  await page.getByLabel('Name of a new folder').fill('Inbox');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“Inbox” is the name of a place: the folder needs another.')).toBeVisible();
  await labels.getByLabel('Fuel stands within').selectOption('within Engine');
  await labels.getByLabel('Oil stands within').selectOption('within Fuel');
  // What stands within Fuel can't take Fuel in: a circle is not offered.
  await expect(labels.getByLabel('Fuel stands within').getByRole('option', { name: 'within Oil' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Take off … Fuel' }).click();
  const dialog = page.getByRole('dialog', { name: 'The label Fuel' });
  await expect(dialog).toContainText('1 message bears it. No message is deleted.');
  await dialog.getByLabel('Instead they get').selectOption('Engine / Fuel / Oil');
  await dialog.getByRole('button', { name: 'Merge into Oil' }).click();
  await expect(labels.getByLabel('Name of the label Fuel')).toHaveCount(0);
  await expect(labels.getByLabel('Oil stands within')).toHaveValue(/./);
  await expect(labels.getByRole('listitem').filter({ hasText: 'within' }).first()).toContainText('1 message');
  await undoButton(page).click();
  await expect(labels.getByLabel('Name of the label Fuel')).toBeVisible();
  // Renamed in place, and its row inked.
  const name = labels.getByLabel('Name of the label Fuel');
  await name.fill('Diesel');
  await name.press('Enter');
  await expect(labels.getByLabel('Name of the label Diesel')).toBeVisible();
  await labels.getByLabel('Diesel inks the whole row').click();
  await expect(page.getByRole('region', { name: 'Inks' })).toContainText('Diesel (row)');
  await goTo(page, '/inbox');
  await expect(rows(page).filter({ hasText: 'Diesel' }).getByRole('img', { name: /^Ink / })).toBeVisible();
});

test('labels are nested by dragging one onto another, and brought back to the top; each is undone', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a' }]);
  await goTo(page, '/labels');
  const labels = page.getByRole('region', { name: 'Labels' });
  for (const name of ['Engine', 'Oil']) {
    await labels.getByLabel('Name of a new label').fill(name);
    await page.keyboard.press('Enter');
    await expect(labels.getByLabel(`Name of the label ${name}`)).toBeVisible();
  }
  const row = (name: string) =>
    labels.getByRole('listitem').filter({ has: page.getByLabel(`Name of the label ${name}`) });
  const grip = (name: string) => row(name).getByTitle('Drag onto another to nest it');
  const within = labels.getByLabel('Oil stands within');
  await drag(page, grip('Oil'), row('Engine'));
  await expect(within.getByRole('option', { selected: true })).toHaveText('within Engine');
  // Neither onto itself nor into what stands within it.
  await drag(page, grip('Engine'), row('Oil'));
  await expect(labels.getByLabel('Engine stands within').getByRole('option', { selected: true })).toHaveText(
    'at the top',
  );
  await drag(page, grip('Oil'), labels.getByText('Drop here to put it at the top'));
  await expect(within.getByRole('option', { selected: true })).toHaveText('at the top');
  await page.keyboard.press('Control+z');
  await expect(within.getByRole('option', { selected: true })).toHaveText('within Engine');
  await page.keyboard.press('Control+z');
  await expect(within.getByRole('option', { selected: true })).toHaveText('at the top');
});

test('a folder that goes keeps its mail, and the rules that moved to it move elsewhere', async ({ page }) => {
  await openWith(page, [
    { id: 'a', subject: 'Fuel' },
    { id: 'b', subject: 'Other' },
  ]);
  await goTo(page, '/rules/new');
  await page.getByLabel('Text in Subject').fill('fuel');
  await page.getByLabel('What else it does').selectOption('move it to');
  await page.getByLabel('Where to').selectOption('a new folder …');
  await page.getByLabel('Name of the new folder').fill('Oil');
  await page.getByRole('button', { name: 'Save the rule and sort 1 message' }).click();
  await expect(list(page)).toHaveCount(1);
  await goTo(page, '/labels');
  await page.getByRole('button', { name: 'Take off … Oil' }).click();
  const dialog = page.getByRole('dialog', { name: 'The folder Oil' });
  await expect(dialog).toContainText('One rule speaks of it, and will move to Archive.');
  await dialog.getByRole('button', { name: 'Take Oil off' }).click();
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(1);
  await goTo(page, '/rules');
  await expect(list(page).first()).toContainText('then move it to Archive.');
  await undoButton(page).click();
  await expect(list(page).first()).toContainText('then move it to Oil.');
  await expect.poll(async () => (await counts(page, 'Oil')).total).toBe(1);
});
