// For everyone: axe on every view in both themes, the keyboard alone, small screens.
import { expect, test } from './test';
import { violations } from './axe';
import {
  bringIn,
  counts,
  findRow,
  mailFile,
  mbox,
  openDemo,
  goTo,
  openNew,
  openOwn,
  openRow,
  openWith,
  rows,
  total as allMessages,
  undoButton,
} from './desk';
import { openOwnDemo, ownServer } from './ownServer';

/** The pages that are no desk, each with its heading. */
const pages: [path: string, heading: string][] = [
  ['/register', 'Register'],
  ['/register/new?value=office%40stonness-harbour.example', 'New entry in the Register'],
  ['/register/many', 'Several entries at once'],
  ['/junk-filter', 'Junk filter'],
  ['/second-look', 'Second look'],
  ['/where?of=parts-direct.example', 'Where did my mail go?'],
  ['/contacts', 'Contacts'],
  ['/text-blocks', 'Text blocks'],
  ['/rules', 'Rules'],
  ['/rules/harbour', 'Harbour business'],
  ['/rules/new?from=5', 'Sort mail like this'],
  ['/rules/sieve', 'Rules as a Sieve script'],
  ['/trays', 'Trays'],
  ['/trays/new', 'New tray'],
  ['/delivery', 'Hold'],
  ['/labels', 'Labels and folders'],
  ['/agenda', 'Agenda'],
  ['/agenda?view=week', 'Agenda'],
  ['/agenda?view=month', 'Agenda'],
  ['/stamps', 'Stamps'],
  ['/stamps/charter', 'Charter enquiry'],
  ['/desk', 'The desk'],
  ['/accounts', 'Accounts'],
  ['/telling', 'Being told'],
  ['/lanes?of=/inbox', 'Lanes'],
  ['/logbook?who=all', 'Logbook'],
  ['/clear-out?of=everywhere', 'Clear-out'],
  ['/senders?sender=rota%40skerryline.example', 'Senders'],
  ['/mail', 'Mail in and out'],
  ['/folder/nowhere', 'There is nothing at this address'],
];

