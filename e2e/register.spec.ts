// The Register through the real page: every kind of entry, guards, taking off, several at once.
import { expect, test } from './test';
import { counts, downloaded, goTo, mailFile, openDemo, openOwn, openWith, rows, undoButton } from './desk';

test('blocking a domain with people one wrote to asks first and names them; their own entries spare them', async ({
  page,
}) => {
  await openWith(page, [
    { id: 's', from: 'me@y.test', to: 'Ana <ana@harbour.test>', subject: 'To Ana' },
    { id: 'a', from: 'Ana <ana@harbour.test>', subject: 'From Ana' },
    { id: 'b', from: 'Ads <ads@harbour.test>', subject: 'From the ads' },
  ]);
  await goTo(page, '/register');
  await goTo(page, '/register/new');
  await page.getByLabel('Address or domain').fill('harbour.test');
  const guards = page.getByRole('region', { name: 'Before you block it' });
  await expect(guards).toContainText('You wrote to one person whom it would block.');
  await expect(guards).toContainText('Ana ana@harbour.test');
  const block = page.getByRole('button', { name: /^Block/ });
  await expect(block).toBeDisabled();
  await page.getByLabel('Address or domain').fill('co.uk');
  await expect(guards).toContainText('belongs to nobody');
  await page.getByLabel('Address or domain').fill('y.test');
  await expect(guards).toContainText('your own address');
  await page.getByLabel('Address or domain').fill('ana@harbour.test');
  await page.getByRole('radio', { name: /^Safe/ }).check();
  await expect(guards).toHaveCount(0);
  await page.getByRole('button', { name: 'Mark as safe' }).click();
  await expect(page.getByRole('heading', { name: 'Register', level: 1, exact: true })).toBeVisible();
  await goTo(page, '/register/new?value=harbour.test');
  await expect(page.getByText('1 message would go')).toBeVisible();
  await expect(guards).toHaveCount(0);
  await page.getByRole('button', { name: 'Block and sort 1 message' }).click();
  await expect.poll(async () => (await counts(page, 'Junk')).total).toBe(1);
});

test('taking an entry off offers to bring back what it took', async ({ page }) => {
  await openDemo(page);
  await goTo(page, '/register');
  const row = page.getByRole('row').filter({ hasText: 'parts-direct.example' });
  // How many it decided, and when the last came.
  await expect(row.getByRole('cell').nth(4)).toHaveText(/^[1-9]/);
  const junk = (await counts(page, 'Junk')).total;
  await row.getByRole('button', { name: /^Take off/ }).click();
  const dialog = page.getByRole('dialog', { name: 'Take the domain parts-direct.example off the Register?' });
  const bring = dialog.getByRole('button', { name: /^Take off and bring back/ });
  const took = Number(/bring back (\d+)/.exec(await bring.innerText())?.[1]);
  expect(took).toBeGreaterThan(0);
  await bring.click();
  await expect(row).toHaveCount(0);
  await expect.poll(async () => (await counts(page, 'Junk')).total).toBe(junk - took);
  await undoButton(page).click();
  await expect(row).toHaveCount(1);
  await expect.poll(async () => (await counts(page, 'Junk')).total).toBe(junk);
});

test('countries by name beside the code; all but some in two presses', async ({ page }) => {
  await openWith(page, [
    { id: 'a', from: 'Ola <ola@fjord.no>', subject: 'From Norway' },
    { id: 'b', from: 'Urs <urs@alp.ch>', subject: 'From Switzerland' },
    { id: 'c', from: 'Com <c@plain.com>', subject: 'From nowhere' },
  ]);
  await goTo(page, '/register/new');
  await page.getByLabel('About').selectOption('Country domain');
  await page.getByLabel('Find a country').fill('ch');
  await expect(page.getByLabel('Switzerland (.ch)')).toBeVisible();
  await expect(page.getByLabel('China (.cn)')).toBeVisible();
  await page.getByLabel('Find a country').fill('');
  await page.getByLabel('All but some').check();
  await page.getByLabel('But not Norway (.no)').check();
  await expect(page.getByText('1 message would go')).toBeVisible();
  await page.getByRole('button', { name: 'Block and sort 1 message' }).click();
  await expect(page.getByRole('button', { name: 'Block and sort 1 message' })).toHaveCount(0);
  await goTo(page, '/register');
  await expect(page.getByRole('link', { name: 'all country domains but Norway (.no)' })).toBeVisible();
  await goTo(page, '/junk');
  await expect(rows(page)).toHaveCount(1);
  await expect(rows(page).first()).toContainText('From Switzerland');
});

