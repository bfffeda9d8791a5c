// Hostile HTML (attacks.ts) in the whole application: nothing may run, nothing may be fetched. And each wall alone, with
// the others taken down.
import { expect, test, type Page } from './test';
import { listening, published, reaching } from './attacks';
import { framePolicy, frameSandbox } from '../src/app/reading/framePolicy';
import { goTo, bringIn, mailFile, openOwn, rows } from './desk';

/** What the frames of a page were given, as they stood. */
async function keepDocuments(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const kept: string[] = [];
    Object.assign(window, { kept });
    const set = Object.getOwnPropertyDescriptor(HTMLIFrameElement.prototype, 'srcdoc')?.set;
    Object.defineProperty(HTMLIFrameElement.prototype, 'srcdoc', {
      set(this: HTMLIFrameElement, value: string) {
        kept.push(value);
        set?.call(this, value);
      },
    });
    const { setAttribute } = HTMLIFrameElement.prototype;
    HTMLIFrameElement.prototype.setAttribute = function (name: string, value: string) {
      if (name.toLowerCase() === 'srcdoc') kept.push(value);
      setAttribute.call(this, name, value);
    };
  });
}

/** Shows documents in frames, all at once, under what walls there are; what ran is told by dialogs and by the canary. */
async function showAll(page: Page, at: string, documents: readonly string[], sandbox: string | null): Promise<void> {
  await page.goto(at);
  await page.evaluate(
    async ([list, allowed]) => {
      const loaded = list.map((source) => {
        const frame = document.createElement('iframe');
        if (allowed !== null) frame.setAttribute('sandbox', allowed);
        const done = new Promise((resolve) => (frame.onload = resolve));
        frame.srcdoc = source;
        document.body.append(frame);
        return done;
      });
      await Promise.all(loaded);
      // What begins once all is loaded, begins within a second.
      await new Promise((resolve) => setTimeout(resolve, 1_000));
    },
    [documents, sandbox] as const,
  );
}

/** So many strings stand in one message: each opening of a message takes its time. */
const together = 100;

const forbidden = 'script, iframe, object, embed, form, link, base, meta[http-equiv=refresh]';

