import { defineConfig } from 'vitest/config'

const films = ['server/cut/**/*.api.test.ts']

export default defineConfig({
  test: {
    maxWorkers: 2,
    slowTestThreshold: 5000,
    // Files of one worker share what they import: loading it anew for each took longer than most of the tests.
    isolate: false,
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
          environment: 'node',
          testTimeout: 120_000,
        },
      },
      {
        test: {
          name: 'api',
          include: ['server/**/*.api.test.ts'],
          exclude: films,
          environment: 'node',
          testTimeout: 360_000,
          hookTimeout: 240_000,
        },
      },
      {
        // Films cut and rendered for real: long, and mostly in other programs.
        test: {
          name: 'films',
          include: films,
          environment: 'node',
          testTimeout: 600_000,
          hookTimeout: 240_000,
        },
      },
    ],
  },
})
