import { defineConfig } from '@playwright/test';

/** Real browser, real server, real database; today is fixed, so that the demo stands in late autumn. */
export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  outputDir: '../test-results',
  fullyParallel: false,
  workers: 2,
  retries: 0,
  // Generous: a slow machine is not a fault of Kauri's.
  timeout: 240_000,
  expect: { timeout: 30_000 },
  reporter: [['line'], ['json']],
  use: {
    // An act that cannot happen says so soon.
    actionTimeout: 15_000,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    // A page that is still is drawn less often.
    contextOptions: { reducedMotion: 'reduce' },
    // Keeping the whole application costs every page seconds; the tests of no network ask for it.
    serviceWorkers: 'block',
    // What was on the page when it failed is kept anyway; act by act costs every test, so only who looks for a fault asks for it.
    trace: {
      mode: process.env.KAURI_TRACE ? 'retain-on-failure' : 'off',
      snapshots: true,
      screenshots: false,
    },
    launchOptions: {
      executablePath: process.env.KAURI_CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-software-rasterizer',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // Most pages live for seconds: the slowest compiler costs them a quarter more than it gains, little memory as much.
        '--js-flags=--no-turbofan --always-sparkplug --max-lazy --min-semi-space-size=32',
      ],
    },
  },
});
