// The junk filter and dangerous mail through the real page.
import { expect, test, type Page } from './test';
import {
  counts,
  downloaded,
  findRow,
  goTo,
  mailFile,
  openDemo,
  openOwn,
  openWith,
  placeLink,
  rows,
  type Mail,
  undoButton,
} from './desk';

const dryRun = (page: Page) => page.getByRole('region', { name: 'Dry run' });

/** Moves the strictness by keys. */
async function strictness(page: Page, to: number): Promise<void> {
  const slider = page.getByRole('slider', { name: 'Strictness' });
  await slider.fill(String(to));
  await expect(slider).toHaveValue(String(to));
}

/** A mailbox of one's own with twenty wanted and twenty junk messages; the first twelve of each are marked. */
async function openMarked(page: Page): Promise<void> {
  const wanted = ['gangway rota', 'berth plan', 'tide table', 'crew swap'];
  const junk = ['guaranteed prize', 'cheap pills', 'million prize', 'secret casino'];
  const list: Mail[] = [
    ...Array.from({ length: 20 }, (_, i) => ({
      id: `g${i}`,
      from: `Ana <ana${i}@quay.test>`,
      subject: `The ${wanted[i % 4]} ${i}`,
      text: `Here is the ${wanted[i % 4]} for day ${i}, as asked.`,
    })),
    ...Array.from({ length: 20 }, (_, i) => ({
      id: `j${i}`,
      from: `Win <win${i}@prize.test>`,
      subject: `${junk[i % 4]} ${i}!!!`,
      text: `CLAIM your ${junk[i % 4]} NOW, number ${i}!!!`,
    })),
  ];
  await openWith(page, list);
  for (let i = 0; i < 12; i++) await (await findRow(page, `${junk[i % 4]} ${i}!!!`)).getByRole('checkbox').click();
  await page.keyboard.press('j');
  await expect.poll(async () => (await counts(page, 'Junk')).total).toBe(12);
}

test('the strictness shows which messages change sides before it is saved; saving moves just those; Undo', async ({
  page,
}) => {
  await openMarked(page);
  await goTo(page, '/junk-filter');
  await expect(page.getByText('Off: nothing is judged.')).toBeVisible();
  await expect(page.getByText('All 40 messages in the Inbox and Junk.')).toBeVisible();
  await strictness(page, 40);
  const says = dryRun(page).getByText(/would go\s*from Inbox to Junk/);
  await expect(says).toBeVisible();
  const moved = Number(/(\d+) messages? would go/.exec(await says.innerText())?.[1]);
  expect(moved).toBeGreaterThan(4);
  const lines = dryRun(page).getByRole('row').filter({ hasText: '!!!' });
  await expect(lines).toHaveCount(moved);
  // Nearest to the line first; and each can be looked into before anything is saved.
  const scores = (await lines.locator('td:first-child').allInnerTexts()).map(Number);
  expect(scores).toEqual([...scores].sort((a, b) => a - b));
  expect(scores[0]).toBeGreaterThanOrEqual(60);
  await lines.first().getByRole('button').click();
  await expect(dryRun(page)).toContainText('@prize.test');
  await expect(dryRun(page).getByRole('link', { name: /^Open it at the desk/ })).toHaveAttribute(
    'href',
    /^\/inbox\/m\/\d+$/,
  );
  await lines.first().getByRole('button').click();
  // Stricter: at least as many change sides, at once.
  await strictness(page, 10);
  await expect(page.getByText('Mild: junk begins at score 90.')).toBeVisible();
  await strictness(page, 40);
  await expect(says).toContainText(String(moved));
  await page.getByRole('button', { name: `Save and sort ${moved} messages` }).click();
  await expect.poll(async () => (await counts(page, 'Junk')).total).toBe(12 + moved);
  await undoButton(page).click();
  await expect.poll(async () => (await counts(page, 'Junk')).total).toBe(12);
  await expect(page.getByText('Off: nothing is judged.')).toBeVisible();
});

test('how good the filter is on what was marked is drawn for every strictness, and can be read out', async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, '/junk-filter');
  const curve = page.getByRole('region', { name: 'Caught and lost' });
  await expect(curve).toContainText(/On \d+ that you marked/);
  await expect(curve.locator('canvas')).toBeVisible();
  // Off first, then every fifth.
  await expect(curve.getByRole('row')).toHaveCount(21);
  await expect(curve.getByRole('row').nth(1)).toHaveText('00.0 %0.0 %');
  // What stands beside the slider is what the curve says there.
  await strictness(page, 40);
  const said = page.getByText(/^On what you marked, each judged without its own mark/);
  const caught = /([\d.]+) % of junk caught/.exec(await said.innerText())?.[1];
  const drawn = await curve.getByRole('row').nth(9).locator('td').first().innerText();
  expect(Number.parseFloat(drawn).toFixed(0)).toBe(caught);
});

