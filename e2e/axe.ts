// What axe-core finds on a page (WCAG 2.2 AA and best practice), in the light theme and in the dark one.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

const inLight = {
  type: 'tag',
  values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
};
/** A theme changes colours alone: in the dark one only what goes by them is looked at again. */
const inDark = { type: 'rule', values: ['color-contrast', 'link-in-text-block'] };

/** The pages whose line on the left was looked at. */
const lines = new WeakSet<Page>();

async function found(page: Page, runOnly: typeof inLight, lineSeen: boolean): Promise<string[]> {
  return page.evaluate(
    async ([only, seen]) => {
      const { axe: run } = window as unknown as {
        axe: {
          run: (
            context: unknown,
            options: unknown,
          ) => Promise<{ violations: { id: string; nodes: { html: string; failureSummary?: string }[] }[] }>;
        };
      };
      const result = await run.run(
        // The line on the left is the same on every page: it is looked at once, on the first that a page shows.
        { exclude: seen ? ['iframe', 'nav[aria-label="Sorting line and places"]'] : ['iframe'] },
        { runOnly: only, iframes: false, resultTypes: ['violations'], preload: false },
      );
      return result.violations.map(
        (v) => `${v.id}: ${v.nodes[0].html.slice(0, 160)} ${v.nodes[0].failureSummary ?? ''}`,
      );
    },
    [runOnly, lineSeen] as const,
  );
}

/**
 * What axe finds against WCAG 2.2 AA on the page as it stands, in both themes; it is light again then. `anew`: the line on
 * the left is looked at though it was before, since something is otherwise with it.
 */
export async function violations(page: Page, { anew = false } = {}): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) {
    await page.evaluate(axe);
    // Nothing is between two colours while it is looked at.
    await page.evaluate(() => {
      const still = new CSSStyleSheet();
      still.replaceSync('*, ::before, ::after { transition: none !important; animation: none !important }');
      document.adoptedStyleSheets.push(still);
    });
  }
  const lineSeen = lines.has(page) && !anew;
  if (await page.locator('nav[aria-label="Sorting line and places"]').count()) lines.add(page);
  const light = await found(page, inLight, lineSeen);
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.waitForFunction(() => document.documentElement.dataset.theme === 'night');
  const dark = await found(page, inDark, lineSeen);
  await page.emulateMedia({ colorScheme: 'light' });
  return [...light, ...dark.map((one) => `in the dark theme: ${one}`)];
}
