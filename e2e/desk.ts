// What a person does at the desk, in their words: shared by the browser tests.
import { readFile } from 'node:fs/promises';
import { expect, type BrowserContext, type Download, type Locator, type Page } from '@playwright/test';
import { restore } from './keptMailboxes';
import { startAfresh } from './afresh';

/** Begins with the demo mailbox as it stood when it was first opened (keptMailboxes.ts). */
export async function openDemo(page: Page): Promise<void> {
  await restore(page, 'demo');
  await page.goto('/inbox');
  await expect(page.getByRole('grid', { name: 'Inbox' })).toBeVisible();
  await expect.poll(() => total(page)).toBe(2_500);
}

/** Opens the demo mailbox as a newcomer does, and waits until all of it is here. */
export async function openDemoAnew(page: Page, count = 2_500): Promise<void> {
  await openNew(page);
  await page.getByRole('button', { name: 'Open the demo mailbox' }).click();
  await expect(page.getByRole('grid', { name: 'Inbox' })).toBeVisible();
  // The pictures are taken without a test's patience.
  await expect.poll(() => total(page), { timeout: 60_000 }).toBe(count);
  // The list has come as far as the counts.
  const inbox = (await counts(page, 'Inbox')).total;
  await expect(page.locator('header[aria-label="Desk"]')).toContainText(`${inbox} messages`);
}

/** Opens Wide Sort as a newcomer finds it. */
export async function openNew(page: Page): Promise<void> {
  if (!(await startAfresh(page))) await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Wide Sort', level: 1 })).toBeVisible();
}

/** Begins with an empty mailbox, on the page where mail is brought in. */
export async function openOwn(page: Page): Promise<void> {
  await openNew(page);
  await begin(page);
}

async function begin(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Start with my own mail' }).click();
  await expect(page.getByRole('heading', { name: 'Mail in and out' })).toBeVisible();
}

/** Goes to an address within the application, as its links do: nothing is loaded anew, what is under way goes on. */
export async function goTo(page: Page, address: string): Promise<void> {
  const fromSettings = new URL(page.url()).pathname === '/desk';
  await page.evaluate((to) => {
    history.pushState({ idx: history.length, key: to }, '', to);
    dispatchEvent(new PopStateEvent('popstate', { state: history.state as unknown }));
  }, address);
  // What is shown is a moment behind the address: the rows before it look like its own.
  const { pathname } = new URL(address, page.url());
  const here = page.locator(`nav[aria-label="Sorting line and places"] a[href="${pathname}"]`).first();
  if (await here.count()) await expect(here).toHaveAttribute('aria-current', 'page');
  // That page shows rows, too, until it is gone.
  if (fromSettings) await expect(page.getByRole('heading', { name: 'The desk', level: 1 })).toHaveCount(0);
}

/** The link of a place on the left. */
export function placeLink(page: Page, name: string): Locator {
  // By its title, since on a small screen the line is a drawer and mostly not in sight.
  return page.locator(`nav[aria-label="Sorting line and places"] a[title^="${name}: "][title*=" in all, "]`);
}

/** What the link of a place says: how many in all, how many unread. */
export async function counts(page: Page, name: string): Promise<{ total: number; unread: number }> {
  // Read at once, without waiting for the link: whoever waits for a number asks again.
  const titles = await placeLink(page, name).evaluateAll((links) =>
    links.map((link) => link.getAttribute('title') ?? ''),
  );
  const [, all, unread] = /: ([\d,]+) in all, ([\d,]+) unread/.exec(titles[0] ?? '') ?? [null, '0', '0'];
  const number = (text: string) => Number(text.replace(/,/g, ''));
  return { total: number(all), unread: number(unread) };
}

/** Messages in all places and folders of the demo. */
export async function total(page: Page): Promise<number> {
  const titles = await page
    .locator('nav a[title*=" in all, "]')
    .evaluateAll((links) => links.map((link) => link.getAttribute('title') ?? ''));
  return titles.reduce((n, title) => n + Number((/: ([\d,]+) in all/.exec(title)?.[1] ?? '0').replace(/,/g, '')), 0);
}

/** Brings files in through the picker and waits for what it came to. */
export async function bringIn(
  page: Page,
  files: Parameters<Locator['setInputFiles']>[0],
  timeout = 60_000,
): Promise<string> {
  await page.getByTestId('mail-files').setInputFiles(files);
  const strip = page.getByRole('region', { name: 'Import' });
  await expect(strip.getByRole('button', { name: 'Put away' })).toBeVisible({ timeout });
  const said = (await strip.getByRole('status').innerText()).trim();
  await strip.getByRole('button', { name: 'Put away' }).click();
  return said;
}

/** The bytes of a download that an act begins. */
export async function downloaded(
  page: Page,
  act: () => Promise<void>,
  timeout = 60_000,
): Promise<{ name: string; bytes: Buffer }> {
  const waiting: Promise<Download> = page.waitForEvent('download', { timeout });
  await act();
  const download = await waiting;
  return { name: download.suggestedFilename(), bytes: await readFile(await download.path()) };
}

/** The rows in sight. */
export const rows = (page: Page): Locator => page.getByRole('grid').getByRole('row');

