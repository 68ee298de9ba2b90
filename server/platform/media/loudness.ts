import { ffmpeg } from './ffmpeg.ts'

/** Loudness for phone and laptop speakers in kitchens (EBU R 128): integrated LUFS, and decibels no true peak is above. */
const target = { loudness: -16, peak: -1.5 } as const
/** A limiter sees samples and not what lies between them: it holds this much under the true peak that is allowed. */
const between = 0.7

export interface Loudness {
  /** Integrated, LUFS; null of silence. */
  integrated: number | null
  /** True peak, dBFS; null where it was not asked for. */
  peak: number | null
}
/** Measures the sound of what `input` opens. `peaks`: true peaks too, which takes about twice as long. */
export async function loudnessOf(
  input: readonly string[],
  { peaks = false, signal }: { peaks?: boolean; signal?: AbortSignal } = {},
): Promise<Loudness> {
  const report = await ffmpeg(
    [...input, '-vn', '-af', `ebur128=framelog=verbose${peaks ? ':peak=true' : ''}`, '-f', 'null', '-'],
    signal ? { signal } : {},
  )
  const summary = report.slice(report.lastIndexOf('Summary:'))
  const [integrated, peak] = [
    Number(summary.match(/I:\s+(-?[\d.]+) LUFS/)?.[1]),
    Number(summary.match(/Peak:\s+(-?[\d.]+) dBFS/)?.[1]),
  ]
  return {
    integrated: Number.isFinite(integrated) && integrated > -60 ? integrated : null,
    peak: Number.isFinite(peak) ? peak : null,
  }
}
/** The second pass: one gain for the whole film, so that loud stays loud beside quiet, and its few peaks held down. */
export function levelled({ integrated }: Loudness): string {
  if (integrated === null) return 'anull'
  const limit = 10 ** ((target.peak - between) / 20)
  return `volume=${(target.loudness - integrated).toFixed(2)}dB,alimiter=limit=${limit.toFixed(4)}:attack=4:release=60:level=disabled`
}
