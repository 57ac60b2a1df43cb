import { defineConfig } from '@playwright/test';

/** Takes the pictures of docs/screenshots from a running demo: npm run demo, then npm run pictures. */
export default defineConfig({
  testDir: '.',
  workers: 1,
  timeout: 120_000,
  outputDir: '../../test-results/pictures',
  use: {
    baseURL: `http://localhost:${process.env.PORT ?? '3210'}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-dev-shm-usage'] },
  },
});