/** Scrolls down the rows until one with that text is in sight. */
export async function findRow(page: Page, text: string): Promise<Locator> {
  const row = rows(page).filter({ hasText: text }).first();
  const grid = page.getByRole('grid');
  for (let at = 0; !(await row.isVisible()); at += 400) {
    await grid.evaluate((element, top) => element.scrollTo({ top }), at);
    await expect(
      rows(page)
        .filter({ hasNot: page.getByLabel('Loading') })
        .first(),
    ).toBeVisible();
    if (at > 100_000) throw new Error(`No row says “${text}”.`);
  }
  return row;
}

/** A file of mail for the picker. */
export const mailFile = (name: string, content: string | Buffer) => ({
  name,
  mimeType: 'application/octet-stream',
  buffer: Buffer.from(content),
});

/** A message as it comes in by itself; what is not given is made up. */
export interface Mail {
  id: string;
  from?: string;
  to?: string;
  subject?: string;
  /** Message-IDs that it answers, oldest first. */
  answers?: string[];
  /** ISO 8601, in UTC. */
  date?: string;
  text?: string;
  extra?: string;
}

/** An .mbox of messages. Dated one minute after another unless they say otherwise. */
export function mbox(list: Mail[]): string {
  return list
    .map(({ id, from, to, subject, answers = [], date, text, extra = '' }, n) => {
      const time = new Date(date ?? Date.UTC(2026, 10, 20, 9, n)).toUTCString().replace('GMT', '+0000');
      const references = answers.length ? `References: ${answers.map((a) => `<${a}>`).join(' ')}\n` : '';
      const body = (text ?? `Text of ${id}`).replace(/^(>*From )/gm, '>$1');
      return (
        `From x@x.test Fri Nov 20 09:00:00 2026\nFrom: ${from ?? 'Ann <ann@x.test>'}\nTo: ${to ?? 'me@y.test'}\n` +
        `Subject: ${subject ?? `Message ${id}`}\nMessage-ID: <${id}>\nDate: ${time}\n${references}${extra}\n${body}\n\n`
      );
    })
    .join('');
}

/** Makes the account me@y.test. */
export async function setAccount(page: Page): Promise<void> {
  await goTo(page, '/accounts');
  await page.getByRole('button', { name: 'Add an account' }).click();
  await page.getByLabel('Name, as others see it').fill('Me');
  await page.getByLabel('Address').fill('me@y.test');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Set the account me@y.test.')).toBeVisible();
}

/** Begins with a mailbox of one's own that holds some mail, as the account me@y.test. */
export async function openWith(page: Page, list: Mail[]): Promise<void> {
  if (await startAfresh(page)) {
    await begin(page);
    await setAccount(page);
    await goTo(page, '/mail');
  } else {
    await restore(page, 'own');
    await page.goto('/mail');
  }
  await bringIn(page, mailFile('mail.mbox', mbox(list)));
  await goTo(page, '/inbox');
  await expect(rows(page).first()).toBeVisible();
}

/** The open row. */
export const openRow = (page: Page): Locator => page.locator('[role="row"][aria-current="true"]');

/** Moves the clock of the page and of its mailroom forward, from the next load on. In milliseconds. */
export async function moveClock(page: Page, by: number): Promise<void> {
  const later = `{ const real = Date.now; Date.now = () => real() + ${by}; }\n`;
  await page.addInitScript(later);
  await page.context().route(/mailroom\.worker-[^/]*\.js$/, async (route) => {
    const response = await route.fetch();
    await route.fulfill({ response, body: later + (await response.text()) });
  });
}

/** Undo of what was done here last, at the end of the desk’s bar. */
export const undoButton = (page: Page): Locator => page.locator('button[aria-keyshortcuts="Control+Z"]');

/** The mouse takes a row somewhere, as a hand does: not in one jump. */
export async function dragRow(page: Page, from: Locator, to: Locator): Promise<void> {
  await to.scrollIntoViewIfNeeded();
  // It waits until nothing moves any more: rows may just have come.
  await from.hover({ position: { x: 120, y: 30 } });
  const a = await from.boundingBox();
  await page.mouse.down();
  await page.mouse.move((a?.x ?? 0) + 100, (a?.y ?? 0) + 34, { steps: 3 });
  const target = to.locator('xpath=ancestor::li[1]');
  let n = 0;
  // A hand moves on until it sees that it is there: what is under it is told only where it moves.
  await expect
    .poll(
      async () => {
        const b = await to.boundingBox();
        await page.mouse.move((b?.x ?? 0) + 40 + (n++ % 3), (b?.y ?? 0) + 12, { steps: 3 });
        return target.getAttribute('class');
      },
      { intervals: [50] },
    )
    .toContain('drop-here');
  // What one holds it over does not slide away from under it, however long one thinks.
  const before = await to.boundingBox();
  await page.waitForTimeout(400);
  expect(await to.boundingBox()).toEqual(before);
  await page.mouse.up();
}

/** Kills a page: its process, worker and all. */
export async function crash(context: BrowserContext, page: Page): Promise<void> {
  const session = await context.newCDPSession(page);
  const crashed = page.waitForEvent('crash');
  // The answer never comes: the process that would give it is gone.
  void session.send('Page.crash').catch(() => undefined);
  await crashed;
  await page.close();
}
