// Answering: need C6, and answers that are unfinished, through the real page.
import { expect, test, type Page } from './test';
import { members, openBerth } from './berth';
import { openOwnDemo } from './ownServer';
import { counts, crash, downloaded, goTo, moveClock, openDemo, openWith, placeLink, rows } from './desk';

/** A picture of one pixel. */
const png = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
  'base64',
);

/** What is being written, and its text. */
const writing = (page: Page, name = 'Reply') => {
  const panel = page.getByRole('region', { name, exact: true });
  return {
    panel,
    text: panel.getByRole('textbox', { name: 'Text' }),
    to: panel.getByRole('textbox', { name: 'To', exact: true }),
  };
};

test('C6: answering an older message says so, one press goes to the newest; own mail gives the answer as a file', async ({
  page,
}) => {
  await openBerth(page);
  // It is unread, and so stands open.
  await members(page).nth(0).getByRole('button', { name: 'Reply', exact: true }).click();
  const { panel, text, to } = writing(page);
  const regrets = panel.getByRole('status', { name: 'Before it goes' });
  await expect(regrets).toContainText('You answer an older message: 2 messages came after it');
  await page.getByRole('link', { name: 'Answer the newest' }).click();
  await expect(panel.getByText(/^Quoted below: \d+ lines$/)).toBeVisible();
  await expect(regrets).toHaveCount(0);
  await panel.getByText('Quoted below').click();
  await expect(panel.getByRole('region', { name: 'Quoted below' })).toContainText(/^Ann wrote on .*:\s+> Thanks!/);
  await text.click();
  await page.keyboard.type('See you on Tuesday.');
  // What is written survives a reload.
  await page.waitForTimeout(1_000);
  await page.reload();
  await expect(members(page)).toHaveCount(3);
  await page.keyboard.press('y');
  await expect(text).toHaveText('See you on Tuesday.');
  await to.fill('nobody');
  const save = panel.getByRole('button', { name: 'Save as a file' });
  await save.click();
  await expect(panel.getByRole('alert')).toHaveText('To: “nobody” is no address: it has no @.');
  await to.fill('Ann <ann@x.test>');
  const file = await downloaded(page, () => text.press('Control+Enter'));
  expect(file.name).toBe('Re Berth 2.eml');
  expect(file.bytes.toString()).toMatch(/^In-Reply-To: <b3>\r$/m);
  // Nothing was sent, and nothing says so.
  await expect(
    page.getByText('Saved Re Berth 2.eml. The draft stays in Drafts until it is thrown away.'),
  ).toBeVisible();
  expect(await counts(page, 'Sent')).toEqual({ total: 0, unread: 0 });
  expect(await counts(page, 'Drafts')).toEqual({ total: 1, unread: 0 });
});

test('reply with a picture and be done: taken back in time, sent, in Sent and in its conversation, the answered one archived', async ({
  browser,
}) => {
  const { page, close } = await openOwnDemo(browser);
  const [sent, archived] = [(await counts(page, 'Sent')).total, (await counts(page, 'Archive')).total];
  // A message: which rows stand for trays depends on the minute at which the demo is made.
  await rows(page)
    .filter({ hasNot: page.getByLabel('Tray', { exact: true }) })
    .nth(4)
    .click();
  await expect(page.getByRole('article', { name: 'Message' })).toBeVisible();
  await page.keyboard.press('y');
  const { panel, text } = writing(page);
  await text.click();
  await page.keyboard.type('Tuesday will do. ');
  await panel
    .getByLabel('Picture from a file')
    .setInputFiles({ name: 'berth.png', mimeType: 'image/png', buffer: png });
  const picture = text.locator('img[draggable]');
  await expect(picture).toHaveAttribute('src', /^blob:/);
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(1);
  await panel.getByLabel(/^Once sent/).selectOption('archive');
  await text.press('Control+Enter');
  await expect(panel).toHaveCount(0);
  const going = page.getByRole('status', { name: 'About to go' });
  await expect(going).toContainText(/goes in \d+ s/);
  // Taken back it is as it was, and nothing has gone.
  await going.getByRole('button', { name: 'Take back' }).click();
  await expect(text).toHaveText('Tuesday will do. ');
  await expect(picture).toHaveAttribute('src', /^blob:/);
  expect((await counts(page, 'Sent')).total).toBe(sent);
  expect((await counts(page, 'Archive')).total).toBe(archived);
  await panel.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(page.getByText(/^Sent to .*, and 1 message went to the Archive\. It stands in Sent\.$/)).toBeVisible();
  await expect.poll(() => counts(page, 'Sent')).toMatchObject({ total: sent + 1 });
  expect((await counts(page, 'Archive')).total).toBe(archived + 1);
  await placeLink(page, 'Sent').click();
  await rows(page).first().click();
  const message = page.getByRole('article', { name: 'Message' });
  await expect(message.frameLocator('iframe').locator('img')).toHaveCount(1);
  await expect(message.frameLocator('iframe').locator('body')).toContainText('Tuesday will do.');
  await close();
});

