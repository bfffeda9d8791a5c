// From one test's mailbox to the next: everything is deleted, as a person does it in the application, which goes on.
import type { Page } from '@playwright/test';
import { emptyStorage } from './keptMailboxes';
import { isOwn } from './ownPage';

/**
 * Deletes everything in the application of a page that is open already; then it stands where a newcomer begins. False
 * where the page has no application, or one in which that can't be done; its storage is empty then, all the same.
 */
export async function startAfresh(page: Page): Promise<boolean> {
  if (!/^http/.test(page.url())) return false;
  // What was put before a page, or beside it, holds from its next loading on.
  if (isOwn(page)) {
    await emptyStorage(page);
    return false;
  }
  const done = await page.evaluate(async () => {
    const button = (words: string) =>
      [...document.querySelectorAll<HTMLElement>('button')].find(({ textContent }) => textContent.trim() === words);
    const patience = performance.now() + 5_000;
    const found = async (words: string) => {
      for (;;) {
        const one = button(words);
        if (one) return one;
        if (performance.now() > patience) throw new Error(`No button says “${words}”.`);
        await new Promise((resolve) => setTimeout(resolve, 10));
      }
    };
    if (!document.getElementById('root')?.childElementCount) return false;
    try {
      history.pushState({ idx: history.length, key: 'afresh' }, '', '/mail');
      dispatchEvent(new PopStateEvent('popstate', { state: history.state as unknown }));
      (await found('Delete everything …')).click();
      (await found('Delete for good')).click();
      await found('Start with my own mail');
      return true;
    } catch {
      return false;
    }
  });
  if (!done) await emptyStorage(page);
  return done;
}
