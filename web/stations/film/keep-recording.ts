import { type DBSchema, openDB } from 'idb'

interface Kept extends DBSchema {
  recordings: { key: string; value: { id: string; lessonId: string; segmentId: string; title: string; mime: string; startedAt: number } }
  chunks: { key: [string, number]; value: { id: string; n: number; data: Blob } }
}
const open = () => openDB<Kept>('awlbox-recordings', 1, { upgrade(db) {
  db.createObjectStore('recordings', { keyPath: 'id' })
  db.createObjectStore('chunks', { keyPath: ['id', 'n'] })
} })

export interface KeptRecording { id: string; lessonId: string; segmentId: string; title: string; mime: string; startedAt: number }

/** A recording is kept on this device second by second, so that a closed tab or an empty battery loses at most one. */
export async function beginKeeping(r: KeptRecording): Promise<void> {
  await (await open()).put('recordings', r)
}
export async function keepChunk(id: string, n: number, data: Blob): Promise<void> {
  await (await open()).put('chunks', { id, n, data })
}
export async function keptRecordings(lessonId: string): Promise<KeptRecording[]> {
  return (await (await open()).getAll('recordings')).filter((r) => r.lessonId === lessonId)
}
export async function keptFile(r: KeptRecording): Promise<File | null> {
  const chunks = await (await open()).getAll('chunks', IDBKeyRange.bound([r.id, 0], [r.id, Infinity]))
  return chunks.length ? new File(chunks.sort((a, b) => a.n - b.n).map((c) => c.data), `${r.id}.webm`, { type: r.mime }) : null
}
export async function forget(id: string): Promise<void> {
  const db = await open()
  await db.delete('recordings', id)
  await db.delete('chunks', IDBKeyRange.bound([id, 0], [id, Infinity]))
}
