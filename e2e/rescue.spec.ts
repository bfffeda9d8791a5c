// What the filter took is looked at again: rescue, the Second look and Where did my mail go? through the real page.
import { expect, test } from './test';
import { counts, findRow, goTo, openDemo, openWith, rows } from './desk';

const rescued: [what: string, key: string, entry: string | null, subject: string][] = [
  ['only this one', '1', null, 'One'],
  ['the sender', '2', 'ana@lists.test', 'Two'],
  ['the whole domain', '3', 'lists.test', 'Three'],
  ['the mailing list', '4', 'crew.lists.test', 'Four'],
];
for (const [what, key, entry, subject] of rescued)
  test(`a rescue asks one thing at most: ${what}`, async ({ page }) => {
    await openWith(page, [
      { id: 'a', from: 'Ana <ana@lists.test>', subject, extra: 'List-Id: Crew <crew.lists.test>\n' },
      { id: 'b', from: 'Bo <bo@other.test>', subject: 'Another' },
    ]);
    await (await findRow(page, subject)).click();
    await page.keyboard.press('j');
    await expect.poll(async () => (await counts(page, 'Junk')).total).toBe(1);
    await goTo(page, '/junk');
    await rows(page).first().click();
    await expect(page.getByRole('article').getByText(/^In Junk until .*, then deleted for good\./)).toBeVisible();
    await page.keyboard.press('n');
    const dialog = page.getByRole('dialog', { name: 'Not junk: to the Inbox, and from now on?' });
    if (key === '2') await dialog.getByLabel(/keep a contact card/).check();
    await dialog.getByRole('button').first().focus();
    await page.keyboard.press(key);
    await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(2);
    await goTo(page, '/register');
    if (entry) await expect(page.getByRole('row').filter({ hasText: entry })).toContainText('Safe');
    else await expect(page.getByText('Nobody yet.')).toBeVisible();
    await goTo(page, '/contacts');
    await expect(page.getByText('ana@lists.test', { exact: true })).toHaveCount(key === '2' ? 1 : 0);
    await goTo(page, '/inbox');
    await expect(rows(page).first()).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect.poll(async () => (await counts(page, 'Junk')).total).toBe(1);
  });

test('Second look: twenty by keys, the most doubtful first, each with what was learned', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('link', { name: /for a second look$/ }).click();
  await expect(page.getByRole('heading', { name: 'Second look', level: 1 })).toBeVisible();
  const left = async () =>
    Number(((await page.getByText(/ left · /).innerText()).match(/^[\d,]+/)?.[0] ?? '').replace(',', ''));
  await expect(page.getByText(/ left · /)).toBeVisible();
  const [before, inbox] = [await left(), (await counts(page, 'Inbox')).total];
  await expect(page.getByRole('link', { name: `${before} for a second look` })).toBeVisible();
  for (let n = 1; n <= 20; n++) {
    const title = await page
      .getByRole('region', { name: 'The most doubtful' })
      .getByRole('heading')
      .first()
      .innerText();
    await page.keyboard.press(n % 5 === 0 ? 'n' : 'j');
    await expect(page.getByText(/^Learned from “/)).toContainText(title.slice(0, 30));
    await expect.poll(left).toBe(before - n);
  }
  await expect(page.getByText(`${before - 20} messages left · 16 were junk · 4 rescued`)).toBeVisible();
  expect((await counts(page, 'Inbox')).total).toBe(inbox + 4);
  // The last answer is taken back like any act.
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(inbox + 3);
  // And is counted back: one count, here and on the line.
  await expect(page.getByText(`${before - 19} messages left · 16 were junk · 3 rescued`)).toBeVisible();
  await expect(page.getByRole('link', { name: `${before - 19} for a second look` })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(`${before - 18} messages left · 15 were junk · 3 rescued`)).toBeVisible();
});

test('Where did my mail go? finds a lost message, names what took it, and brings it back', async ({ page }) => {
  await openDemo(page);
  await goTo(page, '/register');
  await page.getByRole('main').getByRole('link', { name: 'Where did my mail go?' }).click();
  await page.getByLabel(/A sender, their domain/).fill('parts-direct.example');
  await page.keyboard.press('Enter');
  const taken = page.getByRole('region', { name: /The Register: the domain parts-direct\.example is Blocked/ });
  await expect(taken).toBeVisible();
  const inbox = (await counts(page, 'Inbox')).total;
  const bring = taken.getByRole('button', { name: /to the Inbox$/ });
  const many = Number(/(\d+)/.exec(await bring.innerText())?.[1] ?? 1);
  await bring.click();
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(inbox + many);
  await page.getByLabel(/A sender, their domain/).fill('nobody@nowhere.example');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/has not reached Wide Sort/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/has not reached Wide Sort/)).toBeVisible();
});

test('Second look: the score that its evidence stands under is that of the open message, and of its row, at every moment', async ({
  page,
}) => {
  await openDemo(page);
  await page.getByRole('link', { name: /for a second look$/ }).click();
  const card = page.getByRole('region', { name: 'The most doubtful' });
  await expect(card.getByText(/^Score \d+ of 100, because of$/)).toBeVisible();
  await page.evaluate(`{
    window.wrong = [];
    window.seen = 0;
    const look = () => {
      const says = [...document.querySelectorAll('h2')].map((one) => /^Score (\\d+) of 100/.exec(one.textContent)?.[1]).find(Boolean);
      const row = document.querySelector('[aria-label="Waiting"] [aria-current="true"] [data-score]')?.textContent;
      if (says === undefined || row === undefined) return;
      window.seen++;
      if (says !== row) window.wrong.push(says + ' ' + row);
    };
    new MutationObserver(look).observe(document.body, { subtree: true, childList: true, characterData: true });
  }`);
  for (const key of ['j', 'n', 'j', 'ArrowDown', 'j', 'ArrowUp', 'n']) {
    // Two neighbours may have the same subject: that another message stands there is told by what shows it being another.
    const before = await card.getByRole('heading').first().elementHandle();
    await page.keyboard.press(key);
    await expect.poll(() => before?.evaluate((element) => element.isConnected)).toBe(false);
    await expect(card.getByText(/^Score \d+ of 100, because of$/)).toBeVisible();
  }
  await expect(page.getByRole('list', { name: 'Waiting' })).not.toHaveAttribute('aria-busy', 'true');
  expect(await page.evaluate('window.wrong')).toEqual([]);
  expect(Number(await page.evaluate('window.seen'))).toBeGreaterThan(7);
});