test('sent later it waits in Drafts, and goes when its time has come, also over a closed page', async ({ browser }) => {
  const { page, close } = await openOwnDemo(browser);
  const sent = (await counts(page, 'Sent')).total;
  await page.keyboard.press('Shift+W');
  const { panel, text, to } = writing(page, 'New message');
  await to.fill('Ann <ann@x.test>');
  await panel.getByLabel('Subject').fill('On Monday');
  await text.click();
  await page.keyboard.type('Good morning.');
  await panel.getByRole('button', { name: 'Send later' }).click();
  await page
    .getByRole('dialog', { name: 'Send later' })
    .getByRole('button', { name: /^Next week/ })
    .click();
  await goTo(page, '/drafts');
  const drafts = page.getByRole('region', { name: 'Drafts' });
  await expect(drafts).toContainText(/On Monday.*Goes .*Good morning\./s);
  expect((await counts(page, 'Sent')).total).toBe(sent);
  await page.goto('about:blank');
  await moveClock(page, 9 * 86_400_000);
  await page.goto('/drafts');
  await expect.poll(() => counts(page, 'Sent')).toMatchObject({ total: sent + 1 });
  await expect(drafts).toHaveCount(0);
  await close();
});

test('forwarded as a file, its bytes are the original’s; several go in one', async ({ page }) => {
  await openWith(page, [{ id: 'a', subject: 'Plan of the berth' }, { id: 'b' }]);
  await rows(page).filter({ hasText: 'Plan of the berth' }).click();
  const original = await downloaded(page, () => page.keyboard.press('x'));
  await page.keyboard.press('Shift+O');
  const { panel, to } = writing(page, 'Forward as a file');
  await expect(panel.getByRole('list', { name: 'Goes along' })).toContainText('Plan of the berth.eml');
  await to.fill('cy@x.test');
  const file = await downloaded(page, () => panel.getByRole('button', { name: 'Save as a file' }).click());
  const text = file.bytes.toString();
  const boundary = /boundary="([^"]+)"/.exec(text)?.[1] ?? '';
  const part = text.split(`--${boundary}`).find((one) => one.includes('message/rfc822')) ?? '';
  expect(
    part
      .slice(part.indexOf('\r\n\r\n') + 4)
      .replace(/\r\n$/, '')
      .replace(/\r\n/g, '\n'),
  ).toBe(original.bytes.toString().replace(/\r\n/g, '\n'));
});

test('a draft over a killed page is no older than a second; one tab writes it, the other says so', async ({ page }) => {
  await openWith(page, [{ id: 'a' }]);
  await rows(page).first().click();
  await page.keyboard.press('y');
  const { text } = writing(page);
  await text.click();
  await page.keyboard.type('Half a sent');
  const other = await page.context().newPage();
  await other.goto('/drafts');
  const drafts = other.getByRole('region', { name: 'Drafts' });
  await expect(drafts).toContainText('Half a sent');
  await drafts.getByRole('button', { name: /^To Ann/ }).click();
  await expect(other.getByText('This draft is being written in another tab.')).toBeVisible();
  await text.click();
  await page.keyboard.press('End');
  await page.keyboard.type('ence.');
  await page.waitForTimeout(1_000);
  // Killed, not closed: nothing of the page runs any more.
  await crash(page.context(), page);
  await expect(writing(other).text).toHaveText('Half a sentence.');
});

