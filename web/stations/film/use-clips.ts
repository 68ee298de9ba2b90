import { useCallback, useRef, useState } from 'react'
import { type UploadState, uploadTake } from '../../frame/upload.ts'

export interface Clip extends UploadState {
  key: number
  state: 'waiting' | 'sending' | 'there' | 'known' | 'failed'
}
/** How many clips are sent at once: more share the same connection and make none quicker. */
const together = 2

/** Many clips on their way, two at a time; each goes on where it stopped. */
export function useClips(lessonId: string, onArrived: () => void) {
  const [clips, setClips] = useState<Clip[]>([])
  const waiting = useRef<{ key: number; file: File; segmentId: string }[]>([])
  const running = useRef(0)
  const next = useRef(1)
  const set = useCallback(
    (key: number, change: Partial<Clip>) =>
      setClips((all) => all.map((c) => (c.key === key ? { ...c, ...change } : c))),
    [],
  )
  /** Sends one waiting clip after another, unless enough are on their way already. */
  const sendWaiting = useCallback(async () => {
    if (running.current >= together) return
    running.current++
    for (let clip = waiting.current.shift(); clip; clip = waiting.current.shift()) {
      const { key, file, segmentId } = clip
      set(key, { state: 'sending' })
      try {
        const r = await uploadTake(file, { lessonId, segmentId, source: 'uploaded' }, (s) => s && set(key, s))
        set(key, { state: r.known ? 'known' : 'there', share: 1 })
        onArrived()
      } catch (error) {
        set(key, { state: 'failed', problem: error instanceof Error ? error.message : 'It was not sent.' })
      }
    }
    running.current--
  }, [lessonId, onArrived, set])
  /** Sends files; without a segment they are sorted by what is said in them. */
  const add = useCallback(
    (files: readonly File[], segmentId = '') => {
      const made = files.map((file) => ({ key: next.current++, file, segmentId }))
      setClips((all) => [
        ...all.filter((c) => c.state === 'waiting' || c.state === 'sending' || c.state === 'failed'),
        ...made.map(({ key, file }): Clip => ({
          key,
          name: file.name,
          share: 0,
          problem: null,
          stop: () => {
            waiting.current = waiting.current.filter((w) => w.key !== key)
            setClips((now) => now.filter((c) => c.key !== key))
          },
          state: 'waiting',
        })),
      ])
      waiting.current.push(...made)
      for (let i = 0; i < together; i++) void sendWaiting()
    },
    [sendWaiting],
  )
  const dismiss = useCallback((key: number) => setClips((all) => all.filter((c) => c.key !== key)), [])
  return { clips, add, dismiss }
}
