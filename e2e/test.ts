// The browser tests' `test`: Playwright's, with one page for all tests of a worker. Each begins in a mailbox of its own
// (desk.ts), but the application is not loaded anew for it, as it is not for a person: loading it was two thirds of what
// the tests took. It also tells what each test took of the processors (timesReporter.ts).
import { test as base, type BrowserContext, type Page } from '@playwright/test';
import { pagesNote, timeNote } from './notes';
import { isOwn, keepNoMore } from './ownPage';
import { processTime } from './processTime';

export * from '@playwright/test';

/** The page of this worker. */
let kept: { page: Page; context: BrowserContext } | null = null;

/** Notes that a page is for this test alone, once one of these is called: nothing takes them back. */
function watchFor(target: object, names: readonly string[]): void {
  const methods = target as Record<string, (...args: unknown[]) => unknown>;
  for (const name of names) {
    const method = methods[name].bind(target);
    methods[name] = (...args) => {
      if (kept) keepNoMore(kept.page);
      return method(...args);
    };
  }
}

const once = ['addInitScript', 'on', 'route', 'exposeFunction'];

async function giveUp(): Promise<void> {
  const { context } = kept ?? {};
  kept = null;
  await context?.close();
}

let before = processTime();

/** The pages that a test was on. */
const seen = new Set<string>();

export const test = base.extend<{ timed: undefined }>({
  context: async ({ browser, viewport }, use) => {
    if (!kept) {
      const context = await browser.newContext();
      const page = await context.newPage();
      page.on('framenavigated', (frame) => {
        if (frame === page.mainFrame()) seen.add(/^https?:\/\/[^/]+(\/[^/?]*)/.exec(frame.url())?.[1] ?? '');
      });
      watchFor(page, once);
      watchFor(context, [...once, 'newCDPSession', 'setOffline', 'grantPermissions']);
      kept = { page, context };
    }
    const { page, context } = kept;
    await use(context);
    if (isOwn(page) || page.isClosed()) return giveUp();
    for (const other of context.pages()) if (other !== page) await other.close();
    // As a test finds it, whatever the last one set.
    await page.emulateMedia({ media: null, colorScheme: null, reducedMotion: 'reduce' });
    if (viewport) await page.setViewportSize(viewport);
  },
  page: async ({ context }, use) => {
    await use(kept && kept.context === context ? kept.page : await context.newPage());
  },
  timed: [
    async ({}, use, info) => {
      await use(undefined);
      const now = processTime();
      info.annotations.push({ type: timeNote, description: (now - before).toFixed(2) });
      before = now;
      info.annotations.push({ type: pagesNote, description: [...seen].join(' ') });
      seen.clear();
    },
    { auto: true },
  ],
});