test('thirty addresses are pasted, two of them wrong: those two are said, and stop the sending', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Shift+W');
  const { panel, to } = writing(page, 'New message');
  const list = Array.from({ length: 30 }, (_, n) =>
    n === 7 ? 'seven.x.test' : n === 19 ? 'nine@teen' : `Person ${n} <p${n}@x.test>`,
  );
  await to.focus();
  await page.keyboard.insertText(list.join('\n'));
  await panel.getByLabel('Subject').focus();
  await expect(panel.getByText('“seven.x.test” is no address: it has no @.')).toBeVisible();
  await expect(
    panel.getByText('“nine@teen” is no address: its domain is not whole, like harbour.example.'),
  ).toBeVisible();
  await expect(panel.getByText('28 people', { exact: true })).toBeVisible();
  await panel.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(panel.getByRole('alert')).toHaveText(
    /^To: “seven\.x\.test” is no address: it has no @ \(and 1 more\)\.$/,
  );
  await panel.getByRole('button', { name: 'Throw away' }).click();
});

test('a draft stands in Drafts and in its conversation, goes on where it was, and thrown away comes back by Undo', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a' }, { id: 'b' }]);
  await rows(page).filter({ hasText: 'Message a' }).click();
  await expect(page.getByRole('article')).toContainText('Text of a');
  await page.keyboard.press('y');
  const { panel, text } = writing(page);
  await text.click();
  await page.keyboard.type('Not yet, but');
  await page.keyboard.press('Escape');
  await expect(panel).toHaveCount(0);
  await expect(page.getByRole('list', { name: 'Drafts of this conversation' })).toContainText('Not yet, but');
  await placeLink(page, 'Drafts').click();
  const drafts = page.getByRole('region', { name: 'Drafts' });
  await expect(drafts).toContainText('To Ann <ann@x.test> · Re: Message a');
  expect(await counts(page, 'Drafts')).toEqual({ total: 1, unread: 0 });
  await page.reload();
  await drafts.getByRole('button', { name: /^To Ann/ }).click();
  await expect(text).toHaveText('Not yet, but');
  await panel.getByRole('button', { name: 'Throw away' }).click();
  await expect(panel).toHaveCount(0);
  await expect.poll(() => counts(page, 'Drafts')).toEqual({ total: 0, unread: 0 });
  const undo = page.getByRole('button', { name: 'Undo: Threw the draft to Ann <ann@x.test> away' });
  await page.reload();
  await undo.click();
  await expect.poll(() => counts(page, 'Drafts')).toEqual({ total: 1, unread: 0 });
  await expect(text).toHaveText('Not yet, but');
});

test('C6: reply to all; as plain text and back; names come as one types; what nothing was written in leaves nothing', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a', to: 'me@y.test, Cy <cy@x.test>', extra: 'Reply-To: desk@x.test\n' }]);
  await rows(page).first().click();
  await expect(page.getByRole('article')).toContainText('Text of a');
  await page.keyboard.press('Shift+Y');
  const { panel, to } = writing(page, 'Reply to all');
  await expect(to).toHaveValue('desk@x.test');
  await expect(panel.getByRole('textbox', { name: 'Cc', exact: true })).toHaveValue('Cy <cy@x.test>');
  await panel.getByRole('button', { name: 'Close, and keep it in Drafts' }).click();
  await expect(panel).toHaveCount(0);
  expect(await counts(page, 'Drafts')).toEqual({ total: 0, unread: 0 });
  await page.keyboard.press('y');
  const reply = writing(page);
  await reply.text.click();
  await page.keyboard.press('Control+b');
  await page.keyboard.type('Bold');
  await expect(reply.text.locator('strong')).toHaveText('Bold');
  await reply.panel.getByRole('button', { name: 'Write plain text' }).click();
  await expect(reply.text).toHaveValue('Bold');
  await reply.panel.getByRole('button', { name: 'Write rich text' }).click();
  await expect(reply.text).toHaveText('Bold');
  await reply.panel.getByRole('button', { name: 'Throw away' }).click();
  expect(await counts(page, 'Sent')).toEqual({ total: 0, unread: 0 });
});
