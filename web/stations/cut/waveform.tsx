import { useMemo } from 'react'
import useSWR from 'swr'
import * as filmApi from '@awlbox/core/contracts/api/film'
import { fileAt } from '../../api.ts'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import type { TakeLooked } from '@awlbox/core/contracts/render'

/** Fiftieths of a second, as the server measures loudness. */
export const peaksPerSecond = 50
const fetchPeaks = async (path: string): Promise<Uint8Array> =>
  new Uint8Array(await (await fetch(path)).arrayBuffer())
const once = { revalidateOnFocus: false, revalidateIfStale: false, revalidateOnReconnect: false } as const
export const usePeaks = (takeId: string | null): Uint8Array | undefined =>
  useSWR(takeId ? fileAt(filmApi.takePeaks, { takeId }) : null, fetchPeaks, once).data
/** The peaks of several takes, by take. */
export function useAllPeaks(takeIds: readonly string[]): ReadonlyMap<string, Uint8Array> | undefined {
  const { data } = useSWR(
    takeIds.length ? `peaks of ${takeIds.join()}` : null,
    async () =>
      new Map(
        await Promise.all(
          takeIds.map(
            async (id) => [id, await fetchPeaks(fileAt(filmApi.takePeaks, { takeId: id }))] as const,
          ),
        ),
      ),
    once,
  )
  return data
}
const fetchSheet = async (path: string): Promise<HTMLImageElement> => {
  const image = new Image()
  image.src = path
  await image.decode()
  return image
}
/** The sheet of small pictures of a take, loaded once for all its spans. */
export const useSheet = (takeId: string | null): HTMLImageElement | undefined =>
  useSWR(takeId ? fileAt(filmApi.takeSheet, { takeId }) : null, fetchSheet, once).data

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
/**
 * The sound of a stretch of a take, and above it small pictures of it where there are any. Drawn as shapes of the page
 * and not on canvases: hundreds of those would each be put together anew at every change of the screen.
 */
export function Waveform({ peaks, sheet, from, to, width, height = 52, colour }: Props) {
  const top = sheet ? strip : 0
  const bars = useMemo(() => {
    if (!peaks) return ''
    let d = ''
    for (let x = 1; x < width; x += 3) {
      const [a, b] = [
        Math.floor((from + ((to - from) * (x - 1)) / width) * peaksPerSecond),
        Math.ceil((from + ((to - from) * (x + 2)) / width) * peaksPerSecond),
      ]
      let most = 0
      for (let i = a; i < b; i++) most = Math.max(most, peaks[i] ?? 0)
      const h = Math.max(1, Math.round((most / 255) * (height - top - 4)))
      d += `M${x} ${Math.round(top + (height - top - h) / 2)}v${h}`
    }
    return d
  }, [peaks, from, to, width, height, top])
  return (
    <svg width={width} height={height} aria-hidden className="block max-w-full">
      {sheet &&
        Array.from({ length: Math.ceil(width / tile) }, (_, n) => {
          const { image, looked } = sheet
          const second = from + ((to - from) * Math.min(width, (n + 0.5) * tile)) / width
          const k = Math.min(
            looked.count - 1,
            Math.max(0, Math.floor((second * framesPerSecond) / looked.every)),
          )
          return (
            <svg
              key={n}
              x={n * tile}
              y={0}
              width={tile}
              height={strip}
              viewBox={`${(k % looked.across) * looked.width} ${Math.floor(k / looked.across) * looked.height} ${looked.width} ${looked.height}`}
              preserveAspectRatio="none"
            >
              <image href={image.src} width={image.naturalWidth} height={image.naturalHeight} />
            </svg>
          )
        })}
      <path d={bars} stroke={`var(${colour})`} strokeWidth="2" fill="none" />
    </svg>
  )
}
