import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

const port = 4190;
const chromium =
  process.env.CHROMIUM ?? ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find(existsSync) ?? 'chromium';

/** The real built application with its real server, in Debian's Chromium. `npm test` builds before it calls this. */
export default defineConfig({
  testDir: 'e2e',
  workers: 2,
  fullyParallel: true,
  timeout: 60_000,
  // The killing of pages beside them keeps the machine busy: a test that needs its second try is told as flaky.
  retries: 1,
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
