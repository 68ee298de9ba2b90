import path from 'node:path'
import { defineConfig } from '@playwright/test'

const media = path.join(import.meta.dirname, '..', 'test-results', 'media')
export default defineConfig({
  testDir: '.',
  outputDir: '../test-results/e2e',
  globalSetup: './start-app.ts',
  timeout: 480_000,
  expect: { timeout: 30_000 },
  workers: 1,
  retries: 0,
  reporter: [['list'], ['json']],
  use: {
    actionTimeout: 30_000,
    baseURL: process.env.AWLBOX_E2E_ADDRESS ?? 'http://127.0.0.1:4299',
    viewport: { width: 1280, height: 800 },
    // A trace costs a third of all computing: it is made when somebody wants to see one.
    trace: process.env.AWLBOX_TRACE ? 'retain-on-failure' : 'off',
    permissions: ['camera', 'microphone'],
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        '--use-fake-ui-for-media-stream',
        '--use-fake-device-for-media-stream',
        `--use-file-for-fake-audio-capture=${path.join(media, 'voice.wav')}%noloop`,
      ],
    },
  },
})
