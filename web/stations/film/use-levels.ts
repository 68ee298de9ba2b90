import { useEffect, useRef, useState } from 'react'

/** How a sound is now: 0–1, whether somebody speaks, and whether it has been too loud in the last two seconds. */
export interface Level {
  level: number
  speaking: boolean
  clipped: boolean
}
const silent: Level = { level: 0, speaking: false, clipped: false }
/** Speech is this many times as loud as the room between words, and never under `least` (root mean square, 0–1). */
const [over, least] = [3, 0.012]
const tick = 100
/** Two sharp sounds this far apart (milliseconds) are the double clap that marks a slip. */
const clapsApart = [180, 800] as const

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
    let [floor, clippedAt, lastClap, quietBefore, last] = [0.02, -Infinity, -Infinity, 0, performance.now()]
    const timer = setInterval(() => {
      analyser.getFloatTimeDomainData(samples)
      let [sum, peak] = [0, 0]
      for (const x of samples) {
        sum += x * x
        peak = Math.max(peak, Math.abs(x))
      }
      const level = Math.sqrt(sum / samples.length)
      const t = performance.now()
      // The floor falls quickly into a pause and rises slowly with a room that gets louder.
      floor = level < floor ? floor * 0.7 + level * 0.3 : floor * 0.995 + level * 0.005
      if (peak > 0.98) clippedAt = t
      // A clap is all peak and over at once: speech of that height fills the whole window.
      if (peak > 0.3 && peak > level * 5 && quietBefore < 0.1) {
        const apart = t - lastClap
        if (apart >= clapsApart[0] && apart <= clapsApart[1]) {
          calls.current.onDoubleClap?.()
          lastClap = -Infinity
        } else lastClap = t
      }
      quietBefore = level
      const speaking = level > Math.max(least, floor * over)
      setNow({ level, speaking, clipped: t - clippedAt < 2000 })
      calls.current.onTick?.((t - last) / 1000, speaking)
      last = t
    }, tick)
    return () => {
      clearInterval(timer)
      void audio.close()
    }
  }, [stream])
  return now
}
