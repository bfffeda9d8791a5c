// Contacts, links that write to somebody, paper, and what may leave: through the real page.
import { expect, test } from './test';
import { forwardedHtml, quotedHtml } from '../src/core/writing/answer';
import { outgoingHtml } from '../src/core/writing/outgoingHtml';
import { listening, published, reaching } from './attacks';
import { violations } from './axe';
import { downloaded, goTo, openDemo, openWith, rows, undoButton } from './desk';

test('a contact from a message, another one merged with it, out as vCards and in again; each is undone', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a', from: 'Ann Berg <ann@x.test>' }]);
  await rows(page).first().click();
  await page.getByRole('link', { name: 'Add to contacts' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Ann Berg');
  await expect(page.getByLabel('Addresses, the first one first')).toHaveValue('ann@x.test');
  await page.getByLabel('To me').selectOption({ label: 'My team' });
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const list = page.getByRole('list', { name: 'Contacts' });
  await expect(list).toContainText('Ann Berg · My team');
  await page.getByRole('button', { name: 'New contact' }).click();
  await page.getByLabel('Name', { exact: true }).fill('ann berg');
  await page.getByLabel('Addresses, the first one first').fill('ann@y.test');
  await page.getByLabel('Groups, parted by commas').fill('Harbour');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('One person seems to be here more than once (Ann Berg)')).toBeVisible();
  await page.getByRole('button', { name: 'Merge them' }).click();
  await expect(list.getByRole('listitem')).toHaveCount(1);
  await expect(list).toContainText('ann@x.test +1');
  const file = await downloaded(page, () => page.getByRole('button', { name: 'Save all as vCards' }).click());
  expect(file.bytes.toString()).toMatch(
    /EMAIL;PREF=1:ann@x\.test\r\nEMAIL:ann@y\.test\r\nCATEGORIES:Harbour\r\nX-WIDESORT-ROLE:team/,
  );
  await undoButton(page).click();
  await expect(list.getByRole('listitem')).toHaveCount(2);

  // In again: who is here is added to, who is new is new, what is damaged is said.
  const more = `${file.bytes.toString()}BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Bo\r\nEMAIL:bo@x.test\r\nEND:VCARD\r\nBEGIN:VCARD\r\nFN:Nobody\r\nEND:VCARD\r\n`;
  await page
    .getByLabel('File of vCards')
    .setInputFiles({ name: 'more.vcf', mimeType: 'text/vcard', buffer: Buffer.from(more) });
  const dialog = page.getByRole('dialog', { name: 'What is in more.vcf' });
  await expect(dialog).toContainText('3 cards: 1 new, 1 with more about somebody who is here, 0 here already.');
  await expect(dialog.getByText('Not taken, or not whole: 1')).toBeVisible();
  await dialog.getByRole('button', { name: 'Take 2 up' }).click();
  await expect(list).toContainText('Bo');
  await undoButton(page).click();
  await expect(list).not.toContainText('Bo');
  // Written to, the name comes as one types.
  await page.keyboard.press('Escape');
  await goTo(page, '/inbox');
  await page.keyboard.press('Shift+W');
  const to = page.getByRole('textbox', { name: 'To', exact: true });
  await to.pressSequentially('berg');
  await expect(page.getByRole('listbox').getByRole('option').first()).toContainText(/ann berg ann@[xy]\.test/i);
  await page.keyboard.press('Enter');
  await expect(to).toHaveValue(/^ann berg <ann@[xy]\.test>, $/i);
});

test('cards of all who wrote what is ticked, as one act', async ({ page }) => {
  await openWith(page, [
    { id: 'a', from: 'Di <di@harbour.test>' },
    { id: 'b', from: 'Bo <bo@harbour.test>' },
    { id: 'c', from: 'me@y.test' },
  ]);
  await page.keyboard.press('Control+a');
  await expect(page.getByText('3 ticked')).toBeVisible();
  await page.keyboard.press('Shift+C');
  await expect(
    page.getByText('Added Bo, Di to the contacts.').or(page.getByText('Added Di, Bo to the contacts.')),
  ).toBeVisible();
  await undoButton(page).click();
  await goTo(page, '/contacts');
  await expect(page.getByText('Nobody yet.')).toBeVisible();
});

