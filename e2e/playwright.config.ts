import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  testMatch: '**/*.spec.ts',
  globalSetup: './lib/run-setup.ts',
  outputDir: '../test-results',
  workers: 2,
  fullyParallel: true,
  retries: 0,
  // A machine that is shared is slow at times: what comes late has come.
  timeout: 120_000,
  expect: { timeout: 30_000 },
  reporter: [
    ['list'],
    ['json', { outputFile: process.env.VELARIUM_E2E_REPORT ?? '../test-results/e2e.json' }],
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        // A page lives for seconds: to make its code fast takes longer than it saves, but where it replays traffic.
        '--js-flags=--no-turbofan --invocation-count-for-maglev=2000 --min-semi-space-size=32',
        // The focus that is feigned for tests can be taken by a page behind the stage that comes at the moment of a press, where
        // that page has a process of its own.
        '--disable-site-isolation-trials',
        '--log-level=3',
        '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost',
      ],
    },
  },
});
