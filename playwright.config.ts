import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './scripts/lib/chromium';

/** The site, its stand-ins and its database are started by scripts/test.ts, which passes on their addresses. */
export default defineConfig({
  testDir: 'tests/browser',
  workers: 1,
  retries: 0,
  timeout: 120_000,
  expect: { timeout: 20_000 },
  outputDir: `${process.env.NEST_TEST_FOLDER ?? '.data'}/browser-results`,
  use: {
    // A missing control is told soon, not when the whole test has timed out.
    actionTimeout: 30_000,
    baseURL: process.env.SITE_URL,
    locale: 'en-GB',
    viewport: { width: 1280, height: 800 },
    screenshot: 'only-on-failure',
    // Nothing moves: frames that nobody sees cost as much as those that someone does.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: CHROMIUM,
  },
});