test('nothing in a message runs, and nothing is fetched; each wall holds alone', async ({ page, context }, info) => {
  const { url, hits, close } = await listening();

  const ran: string[] = [];
  const asked: string[] = [];
  page.on('dialog', (dialog) => {
    ran.push(`dialog: ${dialog.message()}`);
    void dialog.dismiss();
  });
  context.on('page', (other) => ran.push(`page: ${other.url()}`));
  await keepDocuments(page);
  await openOwn(page);
  const own = new URL(page.url()).origin;
  page.on('request', (request) => {
    if (!request.url().startsWith(own) && !/^(data|blob|about):/.test(request.url())) asked.push(request.url());
  });
  page.on('framenavigated', (frame) => {
    if (!frame.url().startsWith(own) && !frame.url().startsWith('about:')) ran.push(`navigated: ${frame.url()}`);
  });

  const payloads = [...published.map((p) => p.payload), ...reaching(url)];
  // Each string as a part of its own, which is shown in a frame of its own; several in a message, and in its subject, where
  // they must be plain text.
  const groups = Array.from({ length: Math.ceil(payloads.length / together) }, (_, n) =>
    payloads.slice(n * together, (n + 1) * together),
  );
  const base64 = (text: string) => Buffer.from(text).toString('base64');
  const word = (text: string) => `=?utf-8?B?${base64(text)}?=`;
  const mail = groups.map((group, n) => {
    const plain = group.map((payload) => payload.replace(/[\r\n]+/g, ' ').slice(0, 200)).join(' ');
    const parts = group.map(
      (payload) =>
        `--b\nContent-Type: text/html; charset=utf-8\nContent-Transfer-Encoding: base64\n\n${base64(`<html><body>${payload}</body></html>`)}\n`,
    );
    return mailFile(
      `${n}.eml`,
      `From: ${word(`<img src=x onerror=alert(1)> ${n}`)} <a${n}@b.test>\nSubject: ${word(`Attack ${n} ${plain}`)}\nContent-Type: multipart/mixed; boundary=b\n\n${parts.join('')}--b--\n`,
    );
  });
  expect(await bringIn(page, mail)).toContain(`${groups.length} messages added`);
  // What counts as read is another test’s business: here each message is one step, not two.
  await goTo(page, '/desk');
  await page.getByLabel('Only by hand').check();
  await page.goto('/inbox');
  await expect(rows(page).first()).toBeVisible();

  let last: string | undefined;
  let scripts = 0;
  let shown = 0;
  for (let n = 0; n < groups.length; n++) {
    await page.keyboard.press('ArrowDown');
    const frames = page.locator('iframe[title="Message text"]');
    const which = /^Attack (\d+)/;
    await expect.poll(async () => which.exec(await page.locator('article h2').first().innerText())?.[1]).not.toBe(last);
    last = which.exec(await page.locator('article h2').first().innerText())?.[1];
    await expect(frames).toHaveCount(groups[Number(last)].length);
    // All of them at once: one after the other, each took a seventh of a second.
    const inFrames = page.frames().filter((frame) => frame.parentFrame() === page.mainFrame());
    const found = await Promise.all(
      inFrames.map(async (frame) => {
        await frame.waitForLoadState();
        return frame.evaluate((what) => document.querySelectorAll(what).length, forbidden);
      }),
    );
    scripts += found.reduce((sum, n) => sum + n, 0);
    shown += found.length;
  }
  expect(shown).toBe(payloads.length);
  expect(scripts).toBe(0);
  expect(ran).toEqual([]);
  expect(asked).toEqual([]);
  expect(hits).toEqual([]);
  info.annotations.push({
    type: 'figure',
    description: `${published.length} published and ${reaching(url).length} own strings opened`,
  });

  const cleaned = await page.evaluate(() => (window as unknown as { kept: string[] }).kept);
  expect(cleaned.length).toBeGreaterThanOrEqual(payloads.length);
  const apart = await context.newPage();
  apart.on('dialog', (dialog) => {
    ran.push(`dialog: ${dialog.message()}`);
    void dialog.dismiss();
  });
  const policy = `<meta http-equiv="Content-Security-Policy" content="${framePolicy}">`;
  const asCame = payloads.map((payload) => `<html><body>${payload}</body></html>`);
  // The first wall alone: what is left after the cleaning, without a policy and without a sandbox.
  ran.length = 0;
  await showAll(
    apart,
    `${url}/bare`,
    cleaned.map((text) => text.replace(policy, '')),
    null,
  );
  expect([ran, hits]).toEqual([[], []]);
  // The second alone: as it came, in the sandbox. Pictures are fetched; no script runs.
  await showAll(apart, `${url}/bare`, asCame, frameSandbox);
  const byScript = /^\/(?:onerror|inline|svgscript|svgonload|a?focus|js|toggle|selector|datasvg)$/;
  expect([ran, hits.filter((path) => byScript.test(path))]).toEqual([[], []]);
  // It can fail: the canary hears of what this wall is not for.
  expect(hits).toContain('/img');
  // The third alone: as it came, under the policy of the frame and of the application’s page, which it inherits. Under
  // paths of its own: what the second let through may still be on its way.
  await showAll(
    apart,
    `${own}/nothing.txt`,
    [...published.map((p) => p.payload), ...reaching(`${url}/third`)].map(
      (payload) => `<html><head>${policy}</head><body>${payload}</body></html>`,
    ),
    null,
  );
  expect([ran, hits.filter((path) => path.startsWith('/third'))]).toEqual([[], []]);
  close();
});

test('pictures that came within a message are shown; remote ones are counted, not fetched; links open apart', async ({
  page,
}) => {
  await openOwn(page);
  const png = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
  await bringIn(
    page,
    mailFile(
      'a.eml',
      `From: a@b.test\nSubject: Pictures\nContent-Type: multipart/related; boundary=b\n\n--b\nContent-Type: text/html\n\n<p style="color: green">Look</p><img src="cid:one@b" alt="inside"><img src="https://far.example/x.png" alt="outside"><a href="https://far.example/">there</a>\n--b\nContent-Type: image/png\nContent-ID: <one@b>\nContent-Transfer-Encoding: base64\n\n${png}\n--b--\n`,
    ),
  );
  await page.goto('/inbox');
  await expect(rows(page).first()).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText('One picture was not fetched')).toBeVisible();
  const frame = page.frameLocator('iframe[title="Message text"]');
  await expect(frame.getByAltText('inside')).toHaveAttribute('src', /^data:image\/png;base64,/);
  await expect(frame.getByAltText('outside')).not.toHaveAttribute('src');
  await expect(frame.getByRole('link', { name: 'there' })).toHaveAttribute('rel', 'noopener noreferrer');
  await expect(frame.getByRole('link', { name: 'there' })).toHaveAttribute('title', 'https://far.example/');
  await expect(frame.getByText('Look')).toHaveCSS('color', 'rgb(0, 128, 0)');
});