test('an address that stands in a signature: written to, kept as a card, added to the sender’s card', async ({
  page,
}) => {
  const text =
    'Berth 2 is yours.\n\n-- \nAnn Berg, Quay Office\nann.berg@home.test\nBerth desk <desk@harbour.test>\n\nOn Monday Bo wrote:\n> ask bo@quoted.test';
  await openWith(page, [{ id: 'a', from: 'Ann Berg <ann@quay.test>', text }]);
  await rows(page).first().click();
  const article = page.getByRole('article');
  await article.getByText('2 addresses stand in its text').click();
  const found = article.getByRole('list', { name: 'Addresses in its text' });
  await expect(found.getByRole('listitem')).toHaveText([/ann\.berg@home\.test/, /Berth desk desk@harbour\.test/]);
  await found.getByRole('button', { name: 'Write to it' }).last().click();
  const panel = page.getByRole('region', { name: 'New message', exact: true });
  await expect(panel.getByRole('textbox', { name: 'To', exact: true })).toHaveValue('Berth desk <desk@harbour.test>, ');
  await panel.getByRole('button', { name: 'Throw away' }).click();
  await found.getByRole('link', { name: 'Add desk@harbour.test to contacts' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Berth desk');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('Added the contact Berth desk.')).toBeVisible();
  // Once the sender has a card, what is left can go onto it.
  await goTo(page, '/inbox');
  await rows(page).first().click();
  await article.getByRole('link', { name: 'Add to contacts', exact: true }).first().click();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await goTo(page, '/inbox');
  await rows(page).first().click();
  await article.getByText('An address stands in its text').click();
  await article.getByRole('button', { name: 'Add to the card of Ann Berg' }).click();
  await expect(page.getByText('Added ann.berg@home.test to the contact Ann Berg.')).toBeVisible();
  await expect(article.getByText('An address stands in its text')).toHaveCount(0);
  await goTo(page, '/contacts');
  await page.getByRole('button', { name: /^Ann Berg/ }).click();
  await expect(page.getByLabel(/^Addresses/)).toHaveValue('ann@quay.test\nann.berg@home.test');
  await undoButton(page).click();
  await expect(page.getByText(/^Undid: Added ann\.berg@home\.test/)).toBeVisible();
});

test('RFC 6068: a link in a message, and one from outside, begin a draft', async ({ page }) => {
  const html = 'Content-Type: text/html\n';
  const body = '<a href="mailto:cy@x.test?subject=Caf%C3%A9&body=One%0D%0Atwo&attach=/etc/passwd">write</a>';
  await openWith(page, [{ id: 'a', from: 'Di <di@harbour.test>', extra: html, text: body }]);
  await rows(page).first().click();
  await page.frameLocator('iframe').getByText('write').click();
  const panel = page.getByRole('region', { name: 'New message' });
  await expect(panel.getByRole('textbox', { name: 'To', exact: true })).toHaveValue('cy@x.test');
  await expect(panel.getByLabel('Subject')).toHaveValue('Café');
  await expect(panel.getByRole('textbox', { name: 'Text' })).toHaveText(/One\s*two/);
  await panel.getByRole('button', { name: 'Throw away' }).click();
  await page.goto(`/write?mailto=${encodeURIComponent('mailto:bo@x.test?cc=di@x.test')}`);
  await expect(panel.getByRole('textbox', { name: 'To', exact: true })).toHaveValue('bo@x.test');
  await expect(panel.getByRole('textbox', { name: 'Cc', exact: true })).toHaveValue('di@x.test');
  await expect(page).toHaveURL(/\/inbox$/);
});

test('on paper stands the message, whole, and nothing of the desk; its header fields are at hand in words', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a', subject: 'Berth 4' }, { id: 'b' }]);
  await rows(page).filter({ hasText: 'Berth 4' }).click();
  const article = page.getByRole('article', { name: 'Message' });
  await expect(article).toContainText('Text of a');
  await page.evaluate(() => Object.assign(window, { print: () => Object.assign(window, { printed: true }) }));
  await page.getByRole('button', { name: 'Print' }).click();
  expect(await page.evaluate(() => 'printed' in window)).toBe(true);
  await page.emulateMedia({ media: 'print' });
  await expect(article.getByText('Text of a')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Berth 4' })).toBeVisible();
  await expect(page.getByRole('grid')).toBeHidden();
  await expect(page.getByText('Wide Sort', { exact: true })).toBeHidden();
  await expect(article.getByText('Reply', { exact: true })).toBeHidden();
  await page.emulateMedia({ media: 'screen' });
  await page.getByRole('button', { name: 'Source' }).click();
  const dialog = page.getByRole('dialog', { name: 'Header fields and source' });
  await expect(dialog.getByLabel('Header fields')).toContainText('Subject: about what');
  await dialog.getByText(/^The source/).click();
  await expect(dialog.getByLabel('Source', { exact: true })).toContainText('Text of a');
});

test('attack strings through reply, forward and paste: nothing runs, nothing is fetched, nothing hostile leaves', async ({
  page,
}) => {
  const { url, hits, close } = await listening();
  const dialogs: string[] = [];
  page.on('dialog', (dialog) => {
    dialogs.push(dialog.message());
    void dialog.dismiss();
  });
  const payloads = [...published.map((one) => one.payload), ...reaching(url)];
  const from = { name: 'A', address: 'a@b.test' };
  const message = (html: string) => ({
    envelope: { from, to: [], cc: [], subject: html },
    when: 'today',
    text: html,
    html,
  });
  // Each is written anew; quoted and forwarded all of them stand in one message.
  const all = payloads.join('');
  const leaving = [...payloads.map((one) => outgoingHtml(one)), quotedHtml(message(all)), forwardedHtml(message(all))];
  // Shown without any wall, as whoever gets it might.
  await page.goto(`${url}/bare`);
  await page.evaluate(async (list) => {
    await Promise.all(
      list.map((source) => {
        const frame = document.createElement('iframe');
        const done = new Promise((resolve) => (frame.onload = resolve));
        frame.srcdoc = source;
        document.body.append(frame);
        return done;
      }),
    );
    await new Promise((resolve) => setTimeout(resolve, 1_000));
  }, leaving);
  expect([dialogs, hits]).toEqual([[], []]);

  await openDemo(page);
  await page.keyboard.press('Shift+W');
  const text = page.getByRole('textbox', { name: 'Text' });
  await text.click();
  const kept = await text.evaluate(async (editor, list) => {
    for (const html of list) {
      const data = new DataTransfer();
      data.setData('text/html', html);
      data.setData('text/plain', 'plain');
      editor.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    }
    await new Promise((resolve) => setTimeout(resolve, 1_500));
    return {
      elements: [...new Set([...editor.querySelectorAll('*')].map((one) => one.localName))],
      attributes: [...new Set([...editor.querySelectorAll('*')].flatMap((one) => one.getAttributeNames()))],
      links: [...editor.querySelectorAll('[href]')].map((one) => one.getAttribute('href') ?? ''),
      pictures: [...editor.querySelectorAll('[src]')].map((one) => one.getAttribute('src') ?? ''),
    };
  }, payloads);
  expect([dialogs, hits]).toEqual([[], []]);
  const known = ['p', 'a', 'strong', 'em', 'u', 's', 'code', 'pre', 'ul', 'ol', 'li', 'blockquote', 'br', 'hr', 'img'];
  expect(kept.elements.filter((name) => !known.includes(name))).toEqual([]);
  expect(kept.attributes.filter((name) => /^on|^style$/.test(name))).toEqual([]);
  expect(kept.links.filter((href) => !/^(https?:\/\/|mailto:)/i.test(href))).toEqual([]);
  expect(kept.pictures).toEqual([]);
  close();
});

test('a text block comes by a few letters, the signature of the account stands below, and may be left out', async ({
  page,
}) => {
  await openWith(page, [{ id: 'a', from: 'Di <di@harbour.test>' }]);
  await goTo(page, '/text-blocks');
  await page.getByRole('button', { name: 'New text block' }).click();
  await page.getByLabel('Name, one word').fill('thanks');
  await page.getByRole('textbox', { name: 'Text' }).click();
  await page.keyboard.press('Control+b');
  await page.keyboard.type('Many thanks');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('list', { name: 'Text blocks' })).toContainText('Many thanks');
  await goTo(page, '/accounts');
  // The page of before has buttons of that name, too.
  await expect(page.getByRole('heading', { name: 'Accounts', level: 1 })).toBeVisible();
  await page.getByRole('button', { name: 'Change' }).first().click();
  await page.getByRole('textbox', { name: 'Signature' }).click();
  await page.keyboard.type('Me of Y');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText(/^Set the account me@y\.test/).first()).toBeVisible();
  await goTo(page, '/inbox');
  await rows(page).first().click();
  await expect(page.getByRole('article', { name: 'Message' })).toContainText('Text of a');
  await page.keyboard.press('y');
  const panel = page.getByRole('region', { name: 'Reply', exact: true });
  const text = panel.getByRole('textbox', { name: 'Text' });
  await text.click();
  await page.keyboard.type('Hello ;th');
  await page.keyboard.press('Tab');
  await expect(text.locator('strong')).toHaveText('Many thanks');
  await expect(text).not.toContainText(';');
  await expect(panel.getByLabel(/^With the signature/)).toBeChecked();
  const file = await downloaded(page, () => panel.getByRole('button', { name: 'Save as a file' }).click());
  expect(file.bytes.toString()).toMatch(/Many thanks\r\n\r\n-- \r\n\r\nMe of Y\r\n\r\nDi wrote on/);
  await panel.getByLabel(/^With the signature/).uncheck();
  const without = await downloaded(page, () => panel.getByRole('button', { name: 'Save as a file' }).click());
  expect(without.bytes.toString()).not.toContain('Me of Y');
});

