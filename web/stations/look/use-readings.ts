import { wrap, type Remote } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import type { PhotoReading } from '@awlbox/core/contracts/reading'
import { send } from '../../api.ts'
import type { PhotoWorker } from '../../workers/photo.worker.ts'

/** Readings of photos: those stored, and those the worker makes now for photos not read yet, one after another. */
export function useReadings(photos: readonly { id: string; reading: PhotoReading | null }[]): {
  readings: ReadonlyMap<string, PhotoReading>
  failed: ReadonlySet<string>
} {
  const [made, setMade] = useState<ReadonlyMap<string, PhotoReading>>(new Map())
  const [failed, setFailed] = useState<ReadonlySet<string>>(new Set())
  const asked = useRef(new Set<string>())
  const worker = useRef<{ remote: Remote<PhotoWorker>; end: () => void } | null>(null)
  const chain = useRef(Promise.resolve())
  useEffect(() => {
    for (const p of photos) {
      if (p.reading || asked.current.has(p.id)) continue
      asked.current.add(p.id)
      chain.current = chain.current.then(async () => {
        try {
          if (!worker.current) {
            const w = new Worker(new URL('../../workers/photo.worker.ts', import.meta.url), {
              type: 'module',
            })
            worker.current = { remote: wrap<PhotoWorker>(w), end: () => w.terminate() }
          }
          const reading = await worker.current.remote.read(await (await fetch(`/api/photos/${p.id}`)).blob())
          setMade((m) => new Map(m).set(p.id, reading))
          await send('PUT', `/api/photos/${p.id}/reading`, reading)
        } catch {
          setFailed((f) => new Set(f).add(p.id))
        }
      })
    }
  }, [photos])
  useEffect(
    () => () => {
      worker.current?.end()
      worker.current = null
      asked.current = new Set()
    },
    [],
  )
  const readings = new Map(made)
  for (const p of photos) if (p.reading) readings.set(p.id, p.reading)
  return { readings, failed }
}
