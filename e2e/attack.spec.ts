// Hostile HTML: the attack strings of DOMPurify's published tests (its package of version 0.8.2, test/fixtures/expect.js)
// and some of our own that reach for the network. Nothing may run, nothing may be fetched.
import { createServer } from 'node:http';
import { createRequire } from 'node:module';
import type { AddressInfo } from 'node:net';
import { expect, test } from '@playwright/test';
import { bringIn, mailFile, openOwn, rows } from './desk';

const published = createRequire(import.meta.url)('dompurify-published-tests/test/fixtures/expect.js') as {
  payload: string;
}[];

/** Strings that would call `url` if anything of them ran or was fetched. */
const reaching = (url: string): string[] => [
  `<img src="${url}/img">`,
  `<img srcset="${url}/srcset 1x">`,
  `<img src=x onerror="fetch('${url}/onerror')">`,
  `<script src="${url}/script"></script><script>fetch('${url}/inline')</script>`,
  `<link rel="stylesheet" href="${url}/link"><link rel="prefetch" href="${url}/prefetch"><link rel="preconnect" href="${url}">`,
  `<style>@import url(${url}/import); body { background: url(${url}/css) } @font-face { font-family: x; src: url(${url}/font) } p { font-family: x }</style><p>x</p>`,
  `<p style="background-image: url('${url}/style'); background-image: image-set('${url}/set' 1x)">x</p>`,
  `<table background="${url}/table"><tr><td background="${url}/td">x</td></tr></table><body background="${url}/body">`,
  `<iframe src="${url}/iframe"></iframe><iframe srcdoc="<img src='${url}/srcdoc'>"></iframe><object data="${url}/object"></object><embed src="${url}/embed">`,
  `<svg><image href="${url}/svg" /><use href="${url}/use#x" /><script>fetch('${url}/svgscript')</script></svg><svg onload="fetch('${url}/svgonload')">`,
  `<video src="${url}/video" poster="${url}/poster" autoplay></video><audio src="${url}/audio" autoplay></audio>`,
  `<meta http-equiv="refresh" content="0; url=${url}/refresh"><base href="${url}/base/"><img src="relative">`,
  `<form action="${url}/form"><input type="image" src="${url}/input" autofocus onfocus="fetch('${url}/focus')"></form>`,
  `<a href="javascript:fetch('${url}/js')" autofocus onfocus="fetch('${url}/afocus')">x</a><a ping="${url}/ping" href="#">x</a>`,
  `<details open ontoggle="fetch('${url}/toggle')">x</details><math><mtext><img src="${url}/math"></mtext></math>`,
];

test('nothing in a message runs, and nothing is fetched', async ({ page, context }, info) => {
  test.setTimeout(240_000);
  const hits: string[] = [];
  const canary = createServer((request, response) => {
    hits.push(request.url ?? '');
    response.end();
  });
  await new Promise<void>((resolve) => canary.listen(0, '127.0.0.1', resolve));
  const url = `http://127.0.0.1:${(canary.address() as AddressInfo).port}`;

  const ran: string[] = [];
  const asked: string[] = [];
  page.on('dialog', (dialog) => {
    ran.push(`dialog: ${dialog.message()}`);
    void dialog.dismiss();
  });
  context.on('page', (other) => ran.push(`page: ${other.url()}`));
  await openOwn(page);
  const own = new URL(page.url()).origin;
  page.on('request', (request) => {
    if (!request.url().startsWith(own) && !/^(data|blob|about):/.test(request.url())) asked.push(request.url());
  });
  page.on('framenavigated', (frame) => {
    if (!frame.url().startsWith(own) && !frame.url().startsWith('about:')) ran.push(`navigated: ${frame.url()}`);
  });

  const payloads = [...published.map((p) => p.payload), ...reaching(url)];
  const mail = payloads.map((payload, n) => {
    // Every string also as subject and name, where it must be plain text.
    const plain = payload.replace(/[\r\n]+/g, ' ').slice(0, 200);
    const body = Buffer.from(`<html><body>${payload}</body></html>`).toString('base64');
    const word = (text: string) => `=?utf-8?B?${Buffer.from(text).toString('base64')}?=`;
    return mailFile(
      `${n}.eml`,
      `From: ${word(`<img src=x onerror=alert(1)> ${n}`)} <a${n}@b.test>\nSubject: ${word(`Attack ${n} ${plain}`)}\nContent-Type: text/html; charset=utf-8\nContent-Transfer-Encoding: base64\n\n${body}\n`,
    );
  });
  expect(await bringIn(page, mail)).toContain(`${payloads.length} messages added`);
  await page.goto('/inbox');
  await expect(rows(page).first()).toBeVisible();

  const seen = new Set<string>();
  let scripts = 0;
  let last = '';
  for (let n = 0; n < payloads.length; n++) {
    const before = page.url();
    await page.keyboard.press('ArrowDown');
    // Asked at every frame: there are many of them, and each is there at once.
    const opened = await page.waitForFunction(
      ([was, shown]) => {
        const heading = document.querySelector('article h1, article h2, article h3')?.textContent ?? '';
        return location.href !== was && /^Attack \d+/.test(heading) && heading !== shown ? heading : false;
      },
      [before, last],
      { polling: 'raf' },
    );
    last = String(await opened.jsonValue());
    seen.add(last);
    const frame = page.frameLocator('iframe[title="Message text"]');
    await expect(frame.locator('body')).toBeAttached();
    scripts += await frame.locator('script, iframe, object, embed, form, link, base, meta[http-equiv=refresh]').count();
  }
  expect(seen.size).toBe(payloads.length);
  expect(scripts).toBe(0);
  expect(ran).toEqual([]);
  expect(asked).toEqual([]);
  expect(hits).toEqual([]);
  info.annotations.push({
    type: 'figure',
    description: `${published.length} published and ${reaching(url).length} own strings opened`,
  });
  canary.close();
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
