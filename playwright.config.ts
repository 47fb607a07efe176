import { defineConfig } from '@playwright/test';
import { chromium } from './tests/e2e/chromium';

// A worker keeps its browser's context, emptied, for its next test: what was loaded once need not be loaded again.
process.env.PW_TEST_REUSE_CONTEXT ??= '1';

export default defineConfig({
  testDir: 'tests',
  testMatch: ['e2e/**/*.spec.ts', 'attack/**/*.spec.ts'],
  globalSetup: './tests/e2e/demo-template.ts',
  outputDir: 'test-results',
  fullyParallel: true,
  // As many as a small machine has cores: each test keeps one busy.
  workers: 2,
  // Generous: a machine of two cores can stand still for a while, and a test that is right must not fail of it.
  timeout: 120_000,
  // What fails is tried once more, and named as flaky in the report: a machine that stood still is no fault of the program.
  retries: 1,
  expect: { timeout: 20_000 },
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: chromium,
    trace: 'off',
    // What is kept for a day without network has tests of its own; all others ask the server.
    serviceWorkers: 'block',
    locale: 'en-US',
    timezoneId: 'America/New_York',
    // What is pressed need not wait until it stands still.
    contextOptions: { reducedMotion: 'reduce' },
  },
});
