import { useEffect, useState, useSyncExternalStore } from 'react'
import { type Level, listen, silent, startListening } from '@awlbox/core/film/ear/level'
import { useLatest } from '../../kit/use-latest.ts'

/** Milliseconds between two looks at the microphone, and the samples of one: nothing that sounds falls between them. */
const [tick, samplesAtOnce] = [40, 2048]

/** How loud it is now, for those who show it: the page around them need not follow. */
export interface Levels {
  now: () => Level
  subscribe: (changed: () => void) => () => void
}
export const useLevel = (levels: Levels): Level => useSyncExternalStore(levels.subscribe, levels.now)

/** The level last heard, and who wants to know of the next. */
function holdLevels() {
  let now = silent
  const told = new Set<() => void>()
  const levels: Levels = {
    now: () => now,
    subscribe: (changed) => {
      told.add(changed)
      return () => void told.delete(changed)
    },
  }
  return {
    levels,
    set: (next: Level) => {
      now = next
      told.forEach((t) => t())
    },
  }
}

/**
 * Listens to a stream's microphone all the time. `onTick` gets the seconds since the last time and whether
 * somebody speaks; `onDoubleClap` two sharp sounds one after another.
 */
export function useLevels(
  stream: MediaStream | null,
  onTick?: (dt: number, speaking: boolean) => void,
  onDoubleClap?: () => void,
): Levels {
  const calls = useLatest({ onTick, onDoubleClap })
  const [held] = useState(holdLevels)
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
  }, [stream, held, calls])
  return held.levels
}