test('what arrives is judged; Why here says the score, the line and the evidence', async ({ page }) => {
  await openDemo(page);
  await placeLink(page, 'Junk').click();
  await expect(page).toHaveURL(/\/junk$/);
  for (let at = 0; at < 12; at++) {
    await rows(page).nth(at).click();
    await expect(page.getByRole('article')).toBeVisible();
    if (await page.getByText(/^Junk filter: Score/).isVisible()) break;
  }
  await page.keyboard.press('w');
  const why = page.getByRole('region', { name: 'Why here' });
  const line = why.getByRole('listitem').filter({ hasText: 'at or above your line at 88, so it went to Junk.' });
  await expect(line).toContainText(/Score \d+ of 100/);
  const evidence = why.getByRole('region', { name: 'Evidence' });
  await expect(evidence.getByRole('list', { name: 'For junk' }).getByRole('listitem').first()).toBeVisible();
  await why.getByRole('link', { name: 'Open the junk filter' }).click();
  await expect(page.getByText('Mild: junk begins at score 88.')).toBeVisible();
  await expect(page.getByText(/% of junk caught/)).toBeVisible();
});

test('dangerous mail: what looks false is named, links are dead and say where they would go', async ({ page }) => {
  const html = 'Content-Type: text/html\n';
  await openWith(page, [
    { id: 'known', from: 'me@y.test', to: 'Eilif Marwick <e.marwick@harbour-office.test>', subject: 'To the harbour' },
    {
      id: 'false',
      from: 'Eilif Marwick <x@mailhaven.test>',
      subject: 'Urgent',
      extra: html,
      text: '<p>See <a href="https://evil.test/login">https://www.bank.test/login</a></p>',
    },
    {
      id: 'plain',
      from: 'Bo <bo@other.test>',
      subject: 'Honest',
      extra: html,
      text: '<p>See <a href="https://other.test/page">our page</a></p>',
    },
  ]);
  await (await findRow(page, 'Urgent')).click();
  const strip = page.getByRole('region', { name: 'What looks false' });
  await expect(strip).toContainText(
    'It calls itself Eilif Marwick, whom you know as e.marwick@harbour-office.test, but comes from x@mailhaven.test.',
  );
  await expect(strip).toContainText('A link says www.bank.test and goes to evil.test.');
  await expect(strip).toContainText('Links in it are dead');
  const frame = page.frameLocator('iframe[title="Message text"]');
  await expect(frame.getByText('[would go to https://evil.test/login]')).toBeVisible();
  await expect(frame.locator('a[href]')).toHaveCount(0);
  await (await findRow(page, 'Honest')).click();
  await expect(frame.getByRole('link', { name: 'our page' })).toBeVisible();
  await expect(strip).toHaveCount(0);
  // In Junk every link is dead.
  await page.keyboard.press('j');
  await expect.poll(() => counts(page, 'Junk')).toMatchObject({ total: 1 });
  await goTo(page, '/junk');
  await rows(page).first().click();
  await expect(frame.getByText('[would go to https://other.test/page]')).toBeVisible();
});

test('links in plain text are as dead as those of HTML where the message is junk', async ({ page }) => {
  await openWith(page, [
    { id: 'words', from: 'News <news@other.test>', subject: 'Words', text: 'See https://other.test/page\nand come.' },
  ]);
  await rows(page).first().click();
  const article = page.getByRole('article');
  await expect(article.getByRole('link', { name: 'https://other.test/page' })).toBeVisible();
  await page.keyboard.press('j');
  await expect.poll(() => counts(page, 'Junk')).toMatchObject({ total: 1 });
  await goTo(page, '/junk');
  await rows(page).first().click();
  await expect(article.getByText('See https://other.test/page')).toBeVisible();
  await expect(article.getByRole('link', { name: 'https://other.test/page' })).toHaveCount(0);
  await expect(page.getByText('Links in it are dead')).toBeVisible();
});

test('a press on Save that falls into the moment in which mail is counted anew is not lost', async ({ page }) => {
  await openWith(page, [{ id: 'a', subject: 'Berth 5' }]);
  await goTo(page, '/junk-filter');
  await page.getByLabel('Days in Junk').fill('3');
  const save = page.getByRole('button', { name: /^Save/ });
  await expect(save).toHaveText('Save');
  await expect(save).toBeEnabled();
  // Within one moment: what is asked changes, and Save is pressed.
  await save.evaluate(async (button: HTMLButtonElement) => {
    button.form?.querySelector<HTMLInputElement>('input[type="checkbox"]')?.click();
    await new Promise(requestAnimationFrame);
    button.click();
  });
  await expect(page.getByText(/^Changed what becomes of junk/)).toBeVisible();
  await expect(page.getByLabel('Days in Junk')).toHaveValue('3');
  await expect(save).toBeDisabled();
});

