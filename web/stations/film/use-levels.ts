import { useEffect, useRef, useState } from 'react'
import { type Level, listen, silent, startListening } from '@awlbox/core/film/level'

/** Milliseconds between two looks at the microphone. */
const tick = 100

/**
 * Listens to a stream's microphone ten times a second. `onTick` gets the seconds since the last time and whether
 * somebody speaks; `onDoubleClap` two sharp sounds one after another.
 */
export function useLevels(stream: MediaStream | null, onTick?: (dt: number, speaking: boolean) => void, onDoubleClap?: () => void): Level {
  const [now, setNow] = useState(silent)
  const calls = useRef({ onTick, onDoubleClap })
  calls.current = { onTick, onDoubleClap }
  useEffect(() => {
    if (!stream?.getAudioTracks().length) {
      setNow(silent)
      return
    }
    const audio = new AudioContext()
    const analyser = audio.createAnalyser()
    analyser.fftSize = 2048
    audio.createMediaStreamSource(stream).connect(analyser)
    const samples = new Float32Array(analyser.fftSize)
    let [heard, last] = [startListening(), performance.now() / 1000]
    const timer = setInterval(() => {
      analyser.getFloatTimeDomainData(samples)
      const t = performance.now() / 1000
      heard = listen(heard, samples, t)
      setNow(heard.now)
      if (heard.doubleClap) calls.current.onDoubleClap?.()
      calls.current.onTick?.(t - last, heard.now.speaking)
      last = t
    }, tick)
    return () => {
      clearInterval(timer)
      void audio.close()
    }
  }, [stream])
  return now
}
