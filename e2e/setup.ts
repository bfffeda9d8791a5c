// Before all tests: the demo is opened once, and what it stored is kept for them (demoMailbox.ts).
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, expect, type FullConfig } from '@playwright/test';
import { storedMailbox } from './demoMailbox';
import { openDemoAnew } from './desk';

/** Opens the demo and keeps what it stored; what comes back takes it away after the tests. */
export default async function keepDemo(config: FullConfig): Promise<() => void> {
  const { baseURL, launchOptions } = config.projects[0].use;
  const browser = await chromium.launch(launchOptions);
  const page = await browser.newPage({ baseURL });
  // A tray is delivered minutes after the demo was opened: in the midst of some test. trays.spec.ts has them.
  await page.route('**/api/demo/setup', async (route) => {
    const response = await route.fetch();
    const setup = (await response.json()) as { rules: { id: string }[] };
    const rules = setup.rules.map((rule) => (rule.id === 'bulletins' ? { ...rule, unless: null } : rule));
    await route.fulfill({ response, json: { ...setup, trays: [], rules } });
  });
  await openDemoAnew(page);
  // What can be made anew is stored some seconds behind: all of it is there once two looks find the same.
  let kept = '';
  await expect
    .poll(
      async () => {
        const before = kept;
        kept = await storedMailbox(page);
        return kept.includes('"junk"') && kept.includes('"derived/00000"') && kept === before;
      },
      { intervals: [2_500], timeout: 60_000 },
    )
    .toBe(true);
  await browser.close();
  const folder = mkdtempSync(path.join(tmpdir(), 'wide-sort-demo-'));
  process.env.DEMO_STORED = path.join(folder, 'mailbox.json');
  writeFileSync(process.env.DEMO_STORED, kept);
  return () => rmSync(folder, { recursive: true });
}
