import { expect, test } from './test';
import { bringIn, counts, downloaded, mailFile, openOwn, rows } from './desk';

const message = (n: number) => `From: a${n}@b.test\nSubject: Message ${n}\nMessage-ID: <${n}@b.test>\n\nText ${n}\n`;

test('files that are no mail are refused by name and reason; the page goes on', async ({ page }) => {
  await openOwn(page);
  const said = await bringIn(page, [
    mailFile('holiday.mbox', Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex')),
    mailFile('nothing.mbox', ''),
    mailFile('page.mbox', '<!doctype html><title>Hello</title>'),
    mailFile('good.eml', message(1)),
  ]);
  expect(said).toContain('1 message added');
  expect(said).toContain('holiday.mbox was not taken. It is no mail');
  expect(said).toContain('nothing.mbox was not taken. It is empty.');
  expect(said).toContain('page.mbox was not taken.');
  expect((await counts(page, 'Inbox')).total).toBe(1);
});

test('cut, mislabelled, overgrown and nested messages are all kept, opened, and leave as they came', async ({
  page,
}) => {
  await openOwn(page);
  let nested = 'From: deep@b.test\nSubject: Deep nesting\n';
  for (let i = 0; i < 300; i++) nested += `Content-Type: multipart/mixed; boundary=b${i}.\n\n--b${i}.\n`;
  const files: [subject: string, name: string, content: string | Buffer, shows: RegExp][] = [
    [
      'Cut in a part',
      'cut.eml',
      'From: cut@b.test\nSubject: Cut in a part\nContent-Type: multipart/mixed; boundary=b\n\n--b\n\nhalf of it',
      /half of it/,
    ],
    [
      'Cut attachment',
      'base64.eml',
      'From: c@b.test\nSubject: Cut attachment\nContent-Type: image/png; name=x.png\nContent-Transfer-Encoding: base64\n\nAAECA',
      /Its attachment “x\.png” is cut off/,
    ],
    [
      'Wrong charset',
      'charset.eml',
      Buffer.concat([
        Buffer.from('From: w@b.test\nSubject: Wrong charset\nContent-Type: text/plain; charset=x-moon\n\nCaf'),
        Buffer.from([0xe9, 10]),
      ]),
      /Café/,
    ],
    [
      'Ten thousand fields',
      'fields.eml',
      `From: f@b.test\n${'X-Filler: y\n'.repeat(10_000)}Subject: Ten thousand fields\n\nStill here\n`,
      /Still here/,
    ],
    ['Deep nesting', 'deep.eml', nested, /damaged/],
    ['NUL bytes', 'nul.eml', 'From: n@b.test\nSubject: NUL\0 bytes\n\nbefore\0after\n', /before/],
  ];
  const said = await bringIn(
    page,
    files.map(([, name, content]) => mailFile(name, content)),
  );
  expect(said).toContain('6 messages added, 3 damaged');
  await page.goto('/inbox');
  for (const [subject, , content, shows] of files) {
    await rows(page).filter({ hasText: subject }).click();
    await expect(page.getByRole('article').getByRole('heading', { name: subject })).toBeVisible();
    await expect(page.getByRole('article').getByText(shows).first()).toBeVisible();
    const out = await downloaded(page, () => page.getByRole('button', { name: 'Save .eml' }).click());
    expect(out.bytes.equals(Buffer.from(content))).toBe(true);
  }
});

test('a message of 50 MB is kept in time linear to its size, and the page answers', async ({ page }, info) => {
  const { writeFileSync } = await import('node:fs');
  await openOwn(page);
  const line = `${'QUJD'.repeat(18)}\n`;
  const big = `From: big@b.test\nSubject: Fifty megabytes\nContent-Type: application/zip; name=big.zip\nContent-Transfer-Encoding: base64\n\n${line.repeat(Math.ceil(50_000_000 / line.length))}`;
  const file = info.outputPath('big.eml');
  writeFileSync(file, big);
  expect(await bringIn(page, file, 120_000)).toContain('1 message added');
  await page.goto('/inbox');
  await rows(page).first().click();
  await expect(page.getByRole('button', { name: /big\.zip.*37\.\d MB/ })).toBeVisible({ timeout: 120_000 });
  const out = await downloaded(page, () => page.getByRole('button', { name: 'Save .eml' }).click());
  expect(out.bytes.length).toBe(big.length);
});

test('HTML that no browser should build is shown as text, and said; the page answers, also after a reload', async ({
  page,
}) => {
  await openOwn(page);
  const html = (subject: string, body: string) =>
    `From: a@b.test\nSubject: ${subject}\nContent-Type: text/html\n\n${body}\n`;
  const files: [subject: string, body: string, says: RegExp][] = [
    ['Elements', `${'<div>'.repeat(100_000)}the words inside`, /too many elements/],
    ['Nesting', `${'<div>'.repeat(500)}the words inside`, /nested too deep/],
    ['Bold without end', `${'<b>'.repeat(50_000)}<table>the words inside`, /too many elements/],
    ['Length', `the words inside<p>${'x '.repeat(3_000_000)}`, /too long/],
  ];
  await bringIn(
    page,
    files.map(([subject, body], n) => mailFile(`${n}.eml`, html(subject, body))),
  );
  await page.goto('/inbox');
  for (const [subject, , says] of files) {
    await rows(page).filter({ hasText: subject }).first().click();
    await expect(page.getByRole('article').getByText(says)).toBeVisible();
    await expect(
      page
        .getByRole('article')
        .getByText(/the words inside/)
        .first(),
    ).toBeVisible();
  }
  await expect(page.getByText(/Only the first 300,000 characters are shown/)).toBeVisible();
  await page.reload();
  await expect(page.getByRole('article').getByText(/too long/)).toBeVisible();
  await page.keyboard.press('a');
  await expect.poll(async () => (await counts(page, 'Archive')).total).toBe(1);
});

test('a folder of 500 .eml comes in as one import', async ({ page }) => {
  await openOwn(page);
  const said = await bringIn(
    page,
    Array.from({ length: 500 }, (_, n) => mailFile(`${n}.eml`, message(n))),
  );
  expect(said).toContain('500 messages added');
  await page.goto('/logbook');
  await expect(page.getByText('Brought in 500 messages from 500 files')).toBeVisible();
  await page.getByRole('button', { name: /^Undo: Brought in/ }).click();
  await expect.poll(async () => (await counts(page, 'Inbox')).total).toBe(0);
});

test('an import is stopped; what was added stays; the same file adds the rest', async ({ page }) => {
  await openOwn(page);
  const mbox = Array.from(
    { length: 9_000 },
    (_, n) => `From x@y.test Thu Aug 22 12:36:23 2002\n${message(n)}${'x'.repeat(500)}\n\n`,
  ).join('');
  await page.getByTestId('mail-files').setInputFiles(mailFile('long.mbox', mbox));
  const strip = page.getByRole('region', { name: 'Import' });
  await expect(strip.getByRole('status')).toHaveText(/[1-9][\d,]* added/);
  await strip.getByRole('button', { name: 'Stop' }).click();
  await expect(strip.getByRole('status')).toHaveText(/^Stopped\. [\d,]+ messages added/);
  const { total } = await counts(page, 'Inbox');
  expect(total).toBeGreaterThan(0);
  expect(total).toBeLessThan(9_000);
  await strip.getByRole('button', { name: 'Put away' }).click();
  const said = await bringIn(page, mailFile('long.mbox', mbox), 60_000);
  expect(said).toContain(
    `${(9_000 - total).toLocaleString('en')} messages added, ${total.toLocaleString('en')} here already`,
  );
});
