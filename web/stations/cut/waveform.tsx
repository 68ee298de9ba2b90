import { useEffect, useRef } from 'react'
import useSWR from 'swr'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import type { TakeLooked } from '@awlbox/core/contracts/render'

/** Fiftieths of a second, as the server measures loudness. */
export const peaksPerSecond = 50
const fetchPeaks = async (path: string): Promise<Uint8Array> => new Uint8Array(await (await fetch(path)).arrayBuffer())
const once = { revalidateOnFocus: false, revalidateIfStale: false, revalidateOnReconnect: false } as const
export const usePeaks = (takeId: string | null): Uint8Array | undefined => useSWR(takeId ? `/api/takes/${takeId}/peaks` : null, fetchPeaks, once).data
const fetchSheet = async (path: string): Promise<HTMLImageElement> => {
  const image = new Image()
  image.src = path
  await image.decode()
  return image
}
/** The sheet of small pictures of a take, loaded once for all its spans. */
export const useSheet = (takeId: string | null): HTMLImageElement | undefined => useSWR(takeId ? `/api/takes/${takeId}/sheet` : null, fetchSheet, once).data

/** Height of the row of small pictures over the waveform, and the width of one. */
const [strip, tile] = [22, 39] as const
interface Props {
  peaks: Uint8Array | undefined
  sheet?: { image: HTMLImageElement; looked: NonNullable<TakeLooked['sheet']> } | undefined
  /** Seconds of the take. */
  from: number
  to: number
  width: number
  height?: number
  colour: string
}
/** The sound of a stretch of a take, and above it small pictures of it where there are any. */
export function Waveform({ peaks, sheet, from, to, width, height = 52, colour }: Props) {
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
    const top = sheet ? strip : 0
    if (sheet) {
      const { image, looked } = sheet
      for (let x = 0; x < width; x += tile) {
        const second = from + ((to - from) * Math.min(width, x + tile / 2)) / width
        const k = Math.min(looked.count - 1, Math.max(0, Math.floor((second * framesPerSecond) / looked.every)))
        g.drawImage(image, (k % looked.across) * looked.width, Math.floor(k / looked.across) * looked.height, looked.width, looked.height, x, 0, tile, strip)
      }
    }
    if (!peaks) return
    g.fillStyle = getComputedStyle(c).getPropertyValue(colour)
    for (let x = 0; x < width; x += 3) {
      const [a, b] = [Math.floor((from + ((to - from) * x) / width) * peaksPerSecond), Math.ceil((from + ((to - from) * (x + 3)) / width) * peaksPerSecond)]
      let most = 0
      for (let i = a; i < b; i++) most = Math.max(most, peaks[i] ?? 0)
      const h = Math.max(1, (most / 255) * (height - top - 4))
      g.fillRect(x, top + (height - top - h) / 2, 2, h)
    }
  }, [peaks, sheet, from, to, width, height, colour])
  return <canvas ref={canvas} style={{ width, height }} aria-hidden className="block max-w-full" />
}