test.describe('axe finds nothing, light or dark', () => {
  test('at the desk', async ({ page }) => {
    await openNew(page);
    expect(await violations(page)).toEqual([]);
    await openDemo(page);
    expect(await violations(page)).toEqual([]);
    await rows(page).first().click();
    await expect(page.getByRole('article')).toBeVisible();
    await page.keyboard.press('w');
    await rows(page).nth(1).getByRole('checkbox').click();
    expect(await violations(page)).toEqual([]);
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
    expect(await violations(page)).toEqual([]);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await page.keyboard.press('v');
    await expect(page.getByRole('region', { name: 'Lane Machines' })).toContainText('in all');
    expect(await violations(page), 'lanes').toEqual([]);
    for (const [path, heading] of [
      ['/junk', 'Junk'],
      ['/drafts', 'Drafts'],
      ['/label/alarm', 'Alarm'],
      ['/inbox?show=flagged', 'Inbox'],
      ['/find/jackets%20unseen', 'Found everywhere'],
      ['/archive', 'Archive'],
      ['/find/nowhere/in/%2Finbox', 'Found in Inbox'],
    ]) {
      await goTo(page, path);
      await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
      expect(await violations(page), path).toEqual([]);
    }
  });

  test('with trays and a hold', async ({ browser }) => {
    const { page, close } = await openOwnDemo(browser, 800);
    const row = rows(page).filter({ has: page.getByLabel('Tray', { exact: true }) });
    for (let top = 0; (await row.count()) === 0; top += 300)
      await page.getByRole('grid').evaluate((grid, to) => grid.scrollTo({ top: to }), top);
    await row.first().click();
    await expect(page.getByRole('article', { name: 'Tray' })).toBeVisible();
    expect(await violations(page), 'a tray open').toEqual([]);
    await page.getByRole('button', { name: 'Tray', exact: true }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    expect(await violations(page), 'put in a tray').toEqual([]);
    await page.keyboard.press('Escape');
    const own: [string, string][] = [
      ['/trays', 'Trays'],
      ['/trays/trade', 'Trade press'],
      ['/tray/trade/waits', 'Trade press'],
      ['/delivery', 'Hold'],
    ];
    for (const [path, heading] of own) {
      await goTo(page, path);
      await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
      if (path === '/delivery') await page.getByRole('button', { name: 'An hour', exact: true }).click();
      expect(await violations(page), path).toEqual([]);
    }
    await goTo(page, '/inbox');
    await expect(page.getByRole('status', { name: 'Hold', exact: true })).toBeVisible();
    expect(await violations(page, { anew: true }), 'held').toEqual([]);
    await close();
  });

  test('in conversations, an answer and the questions', async ({ page }) => {
    await openDemo(page);
    await page.keyboard.press('g');
    await (await findRow(page, 'jackets')).click();
    await expect(page.getByRole('list', { name: 'Messages of the conversation' })).toBeVisible();
    expect(await violations(page), 'stack').toEqual([]);
    await page.keyboard.press('k');
    await expect(page.getByRole('list', { name: 'Who answered whom' })).toBeVisible();
    expect(await violations(page), 'tree').toEqual([]);
    await page.keyboard.press('y');
    await expect(page.getByRole('textbox', { name: 'Text' })).toBeVisible();
    expect(await violations(page), 'answer').toEqual([]);
    await page.getByRole('button', { name: 'Throw away' }).click();
    for (const [key, dialog] of [
      ['t', 'Thin out the conversation'],
      ['d', 'Flag for'],
      ['l', 'Label'],
      ['m', 'Move to'],
    ]) {
      await page.keyboard.press(key);
      await expect(page.getByRole('dialog', { name: dialog })).toBeVisible();
      await expect(page.locator('dialog [aria-busy="true"]')).toHaveCount(0);
      expect(await violations(page), dialog).toEqual([]);
      await page.keyboard.press('Escape');
    }
  });

  test('on every other page', async ({ page }) => {
    await openDemo(page);
    for (const [path, heading] of pages) {
      await goTo(page, path);
      await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeVisible();
      await expect(page.getByText(/checking …/)).toHaveCount(0);
      expect(await violations(page), path).toEqual([]);
    }
  });
});

test('with the keyboard alone: begin, read, act, block, undo', async ({ browser }) => {
  const { baseURL, close } = await ownServer(200);
  const page = await browser.newPage({ baseURL });
  await openNew(page);
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'Open the demo mailbox' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(rows(page).first()).toBeVisible();
  await expect.poll(() => allMessages(page)).toBe(200);
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[aria-current="true"]')).toHaveAttribute('aria-rowindex', '1');
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[aria-current="true"]')).toHaveAttribute('aria-rowindex', '2');
  await page.keyboard.press('End');
  // A tray is one row, however much it holds.
  const total = (await page.getByRole('grid', { name: 'Inbox' }).getAttribute('aria-rowcount')) ?? '';
  await expect(page.locator('[aria-current="true"]')).toHaveAttribute('aria-rowindex', total);
  await page.keyboard.press('Home');
  await expect(page.locator('[aria-current="true"]')).toHaveAttribute('aria-rowindex', '1');
  await page.keyboard.press(' ');
  await expect(page.getByText('1 ticked')).toBeVisible();
  // Opened and seen it was read; whether it has a flag already is the demo's business.
  await expect(page.locator('[aria-current="true"]').getByText('Unread.')).toHaveCount(0);
  await page.keyboard.press('u');
  await expect(page.getByText(/^Marked “/).first()).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('b');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^(New entry|Entry)/);
  // Where it would hit people whom the person wrote to, it asks first.
  const sure = page.getByLabel('Block it all the same');
  const save = page.getByRole('button', { name: /^(Block|Mark as safe)( and sort .*)?$/ });
  await expect.poll(async () => (await sure.isVisible()) || (await save.isEnabled())).toBe(true);
  if (await sure.isVisible()) {
    await sure.focus();
    await page.keyboard.press(' ');
  }
  await page.getByLabel('Address or domain').focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^(Blocked|Marked as safe) /).first()).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Undid: (Blocked|Marked as safe) /).first()).toBeVisible();
  await page.close();
  await close();
});

