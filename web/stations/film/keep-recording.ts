import { type DBSchema, openDB } from 'idb'
import type { TakeMark } from '@awlbox/core/contracts/take'

/** A recording under way or not yet wholly sent. `segmentId` is empty for one straight through the lesson. */
export interface KeptRecording {
  id: string
  lessonId: string
  segmentId: string
  title: string
  mime: string
  startedAt: number
  /** Where it is being sent, once the server has opened a place for it. */
  url?: string
  marks?: TakeMark[]
}
interface Kept extends DBSchema {
  recordings: { key: string; value: KeptRecording }
  chunks: { key: [string, number]; value: { id: string; n: number; data: Blob } }
}
const open = () =>
  openDB<Kept>('awlbox-recordings', 1, {
    upgrade(db) {
      db.createObjectStore('recordings', { keyPath: 'id' })
      db.createObjectStore('chunks', { keyPath: ['id', 'n'] })
    },
  })

/** A recording is kept on this device second by second, so that a closed tab or an empty battery loses at most one. */
export async function keepRecording(r: KeptRecording): Promise<void> {
  await (await open()).put('recordings', r)
}
export async function keepChunk(id: string, n: number, data: Blob): Promise<void> {
  await (await open()).put('chunks', { id, n, data })
}
export async function keptRecordings(lessonId: string): Promise<KeptRecording[]> {
  return (await (await open()).getAll('recordings')).filter((r) => r.lessonId === lessonId)
}
/** All that this device has of a recording; null when it has nothing. */
export async function keptFile(r: KeptRecording): Promise<File | null> {
  const chunks = await (await open()).getAll('chunks', IDBKeyRange.bound([r.id, 0], [r.id, Infinity]))
  return chunks.length
    ? new File(
        chunks.sort((a, b) => a.n - b.n).map((c) => c.data),
        `${r.id}.webm`,
        { type: r.mime },
      )
    : null
}
export async function forget(id: string): Promise<void> {
  const db = await open()
  await db.delete('recordings', id)
  await db.delete('chunks', IDBKeyRange.bound([id, 0], [id, Infinity]))
}
