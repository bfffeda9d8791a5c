// Conversations: needs C1 to C5, C7, C8 and C10 to C12, through the real page.
import { expect, test } from './test';
import { ann, bob, me, question, five, members, conversations, openBerth } from './berth';
import {
  bringIn,
  counts,
  downloaded,
  goTo,
  type Mail,
  mailFile,
  mbox,
  moveClock,
  openRow,
  openWith,
  placeLink,
  rows,
} from './desk';

test('C1, common practice, no source: conversations of three and of two are two rows; off again, five; nothing moves', async ({
  page,
}) => {
  await openWith(page, five);
  await expect(rows(page)).toHaveCount(5);
  const before = await rows(page).allInnerTexts();
  await conversations(page).click();
  await expect(rows(page)).toHaveCount(2);
  await expect(rows(page).nth(0)).toContainText('2 received');
  await expect(rows(page).nth(1)).toContainText('3 received');
  await page.reload();
  await expect(rows(page)).toHaveCount(2);
  await placeLink(page, 'Archive').click();
  await expect(conversations(page)).toHaveAttribute('aria-pressed', 'false');
  await placeLink(page, 'Inbox').click();
  // A key acts on what is on the screen at that moment.
  await expect(page.getByRole('heading', { name: 'Inbox', level: 1 })).toBeVisible();
  await page.keyboard.press('g');
  await expect(rows(page)).toHaveCount(5);
  expect(await rows(page).allInnerTexts()).toEqual(before);
  expect(await counts(page, 'Inbox')).toEqual({ total: 5, unread: 5 });
  // For all places at once.
  await goTo(page, '/desk');
  await page.getByLabel('Gather messages into conversations in every place').click();
  await placeLink(page, 'Inbox').click();
  await expect(rows(page)).toHaveCount(2);
});

test('C2 and C5: Sent and Archive belong to it, own and received apart, flagged and late in words; off for once', async ({
  page,
}) => {
  await openWith(page, five);
  await goTo(page, '/mail');
  await page.getByLabel('Put the messages').selectOption('sent');
  const date = '2026-11-20T10:00:00Z';
  const own = { id: 'b4', subject: 'Re: Berth 2', from: me, to: ann, answers: ['b3'], date };
  await bringIn(page, mailFile('sent.mbox', mbox([own])));
  await goTo(page, '/inbox');
  await rows(page).filter({ hasText: 'Yes' }).click();
  await page.keyboard.press('d');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Today/ })
    .click();
  await expect(page.getByText(/^Flagged .* for /)).toBeVisible();
  await moveClock(page, 2 * 86_400_000);
  await page.reload();
  await expect(openRow(page)).toContainText('late');
  await rows(page).filter({ hasText: 'Thanks' }).click();
  await page.keyboard.press('f');
  await conversations(page).click();
  const row = rows(page).filter({ hasText: 'Berth' });
  await expect(row).toContainText('3 received · 1 own · 2 flagged · 1 late');
  await row.click();
  await expect(members(page)).toHaveCount(4);
  await expect(members(page).nth(3)).toContainText('Sent');
  await page.getByLabel(/^With other places/).uncheck();
  await expect(members(page)).toHaveCount(3);
  await expect(page.getByText('With other places (1 more)')).toBeVisible();
  // Just this once: the next time all of it is there again.
  await page.keyboard.press('Escape');
  await row.click();
  await expect(members(page)).toHaveCount(4);
});

