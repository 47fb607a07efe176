import { defineConfig } from '@playwright/test';
import { chromium } from './tests/e2e/chromium';

export default defineConfig({
  testDir: 'tests',
  testMatch: ['e2e/**/*.spec.ts', 'attack/**/*.spec.ts'],
  globalSetup: './tests/e2e/demo-template.ts',
  outputDir: 'test-results',
  fullyParallel: true,
  // One more than a small machine has cores: tests wait now and then.
  workers: 3,
  // Generous: a machine of two cores can stand still for a while, and a test that is right must not fail of it.
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: chromium,
    trace: 'off',
    locale: 'en-US',
    timezoneId: 'America/New_York',
    // What is pressed need not wait until it stands still.
    contextOptions: { reducedMotion: 'reduce' },
  },
});
