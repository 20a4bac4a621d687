import { defineConfig } from '@playwright/test'
import { hasPostgres } from './tests/postgres.ts'

/** What is said of the interface holds wherever the data is. */
const ON_A_SERVER = /contract\.spec\.ts/

export default defineConfig({
  testDir: 'tests/e2e',
  workers: 1,
  retries: 0,
  // A machine that is busy with others stalls for seconds; what is right is waited for, and no speed is told by it.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  projects: [
    { name: 'in a directory' },
    ...(hasPostgres ? [{ name: 'on a server', testMatch: ON_A_SERVER, metadata: { onServer: true } }] : []),
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
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
})