test('C3: oldest or newest first whatever the list’s order, as a stack opened singly or all, as a tree, exact times', async ({
  page,
}) => {
  await openBerth(page, [{ id: 'b4', subject: 'Re: Berth 2', from: bob, answers: ['b1'], text: 'Or berth 3.' }]);
  const order = () => page.locator('[id^="line-"] time').allInnerTexts();
  await expect(members(page)).toHaveCount(4);
  const oldest = await order();
  expect(oldest.map((label) => /\d\d:(\d\d)$/.exec(label)?.[1])).toEqual(['00', '01', '03', '05']);
  expect(oldest[0]).toMatch(/^Fri 20 Nov 2026, \d\d:00$/);
  await expect(members(page).first().getByRole('button').first()).toContainText('Ann');
  await page.getByRole('button', { name: 'Oldest first' }).click();
  await expect.poll(order).toEqual(oldest.toReversed());
  await expect(rows(page).first()).toContainText('Berth');
  await page.getByRole('button', { name: 'Newest first' }).click();

  // Opened and closed singly, or all.
  await page
    .getByRole('button', { name: 'Close all' })
    .or(page.getByRole('button', { name: 'Open all' }))
    .click();
  const open = page.locator('[id^="member-"] > button[aria-expanded="true"]');
  const number = await open.count();
  if (number !== 4) await page.keyboard.press('e');
  await expect(open).toHaveCount(4);
  await page.keyboard.press('e');
  await expect(open).toHaveCount(1);
  await members(page).nth(0).getByRole('button').first().click();
  await expect(open).toHaveCount(2);
  await expect(members(page).nth(0)).toContainText(question);

  // The tree says who answered whom.
  await page.keyboard.press('k');
  const tree = page.getByRole('list', { name: 'Who answered whom' });
  const depths = () => tree.locator('> li').evaluateAll((all) => all.map((e) => e.getAttribute('data-depth')));
  await expect.poll(depths).toEqual(['0', '1', '2', '1']);
  await expect(tree.locator('> li').nth(2)).toContainText('Answers Bob.');
  await page.reload();
  await expect(tree).toBeVisible();
});

test('C4: what was said before and signatures are folded, and one press shows them', async ({ page }) => {
  await openBerth(page);
  const last = members(page).nth(2);
  await expect(last).toContainText('Thanks!');
  await expect(last).not.toContainText(question);
  await last.getByRole('button', { name: /lines? said before/ }).click();
  await expect(last).toContainText(question);
  await last.getByRole('button', { name: 'Signature' }).click();
  await expect(last.getByText('-- ')).toBeVisible();
});

test('C4: in an HTML message, too, without any script', async ({ page }) => {
  const html =
    '<p>Yes.</p><p>Ann wrote:</p><blockquote>Is berth 2 free?</blockquote>Best<br>-- <br>Bob<br>Harbour<br><br>';
  await openWith(page, [{ id: 'h', extra: 'Content-Type: text/html\n', text: html }]);
  await rows(page).first().click();
  const body = page.frameLocator('iframe[title="Message text"]');
  await expect(body.getByText('Is berth 2 free?')).toBeHidden();
  await expect(body.getByText('Harbour')).toBeHidden();
  await body.getByText('Said before').click();
  await expect(body.getByText('Is berth 2 free?')).toBeVisible();
});

test('C7: a picture and a text are looked at without saving them; what is neither says so; nothing of them runs', async ({
  page,
}) => {
  // A picture of one dot, and a page that would run something.
  const dot = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
  const part = (name: string, type: string, encoding: string, content: string) =>
    `--x\nContent-Type: ${type}\nContent-Disposition: attachment; filename="${name}"\nContent-Transfer-Encoding: ${encoding}\n\n${content}\n`;
  const text =
    part('dot.dat.png', 'application/octet-stream', 'base64', dot) +
    part('tide.html', 'text/html', '7bit', '<script>document.title = "ran"</script>High 06:15') +
    part('false.png', 'image/png', '7bit', '%PDF-1.4 no picture \0\u0001\u0002') +
    part('plan.pdf', 'application/pdf', '7bit', '%PDF') +
    '--x--\n';
  await openWith(page, [{ id: 'a', extra: 'Content-Type: multipart/mixed; boundary=x\n', text }]);
  await rows(page).first().click();
  const list = page.getByRole('list', { name: 'Attachments' });
  await expect(list.getByRole('button', { name: 'Look at plan.pdf' })).toHaveCount(0);
  await list.getByRole('button', { name: 'Look at dot.dat.png' }).click();
  const picture = page.getByRole('img', { name: 'dot.dat.png' });
  await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBe(1);
  await list.getByRole('button', { name: 'Look at tide.html' }).click();
  const figure = page.getByRole('figure', { name: 'tide.html' });
  await expect(figure).toContainText('<script>document.title = "ran"</script>High 06:15');
  await expect(page).not.toHaveTitle('ran');
  const saved = await downloaded(page, () => figure.getByRole('button', { name: 'Save' }).click());
  expect(saved.name).toBe('tide.html');
  await list.getByRole('button', { name: 'Look at false.png' }).click();
  await expect(page.getByRole('figure', { name: 'false.png' })).toContainText('This can’t be shown here.');
  await page.getByRole('button', { name: 'Close it' }).click();
  await expect(page.getByRole('figure')).toHaveCount(0);
});

