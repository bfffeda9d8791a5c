// Finding mail through the real page.
import { expect, test, type Page } from './test';
import { counts, downloaded, goTo, openDemo, openRow, openWith, rows } from './desk';

const line = (page: Page) => page.getByRole('combobox', { name: 'Query' });

async function search(page: Page, query: string): Promise<void> {
  await page.keyboard.press('/');
  await expect(line(page)).toBeFocused();
  await line(page).fill(query);
  await page.keyboard.press('Enter');
}

test('words are found in people, subject, text and names of attachments, wherever the message is', async ({ page }) => {
  await openWith(page, [
    { id: 'a', from: 'Ann Höchst <ann@x.test>', subject: 'Ropes' },
    { id: 'b', subject: 'Hochst urgent' },
    { id: 'c', text: 'It is the HÖCHST of times,\nand the lowest' },
    { id: 'd', subject: 'Nothing of it' },
  ]);
  await rows(page).filter({ hasText: 'Ropes' }).click();
  await page.keyboard.press('a');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 1 });
  await search(page, 'höchst');
  await expect(page.getByRole('heading', { name: 'Found everywhere' })).toBeVisible();
  await expect(rows(page)).toHaveCount(3);
  // Each says where it is.
  await expect(rows(page).filter({ hasText: 'Ropes' })).toContainText('Archive');
  await expect(rows(page).filter({ hasText: 'urgent' })).toContainText('Inbox');
  // In the place where one came from alone, and everywhere again.
  const where = page.getByRole('group', { name: 'Where to search' });
  await where.getByRole('button', { name: 'Inbox' }).click();
  await expect(page.getByRole('heading', { name: 'Found in Inbox' })).toBeVisible();
  await expect(rows(page)).toHaveCount(2);
  await page.goBack();
  await expect(rows(page)).toHaveCount(3);
  await expect(line(page)).toHaveValue('höchst');
  // A phrase goes over the end of a line; the address can be copied, a message open in it.
  await search(page, 'body "of times, and" not deleted');
  await expect(rows(page)).toHaveCount(1);
  await rows(page).first().click();
  await expect(openRow(page)).toContainText('Message c');
  const copied = await page.context().newPage();
  await copied.goto(page.url());
  await expect(copied.getByRole('article')).toContainText('HÖCHST of times');
  await expect(line(copied)).toHaveValue('body "of times, and" not deleted');
  await copied.close();
  await line(page).press('Escape');
  await expect(page.getByRole('heading', { name: 'Inbox' })).toBeVisible();
});

test('a mistake is shown at its place with what was expected, and what was typed stays', async ({ page }) => {
  await openWith(page, [{ id: 'a' }]);
  await search(page, 'unseen since 31-Feb-2026');
  const trouble = page.getByRole('alert');
  await expect(trouble).toContainText('At “31-Feb-2026”: “31-Feb-2026” is no date: write 1-Sep-2026 or 2026-09-01.');
  await expect(line(page)).toBeFocused();
  await expect(line(page)).toHaveValue('unseen since 31-Feb-2026');
  // What is wrong is marked: typing goes over it.
  await page.keyboard.type('1-Feb-2026');
  await page.keyboard.press('Enter');
  await expect(trouble).toHaveCount(0);
  await expect(rows(page)).toHaveCount(1);
  await search(page, 'from "ann');
  await expect(trouble).toContainText('The quotation mark that opens here is never closed.');
  await search(page, 'subject');
  await expect(trouble).toContainText('At the end: What subject looks for is missing here.');
  // Too long to be read: said, and the page lives.
  await search(page, 'x '.repeat(5_001));
  await expect(trouble).toContainText('A query has at most 10,000 characters.');
  await goTo(page, '/find/from%20%22ann');
  await expect(page.getByText('This query can’t be read')).toBeVisible();
  await search(page, 'subject nowhere');
  await expect(page.getByText('No message is what the query asks for, in whatever place.')).toBeVisible();
});

