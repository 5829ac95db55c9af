import { defineConfig } from '@playwright/test';
import chromiumArgs from './scripts/chromium.json';

const json = process.env.E2E_JSON;

/** Run through scripts/e2e.mjs, which starts a fresh Millrace and says where it is. */
export default defineConfig({
  testDir: 'e2e',
  timeout: 120_000,
  expect: { timeout: 15_000 },
  workers: 1,
  fullyParallel: false,
  reporter: json ? [['list'], ['json', { outputFile: json }]] : [['list']],
  outputDir: '.local/playwright',
  use: {
    baseURL: process.env.E2E_URL,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/London',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: chromiumArgs,
    },
  },
});
