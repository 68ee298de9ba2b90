import type { Seconds } from '../../contracts/units.ts'
import type { HeardFinding, HeardLine } from '../../contracts/heard.ts'
import type { Segment } from '../../contracts/lesson.ts'
import { readClaps } from '../../script/reading.ts'

/** Onsets closer than this (seconds) are one clap: nobody claps eight times a second. */
const apart = 0.12
/** Samples in one frame of the envelope, as a share of a second. */
const frame = 0.005

/**
 * When claps and taps sound, in seconds: sudden rises of the high-passed envelope over the quiet before them that die
 * away within a fifth of a second, as no vowel does. `samples` are mono, −1 to 1 or 16-bit; `rate` in samples a second.
 */
export function clapTimes(samples: ArrayLike<number>, rate: number): number[] {
  const step = Math.max(1, Math.round(rate * frame))
  const n = Math.floor(samples.length / step)
  const high = new Float64Array(n)
  const all = new Float64Array(n)
  // A one-pole high pass at about 1.5 kHz: claps are broad and sharp, voices mostly lie under it.
  const a = Math.exp((-2 * Math.PI * 1500) / rate)
  let [low] = [0]
  for (let i = 0; i < n; i++) {
    let [h, e] = [0, 0]
    for (let k = 0; k < step; k++) {
      const x = samples[i * step + k]!
      low = a * low + (1 - a) * x
      h += (x - low) ** 2
      e += x * x
    }
    high[i] = Math.sqrt(h / step)
    all[i] = Math.sqrt(e / step)
  }
  const floor = [...high].sort((x, y) => x - y)[Math.floor(n * 0.3)] ?? 0
  const loudest = high.reduce((x, y) => Math.max(x, y), 0)
  const times: number[] = []
  for (let i = 2; i < n; i++) {
    const before = Math.max(floor, high[i - 2]!, high[Math.max(0, i - 6)]!, high[Math.max(0, i - 12)]!)
    const peak = Math.max(high[i]!, high[i + 1] ?? 0, high[i + 2] ?? 0)
    if (peak < before * 4 || peak < floor * 6 || peak < loudest * 0.12) continue
    // Broad: much of its strength is high. Short: gone after a fifth of a second.
    const at = i + [high[i]!, high[i + 1] ?? 0, high[i + 2] ?? 0].indexOf(peak)
    const later = Math.max(
      ...Array.from({ length: 12 }, (_, k) => high[Math.min(n - 1, at + Math.round(0.1 / frame) + k)] ?? 0),
    )
    if (peak < all[at]! * 0.45 || later > peak * 0.4) continue
    const t = i * frame
    if (times.length && t - times.at(-1)! < apart) continue
    times.push(t)
  }
  return times
}

/** Claps heard between the lines around each `sound` step, against those written. */
export function clapSlips(
  segment: Segment,
  lines: readonly HeardLine[],
  claps: readonly number[],
  duration: Seconds,
): HeardFinding[] {
  return segment.steps.flatMap((step, i): HeardFinding[] => {
    const written = step.verb === 'sound' && !step.deliberate ? readClaps(step.text) : null
    if (!written) return []
    const timed = (ids: readonly string[]): HeardLine | undefined =>
      lines.find((l) => ids.includes(l.stepId) && l.start !== null)
    const before = segment.steps
      .slice(0, i)
      .reverse()
      .map((s) => timed([s.id]))
      .find((l) => l !== undefined)
    const after = segment.steps
      .slice(i + 1)
      .map((s) => timed([s.id]))
      .find((l) => l !== undefined)
    const [from, to] = [(before?.end ?? 0) + 0.05, (after?.start ?? duration) - 0.05]
    const mine = claps.filter((t) => t >= from && t <= to)
    // Two sound steps with nothing said between them share their claps: they are judged together by the first.
    const together = segment.steps
      .filter((s, k) => s.verb === 'sound' && between(segment, i, k, lines))
      .map((s) => readClaps(s.text)?.count ?? 0)
    if (
      segment.steps
        .slice(0, i)
        .some((s, k) => s.verb === 'sound' && readClaps(s.text) && between(segment, k, i, lines))
    )
      return []
    const expected = together.reduce((a, b) => a + b, 0)
    if (mine.length === expected) return []
    return [
      {
        code: 'clap-mismatch',
        start: mine[0] ?? from,
        end: mine.at(-1) ?? to,
        stepId: step.id,
        expected: String(expected),
        heard: String(mine.length),
        certain: mine.length > 0 && Math.abs(mine.length - expected) <= 2,
        params: { heard: mine.length, written: expected },
      },
    ]
  })
}
/** Whether nothing is said between steps a and b. */
function between(segment: Segment, a: number, b: number, lines: readonly HeardLine[]): boolean {
  const [from, to] = [Math.min(a, b), Math.max(a, b)]
  return segment.steps.slice(from, to).every((s) => !lines.some((l) => l.stepId === s.id))
}
