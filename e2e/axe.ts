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

async function found(page: Page, runOnly: typeof inLight): Promise<string[]> {
  return page.evaluate(async (only) => {
    const { axe: run } = window as unknown as {
      axe: {
        run: (
          context: unknown,
          options: unknown,
        ) => Promise<{ violations: { id: string; nodes: { html: string; failureSummary?: string }[] }[] }>;
      };
    };
    const result = await run.run(
      { exclude: ['iframe'] },
      { runOnly: only, iframes: false, resultTypes: ['violations'] },
    );
    return result.violations.map((v) => `${v.id}: ${v.nodes[0].html.slice(0, 160)} ${v.nodes[0].failureSummary ?? ''}`);
  }, runOnly);
}

/** What axe finds against WCAG 2.2 AA on the page as it stands, in both themes; it is light again then. */
export async function violations(page: Page): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) {
    await page.evaluate(axe);
    // Nothing is between two colours while it is looked at.
    await page.evaluate(() => {
      const still = new CSSStyleSheet();
      still.replaceSync('*, ::before, ::after { transition: none !important; animation: none !important }');
      document.adoptedStyleSheets.push(still);
    });
  }
  const light = await found(page, inLight);
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.waitForFunction(() => document.documentElement.dataset.theme === 'night');
  const dark = await found(page, inDark);
  await page.emulateMedia({ colorScheme: 'light' });
  return [...light, ...dark.map((one) => `in the dark theme: ${one}`)];
}
