import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    // Both cores: left to itself one is kept for watching.
    maxWorkers: 2,
    projects: [
      {
        test: {
          name: 'unit',
          include: ['tests/{core,site,views}/**/*.test.ts'],
          setupFiles: ['tests/seed.ts'],
          // What is tested there keeps nothing to itself: so it is loaded once, not once a file, in a third of the time.
          isolate: false,
          testTimeout: 30_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts'],
          globalSetup: ['tests/server/start-server.ts'],
          testTimeout: 60_000,
          hookTimeout: 120_000,
          fileParallelism: false,
        },
      },
    ],
  },
})