test('with the keyboard alone the demo Inbox is cleared: thirty message by message, the rest at once', async ({
  page,
}) => {
  await openDemo(page);
  const { total } = await counts(page, 'Inbox');
  const [archive, bin] = [await counts(page, 'Archive'), await counts(page, 'Bin')];
  await page.keyboard.press('ArrowDown');
  await expect(openRow(page)).toBeVisible();
  for (let pressed = 0; pressed < 30; pressed++) {
    const was = new URL(page.url()).pathname;
    await page.keyboard.press(pressed % 2 ? 'Delete' : 'a');
    // The next one is open.
    await page.waitForFunction(
      (before) => document.querySelector('[role="row"][aria-current="true"]') !== null && location.pathname !== before,
      was,
    );
  }
  // Each press took one message, and never one that had left already.
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(archive.total + 15);
  await expect.poll(async () => (await counts(page, 'Bin')).total).toBe(bin.total + 15);
  await page.keyboard.press('Control+a');
  await expect(page.getByText(`${total - 30} ticked`)).toBeVisible();
  await page.keyboard.press('a');
  await expect(page.getByRole('main')).toContainText('The Inbox is clear');
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(archive.total + total - 15);
});

test('by a screen reader’s tree the demo Inbox is cleared: every step by role and name', async ({ page }) => {
  await openDemo(page);
  const { total } = await counts(page, 'Inbox');
  await expect(page.getByRole('navigation', { name: 'Sorting line and places' })).toBeVisible();
  await expect(page.getByRole('group', { name: 'Show' }).getByRole('button', { pressed: true })).toHaveText('All');
  const grid = page.getByRole('grid', { name: 'Inbox' });
  await expect(grid).toHaveAttribute('aria-multiselectable', 'true');
  await grid
    .getByRole('row')
    .nth(0)
    .getByRole('checkbox', { name: /^Tick “/ })
    .click();
  await grid
    .getByRole('row')
    .nth(1)
    .getByRole('checkbox', { name: /^Tick “/ })
    .click();
  await expect(grid.getByRole('row', { selected: true })).toHaveCount(2);
  await expect(page.getByRole('status').filter({ hasText: '2 ticked' })).toBeVisible();
  const acts = page.getByRole('toolbar', { name: 'Acts' });
  await acts.getByRole('button', { name: 'Bin' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Binned 2 messages.' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Tick' }).selectOption('unread');
  await expect(page.getByRole('status').filter({ hasText: /^[\d,]+ ticked/ })).toBeVisible();
  await acts.getByRole('button', { name: 'Read', exact: true }).click();
  await expect(page.getByRole('status').filter({ hasText: /^Marked \d+ messages as read\.$/ })).toBeVisible();
  await page.getByRole('combobox', { name: 'Tick' }).selectOption('all');
  await acts.getByRole('button', { name: 'Archive' }).click();
  await expect(page.getByRole('status').filter({ hasText: `Archived ${total - 2} messages.` })).toBeVisible();
  await expect(page.getByText('The Inbox is clear')).toBeVisible();
  await undoButton(page).click();
  await expect(grid).toHaveAttribute('aria-rowcount', String(total - 2));
});

test('what a screen reader hears of a row, the list, and what was done', async ({ page }) => {
  await openDemo(page);
  const grid = page.getByRole('grid', { name: 'Inbox' });
  const { total } = await counts(page, 'Inbox');
  await expect(grid).toHaveAttribute('aria-rowcount', String(total));
  const row = await findRow(page, 'Unread.');
  await expect(row.getByRole('checkbox', { name: /^Tick “/ })).toBeAttached();
  await row.click();
  await expect(grid).toHaveAttribute('aria-activedescendant', /^row-\d+$/);
  await expect(page.locator('[aria-current="true"]').getByText('Unread.')).toHaveCount(0);
  await page.keyboard.press('u');
  await expect(page.getByRole('status').filter({ hasText: /^Marked “.*” as unread\.$/ })).toBeVisible();
});

test('opened, the focus is in the list; from the top of the page one Tab and a press lead there', async ({ page }) => {
  await openDemo(page);
  await expect(page.getByRole('grid', { name: 'Inbox' })).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('article')).toBeVisible();
  await page.goto('/rules');
  await expect(page.getByRole('heading', { name: 'Rules', level: 1 })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'To the list or page' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('main')).toBeFocused();
});

