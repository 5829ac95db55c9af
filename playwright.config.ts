import fs from 'node:fs';
import { defineConfig } from '@playwright/test';

const json = process.env.E2E_JSON;
// Read, not imported: Node 20 and later ones do not agree on how a JSON module is imported.
const chromiumArgs = JSON.parse(fs.readFileSync('scripts/chromium.json', 'utf8')) as string[];

/** Run through scripts/e2e.mjs, which starts a fresh Millrace and says where it is. */
export default defineConfig({
  testDir: 'e2e',
  timeout: 180_000,
  expect: { timeout: 30_000 },
  workers: 1,
  fullyParallel: false,
  reporter: json ? [['list'], ['json', { outputFile: json }]] : [['list']],
  outputDir: process.env.E2E_OUTPUT ?? '.local/playwright/0',
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