test('writing systems, lists and own addresses are entries too; the more exact one wins', async ({ page }) => {
  await openWith(page, [
    { id: 'a', from: 'A <a@one.test>', subject: 'Привет, как дела', text: 'Добрый день' },
    { id: 'b', from: 'B <b@one.test>', subject: 'Добрый день', text: 'Привет', extra: 'List-Id: <crew.one.test>\n' },
  ]);
  await goTo(page, '/register/new');
  await page.getByLabel('About').selectOption('Writing system');
  await page.getByLabel('Cyrillic').check();
  await page.getByRole('button', { name: 'Block and sort 2 messages' }).click();
  await expect.poll(async () => (await counts(page, 'Junk')).total).toBe(2);
  await goTo(page, '/register/new');
  await page.getByLabel('About').selectOption('Mailing list');
  await page.getByLabel('Identifier of the list').fill('crew.one.test');
  await page.getByRole('radio', { name: /^Safe/ }).check();
  await page.getByRole('button', { name: 'Mark as safe and sort 1 message' }).click();
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(1);
  await goTo(page, '/register/new');
  await page.getByLabel('About').selectOption('Mail to an own address');
  await page.getByLabel('Your own address').fill('me@y.test');
  await page.getByRole('radio', { name: /^Safe/ }).check();
  await page.getByRole('button', { name: 'Mark as safe and sort 1 message' }).click();
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(2);
});

test('a CSV of 2,000 rows of which 30 are wrong: each wrong one with row and reason, the rest taken as one, undone as one', async ({
  page,
}) => {
  await openOwn(page);
  await goTo(page, '/register/many');
  const lines = Array.from({ length: 2_000 }, (_, i) =>
    i % 67 === 5 ? `"not a domain, ${i}",blocked` : `sender${i}.example,blocked`,
  );
  await page.getByLabel('A CSV file').setInputFiles(mailFile('list.csv', `value,standing\n${lines.join('\n')}\n`));
  await expect(page.getByText('1,970 new')).toBeVisible();
  await expect(page.getByText('30 that can’t be taken')).toBeVisible();
  const wrong = page.getByRole('region', { name: 'Rows that can’t be taken' });
  await expect(wrong.getByRole('row').nth(1)).toContainText('7');
  await expect(wrong.getByRole('row').nth(1)).toContainText('One address or domain, without blanks or commas.');
  await page.getByRole('button', { name: 'Take up 1,970 entries' }).click();
  await expect(page.getByText('200 of 1,970 shown.')).toBeVisible();
  await page.getByLabel('Show only').fill('sender1999');
  await expect(page.getByRole('link', { name: 'sender1999.example' })).toBeVisible();
  await undoButton(page).click();
  await expect(page.getByText('Nobody yet.')).toBeVisible();
});