test('how long junk is kept: a wrong number is refused where it stands, a shorter time says which mail goes when', async ({
  page,
}) => {
  await openMarked(page);
  const inJunk = (await counts(page, 'Junk')).total;
  await goTo(page, '/junk-filter');
  const days = page.getByLabel('Days in Junk');
  for (const wrong of ['', '0', '-3', '1.5', '366', 'soon']) {
    await days.fill(wrong);
    await expect(page.getByRole('alert')).toHaveText('A whole number from 1 to 365.');
    await expect(days).toHaveValue(wrong);
    await expect(page.getByRole('button', { name: /^Save/ })).toBeDisabled();
  }
  await days.fill('5');
  await expect(
    page.getByText(
      /will be deleted for good on \d+ \w+ \d{4} at the earliest\. What comes there later, 5 days after it came\.$/,
    ),
  ).toContainText(`${inJunk.toLocaleString('en')} messages in Junk now`);
  await page.getByRole('button', { name: /^Save/ }).click();
  await goTo(page, '/junk');
  await expect(rows(page).first()).toBeVisible();
});

test('junk straight to the Bin, with the date; the setting says so', async ({ page }) => {
  await openMarked(page);
  await goTo(page, '/junk-filter');
  await strictness(page, 50);
  await page.getByLabel('Straight to the Bin, kept there for 30 days').check();
  await expect(dryRun(page).getByText(/would go\s*from Inbox to Bin/)).toBeVisible();
  await page.getByRole('button', { name: /^Save and sort/ }).click();
  await expect.poll(async () => (await counts(page, 'Bin')).total).toBeGreaterThan(4);
});

test('the setup goes out as one file and comes in elsewhere; what is no setup changes nothing', async ({
  page,
  browser,
}) => {
  await openMarked(page);
  await goTo(page, '/junk-filter');
  await strictness(page, 40);
  await page.getByRole('button', { name: /^Save/ }).click();
  await expect(page.getByText(/^Drew the line of the junk filter at score 60/)).toBeVisible();
  await goTo(page, '/mail');
  const { name, bytes } = await downloaded(page, () => page.getByRole('button', { name: 'Save the setup' }).click());
  expect(name).toBe('wide-sort-setup.json');
  const other = await browser.newPage();
  await openOwn(other);
  await other.getByLabel('Take up a setup').setInputFiles(mailFile('broken.json', bytes.subarray(0, 300)));
  await expect(other.getByRole('alert')).toContainText('broken.json: This is no setup of Wide Sort: no JSON');
  await other.getByLabel('Take up a setup').setInputFiles(mailFile('setup.json', bytes));
  await other.getByRole('button', { name: 'Take it up' }).click();
  await expect(other.getByText('Took up a setup from a file').first()).toBeVisible();
  await other.goto('/junk-filter');
  await expect(other.getByText(/junk begins at score 60\./)).toBeVisible();
  await other.close();
});

test('a setup shows first what it would change, the desk’s own settings with it; Undo brings both back', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a' }, { id: 'b' }]);
  await rows(page).filter({ hasText: 'Message a' }).click();
  await page.keyboard.press('m');
  await page.getByLabel('Place, or the name of a new folder').fill('Weather');
  await page.keyboard.press('Enter');
  await expect.poll(() => counts(page, 'Weather')).toMatchObject({ total: 1 });
  await goTo(page, '/mail');
  const { bytes } = await downloaded(page, () => page.getByRole('button', { name: 'Save the setup' }).click());
  const setup = JSON.parse(bytes.toString()) as { desk: object; register: object[]; folders: object[] };
  expect(setup.desk).toMatchObject({ density: 'roomy', orders: {} });
  const entry = { id: 'e', kind: 'domain', value: 'pills.test', standing: 'blocked', since: 1, why: 'Junk' };
  const desk = { ...setup.desk, density: 'tight', theme: 'loud' };
  const changed = JSON.stringify({ ...setup, folders: [], register: [entry], desk });
  await page.getByLabel('Take up a setup').setInputFiles(mailFile('other.json', changed));
  const dialog = page.getByRole('dialog', { name: 'Take up other.json?' });
  const changes = dialog.getByRole('list', { name: 'What changes' });
  await expect(changes).toContainText('Register');
  await changes.getByText('1 comes').click();
  await expect(changes).toContainText('pills.test');
  await expect(changes).toContainText('The desk: rows roomy or tight');
  await expect(changes).toContainText('1 that it doesn’t have stay, because mail is in them');
  await expect(dialog).toContainText('stay as they are here: theme');
  await dialog.getByRole('button', { name: 'Take it up' }).click();
  await expect(page.getByText('Took up a setup from a file.').first()).toBeVisible();
  await expect.poll(() => counts(page, 'Weather')).toMatchObject({ total: 1 });
  await goTo(page, '/desk');
  await expect(page.getByRole('radio', { name: /^Tight/ })).toBeChecked();
  await goTo(page, '/mail');
  await page.getByRole('button', { name: /^Undo: Took up a setup/ }).click();
  await goTo(page, '/desk');
  await expect(page.getByRole('radio', { name: /^Roomy/ })).toBeChecked();
  await goTo(page, '/register');
  await expect(page.getByText('pills.test')).toHaveCount(0);
});