test('C11: silenced conversations have a list, with what they are and the way out of it', async ({ page }) => {
  await openBerth(page);
  await page.keyboard.press('s');
  await expect(page.getByText(/^Silenced/).first()).toBeVisible();
  await placeLink(page, 'Silenced').click();
  await expect(page.getByRole('heading', { name: 'Silenced', level: 1 })).toBeVisible();
  await expect(rows(page)).toHaveCount(1);
  await rows(page).first().click();
  await expect(page.getByRole('link', { name: 'all that are' })).toBeVisible();
  await page.keyboard.press('s');
  await expect(placeLink(page, 'Silenced')).toHaveCount(0);
  await expect(page.getByText('No conversation is silenced')).toBeVisible();
});

test('C7: attachments on their message and in one strip, saved with one press', async ({ page }) => {
  const file = (name: string) =>
    `Content-Type: application/octet-stream\nContent-Disposition: attachment; filename="${name}"\n`;
  await openBerth(page, [
    { id: 'b4', subject: 'Re: Berth 2', answers: ['b3'], extra: file('plan.bin'), text: 'abc' },
    { id: 'b5', subject: 'Re: Berth 2', answers: ['b4'], extra: file('tide.bin'), text: 'defg' },
  ]);
  const strip = page.getByRole('list', { name: 'Attachments of the conversation' });
  await expect(strip.getByRole('button', { name: /^Save|plan|tide/ })).toHaveCount(3);
  const zip = await downloaded(page, () => strip.getByRole('button', { name: 'Save all' }).click());
  expect(zip.name).toBe('Attachments.zip');
  for (const name of ['plan.bin', 'tide.bin']) expect(zip.bytes.includes(name)).toBe(true);
  await expect(page.getByText('Saved 2 attachments in “Attachments.zip”.')).toBeVisible();
  const saved = await downloaded(page, () => strip.getByRole('button', { name: /plan\.bin/ }).click());
  expect(saved.name).toBe('plan.bin');
  expect(saved.bytes.toString().trim()).toBe('abc');
  await expect(members(page).nth(3).getByRole('list', { name: 'Attachments', exact: true })).toContainText('plan.bin');
});

test('C8: opening a conversation may mark all of it as read', async ({ page }) => {
  await openBerth(page);
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ unread: 4 });
  await goTo(page, '/desk');
  await page.getByLabel('Opening a conversation marks all of it as read').click();
  await goTo(page, '/inbox');
  await rows(page).filter({ hasText: 'Rope' }).click();
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ unread: 2 });
});

test('C10: single messages, and the others of the open one’s conversation are lit, not by colour alone', async ({
  page,
}) => {
  await openWith(page, five);
  await rows(page).filter({ hasText: 'Yes' }).click();
  await expect(rows(page).filter({ has: page.getByLabel('Same conversation') })).toHaveCount(2);
  await rows(page).filter({ hasText: 'Text of r2' }).click();
  await expect(rows(page).filter({ has: page.getByLabel('Same conversation') })).toHaveCount(1);
  await page.getByRole('button', { name: 'Show the conversation' }).click();
  await expect(members(page)).toHaveCount(2);
});