test('several at once: what was understood stands row by row, a column that is not is said, and guards ask as for one', async ({
  page,
}) => {
  await openWith(page, [
    { id: 's', from: 'me@y.test', to: 'Ana <ana@harbour.test>', subject: 'To Ana' },
    { id: 'a', from: 'Ana <ana@harbour.test>', subject: 'From Ana' },
  ]);
  await goTo(page, '/register/many');
  const text = page.getByLabel(/^Or paste/);
  await text.fill('kind,value,reason,colour\ncountry,ch,Too many,red\ncountry,cn,,blue\ndomain,harbour.test,,\n');
  const read = page.getByRole('region', { name: 'What was read' });
  await expect(read).toContainText('The first row names the columns: kind, value, why.');
  await expect(read).toContainText('Not understood, and left out: “colour”.');
  const taken = page.getByRole('region', { name: 'Rows that are taken' });
  await expect(taken.getByRole('row').nth(1)).toHaveText(
    /2\s*Blocked: the country domain of Switzerland \(\.ch\)\s*Too many\s*new/,
  );
  await expect(taken.getByRole('row').nth(2)).toContainText('China (.cn)');
  const guards = page.getByRole('region', { name: 'Before you block it' });
  await expect(guards).toContainText('You wrote to one person whom it would block.');
  const save = page.getByRole('button', { name: /^Take up 3 entries/ });
  await expect(save).toBeDisabled();
  await guards.getByRole('checkbox').check();
  await expect(save).toBeEnabled();
  await text.fill('ana@harbour.test,safe,She is right');
  await expect(guards).toHaveCount(0);
  await expect(taken).toContainText('Safe: ana@harbour.test');
});

test('hostile and wrong files are refused in words; CSV goes out safe to open', async ({ page }) => {
  await openOwn(page);
  await goTo(page, '/register/many');
  await page.getByLabel('A CSV file').setInputFiles(mailFile('picture.csv', Buffer.from([137, 80, 78, 71, 0, 0, 1])));
  await expect(page.getByRole('alert')).toHaveText('picture.csv is no text. Save it as CSV first, in UTF-8.');
  await page.getByLabel(/^Or paste/).fill('value,standing,why\nx.example,blocked,=cmd()\ny.example,safe,+1');
  await page.getByRole('button', { name: 'Take up 2 entries' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'x.example' })).toContainText('=cmd()');
  const { bytes } = await downloaded(page, () => page.getByRole('button', { name: 'Save as CSV' }).click());
  expect(bytes.toString()).toContain("'=cmd()");
  expect(bytes.toString()).toContain("'+1");
});

test('the forms of an entry follow the sender that is typed; countries by their own names; other letters in both forms', async ({
  page,
}) => {
  await openWith(page, [
    { id: 'a', from: 'Ann <ann@bücher.test>' },
    { id: 'b', from: 'bo@x.test' },
  ]);
  await rows(page).filter({ hasText: 'Message b' }).click();
  await page.getByRole('article').getByRole('link', { name: 'Block' }).click();
  await expect(page.getByRole('button', { name: 'Only bo@x.test' })).toBeVisible();
  await page.getByLabel('Address or domain').fill('cy@quay.test');
  await expect(page.getByRole('button', { name: 'Only bo@x.test' })).toHaveCount(0);
  await page.getByRole('button', { name: 'All of quay.test' }).click();
  await expect(page.getByLabel('Address or domain')).toHaveValue('quay.test');
  // The address stays at hand.
  await page.getByRole('button', { name: 'Only cy@quay.test' }).click();
  await expect(page.getByLabel('Address or domain')).toHaveValue('cy@quay.test');
  await page.getByLabel('About').selectOption('Country domain');
  await page.getByLabel('Find a country').fill('schweiz');
  await expect(page.getByText('Switzerland (.ch)')).toBeVisible();
  await page.getByLabel('About').selectOption('A sender or domain');
  await page.getByLabel('Address or domain').fill('Bücher.test');
  const save = page.getByRole('button', { name: /^Block and sort/ });
  await save.click();
  // It leaves for where one came from.
  await expect(save).toHaveCount(0);
  await page.getByRole('navigation').getByRole('link', { name: 'Register' }).click();
  const entry = page.getByRole('row').filter({ hasText: 'xn--bcher-kva.test (bücher.test)' });
  await expect(entry).toBeVisible();
  for (const word of ['bücher', 'xn--bcher']) {
    await page.getByLabel('Show only').fill(word);
    await expect(entry).toBeVisible();
  }
  await expect.poll(() => counts(page, 'Junk')).toMatchObject({ total: 1 });
});
