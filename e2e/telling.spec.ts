// Being told of new mail, in the whole Chromium: the shell of it that has no window knows no notifications.
import { expect, test } from './test';
import { chromiumLaunch } from '../playwright.config';
import { ownServer } from './ownServer';
import { counts, goTo, openDemoAnew } from './desk';

test.use({ launchOptions: chromiumLaunch('chromium') });

for (const granted of [true, false])
  test(`A5: banner and sound are off, and limited to what was chosen; permission ${granted ? 'granted' : 'refused'}`, async ({
    browser,
  }) => {
    const { baseURL, close } = await ownServer();
    const context = await browser.newContext({ baseURL, permissions: granted ? ['notifications'] : [] });
    const page = await context.newPage();
    await page.addInitScript(() => {
      const seen: string[] = [];
      const Real = window.Notification;
      class Seen extends Real {
        constructor(title: string, options?: NotificationOptions) {
          super(title, options);
          seen.push(`${title}: ${options?.body ?? ''}`);
        }
      }
      const tones = { count: 0 };
      const start = OscillatorNode.prototype.start;
      OscillatorNode.prototype.start = function (when) {
        tones.count++;
        return start.call(this, when);
      };
      Object.assign(window, { Notification: Seen, seen, tones });
    });
    await openDemoAnew(page, 200);
    await goTo(page, '/telling');
    await expect(page.getByLabel('A banner')).not.toBeChecked();
    await expect(page.getByLabel('A sound')).not.toBeChecked();
    await expect(page.getByText('nothing is chosen')).toBeVisible();
    await page.getByLabel('Address or domain').fill('skerryline.example');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.getByText(/^You would have been told/)).toBeVisible();
    await page.getByLabel('A banner').click();
    if (!granted) {
      await expect(page.getByRole('alert')).toContainText('does not let Wide Sort show banners');
      await expect(page.getByLabel('A banner')).not.toBeChecked();
    }
    await page.getByLabel('A sound').click();
    const value = (name: string) => page.evaluate(`window.${name}`) as Promise<unknown>;
    const tones = async () => (await value('tones')) as { count: number };
    const before = (await tones()).count;
    const total = async () => (await counts(page, 'Inbox')).total;
    const here = await total();
    await page.evaluate(() =>
      fetch('/api/demo/rate', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ perMinute: 60, paused: false }),
      }),
    );
    await expect
      .poll(
        async () => {
          await page.getByRole('button', { name: 'Check now' }).click();
          return (await tones()).count;
        },
        { timeout: 100_000, intervals: [1_500] },
      )
      .toBeGreaterThan(before);
    const seen = (await value('seen')) as string[];
    expect(seen.length > 0).toBe(granted);
    // Not every arrival is told of: the others only changed the counts.
    expect(await total()).toBeGreaterThan(here);
    await context.close();
    await close();
  });
