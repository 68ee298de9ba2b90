import fs from 'node:fs/promises'
import path from 'node:path'

/** A speech model as it lies on disk: sounds and a dictionary of one accent or language. */
export interface SpeechModel {
  /** Folder of the acoustic model: the one with `mdef` in it. */
  acoustic: string
  dictionary: string
  /** Changes with the model: part of the key under which hearings are remembered. */
  key: string
}
const isThere = (file: string): Promise<boolean> =>
  fs.access(file).then(
    () => true,
    () => false,
  )

/**
 * The model in a folder: its acoustic part in the folder itself or in one below it, its dictionary (`*.dict`) beside
 * either. @throws Error where one of them is missing.
 */
export async function speechModel(folder: string): Promise<SpeechModel> {
  const below = (await fs.readdir(folder, { withFileTypes: true }))
    .filter((e) => e.isDirectory())
    .map((e) => path.join(folder, e.name))
  const folders = [folder, ...below.sort()]
  const holds = await Promise.all(folders.map((f) => isThere(path.join(f, 'mdef'))))
  const acoustic = folders.find((_, i) => holds[i])
  if (!acoustic) throw new Error(`No acoustic model (mdef) in ${folder}`)
  for (const place of [folder, acoustic]) {
    const name = (await fs.readdir(place)).filter((n) => n.endsWith('.dict')).sort()[0]
    if (!name) continue
    const { size, mtimeMs } = await fs.stat(path.join(acoustic, 'mdef'))
    return {
      acoustic,
      dictionary: path.join(place, name),
      key: `${acoustic} ${name} ${size} ${Math.round(mtimeMs)}`,
    }
  }
  throw new Error(`No dictionary (*.dict) in ${folder}`)
}
