import path from 'node:path'
import { fileURLToPath } from 'node:url'

/** The repository's folder: two above this file, and above dist/server where this is bundled. */
export const projectRoot = path.resolve(fileURLToPath(new URL('../..', import.meta.url)))
