import { existsSync } from 'node:fs';
import { defineConfig, type LaunchOptions } from '@playwright/test';

const port = 4190;

/** How Debian’s Chromium is started: its shell without a window, where it is installed, takes a fifth less time. */
export function chromiumLaunch(which: 'chromium' | 'shell'): LaunchOptions {
  const whole = process.env.CHROMIUM ?? '/usr/bin/chromium';
  const shell = '/usr/bin/chromium-headless-shell';
  return {
    executablePath: which === 'shell' && existsSync(shell) ? shell : whole,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  };
}

// Playwright is held at 1.58: from 1.61 on each asking of an `expect` that finds nothing yet writes down the whole page for
// people to read, and the tests here took an eighth more of the processors by it.

/** The real application with its real server, in Debian's Chromium: built first, so that never an older build is tested. */
export default defineConfig({
  testDir: 'e2e',
  projects: [
    { name: 'before', testMatch: 'kept.setup.ts' },
    { name: 'browser', dependencies: ['before'] },
  ],
  // A browser keeps more than one processor busy: the page, its mailroom, what paints. More at once took longer in all.
  workers: 2,
  fullyParallel: true,
  // Other work on the same machine may make it several times slower: what is right then must pass then, too.
  timeout: 240_000,
  // What needs a second try is broken.
  retries: 0,
  expect: { timeout: 40_000 },
  reporter: [['list'], ['./e2e/timesReporter.ts']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // Nothing moves into its place while a test waits: the look of a page at rest is what is tested.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: chromiumLaunch('shell'),
  },
  webServer: {
    command: 'vite build --logLevel warn && node --import tsx e2e/server.ts',
    url: `http://127.0.0.1:${port}/`,
    env: { PORT: String(port) },
    timeout: 300_000,
    reuseExistingServer: false,
  },
});