test('axe finds nothing while one writes and among contacts, light or dark', async ({ page }) => {
  await openDemo(page);
  await rows(page).first().click();
  await page.keyboard.press('y');
  const panel = page.getByRole('region', { name: 'Reply', exact: true });
  await panel.getByRole('textbox', { name: 'Text' }).click();
  await page.keyboard.type('It is attached.');
  await panel.getByRole('textbox', { name: 'To', exact: true }).fill('nobody');
  await panel.getByRole('button', { name: 'Cc and Bcc' }).or(panel.getByText('Once sent')).first().click();
  await expect(panel.getByRole('status', { name: 'Before it goes' })).toBeVisible();
  await panel.getByText('Quoted below').click();
  expect(await violations(page), 'writing').toEqual([]);
  await panel.getByRole('button', { name: 'Write plain text' }).click();
  expect(await violations(page), 'plain').toEqual([]);
  await panel.getByRole('button', { name: 'Close, and keep it in Drafts' }).click();
  await goTo(page, '/drafts');
  await expect(page.getByRole('region', { name: 'Drafts' })).toBeVisible();
  expect(await violations(page), 'drafts').toEqual([]);
  await goTo(page, '/contacts');
  await page.getByRole('button', { name: /^Elspeth Marwick/ }).click();
  await expect(page.getByLabel('Organisation')).toBeVisible();
  expect(await violations(page), 'contacts').toEqual([]);
});

