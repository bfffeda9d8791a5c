// Clearing out, senders and the Logbook, through the real page.
import { expect, test, type Page } from './test';
import { bringIn, counts, goTo, mailFile, mbox, openDemo, openWith, rows, type Mail } from './desk';

const status = (page: Page) => page.getByRole('region', { name: 'What would go' }).getByRole('status');
const day = 86_400_000;
const ago = (days: number) => new Date(Date.now() - days * day).toISOString();

/** Goes to the page of the clear-out from the desk, by its key. */
async function clearOut(page: Page): Promise<void> {
  await page.keyboard.press('z');
  await expect(page.getByRole('heading', { name: 'Clear-out', level: 1 })).toBeVisible();
}

test('G5, common practice, no source: all but the newest 50, and all but the ticked, archived and undone as one', async ({
  page,
}) => {
  const list = Array.from({ length: 130 }, (_, n): Mail => ({
    id: `m${n}`,
    subject: `Berth ${n}`,
    date: ago(130 - n),
  }));
  await openWith(page, list);
  await clearOut(page);
  await page.getByRole('button', { name: /^All but the newest 50/ }).click();
  await expect(status(page)).toHaveText('80 messages of 130 would go.');
  await expect(page.getByText('50 of them because they are the newest')).toBeVisible();
  await expect(page.getByRole('list', { name: 'The newest of those that go' })).toContainText('Berth 79');
  await page.getByRole('button', { name: 'Archive 80 messages' }).click();
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 80 });
  await expect(status(page)).toHaveText('Nothing would go.');
  await page.keyboard.press('Control+z');
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 130 });
  // The ticked stay: two of them, then everything else goes.
  await goTo(page, '/inbox');
  await rows(page).nth(2).getByRole('checkbox').click();
  await rows(page).nth(5).getByRole('checkbox').click();
  await clearOut(page);
  await expect(page.getByText('2 messages that you ticked stay.')).toBeVisible();
  await expect(status(page)).toHaveText('128 messages of 130 would go.');
  await page.getByRole('button', { name: 'Archive 128 messages' }).click();
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 2 });
  await goTo(page, '/inbox');
  await expect(rows(page)).toHaveCount(2);
  await expect(rows(page).first()).toContainText('Berth 127');
});

test('G3: older than six months, with what stands out spared; asked once for many; kept in the address', async ({
  page,
}) => {
  const list = Array.from({ length: 620 }, (_, n): Mail => ({ id: `m${n}`, date: ago(n < 560 ? 200 + n : n - 560) }));
  await openWith(page, list);
  // The oldest is flagged: it is what a person would not lose.
  await page.getByRole('grid').press('End');
  await expect(page.getByRole('article')).toContainText('m559');
  await page.keyboard.press('f');
  await clearOut(page);
  await page.getByRole('button', { name: /^Older than six months/ }).click();
  await expect(status(page)).toHaveText('559 messages of 620 would go.');
  await expect(page.getByText('1 because they stand out')).toBeVisible();
  await page.getByLabel('leave it here').first().uncheck();
  await expect(status(page)).toHaveText('560 messages of 620 would go.');
  await page.getByText('See which').first().click();
  await expect(page.getByRole('list', { name: 'Those flagged' })).toContainText('Message m559');
  await page.reload();
  await expect(status(page)).toHaveText('560 messages of 620 would go.');
  await page.getByRole('button', { name: 'Bin 560 messages' }).click();
  const question = page.getByRole('dialog', { name: 'Bin 560 messages?' });
  await expect(question).toContainText('They stay in the Bin for 30 days');
  await question.getByRole('button', { name: 'Leave it' }).click();
  expect(await counts(page, 'Bin')).toMatchObject({ total: 0 });
  await page.getByRole('button', { name: 'Bin 560 messages' }).click();
  await question.getByRole('button', { name: 'Bin 560 messages' }).click();
  await expect.poll(() => counts(page, 'Bin')).toMatchObject({ total: 560 });
  await page.keyboard.press('Control+z');
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 620 });
});

test('G4: unread only, over the whole place and not only what is in sight', async ({ page }) => {
  const list = Array.from({ length: 150 }, (_, n): Mail => ({ id: `m${n}` }));
  await openWith(page, list);
  for (let n = 0; n < 3; n++) {
    await page.keyboard.press('ArrowDown');
    // Each is read once it is open: one after another.
    await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ unread: 149 - n });
  }
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ unread: 147 });
  await clearOut(page);
  await page.getByLabel('State').selectOption('unread');
  await expect(status(page)).toHaveText('147 messages of 150 would go.');
  await page.getByRole('button', { name: 'Mark 147 messages as read' }).click();
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 150, unread: 0 });
  await page.keyboard.press('Control+z');
  await expect.poll(() => counts(page, 'Inbox')).toEqual({ total: 150, unread: 147 });
});

