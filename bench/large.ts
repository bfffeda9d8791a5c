// `npm run bench -- --large`: messages of 33 MB, of every kind, opened in Chromium: the first one after the page was opened,
// and once more.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { buildApp } from '../server/app';
import { bringIn, executablePath, launchArgs, until } from './browser';

const size = 33_000_000;
const line = 'The tide table of harbour 12 for Monday, with all its hours.\n';
const paragraph = '<p>The tide table of harbour 12 for <b>Monday</b>, with all its hours.</p>\n';
const filled = (piece: string, length: number) => piece.repeat(Math.ceil(length / piece.length));
/** What is coded so takes four thirds of its length, and a line end for each 76 characters. */
const coded = (bytes: Buffer) => bytes.toString('base64').replace(/.{76}/g, '$&\n');
const inCode = Math.floor((size * 3 * 76) / (4 * 77));

/** Bodies with their own header fields. */
const kinds: Record<string, string> = {
  'plain text': `Content-Type: text/plain\n\n${filled(line, size)}`,
  'HTML as it is': `Content-Type: text/html\n\n${filled(paragraph, size)}`,
  'HTML in base64': `Content-Type: text/html\nContent-Transfer-Encoding: base64\n\n${coded(Buffer.from(filled(paragraph, inCode)))}`,
  'HTML in quoted-printable': `Content-Type: text/html\nContent-Transfer-Encoding: quoted-printable\n\n${filled(paragraph, size)}`,
  'an attachment':
    `Content-Type: multipart/mixed; boundary=b\n\n--b\nContent-Type: text/plain\n\nSee the tide table\n` +
    `--b\nContent-Type: application/octet-stream\nContent-Transfer-Encoding: base64\n\n${coded(Buffer.alloc(inCode, 7))}\n--b--\n`,
};

/** From pressing its row until a message stands there, in milliseconds. */
const opened = (page: Page, subject: string): Promise<number> =>
  until(
    page,
    () => page.getByRole('row').filter({ hasText: subject }).click(),
    `[...document.querySelectorAll('article')].some((one) => one.textContent.includes(${JSON.stringify(subject)}) &&
      (one.querySelector('iframe') || one.textContent.includes('tide table')))`,
  );

export async function benchLarge(): Promise<void> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'wide-sort-large-'));
  const dist = new URL('../dist', import.meta.url).pathname;
  const app = await buildApp({ dist, count: 0, seed: 1, perMinute: 0, now: Date.now });
  const address = await app.listen({ host: '127.0.0.1', port: 0 });
  const browser = await chromium.launch({ executablePath, args: launchArgs });
  try {
    const context = await browser.newContext({ bypassCSP: true, viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await page.goto(address);
    await page.getByRole('button', { name: 'Start with my own mail' }).click();
    for (const [kind, body] of Object.entries(kinds)) {
      const file = path.join(folder, 'large.eml');
      writeFileSync(file, `From: a@b.test\nSubject: Large, ${kind}\nMessage-ID: <${encodeURI(kind)}@b.test>\n${body}`);
      await bringIn(page, file, 'line');
    }
    console.log('33 MB opened (goal 1,000 ms): the first after the page was opened, and once more');
    for (const kind of Object.keys(kinds)) {
      await page.goto(`${address}/inbox`);
      await page.locator('[role="row"][id]').first().waitFor();
      // As long as a person looks before pressing anything.
      await page.waitForTimeout(7_000);
      const first = await opened(page, `Large, ${kind}`);
      await page.keyboard.press('Escape');
      await page.waitForFunction(`!document.querySelector('article')`);
      const again = await opened(page, `Large, ${kind}`);
      console.log(`  ${kind.padEnd(26)} ${first.toFixed(0).padStart(6)} ms ${again.toFixed(0).padStart(6)} ms`);
    }
  } finally {
    await browser.close();
    await app.close();
    rmSync(folder, { recursive: true });
  }
}