test('by the keyboard alone: written, addressed, formed, sent, taken back', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Shift+W');
  const panel = page.getByRole('region', { name: 'New message' });
  await expect(panel.getByRole('textbox', { name: 'To', exact: true })).toBeFocused();
  const to = panel.getByRole('textbox', { name: 'To', exact: true });
  await page.keyboard.type('els');
  await expect(panel.getByRole('option', { name: /Elspeth/ }).first()).toBeVisible();
  // At once: whoever was offered for fewer letters is not taken for what stands there now.
  await page.keyboard.type('a@x.test');
  await page.keyboard.press('Tab');
  await expect(to).toHaveValue('elsa@x.test');
  await expect(panel.getByRole('button', { name: 'Cc and Bcc' })).toBeFocused();
  await page.keyboard.press('Tab');
  await page.keyboard.type('Berth 4');
  for (
    let n = 0;
    n < 12 && !(await panel.getByRole('textbox', { name: 'Text' }).evaluate((e) => e === document.activeElement));
    n++
  )
    await page.keyboard.press('Tab');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('Closed.');
  await expect(panel.locator('strong')).toHaveText('Closed.');
  await page.keyboard.press('Control+Enter');
  await expect(panel).toHaveCount(0);
  const back = page.getByRole('button', { name: 'Take back' });
  await back.focus();
  await page.keyboard.press('Enter');
  await expect(panel.locator('strong')).toHaveText('Closed.');
  await expect(panel.getByRole('textbox', { name: 'Text' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(panel).toHaveCount(0);
});
