import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

const port = 4190;
const chromium =
  process.env.CHROMIUM ?? ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync) ?? 'chromium';

/** The real built application with its real server, in Debian's Chromium. `npm test` builds before it calls this. */
export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/setup.ts',
  workers: 4,
  fullyParallel: true,
  timeout: 60_000,
  // What needs a second try is broken.
  retries: 0,
  expect: { timeout: 15_000 },
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    launchOptions: {
      executablePath: chromium,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: 'node --import tsx server/main.ts',
    url: `http://127.0.0.1:${port}/`,
    env: { PORT: String(port), DEMO_RATE: '0' },
    reuseExistingServer: false,
  },
});
