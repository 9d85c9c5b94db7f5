import { defineConfig } from '@playwright/test'

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.mjs',
  // One server and one database for all: the tests make calendars of their own. The one that stops the database comes last, alone.
  workers: 2,
  projects: [
    // A filter of the command line would not hold for what another project depends on.
    { name: 'journeys', testIgnore: 'away.spec.mjs', grepInvert: process.env.VALTRO_E2E_WITHOUT_DAYS ? /@days/ : undefined },
    { name: 'away', testMatch: 'away.spec.mjs', dependencies: ['journeys'] },
  ],
  // Bounds for what hangs, not for what is slow: the same journeys took ten times as long on a machine that did other things beside.
  timeout: 60_000,
  expect: { timeout: 12_000 },
  reporter: [['list']],
  outputDir: '../../.valtro/e2e-results',
  use: {
    baseURL: process.env.VALTRO_E2E_URL,
    locale: 'en-GB',
    viewport: { width: 1280, height: 800 },
    // Nothing is waited for but what is done.
    contextOptions: { reducedMotion: 'reduce' },
    // Pages that are kept are tried where that is meant: elsewhere nothing stands between a page and the server.
    serviceWorkers: 'block',
    permissions: ['clipboard-read', 'clipboard-write'],
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // Pages live for seconds here: a compiler that makes them faster for hours, and a drawn graphics card, cost a sixth of the time.
        '--disable-gpu',
        '--js-flags=--no-opt',
      ],
    },
  },
})
