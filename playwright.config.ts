import { defineConfig } from '@playwright/test';

const port = Number(process.env.E2E_PORT ?? 4400);

export default defineConfig({
  testDir: 'e2e',
  // Pictures are drawn by the processor on machines without a graphics card, and machines may be busy: time is generous.
  timeout: 180_000,
  expect: { timeout: 30_000 },
  workers: 2,
  fullyParallel: true,
  // A test that passes only when it is tried again has failed.
  retries: 0,
  outputDir: 'test-results/e2e',
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  use: {
    baseURL: `http://localhost:${port}`,
    // Pictures are drafts, as a person may choose; tests that are about the picture choose otherwise.
    storageState: {
      cookies: [],
      origins: [
        {
          origin: `http://localhost:${port}`,
          localStorage: [
            { name: 'uvrex-quality', value: 'draft' },
            // Frames are made as they are shown; tests that are about all of them choose otherwise.
            { name: 'uvrex-ahead', value: 'no' },
            // Who has been here before is not greeted.
            { name: 'uvrex-greeted', value: 'yes' },
          ],
        },
      ],
    },
    viewport: { width: 1280, height: 800 },
    // A quarter of the pixels: the processor draws them all, of two tests at a time.
    deviceScaleFactor: 0.5,
    // What opens need not be waited for.
    contextOptions: { reducedMotion: 'reduce' },
    actionTimeout: 30_000,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // In a test of half a minute the last tier of the compiler takes longer than what it saves (measured: a sixth of the whole).
        '--js-flags=--no-turbofan --min-semi-space-size=64',
      ],
    },
  },
  webServer: {
    command: `npx next start -p ${port}`,
    cwd: 'apps/studio',
    url: `http://localhost:${port}`,
    timeout: 60_000,
    reuseExistingServer: false,
    env: { NEXT_TELEMETRY_DISABLED: '1' },
  },
});
