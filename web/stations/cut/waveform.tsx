import { useEffect, useRef } from 'react'
import useSWR from 'swr'

/** Fiftieths of a second, as the server measures loudness. */
const perSecond = 50
const fetchPeaks = async (path: string): Promise<Uint8Array> => new Uint8Array(await (await fetch(path)).arrayBuffer())
export const usePeaks = (takeId: string | null): Uint8Array | undefined => useSWR(takeId ? `/api/takes/${takeId}/peaks` : null, fetchPeaks, { revalidateOnFocus: false, revalidateIfStale: false }).data

export function Waveform({ peaks, from, to, width, height = 30, colour }: { peaks: Uint8Array | undefined; from: number; to: number; width: number; height?: number; colour: string }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const c = canvas.current
    const g = c?.getContext('2d')
    if (!c || !g) return
    const dpr = window.devicePixelRatio || 1
    c.width = width * dpr
    c.height = height * dpr
    g.scale(dpr, dpr)
    g.clearRect(0, 0, width, height)
    if (!peaks) return
    g.fillStyle = getComputedStyle(c).getPropertyValue(colour)
    for (let x = 0; x < width; x += 3) {
      const [a, b] = [Math.floor((from + ((to - from) * x) / width) * perSecond), Math.ceil((from + ((to - from) * (x + 3)) / width) * perSecond)]
      let most = 0
      for (let i = a; i < b; i++) most = Math.max(most, peaks[i] ?? 0)
      const h = Math.max(1, (most / 255) * (height - 4))
      g.fillRect(x, (height - h) / 2, 2, h)
    }
  }, [peaks, from, to, width, height, colour])
  return <canvas ref={canvas} style={{ width, height }} aria-hidden className="block max-w-full" />
}
