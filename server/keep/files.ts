import type { Stats } from 'node:fs'
import fs from 'node:fs/promises'

const isAbsent = (error: unknown): boolean =>
  ['ENOENT', 'ENOTDIR'].includes((error as NodeJS.ErrnoException).code ?? '')
/** What is in a folder; nothing where there is none. */
export async function namesIn(folder: string): Promise<string[]> {
  try {
    return await fs.readdir(folder)
  } catch (error) {
    if (isAbsent(error)) return []
    throw error
  }
}
/** Facts of a file; null where it is not there. */
export async function statOf(file: string): Promise<Stats | null> {
  try {
    return await fs.stat(file)
  } catch (error) {
    if (isAbsent(error)) return null
    throw error
  }
}