test('C11: silenced, it leaves the Inbox, later answers pass it by and say why, until it is lifted', async ({
  page,
}) => {
  await openBerth(page);
  await page.keyboard.press('s');
  await expect(page.getByText(/^Silenced 3 messages, to the Archive/)).toBeVisible();
  await expect(rows(page)).toHaveCount(1);
  const arrive = async (id: string) => {
    await goTo(page, '/mail');
    await bringIn(page, mailFile(`${id}.mbox`, mbox([{ id, subject: 'Re: Berth 2', from: bob, answers: ['b3'] }])));
  };
  await arrive('b4');
  expect(await counts(page, 'Inbox')).toMatchObject({ total: 2 });
  expect(await counts(page, 'Archive')).toMatchObject({ total: 4 });
  await placeLink(page, 'Archive').click();
  await rows(page).filter({ hasText: 'Text of b4' }).click();
  await expect(page.getByRole('region', { name: 'Why here' })).toContainText('silenced');
  await page.getByRole('button', { name: 'Show the conversation' }).click();
  await page.getByRole('button', { name: 'End the silence' }).click();
  await expect(page.getByRole('button', { name: 'Silence', exact: true })).toBeVisible();
  await arrive('b5');
  expect(await counts(page, 'Inbox')).toMatchObject({ total: 3 });
  await goTo(page, '/logbook');
  await page.getByRole('button', { name: /^Undo: Silenced/ }).click();
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ total: 6 });
});

test('C12, common practice, no source: what stands whole in a later message goes, with the reason first; one Undo', async ({
  page,
}) => {
  await openBerth(page);
  await conversations(page).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('r');
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ unread: 0 });
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await conversations(page).click();
  await rows(page).filter({ hasText: 'Berth' }).click();
  await expect(members(page)).toHaveCount(3);
  await page.keyboard.press('t');
  const dialog = page.getByRole('dialog', { name: 'Thin out the conversation' });
  await expect(dialog).toContainText('2 messages would go to the Bin.');
  const lines = dialog.getByRole('listitem');
  await expect(lines.nth(0)).toContainText(/^goes.*All of it stands in what Ann sent on Fri 20 Nov 2026/);
  await expect(lines.nth(1)).toContainText(/^goes/);
  await expect(lines.nth(2)).toContainText('stays');
  await expect(lines.nth(2)).toContainText('What it says stands whole in no later message.');
  await dialog.getByRole('button', { name: 'Bin 2 messages' }).click();
  await expect(members(page)).toHaveCount(1);
  expect(await counts(page, 'Bin')).toMatchObject({ total: 2 });
  await page.keyboard.press('Control+z');
  await expect(members(page)).toHaveCount(3);
});

test('C12: flagged, unread and altered ones are kept, each with its reason', async ({ page }) => {
  const list: Mail[] = [
    { id: 'a', text: 'The tide is at ten.' },
    { id: 'b', answers: ['a'], text: 'Fog tomorrow.' },
    { id: 'c', answers: ['b'], text: 'The ramp is open.' },
    { id: 'd', from: bob, answers: ['c'], text: 'Ok.\n> The tide is at ten.\n> Fog tomorrow.\n> The ramp is shut.' },
  ].map((mail) => ({ ...mail, subject: 'Re: Tide' }));
  await openWith(page, list);
  await rows(page).filter({ hasText: 'Fog tomorrow' }).click();
  await page.keyboard.press('f');
  await rows(page).filter({ hasText: 'The ramp is open' }).click();
  await expect.poll(() => counts(page, 'Inbox')).toMatchObject({ unread: 2 });
  await page.getByRole('button', { name: 'Show the conversation' }).click();
  await expect(page.getByRole('toolbar', { name: 'Conversation' })).toBeVisible();
  await page.keyboard.press('t');
  const lines = page.getByRole('dialog').getByRole('listitem');
  await expect(lines.nth(0)).toContainText('It is unread.');
  await expect(lines.nth(1)).toContainText('It is flagged.');
  await expect(lines.nth(2)).toContainText('stands whole in no later message');
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).first().click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
});
