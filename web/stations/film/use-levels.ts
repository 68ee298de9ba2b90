import { useEffect, useMemo, useRef, useSyncExternalStore } from 'react'
import { type Level, listen, silent, startListening } from '@awlbox/core/film/level'

/** Milliseconds between two looks at the microphone, and the samples of one: nothing that sounds falls between them. */
const [tick, samplesAtOnce] = [40, 2048]

/** How loud it is now, for those who show it: the page around them need not follow. */
export interface Levels {
  now(): Level
  subscribe(changed: () => void): () => void
}
export const useLevel = (levels: Levels): Level => useSyncExternalStore(levels.subscribe, levels.now)

/**
 * Listens to a stream's microphone all the time. `onTick` gets the seconds since the last time and whether
 * somebody speaks; `onDoubleClap` two sharp sounds one after another.
 */
export function useLevels(
  stream: MediaStream | null,
  onTick?: (dt: number, speaking: boolean) => void,
  onDoubleClap?: () => void,
): Levels {
  const calls = useRef({ onTick, onDoubleClap })
  calls.current = { onTick, onDoubleClap }
  const held = useMemo(() => {
    let now = silent
    const told = new Set<() => void>()
    return {
      levels: {
        now: () => now,
        subscribe: (changed: () => void) => (told.add(changed), () => void told.delete(changed)),
      } satisfies Levels,
      set(next: Level) {
        now = next
        told.forEach((t) => t())
      },
    }
  }, [])
  useEffect(() => {
    if (!stream?.getAudioTracks().length) {
      held.set(silent)
      return
    }
    const audio = new AudioContext()
    const analyser = audio.createAnalyser()
    analyser.fftSize = samplesAtOnce
    audio.createMediaStreamSource(stream).connect(analyser)
    const samples = new Float32Array(analyser.fftSize)
    let [heard, last] = [startListening(), performance.now() / 1000]
    const timer = setInterval(() => {
      analyser.getFloatTimeDomainData(samples)
      const t = performance.now() / 1000
      heard = listen(heard, samples, t)
      held.set(heard.now)
      if (heard.doubleClap) calls.current.onDoubleClap?.()
      calls.current.onTick?.(t - last, heard.now.speaking)
      last = t
    }, tick)
    return () => {
      clearInterval(timer)
      void audio.close()
    }
  }, [stream, held])
  return held.levels
}
