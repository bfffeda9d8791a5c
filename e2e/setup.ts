// Before all tests: the demo is opened once, and a mailbox of one’s own begun, and what they stored is kept
// (keptMailboxes.ts).
import { chromium, expect, type FullConfig, type Page } from '@playwright/test';
import { keptPath, storedMailbox, type KeptMailbox } from './keptMailboxes';
import { openDemoAnew, openOwn, setAccount } from './desk';

/** Keeps what a page has stored, once all that is written behind is written: two looks find the same. */
async function keep(page: Page, name: KeptMailbox, whole: (stored: Buffer) => boolean): Promise<void> {
  let kept = Buffer.alloc(0);
  await expect
    .poll(
      async () => {
        const before = kept;
        kept = await storedMailbox(page);
        return whole(kept) && kept.equals(before);
      },
      { intervals: [2_500], timeout: 60_000 },
    )
    .toBe(true);
  const put = await page.request.put(keptPath + name, { data: kept });
  expect(put.ok()).toBe(true);
}

async function openTheDemo(page: Page): Promise<void> {
  // A tray is delivered minutes after the demo was opened: in the midst of some test. trays.spec.ts has them.
  await page.route('**/api/demo/setup', async (route) => {
    const response = await route.fetch();
    const setup = (await response.json()) as { rules: { id: string }[] };
    const rules = setup.rules.map((rule) => (rule.id === 'bulletins' ? { ...rule, unless: null } : rule));
    await route.fulfill({ response, json: { ...setup, trays: [], rules } });
  });
  await openDemoAnew(page);
  await keep(page, 'demo', (stored) => stored.includes('"junk"') && stored.includes('"derived/00000"'));
}

async function beginOwn(page: Page): Promise<void> {
  await openOwn(page);
  await setAccount(page);
  await keep(page, 'own', (stored) => stored.includes('"meta"'));
}

/** Opens both and keeps what they stored. */
export default async function keepMailboxes(config: FullConfig): Promise<void> {
  const { baseURL, launchOptions } = config.projects[0].use;
  const browser = await chromium.launch(launchOptions);
  const pages = await Promise.all([1, 2].map(() => browser.newPage({ baseURL })));
  await Promise.all([openTheDemo(pages[0]), beginOwn(pages[1])]);
  await browser.close();
}
