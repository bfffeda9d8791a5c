// What axe-core finds on a page (WCAG 2.2 AA and best practice).
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What axe finds against WCAG 2.2 AA on the page as it stands. */
export async function violations(page: Page): Promise<string[]> {
  await page.evaluate(axe);
  return page.evaluate(async () => {
    const { axe: run } = window as unknown as {
      axe: {
        run: (
          context: unknown,
          options: unknown,
        ) => Promise<{ violations: { id: string; nodes: { html: string; failureSummary?: string }[] }[] }>;
      };
    };
    const tags = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
    // A theme changes colours alone: in the dark one only what goes by them is looked at again.
    const dark = matchMedia('(prefers-color-scheme: dark)').matches;
    const only = dark
      ? { type: 'rule', values: ['color-contrast', 'link-in-text-block'] }
      : { type: 'tag', values: tags };
    const result = await run.run({ exclude: ['iframe'] }, { runOnly: only, iframes: false });
    return result.violations.map((v) => `${v.id}: ${v.nodes[0].html.slice(0, 160)} ${v.nodes[0].failureSummary ?? ''}`);
  });
}
