import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: [
            'core/**/*.test.ts',
            'server/**/*.unit.test.ts',
            'standins/**/*.test.ts',
            'docs/**/*.test.ts',
            'web/**/*.test.ts',
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
          fileParallelism: false,
        },
      },
    ],
  },
})