test('by sender, size and what stands whole elsewhere; what can’t be read in an address chooses nothing', async ({
  page,
}) => {
  const said = 'The crane is out of order until Friday, and the berth is closed.';
  await openWith(page, [
    { id: 'a', subject: 'Crane', text: said },
    { id: 'b', subject: 'Re: Crane', answers: ['a'], text: `I see.\n> ${said}` },
    { id: 'c', from: 'News <news@sub.z.test>', text: 'x'.repeat(3_000) },
    { id: 'd', from: 'Zoe <zoe@z.test>' },
  ]);
  await goTo(page, '/clear-out?of=/nowhere&choice={"older":3}');
  await expect(page.getByRole('heading', { name: 'Nothing is chosen yet' })).toBeVisible();
  for (const word of ['Archive', 'Bin'])
    await expect(page.getByRole('group', { name: 'Acts' }).getByRole('button', { name: word })).toBeDisabled();
  await page.getByRole('button', { name: 'Choose everything: Inbox' }).click();
  await expect(status(page)).toHaveText('4 messages of 4 would go.');
  await page.reload();
  await expect(status(page)).toHaveText('4 messages of 4 would go.');
  await page.getByRole('textbox', { name: 'From' }).fill('@Z.test');
  await expect(status(page)).toHaveText('2 messages of 4 would go.');
  await page.getByLabel('Larger than, in KB').fill('2');
  await expect(status(page)).toHaveText('1 message of 4 would go.');
  await page.getByRole('textbox', { name: 'From' }).fill('');
  await page.getByLabel('Larger than, in KB').fill('');
  // What is unread stays; read, the first stands whole in the second.
  await page.getByRole('button', { name: /^Said whole again/ }).click();
  await expect(status(page)).toHaveText('Nothing would go.');
  await page.getByRole('button', { name: /^All that is read/ }).click();
  await expect(status(page)).toHaveText('Nothing would go.');
  await page.getByLabel('State').selectOption('unread');
  await page.getByRole('button', { name: 'Mark 4 messages as read' }).click();
  await page.getByRole('button', { name: /^Said whole again/ }).click();
  await expect(status(page)).toHaveText('1 message of 4 would go.');
  await expect(page.getByRole('list', { name: 'The newest of those that go' })).toContainText('Crane');
});

test('G6: a sender’s whole mail to the Bin and back; the table sorted and narrowed', async ({ page }) => {
  await openWith(page, [
    ...Array.from({ length: 7 }, (_, n): Mail => ({ id: `n${n}`, from: 'Tide News <news@tides.test>' })),
    ...Array.from({ length: 3 }, (_, n): Mail => ({ id: `a${n}`, from: 'Ann <ann@x.test>' })),
    { id: 'b', from: 'bob@x.test' },
  ]);
  // Two are read, and one more stands in the Archive: a sender's mail is all of it, wherever it is.
  await rows(page).filter({ hasText: 'Tide News' }).first().click();
  await page.keyboard.press('a');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 1 });
  await goTo(page, '/senders');
  const table = page.getByRole('grid', { name: 'Senders' });
  const lines = table.getByRole('row').filter({ has: page.getByRole('gridcell') });
  await expect(lines).toHaveCount(3);
  await expect(lines.first()).toContainText('Tide News');
  await table.getByRole('button', { name: 'Messages' }).click();
  await expect(lines.first()).toContainText('bob@x.test');
  await page.getByRole('button', { name: 'Domains' }).click();
  await expect(lines.first()).toContainText('x.test');
  await page.getByRole('button', { name: 'Senders', exact: true }).click();
  await page.getByLabel('Name or address').fill('tide');
  await expect(lines).toHaveCount(1);
  await lines.first().getByRole('button').click();
  const panel = page.getByRole('complementary', { name: 'Sender news@tides.test' });
  await expect(panel).toContainText('7, 6 in the Inbox');
  await panel.getByRole('button', { name: 'Bin 7' }).click();
  await expect.poll(() => counts(page, 'Bin')).toMatchObject({ total: 7 });
  await expect(panel).toContainText('Nothing of this sender is left');
  await page.keyboard.press('Control+z');
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 10 });
  expect(await counts(page, 'Archive')).toMatchObject({ total: 1 });
  await expect(panel).toContainText('7, 6 in the Inbox');
  // The sender stands in the address; from there to its rule, its entry, and what is found of it.
  await page.reload();
  await panel.getByRole('link', { name: 'Find them' }).click();
  await expect(page.getByText('7 messages').first()).toBeVisible();
});