test('G7, common practice, no source: 186 matches over several screens archived as one, and undone as one', async ({
  page,
}) => {
  const list = Array.from({ length: 240 }, (_, n) => ({ id: `m${n}`, subject: n < 186 ? `Berth ${n}` : `Rope ${n}` }));
  await openWith(page, list);
  await search(page, 'subject berth undeleted');
  await expect(page.getByText('186 messages')).toBeVisible();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('a');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 186 });
  expect(await counts(page, 'Inbox')).toMatchObject({ total: 54 });
  // They are still what the query asks for.
  await expect(page.getByText('186 messages').first()).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 240 });
});

test('what was found stays in sight when it is read, until the query is applied again', async ({ page }) => {
  await openWith(page, [{ id: 'a' }, { id: 'b' }, { id: 'c' }]);
  await search(page, 'unseen message');
  await expect(rows(page)).toHaveCount(3);
  await rows(page).nth(1).click();
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 3, unread: 2 });
  await expect(rows(page)).toHaveCount(3);
  await page.keyboard.press('p');
  await expect(rows(page)).toHaveCount(2);
  await page.reload();
  await expect(rows(page)).toHaveCount(2);
});

test('what was archived is found by person, period and attachment, and narrowed by a filter', async ({ page }) => {
  await openDemo(page);
  await goTo(page, '/archive');
  const named = rows(page).first();
  await expect(named).toBeVisible();
  await search(page, 'from skerryline.example before 2026-11-20');
  await expect(page.getByRole('heading', { name: 'Found everywhere' })).toBeVisible();
  await page.getByRole('group', { name: 'Where to search' }).getByRole('button', { name: 'Archive' }).click();
  await expect(page.getByRole('heading', { name: 'Found in Archive' })).toBeVisible();
  await page.getByRole('group', { name: 'Show' }).getByRole('button', { name: 'With attachments' }).click();
  await expect(rows(page).first()).toBeVisible();
  for (const row of await rows(page).all()) {
    await expect(row.getByLabel(/attachments?$/)).toBeVisible();
    await expect(row).toContainText('Archive');
  }
});

