// Answering: need C6, and answers that are unfinished, through the real page.
import { expect, test } from '@playwright/test';
import { members, openBerth } from './berth';
import { bringIn, counts, downloaded, mailFile, mbox, openDemoAnew, openWith, placeLink, rows } from './desk';

test('C6: answering an older message says so, one press goes to the newest; own mail gives the answer as a file', async ({
  page,
}) => {
  await openBerth(page);
  // It is unread, and so stands open.
  await members(page).nth(0).getByRole('button', { name: 'Reply', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('You answer an older message: 2 messages came after it');
  await page.getByRole('link', { name: 'Answer the newest' }).click();
  const panel = page.getByRole('region', { name: 'Reply' });
  const text = panel.getByRole('textbox', { name: 'Text' });
  await expect(text).toHaveValue(/^\n\nAnn wrote on .*:\n> Thanks!/);
  await expect(panel.getByRole('alert')).toHaveCount(0);
  await text.press('Control+Home');
  await text.pressSequentially('See you on Tuesday.');
  // What is written survives a reload.
  await page.reload();
  await expect(members(page)).toHaveCount(3);
  await page.keyboard.press('y');
  await expect(text).toHaveValue(/^See you on Tuesday\./);
  await panel.getByLabel('To', { exact: true }).fill('nobody');
  const save = panel.getByRole('button', { name: 'Save as a file' });
  await save.click();
  await expect(panel.getByRole('alert')).toHaveText('To: “nobody” is no address.');
  await panel.getByLabel('To', { exact: true }).fill('Ann <ann@x.test>');
  // What comes while it is written is said before it goes, once.
  const other = await page.context().newPage();
  await other.goto('/mail');
  await bringIn(other, mailFile('new.mbox', mbox([{ id: 'crossing', answers: ['b3'], date: '2026-11-24T09:00:00Z' }])));
  await other.close();
  await text.press('Control+Enter');
  await expect(panel.getByText('It was not saved yet: a newer message came while you wrote.')).toBeVisible();
  await expect(panel.getByText('You answer an older message: 1 message came after it')).toBeVisible();
  const file = await downloaded(page, () => save.click());
  expect(file.name).toBe('Re Berth 2.eml');
  expect(file.bytes.toString()).toMatch(/^In-Reply-To: <b3>\r$/m);
  // Nothing was sent, and nothing says so.
  await expect(
    page.getByText('Saved Re Berth 2.eml. The answer stays in Drafts until it is thrown away.'),
  ).toBeVisible();
  expect(await counts(page, 'Sent')).toEqual({ total: 0, unread: 0 });
  expect(await counts(page, 'Drafts')).toEqual({ total: 1, unread: 0 });
});

test('C6: sent through the post office, an answer stands in Sent and in its conversation', async ({ page }) => {
  // Anew: what is sent comes to this mailbox alone.
  await openDemoAnew(page);
  const sent = (await counts(page, 'Sent')).total;
  await rows(page).first().click();
  await page.keyboard.press('y');
  const panel = page.getByRole('region', { name: 'Reply' });
  const text = panel.getByRole('textbox', { name: 'Text' });
  await text.press('Control+Home');
  await text.pressSequentially('Tuesday will do.');
  await panel.getByRole('button', { name: 'Send' }).click();
  await expect(page.getByText(/^Sent to .*\. It stands in Sent\.$/)).toBeVisible();
  await expect.poll(() => counts(page, 'Sent')).toMatchObject({ total: sent + 1 });
  await placeLink(page, 'Sent').click();
  await expect(rows(page).first()).toContainText('Tuesday will do.');
});

test('an unfinished answer stands in Drafts, goes on where it was, and thrown away comes back by Undo', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a' }, { id: 'b' }]);
  await rows(page).filter({ hasText: 'Message a' }).click();
  await expect(page.getByRole('article')).toContainText('Text of a');
  await page.keyboard.press('y');
  const panel = page.getByRole('region', { name: 'Reply' });
  const text = panel.getByRole('textbox', { name: 'Text' });
  await text.press('Control+Home');
  await text.pressSequentially('Not yet, but');
  await placeLink(page, 'Drafts').click();
  const drafts = page.getByRole('region', { name: 'Unfinished answers' });
  await expect(drafts).toContainText('To Ann <ann@x.test> · Re: Message a');
  await expect(drafts).toContainText('Not yet, but');
  expect(await counts(page, 'Drafts')).toEqual({ total: 1, unread: 0 });
  await page.reload();
  await drafts.getByRole('button', { name: /^To Ann/ }).click();
  await expect(text).toHaveValue(/^Not yet, but/);
  await panel.getByRole('button', { name: 'Discard' }).click();
  await expect(panel).toHaveCount(0);
  await expect.poll(() => counts(page, 'Drafts')).toEqual({ total: 0, unread: 0 });
  const undo = page.getByRole('button', { name: 'Undo: Threw the answer to Ann <ann@x.test> away' });
  await page.reload();
  await undo.click();
  await expect.poll(() => counts(page, 'Drafts')).toEqual({ total: 1, unread: 0 });
  await expect(text).toHaveValue(/^Not yet, but/);
  // From Drafts, too; and a message that is gone leaves its answer to be read.
  await placeLink(page, 'Drafts').click();
  await drafts.getByRole('button', { name: 'Discard the answer to Ann' }).click();
  await expect(drafts).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(drafts).toContainText('Not yet, but');
});

test('C6: reply to all, and an answer that is discarded', async ({ page }) => {
  await openWith(page, [{ id: 'a', to: 'me@y.test, Cy <cy@x.test>', extra: 'Reply-To: desk@x.test\n' }]);
  await rows(page).first().click();
  await expect(page.getByRole('article')).toContainText('Text of a');
  await page.keyboard.press('Shift+Y');
  const panel = page.getByRole('region', { name: 'Reply to all' });
  await expect(panel.getByLabel('To', { exact: true })).toHaveValue('desk@x.test');
  await expect(panel.getByLabel('Cc')).toHaveValue('Cy <cy@x.test>');
  await panel.getByRole('button', { name: 'Discard' }).click();
  await expect(panel).toHaveCount(0);
  expect(await counts(page, 'Sent')).toEqual({ total: 0, unread: 0 });
});