test('a list is left by one request through the post office, and what comes after is counted', async ({ page }) => {
  const news = (id: string, days: number): Mail => ({
    id,
    from: 'Tide News <news@tides.test>',
    date: ago(days),
    extra:
      'List-Id: <list.tides.test>\nList-Unsubscribe: <https://leave.tides.test/me>\n' +
      'List-Unsubscribe-Post: List-Unsubscribe=One-Click\nAuthentication-Results: mx.y.test; dkim=pass\n',
  });
  await openDemo(page);
  await goTo(page, '/mail');
  await bringIn(page, mailFile('news.mbox', mbox([news('a', 9), news('b', 5)])));
  const requests: string[] = [];
  page.on('request', (request) => requests.push(`${request.method()} ${request.url()}`));
  page.context().on('request', (request) => requests.push(`${request.method()} ${request.url()}`));
  await goTo(page, '/senders?sender=news%40tides.test');
  const panel = page.getByRole('complementary', { name: 'Sender news@tides.test' });
  await panel.getByRole('button', { name: 'Leave the list …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Leave the list?' });
  await expect(dialog).toContainText('leave.tides.test');
  await dialog.getByRole('button', { name: 'Leave by one request' }).click();
  await expect(panel).toContainText('by one request. Nothing came after that.');
  // Nobody but our own server was asked.
  expect(requests.filter((url) => !/^\w+ (http:\/\/127\.0\.0\.1|blob:|data:)/.test(url))).toEqual([]);
  await goTo(page, '/mail');
  await bringIn(page, mailFile('later.mbox', mbox([news('c', -1)])));
  await goTo(page, '/senders?sender=news%40tides.test');
  await expect(panel).toContainText('1 message came after that');
  // It stands in the Logbook, and is nothing that Undo could take back.
  await goTo(page, '/logbook?what=setup');
  const entry = page.getByRole('row').filter({ hasText: 'Left the list of Tide News' });
  await expect(entry).toBeVisible();
  await expect(entry.getByRole('button', { name: /^Undo/ })).toHaveCount(0);
});

test('an act on all of a sender counts for where it says, at every moment', async ({ page }) => {
  await openDemo(page);
  await goTo(page, '/senders?sender=rota%40skerryline.example');
  const all = page.getByRole('region', { name: 'All of it at once' });
  const archive = all.getByRole('button', { name: /^Archive/ });
  const everywhere = await archive.innerText();
  // Looked at as soon as the choice is drawn, and not a moment later.
  const atOnce = await all.getByRole('combobox', { name: 'What is' }).evaluate(async (select: HTMLSelectElement) => {
    const button = [...document.querySelectorAll('button')].find((one) => one.textContent?.includes('Archive '));
    Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value')?.set?.call(select, 'inbox');
    select.dispatchEvent(new Event('change', { bubbles: true }));
    await Promise.resolve();
    return { says: button?.textContent?.trim(), disabled: button?.disabled };
  });
  await expect(archive).toHaveText(/Archive \d/);
  expect(await archive.innerText()).not.toBe(everywhere);
  expect(atOnce).toEqual({ says: 'Archive …', disabled: true });
});

test('what a rule or an entry did stands in the Logbook, a press from where it is; until when it can be undone', async ({
  page,
}) => {
  await openDemo(page);
  await goTo(page, '/rules');
  await page.getByRole('link', { name: 'What it did' }).first().click();
  await expect(page.getByLabel('Decided by')).toHaveValue(/^rule:/);
  const entries = page.getByRole('row').filter({ has: page.getByRole('cell') });
  await expect(entries.first()).toContainText(/[\d,]+ by it/);
  // Opened, it shows just those.
  const by = Number(/([\d,]+) by it/.exec(await entries.first().innerText())?.[1] ?? NaN);
  await entries.first().getByRole('button').first().click();
  const lines = page.getByRole('list', { name: /^Messages of: / }).getByRole('listitem');
  await expect(lines).toHaveCount(Math.min(by, 50));
  await page.getByLabel('Decided by').selectOption('junk');
  await expect(page).toHaveURL(/by=junk/);
  await expect(entries.first()).toContainText(/[\d,]+ by it/);
  await goTo(page, '/register');
  await page.getByTitle('What it did, in the Logbook').first().click();
  await expect(page.getByLabel('Decided by')).toHaveValue(/^entry:/);
  await expect(entries.first()).toContainText(/[\d,]+ by it/);
  await goTo(page, '/inbox');
  await rows(page).first().click();
  await page.keyboard.press('a');
  await goTo(page, '/logbook');
  await expect(page.getByRole('button', { name: /^Undo: Archived/ })).toHaveAttribute(
    'title',
    /^Until .* at the least$/,
  );
});