test('keys, people, labels and days are suggested while typing, taken by keyboard or mouse', async ({ page }) => {
  await openWith(page, [
    { id: 'a', from: 'Ann Höchst <ann@x.test>' },
    { id: 'b', from: 'Bob <bob@x.test>' },
  ]);
  await page.keyboard.press('/');
  const list = page.getByRole('listbox', { name: 'Suggestions' });
  const options = list.getByRole('option');
  await expect(options.first()).toContainText('from');
  await page.keyboard.type('fr');
  await expect(options).toHaveCount(1);
  await page.keyboard.press('ArrowDown');
  await expect(options.first()).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Enter');
  await expect(line(page)).toHaveValue('from ');
  await page.keyboard.type('hoch');
  await expect(options).toHaveCount(1);
  await expect(options.first()).toContainText('ann@x.test');
  await options.first().click();
  await expect(line(page)).toHaveValue('from ann@x.test ');
  await page.keyboard.type('since ');
  await expect(options.filter({ hasText: 'six months ago' })).toBeVisible();
  // Escape puts the list away first; what was typed stays.
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Escape');
  await expect(list).toBeHidden();
  await expect(line(page)).toHaveValue('from ann@x.test since ');
  await line(page).fill('bob');
  await expect(options.filter({ hasText: 'from bob@x.test' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(rows(page)).toHaveCount(1);
});

test('line and form are two views of one query: each fills the other, also with what has no field', async ({
  page,
}) => {
  await openWith(page, [
    { id: 'a', from: 'Ann <ann@x.test>', subject: 'Fuel' },
    { id: 'b', from: 'Ann <ann@x.test>', subject: 'Rope' },
    { id: 'c', from: 'Bob <bob@x.test>', subject: 'Fuel' },
  ]);
  await page.keyboard.press('q');
  const form = page.getByRole('form', { name: 'Form of the query' });
  await form.getByLabel('From').fill('ann');
  await form.getByLabel('On this day or later').fill('2026-09-01');
  await form.getByRole('combobox', { name: 'Read', exact: true }).selectOption('no');
  await form.getByLabel('And whatever else').fill('not subject "rope');
  await expect(form.getByText('The quotation mark that opens here is never closed.')).toBeVisible();
  await form.getByLabel('And whatever else').fill('not subject "rope"');
  await expect(line(page)).toHaveValue('from ann since 2026-09-01 unseen not subject rope');
  await form.getByRole('button', { name: 'Search' }).click();
  await expect(rows(page)).toHaveCount(1);
  // What is typed in the line stands in the fields; what can't be read is told.
  await line(page).fill('harbour "two words" larger 2000 or seen flagged');
  await expect(form.getByLabel('Words, anywhere')).toHaveValue('harbour "two words"');
  await expect(form.getByLabel('Larger than')).toHaveValue('2');
  await expect(form.getByLabel('And whatever else')).toHaveValue('or seen flagged');
  await expect(form.getByLabel('From')).toHaveValue('');
  await line(page).fill('harbour since 31-Feb-2026');
  await expect(form.getByText('The line can’t be read as it is')).toContainText('“31-Feb-2026” is no date');
  await form.getByRole('button', { name: 'Empty all fields' }).click();
  await expect(line(page)).toHaveValue('');
});

test('matches are marked in rows, and in plain and HTML texts, also where the text was folded away', async ({
  page,
}) => {
  const far = 'Nothing to be said about it. '.repeat(12);
  await openWith(page, [
    { id: 'a', from: 'Höchst Harbour <h@x.test>', subject: 'The hochst tide', text: `${far}At the HÖCHST tide.` },
    {
      id: 'b',
      subject: 'Page',
      extra: 'Content-Type: text/html; charset=utf-8\n',
      text: '<p>A <b>hö</b>chst, then a Höchst &amp; whole one</p><blockquote>quoted höchst</blockquote>',
    },
    { id: 'c', subject: 'Answer', text: `Yes.\n\n> quoted höchst\n> text` },
  ]);
  await search(page, 'höchst');
  await expect(rows(page)).toHaveCount(3);
  const first = rows(page).filter({ hasText: 'The hochst tide' });
  await expect(first.locator('mark')).toHaveText(['Höchst', 'hochst', 'HÖCHST']);
  await first.click();
  await expect(page.getByRole('article').locator('mark').last()).toHaveText('HÖCHST');
  await rows(page).filter({ hasText: 'Page' }).click();
  const frame = page.frameLocator('iframe[title="Message text"]');
  // The first goes over two texts, of which one is bold; the last was folded away.
  await expect(frame.locator('mark')).toHaveText(['hö', 'chst', 'Höchst', 'höchst']);
  await expect(frame.locator('b mark')).toHaveText('hö');
  await expect(frame.locator('mark').last()).toBeVisible();
  await expect(frame.locator('body')).toContainText('A höchst, then a Höchst & whole one');
  await search(page, 'body "whole one quoted"');
  await rows(page).filter({ hasText: 'Page' }).click();
  await expect(frame.locator('mark')).toHaveText(['whole one', 'quoted']);
  await search(page, 'höchst');
  await rows(page).filter({ hasText: 'Answer' }).click();
  await expect(page.getByRole('article').locator('mark')).toHaveText(['höchst']);
});

test('a saved search stands on the left with its count, is a lane, is exported, and is taken off', async ({ page }) => {
  await openWith(page, [
    { id: 'a', subject: 'Fuel one' },
    { id: 'b', subject: 'Fuel two' },
    { id: 'c', subject: 'Rope' },
  ]);
  await search(page, 'subject fuel unseen');
  await page.getByRole('button', { name: 'Save search' }).click();
  const dialog = page.getByRole('dialog', { name: 'Save this search' });
  await dialog.getByLabel('Name').fill('Fuel to read');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Fuel to read', level: 1 })).toBeVisible();
  await expect.poll(() => counts(page, 'Fuel to read')).toEqual({ total: 2, unread: 2 });
  await rows(page).first().click();
  await expect.poll(() => counts(page, 'Fuel to read')).toEqual({ total: 1, unread: 1 });
  // As a lane of the Inbox.
  await goTo(page, '/lanes?of=/inbox');
  await page.getByRole('button', { name: 'Add a lane' }).click();
  await page.getByLabel('Holds what has').selectOption('search');
  await expect(page.getByLabel('Name')).toHaveValue('Fuel to read');
  await page.getByRole('button', { name: 'Save the lane' }).click();
  await page.getByRole('link', { name: 'To the lanes' }).click();
  const lane = page.getByRole('region', { name: 'Lane Fuel to read' });
  await expect(lane.getByRole('row')).toHaveCount(1);
  // In the setup.
  await goTo(page, '/mail');
  const { bytes } = await downloaded(page, () => page.getByRole('button', { name: 'Save the setup' }).click());
  expect(JSON.parse(bytes.toString('utf8'))).toMatchObject({
    searches: [{ name: 'Fuel to read', query: 'subject fuel unseen', within: null }],
  });
  // Back by its link, and taken off; Undo brings it back.
  await page.getByRole('link', { name: /^Fuel to read/ }).click();
  await page.getByRole('button', { name: 'Saved' }).click();
  await expect(page.getByRole('dialog')).toContainText('A lane goes by it');
  await page.getByRole('dialog').getByRole('button', { name: 'Take off' }).click();
  await expect(page.getByRole('heading', { name: 'Found everywhere' })).toBeVisible();
  await expect(page.getByRole('link', { name: /^Fuel to read/ })).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('link', { name: /^Fuel to read/ })).toBeVisible();
});

test('the Archive by years and months: one press goes to where a month begins', async ({ page }) => {
  const list = Array.from({ length: 240 }, (_, n) => ({
    id: `m${n}`,
    subject: `Letter ${n}`,
    date: new Date(Date.UTC(2024, Math.floor(n / 10), 15, 9, n % 10)).toISOString(),
  }));
  await openWith(page, list);
  await page.keyboard.press('Control+a');
  await page.keyboard.press('a');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 240 });
  await goTo(page, '/archive');
  const months = page.getByRole('navigation', { name: 'Years and months' });
  await expect(months.getByRole('button')).toHaveCount(24);
  await expect(months.getByRole('button', { name: 'Dec 2025: 10 rows' })).toHaveAttribute('aria-current', 'true');
  await months.getByRole('button', { name: 'Mar 2024: 10 rows' }).click();
  await expect(rows(page).filter({ hasText: 'Letter 29' })).toBeInViewport();
  await expect(months.getByRole('button', { name: 'Mar 2024: 10 rows' })).toHaveAttribute('aria-current', 'true');
});

test('a text index that was cut short is made anew, and finds what it found before', async ({ page }) => {
  await openWith(page, [{ id: 'a', text: 'The crane is out of order' }, { id: 'b' }, { id: 'c' }]);
  await search(page, 'crane');
  await expect(rows(page)).toHaveCount(1);
  // Written a little after the import; then cut short behind the page's back.
  await expect
    .poll(() =>
      page.evaluate(
        () =>
          new Promise<boolean>((resolve) => {
            const open = indexedDB.open('wide-sort');
            open.onsuccess = () => {
              const store = open.result.transaction('records', 'readwrite').objectStore('records');
              const get = store.get('text/00000');
              get.onsuccess = () => {
                const record = get.result as { units: Uint16Array } | undefined;
                if (record) store.put({ ...record, units: record.units.slice(0, 3) }, 'text/00000');
                store.transaction.oncomplete = () => {
                  open.result.close();
                  resolve(record !== undefined);
                };
              };
            };
          }),
      ),
    )
    .toBe(true);
  await page.reload();
  await expect(rows(page)).toHaveCount(1);
  await expect(rows(page).first()).toContainText('Message a');
});
