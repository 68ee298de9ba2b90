import { defineConfig } from 'vitest/config'

// Files of one worker share what they import: loading it anew for each took longer than most of the tests.
const shared = { environment: 'node', isolate: false } as const
const films = ['server/cut/**/*.api.test.ts']

export default defineConfig({
  test: {
    maxWorkers: 2,
    slowTestThreshold: 5000,
    projects: [
      {
        test: {
          name: 'unit',
          include: [
            'core/**/*.test.ts',
            'server/**/*.unit.test.ts',
            'standins/**/*.test.ts',
            'docs/**/*.test.ts',
            'web/**/*.test.{ts,tsx}',
            'bench/**/*.test.ts',
          ],
          ...shared,
          testTimeout: 120_000,
        },
      },
      {
        test: {
          name: 'api',
          include: ['server/**/*.api.test.ts'],
          exclude: films,
          ...shared,
          testTimeout: 360_000,
          hookTimeout: 240_000,
        },
      },
      {
        // Films cut and rendered for real: long, and mostly in other programs.
        test: {
          name: 'films',
          include: films,
          ...shared,
          testTimeout: 600_000,
          hookTimeout: 240_000,
        },
      },
    ],
  },
})
