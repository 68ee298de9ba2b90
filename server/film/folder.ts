import fs from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'

/** Works in a folder of its own that is gone afterwards. */
export async function inFolder<T>(name: string, work: (folder: string) => Promise<T>): Promise<T> {
  const folder = await fs.mkdtemp(path.join(os.tmpdir(), `awlbox-${name}-`))
  try {
    return await work(folder)
  } finally {
    await fs.rm(folder, { recursive: true, force: true })
  }
}
