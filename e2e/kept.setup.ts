// Before all tests: the demo is opened once, and a mailbox of one’s own begun, and what they stored is kept
// (keptMailboxes.ts). Both are tests of their own, so that they have the time and the trace that all tests have.
import { expect, test as setup, type Page } from './test';
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
      { intervals: [2_500], timeout: 120_000 },
    )
    .toBe(true);
  const put = await page.request.put(keptPath + name, { data: kept });
  expect(put.ok()).toBe(true);
}

setup('the demo mailbox is kept', async ({ page }) => {
  // A tray is delivered minutes after the demo was opened: in the midst of some test. trays.spec.ts has them.
  await page.route('**/api/demo/setup', async (route) => {
    const response = await route.fetch();
    const setup = (await response.json()) as { rules: { id: string }[] };
    const rules = setup.rules.map((rule) => (rule.id === 'bulletins' ? { ...rule, unless: null } : rule));
    await route.fulfill({ response, json: { ...setup, trays: [], rules } });
  });
  await openDemoAnew(page);
  await keep(page, 'demo', (stored) => stored.includes('"junk"') && stored.includes('"derived/00000"'));
});

setup('a mailbox of one’s own is kept', async ({ page }) => {
  await openOwn(page);
  await setAccount(page);
  await keep(page, 'own', (stored) => stored.includes('"meta"'));
});
