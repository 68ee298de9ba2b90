import path from 'node:path'
import { projectRoot } from './platform/root.ts'

const sources = {
  start: 'server/start.ts',
  web: 'server/web.ts',
  worker: 'server/worker.ts',
  camera: 'standins/service.ts',
} as const

/**
 * A program of Awlbox as a test starts it, with Node: bundled, as it ships, where the whole run has built it
 * (AWLBOX_BUILT); else from its source, compiled as it loads.
 */
export function program(name: keyof typeof sources): { file: string; execArgv: string[] } {
  return process.env.AWLBOX_BUILT
    ? { file: path.join(projectRoot, `dist/server/${name}.mjs`), execArgv: ['--enable-source-maps'] }
    : { file: path.join(projectRoot, sources[name]), execArgv: ['--import', 'tsx'] }
}
