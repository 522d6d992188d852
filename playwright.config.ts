import { defineConfig } from '@playwright/test'
import { CHROMIUM_LAUNCH } from './scripts/setup/chromium.mjs'

const port = 4185

export default defineConfig({
  testDir: 'e2e',
  // Two of two cores: a story waits for the network and its own clock for a third of its time.
  workers: 2,
  // Only what fails waits so long: a machine that others use as well can stand still for seconds.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  reporter: process.env.FOLVET_REPORT ? [['list'], ['json', { outputFile: process.env.FOLVET_REPORT }]] : 'list',
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    actionTimeout: 20_000,
    // What pages ask for is watched and answered for them: e2e/offline alone has what stands in between.
    serviceWorkers: 'block',
    screenshot: 'only-on-failure',
    // To trace each step of each story takes a fifth of the time of all.
    trace: process.env.FOLVET_TRACE ? 'retain-on-failure' : 'off',
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions: CHROMIUM_LAUNCH,
  },
  webServer: {
    command: 'node scripts/serve-for-tests.mjs',
    env: { PORT: String(port) },
    url: `http://127.0.0.1:${port}/healthz`,
    timeout: 180_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 15_000 },
  },
})
