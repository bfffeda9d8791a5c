// A disk that is really full: a small file system in memory, filled to its last byte under the browser’s profile. Nothing
// that was said done is lost, and no mail.
import { execFileSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { closeSync, mkdirSync, openSync, rmSync, writeFileSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, expect, test, type BrowserContext, type Page, type TestInfo } from './test';
import { chromiumLaunch } from '../playwright.config';
import { bringIn, counts, downloaded, openOwn, rows } from './desk';

const size = 1_500;

/** How often the browser is started anew while the disk is full; `RESTARTS=20` for more. */
const restarts = Number(process.env.RESTARTS ?? 1);

/** Mounts a file system of 90 MB; false where this machine does not let us. */
function mounted(folder: string): boolean {
  mkdirSync(folder, { recursive: true });
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=90m', 'tmpfs', folder], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
}

/** Fills a file system until not one byte more fits. */
function fillUp(file: string): void {
  const out = openSync(file, 'w');
  for (let length = 1 << 20; length >= 1;) {
    try {
      if (writeSync(out, randomBytes(length)) < length) throw new Error('full');
    } catch {
      length >>= 1;
    }
  }
  closeSync(out);
}

/**
 * Has the browser promise to keep what the page stores, as it does of itself for pages that are used often or bookmarked:
 * what it has decided of pages stands in its profile.
 */
function promiseToKeep(profile: string, origin: string): void {
  mkdirSync(join(profile, 'Default'), { recursive: true });
  const exceptions = { durable_storage: { [`${origin},*`]: { setting: 1 } } };
  const preferences = { profile: { content_settings: { exceptions } } };
  writeFileSync(join(profile, 'Default', 'Preferences'), JSON.stringify(preferences));
}

/** What the desk says of the last act. */
const saidLine = (page: Page) => page.locator('footer').getByRole('status').last();

/** Marks all of the Inbox as read or unread; what was said of it. */
async function mark(page: Page, key: 'r' | 'u'): Promise<string> {
  const before = await saidLine(page).innerText();
  await page.keyboard.press('Control+a');
  await page.keyboard.press(key);
  const changed = (timeout: number) => expect.poll(() => saidLine(page).innerText(), { timeout }).not.toBe(before);
  // Refused twice, it says the same twice.
  if (/nothing was changed/.test(before)) await changed(1_500).catch(() => undefined);
  else await changed(15_000);
  return saidLine(page).innerText();
}

const many = Array.from(
  { length: size },
  (_, n) =>
    `From x@y.test Thu Aug 22 12:36:23 2002\nFrom: a${n % 50}@b.test\nSubject: Message ${n}\nMessage-ID: <${n}@b.test>\n\n` +
    `${randomBytes(10_000).toString('base64').replace(/.{70}/g, '$&\n')}\n\n`,
).join('');

/** A browser whose profile lies on a small disk, and its page with the mail brought in, the disk filled right after it. */
async function onFullDisk(
  { baseURL, info, promised }: { baseURL: string; info: TestInfo; promised: boolean },
  work: (it: { page: Page; anew: () => Promise<Page>; free: () => void }) => Promise<void>,
): Promise<void> {
  const folder = info.outputPath('disk');
  test.skip(!mounted(folder), 'This machine mounts no file system for a test.');
  const profile = join(folder, 'profile');
  const filler = join(folder, 'filler');
  if (promised) promiseToKeep(profile, baseURL);
  const open = (): Promise<BrowserContext> =>
    chromium.launchPersistentContext(profile, {
      // The shell without a window knows no promise.
      ...chromiumLaunch(promised ? 'chromium' : 'shell'),
      baseURL,
      viewport: { width: 1280, height: 800 },
      acceptDownloads: true,
      downloadsPath: info.outputPath('downloads'),
    });
  let context = await open();
  const page = async () => context.pages()[0] ?? (await context.newPage());
  try {
    const first = await page();
    await openOwn(first);
    expect(await first.evaluate(() => navigator.storage.persist())).toBe(promised);
    const file = info.outputPath('mail.mbox');
    writeFileSync(file, many);
    expect(await bringIn(first, file, 120_000)).toContain('1,500 messages added');
    await first.goto('/inbox');
    await expect(rows(first).first()).toBeVisible();
    // Right away, while the browser still tidies its database up.
    fillUp(filler);
    await work({
      page: first,
      anew: async () => {
        await context.close();
        context = await open();
        return page();
      },
      free: () => rmSync(filler),
    });
  } finally {
    await context.close();
    execFileSync('umount', [folder]);
  }
}

test('the disk is full: acts are refused in words, nothing that was said done is lost, and all mail is there', async ({
  baseURL,
}, info) => {
  await onFullDisk({ baseURL: String(baseURL), info, promised: true }, async ({ page, anew, free }) => {
    let unread: number = size;
    const said: string[] = [];
    for (let n = 0; n < 4; n++) {
      const key = unread ? 'r' : 'u';
      const words = await mark(page, key);
      said.push(words);
      if (/^Marked 1,500/.test(words)) unread = size - unread;
      else expect(words).toMatch(/disk is full.*nothing was changed/);
    }
    expect(said.some((words) => /disk is full/.test(words))).toBe(true);
    expect((await counts(page, 'Inbox')).unread).toBe(unread);
    await expect(page.getByRole('alert').filter({ hasText: 'The disk is full.' })).toContainText('What is here stays');

    // Opened again while the disk is still full, by this browser and by one started anew, again and again.
    await page.reload();
    await expect(rows(page).first()).toBeVisible();
    let now = page;
    for (let n = 0; n < restarts; n++) {
      now = await anew();
      await now.goto('/inbox');
      await expect(rows(now).first()).toBeVisible();
    }

    free();
    await now.goto('/inbox');
    await expect(rows(now).first()).toBeVisible();
    await expect.poll(() => counts(now, 'Inbox')).toEqual({ total: size, unread });
    await now.goto('/mail');
    const out = await downloaded(now, () => now.getByRole('button', { name: 'Save as one .mbox' }).click());
    expect(out.bytes.equals(Buffer.from(many))).toBe(true);
    await now.goto('/inbox');
    await expect(rows(now).first()).toBeVisible();
    expect(await mark(now, unread ? 'r' : 'u')).toMatch(/^Marked 1,500/);
  });
});

test('a browser that has not promised to keep it: said before it is closed, and what it threw away is no first run', async ({
  baseURL,
}, info) => {
  await onFullDisk({ baseURL: String(baseURL), info, promised: false }, async ({ page, anew }) => {
    expect(await mark(page, 'r')).toMatch(/disk is full/);
    await expect(page.getByRole('alert').filter({ hasText: 'The disk is full.' })).toContainText(
      'may throw all of it away',
    );
    const dropped = (on: Page) => on.getByRole('alert').filter({ hasText: /1,500 messages were here|has dropped all/ });
    for (let n = 0; n < restarts; n++) {
      const now = await anew();
      await now.goto('/inbox');
      await expect(rows(now).first().or(dropped(now)).first()).toBeVisible();
      if (await dropped(now).count()) break;
    }
  });
});
