import fs from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'

const prefix = 'awlbox'
/** Works in a folder of its own that is gone afterwards. Its name says whose it is, so that what a killed process left can be told from what is in use. */
export async function inFolder<T>(name: string, work: (folder: string) => Promise<T>): Promise<T> {
  const folder = await fs.mkdtemp(path.join(os.tmpdir(), `${prefix}-${name}-${process.pid}-`))
  try {
    return await work(folder)
  } finally {
    await fs.rm(folder, { recursive: true, force: true })
  }
}
const isAlive = (pid: number): boolean => {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    // It is there, and somebody else's.
    return (error as NodeJS.ErrnoException).code === 'EPERM'
  }
}
/** Removes the folders of processes that are no more; gives how many. */
export async function sweepFolders(folder = os.tmpdir()): Promise<number> {
  let swept = 0
  for (const name of await fs.readdir(folder)) {
    const pid = name.match(/^awlbox-[a-z]+-(\d+)-\w{6}$/)?.[1]
    if (!pid || isAlive(Number(pid))) continue
    await fs.rm(path.join(folder, name), { recursive: true, force: true })
    swept++
  }
  return swept
}
