import { defineConfig } from '@playwright/test';
import launch from './chromium.json' with { type: 'json' };

export default defineConfig({
  testDir: 'tests',
  globalSetup: './tests/make-demo.ts',
  timeout: 90_000,
  expect: { timeout: 10_000 },
  // Each has a server of its own; a file stays with one of them.
  workers: 2,
  // A neighbour on the machine can hold a page up beyond any wait; what passes at the second try is told as such.
  retries: 1,
  forbidOnly: !!process.env['CI'],
  outputDir: '.work/results',
  reporter: [['line'], ['json', { outputFile: '../artifacts/playwright.json' }]],
  use: {
    actionTimeout: 20_000,
    locale: 'en-GB',
    timezoneId: 'Europe/Lisbon',
    contextOptions: { reducedMotion: 'reduce' },
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      ...launch,
      executablePath: process.env['CHROMIUM'] ?? launch.executablePath,
    },
  },
});
