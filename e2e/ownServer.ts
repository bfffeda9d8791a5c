// A server of a test's own, with a small demo: what arrives and what is sent there comes to no other test's mailbox.
import type { Browser, Page } from '@playwright/test';
import { buildApp } from '../server/app';
import { openDemoAnew } from './desk';

/** A page on such a server, with its demo open; all of it ends with the test that asked. */
export async function openOwnDemo(browser: Browser, count = 200): Promise<{ page: Page; close: () => Promise<void> }> {
  const { baseURL, close } = await ownServer(count);
  const context = await browser.newContext({ baseURL });
  const page = await context.newPage();
  await openDemoAnew(page, count);
  return {
    page,
    close: async () => {
      await context.close();
      await close();
    },
  };
}

/** Serves the built application on a free port of this machine. `count` is of the demo's messages. */
export async function ownServer(count = 200): Promise<{ baseURL: string; close: () => Promise<void> }> {
  const app = await buildApp({ dist: 'dist', count, seed: 7, perMinute: 0, now: Date.now });
  const baseURL = await app.listen({ host: '127.0.0.1', port: 0 });
  return { baseURL, close: () => app.close() };
}
