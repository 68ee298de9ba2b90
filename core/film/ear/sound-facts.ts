import type { SoundAdvice, SoundFacts } from '../../contracts/heard.ts'

/** Samples gathered so far: how loud each was, and how much of their sound is high. */
export interface Gathered {
  /** Samples by loudness, a thousandth of full strength each. */
  loudness: Float64Array
  all: number
  high: number
  /** What each stage of the high filter remembers: its last two inputs and outputs. */
  stages: [number, number, number, number][]
}
/** Four stages of a second-order high-pass (Butterworth) at 4.6 kHz of 16 kHz sound: what a telephone lets through is gone after it. */
const [corner, rate, stages] = [4600, 16_000, 4]
const filter = ((): { b: readonly [number, number, number]; a: readonly [number, number] } => {
  const w = (2 * Math.PI * corner) / rate
  const [c, alpha] = [Math.cos(w), Math.sin(w) / Math.SQRT2]
  const a0 = 1 + alpha
  return {
    b: [(1 + c) / 2 / a0, -(1 + c) / a0, (1 + c) / 2 / a0],
    a: [(-2 * c) / a0, (1 - alpha) / a0],
  }
})()
export const gather = (): Gathered => ({
  loudness: new Float64Array(1001),
  all: 0,
  high: 0,
  stages: Array.from({ length: stages }, () => [0, 0, 0, 0]),
})

/** Adds 16-bit samples of a 16 kHz recording, block after block. */
export function addSamples(g: Gathered, samples: ArrayLike<number>): void {
  const [b0, b1, b2] = filter.b
  const [a1, a2] = filter.a
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i]! / 32_768
    let v = x
    for (const s of g.stages) {
      const y = b0 * v + b1 * s[0] + b2 * s[1] - a1 * s[2] - a2 * s[3]
      s[1] = s[0]
      s[0] = v
      s[3] = s[2]
      s[2] = y
      v = y
    }
    g.all += x * x
    g.high += v * v
    g.loudness[Math.min(1000, Math.round(Math.abs(x) * 1000))]!++
  }
}

const decibels = (x: number): number => 20 * Math.log10(Math.max(1e-6, x))
/** What a recording's sound is like. `levels` is its loudness, a hundred values a second. */
export function factsOf(g: Gathered, levels: ArrayLike<number>): SoundFacts {
  const sorted = Array.from(levels).sort((a, b) => a - b)
  const at = (share: number): number => sorted[Math.floor((sorted.length - 1) * share)] ?? 0
  let peak = 1000
  while (peak > 0 && !g.loudness[peak]) peak--
  let [cut, loud] = [0, 0]
  for (let k = Math.ceil(peak * 0.3); k <= peak; k++) {
    loud += g.loudness[k]!
    if (k >= peak * 0.94) cut += g.loudness[k]!
  }
  return {
    speech: decibels(at(0.9)),
    noise: decibels(at(0.1)),
    cutOff: loud ? cut / loud : 0,
    high: g.all ? 10 * Math.log10(Math.max(1e-12, g.high / g.all)) : 0,
  }
}

/**
 * Where a sound stops being heard well. `apart`: decibels of speech over noise; at 15 a slip is still found, at 10 right
 * ones are called wrong. `cutOff`: share of loud samples at the very top; undistorted speech has under a hundredth, cut
 * off a third. `high`: decibels of what lies over 4.6 kHz; the voices tried have −18 to −38 of it, through a telephone's band −49 to −64.
 */
const limits = { apart: 19, quiet: -45, cutOff: 0.05, high: -46 } as const
/** What to do about a sound that is heard badly, from the sound itself; nothing where it is good. */
export function adviceOf(f: SoundFacts): SoundAdvice[] {
  if (f.speech < -70) return []
  const out: SoundAdvice[] = []
  if (f.cutOff > limits.cutOff) out.push('cut off')
  if (f.high < limits.high) out.push('telephone')
  if (f.speech < limits.quiet) out.push('quiet')
  if (f.speech - f.noise < limits.apart) out.push('noise')
  return out
}