test('own mail has no post office: how a list is left is shown, and nothing says that it was', async ({ page }) => {
  const extra =
    'List-Unsubscribe: <https://leave.tides.test/me>, <mailto:off@tides.test?subject=off%20me>\n' +
    'List-Unsubscribe-Post: List-Unsubscribe=One-Click\nAuthentication-Results: mx.y.test; dkim=pass\n';
  await openWith(page, [{ id: 'a', from: 'news@tides.test', extra: `List-Id: <list.tides.test>\n${extra}` }]);
  await goTo(page, '/senders?sender=news%40tides.test');
  const panel = page.getByRole('complementary', { name: 'Sender news@tides.test' });
  await expect(panel.getByRole('link', { name: 'off@tides.test' })).toHaveAttribute(
    'href',
    /^mailto:off%40tides\.test\?subject=off%20me/,
  );
  await expect(panel.getByRole('link', { name: 'https://leave.tides.test/me' })).toBeVisible();
  await expect(panel.getByRole('button', { name: /^Leave/ })).toHaveCount(0);
});

test('the Logbook by who, what, when, words and message; an entry shows what it touched', async ({ page }) => {
  await openWith(page, [{ id: 'a' }, { id: 'b' }, { id: 'c' }]);
  await rows(page).filter({ hasText: 'Message a' }).click();
  await page.keyboard.press('f');
  await page.keyboard.press('a');
  await expect.poll(() => counts(page, 'Archive')).toMatchObject({ total: 1 });
  await goTo(page, '/logbook');
  const entries = page.getByRole('row').filter({ has: page.getByRole('cell') });
  const search = page.getByRole('search', { name: 'Entries' });
  await search.getByLabel('What').selectOption('moved');
  await expect(entries).toHaveCount(1);
  await expect(entries.first()).toContainText('Archived “Message a”');
  await entries
    .first()
    .getByRole('button', { name: /^Archived/ })
    .click();
  await expect(page.getByRole('list', { name: /^Messages of/ })).toContainText('Message a');
  await search.getByLabel('What').selectOption('');
  await search.getByLabel('Says').fill('FLAGGED');
  await expect(entries.first()).toContainText('Flagged “Message a”');
  await search.getByLabel('Says').fill('');
  await search.getByLabel('Up to this day').fill('2020-01-01');
  await expect(page.getByText('Nothing in the Logbook is of that kind.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.getByRole('group', { name: 'Whose entries' }).getByRole('button', { name: 'Wide Sort' }).click();
  await expect(entries.filter({ hasText: 'as you opened it' }).first()).toBeVisible();
  await expect(entries.filter({ hasText: 'Archived' })).toHaveCount(0);
  // From a message to all that was done to it.
  await goTo(page, '/archive');
  await rows(page).first().click();
  await page.keyboard.press('w');
  await page.getByRole('link', { name: 'All that was done to this message' }).click();
  await expect(page.getByText('Only what touched')).toContainText('“Message a”');
  await expect(entries.filter({ hasText: 'Brought in' })).toBeVisible();
  await expect(entries.filter({ hasText: 'Archived' })).toBeVisible();
  await expect(page.getByText('The Logbook keeps its newest 5,000 entries')).toBeVisible();
});

test('with the demo: a ready clear-out over all places, by the keyboard alone', async ({ page }) => {
  await openDemo(page);
  await goTo(page, '/clear-out?of=everywhere');
  const ready = page.getByRole('button', { name: /^Bulletins older than two weeks [\d,]+$/ });
  await expect(ready).toBeVisible();
  await ready.focus();
  await page.keyboard.press('Enter');
  await expect(ready).toHaveAttribute('aria-pressed', 'true');
  await expect(status(page)).toContainText('would go.');
  const act = page.getByRole('button', { name: /^Archive [\d,]+ messages$/ });
  const number = Number(/[\d,]+/.exec((await act.textContent()) ?? '')?.[0].replace(/,/g, ''));
  expect(number).toBeGreaterThan(20);
  const before = (await counts(page, 'Archive')).total;
  await act.focus();
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(before + number);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(before);
});
