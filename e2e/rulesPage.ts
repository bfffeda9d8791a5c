// The page of the rules, and dragging on it, for the browser tests.
import { expect, type Locator, type Page } from '@playwright/test';

/** The rules on their page, in their order. */
export const list = (page: Page) => page.getByRole('list', { name: 'Rules in their order' }).locator(':scope > li');

/** Drags from where something stands to the middle, or the top, of something else. */
export async function drag(
  page: Page,
  what: Locator,
  onto: Locator,
  where: 'middle' | 'top' = 'middle',
): Promise<void> {
  // It waits until nothing moves any more: the page may just have been made larger.
  await what.hover();
  const [from, to] = [await what.boundingBox(), await onto.boundingBox()];
  if (!from || !to) throw new Error('What is to be dragged is not in sight.');
  const x = from.x + from.width / 2;
  await page.mouse.down();
  await page.mouse.move(x, from.y + from.height / 2 + 8, { steps: 4 });
  // It is held once that is said: what is let go before stays where it was.
  await expect(page.locator('[id^="DndLiveRegion"]').filter({ hasText: /draggable item/i })).toHaveCount(1);
  await page.mouse.move(x, to.y + (where === 'top' ? 4 : to.height / 2), { steps: 20 });
  await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))));
  await page.mouse.up();
}
