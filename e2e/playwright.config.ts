import { defineConfig } from '@playwright/test';

const port = Number(process.env.E2E_PORT ?? 4601);

export default defineConfig({
  testDir: '.',
  testMatch: '*.e2e.ts',
  timeout: 240_000,
  expect: { timeout: 10_000 },
  // two cores; walks of one file follow each other and share nothing with those of another
  workers: 2,
  fullyParallel: false,
  forbidOnly: !!process.env.CI,
  // a crowded machine may miss a moment once, and the list then says flaky; what fails twice is broken
  retries: 1,
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    // each context would fetch all pages for later; the walk of the phone lets it
    serviceWorkers: 'block',
    // a toast half faded in has the contrast of half a toast
    contextOptions: { reducedMotion: 'reduce' },
    // pictures of every step cost a third of the time; asked for when a failure is looked into
    trace: process.env.E2E_TRACE ? 'retain-on-failure' : 'off',
    actionTimeout: 15_000,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--headless',
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
  // the demo is looked at before anybody writes into it; what is measured in time runs when nothing else does
  projects: [
    { name: 'demo', grep: /@demo/ },
    { name: 'walks', grepInvert: /@alone|@demo|@single/, dependencies: ['demo'] },
    // all stand-ins are on one bench, and a restored backup is of all stations: these must be the only ones
    { name: 'single', grep: /@single/, dependencies: ['walks'] },
    { name: 'alone', grep: /@alone/, dependencies: ['single'] },
  ],
  webServer: {
    command: `rm -rf e2e/test-results/data e2e/test-results/decodes && mkdir -p e2e/test-results/decodes && node packages/server/dist/main.js --port ${port} --data e2e/test-results/data --decodes e2e/test-results/decodes --instrument analyser=127.0.0.1:${port + 40}`,
    cwd: '..',
    url: `http://127.0.0.1:${port}/api/health`,
    timeout: 20_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 3000 },
  },
});
