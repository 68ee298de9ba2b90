import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    // One pool for all: the long tests of films fill one core while the short ones fill the other.
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
          environment: 'node',
          testTimeout: 120_000,
        },
      },
      {
        test: {
          name: 'api',
          include: ['server/**/*.api.test.ts'],
          environment: 'node',
          testTimeout: 240_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
})