test('the focus goes into a question as it opens, for who asked for less movement and for who did not', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a' }, { id: 'b' }]);
  await rows(page).first().click();
  for (const reducedMotion of ['reduce', 'no-preference'] as const) {
    await page.emulateMedia({ reducedMotion });
    await page.keyboard.press('m');
    const dialog = page.getByRole('dialog', { name: 'Move to' });
    await expect(dialog.getByLabel('Place, or the name of a new folder')).toBeFocused();
    await page.keyboard.press('Escape');
    await expect(dialog).toHaveCount(0);
  }
});

test('long names, long subjects, right to left and emoji keep their rows whole', async ({ page }) => {
  await openOwn(page);
  const word = (text: string) => `=?utf-8?B?${Buffer.from(text).toString('base64')}?=`;
  const subjects = ['x'.repeat(5_000), 'שלום לכולם, הודעה ארוכה '.repeat(20), '⛴️🌊🧜‍♀️ '.repeat(60), ''];
  await bringIn(
    page,
    subjects.map((subject, n) =>
      mailFile(`${n}.eml`, `From: ${word(`${'Name '.repeat(200)}🦑`)} <a@b.test>\nSubject: ${word(subject)}\n\nText\n`),
    ),
  );
  await page.goto('/inbox');
  await expect(rows(page)).toHaveCount(4);
  for (const row of await rows(page).all()) {
    const box = await row.boundingBox();
    expect(box?.height).toBe(58);
    expect(box?.width).toBeLessThan(500);
  }
  await rows(page).first().click();
  await expect(page.getByRole('article')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(1280);
});

test('hostile conversations: of itself, 10,000 references, 5,000 messages, long and turned-round names', async ({
  page,
}) => {
  await openOwn(page);
  const many = Array.from({ length: 10_000 }, (_, n) => `r${n}@x.test`);
  const long = Array.from({ length: 5_000 }, (_, n) => ({
    id: `t${n}`,
    subject: n ? 'Re: Out of hand' : 'Out of hand',
    from: `${n % 2 ? '\u202eמישהו' : '🧜‍♀️🦑'.repeat(40)} <p${n % 50}@x.test>`,
    answers: n ? [n % 3 ? 't0' : `t${n - 1}`] : [],
    date: new Date(Date.UTC(2026, 10, 1) + n * 60_000).toISOString(),
  }));
  await bringIn(page, [
    mailFile('long.mbox', mbox(long)),
    mailFile(
      'odd.mbox',
      mbox([
        { id: 'self', answers: ['self'], subject: 'Of itself' },
        { id: 'a', answers: ['b'], subject: 'Ring' },
        { id: 'b', answers: ['a'], subject: 'Ring' },
        { id: 'many', answers: many, subject: `${'Many '.repeat(1_000)}` },
      ]),
    ),
  ]);
  await page.goto('/inbox');
  await expect(page.getByRole('grid')).toHaveAttribute('aria-rowcount', '5004');
  await page.keyboard.press('g');
  await expect(page.getByRole('grid')).toHaveAttribute('aria-rowcount', '4');
  for (const row of await rows(page).all()) expect((await row.boundingBox())?.height).toBe(58);
  await expect(rows(page).filter({ hasText: '5,000 received' })).toBeVisible();
  await rows(page).filter({ hasText: '5,000 received' }).click();
  const members = page.locator('[id^="member-"]');
  await expect(members).toHaveCount(60);
  await expect(page.getByRole('button', { name: /^Show more of the 4,\d{3} messages before these$/ })).toBeVisible();
  await page.keyboard.press('k');
  await expect(page.getByRole('list', { name: 'Who answered whom' })).toBeVisible();
  await page.keyboard.press('k');
  await page.keyboard.press('Home');
  await page.keyboard.press('ArrowDown');
  await expect(openRow(page)).toHaveAttribute('aria-rowindex', '2');
  await page.keyboard.press('a');
  await expect(page.getByRole('grid')).toHaveAttribute('aria-rowcount', '3');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(1280);
});
