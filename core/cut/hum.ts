/** How much of a frequency is in samples: power of the Goertzel filter, per sample. */
function power(samples: ArrayLike<number>, rate: number, hertz: number): number {
  const c = 2 * Math.cos((2 * Math.PI * hertz) / rate)
  let [a, b] = [0, 0]
  for (let i = 0; i < samples.length; i++) {
    const next = samples[i]! + c * a - b
    b = a
    a = next
  }
  return (a * a + b * b - c * a * b) / (samples.length * samples.length)
}
/** How many times stronger than what lies beside it a mains tone has to be, over its first harmonics together. */
const stands = 12

/**
 * The mains hum in a stretch of room tone: 50 or 60 (Hz) where its harmonics stand out, else 0. `samples` any scale,
 * `rate` a second; less than half a second tells nothing (0).
 */
export function humIn(samples: ArrayLike<number>, rate: number): 0 | 50 | 60 {
  if (samples.length < rate / 2) return 0
  const strength = (base: number): number => {
    let [tone, beside] = [0, 0]
    for (const k of [1, 2, 3, 4]) {
      tone += power(samples, rate, base * k)
      beside += (power(samples, rate, base * k - 7) + power(samples, rate, base * k + 7)) / 2
    }
    return tone / Math.max(beside, 1e-12)
  }
  const [fifty, sixty] = [strength(50), strength(60)]
  return Math.max(fifty, sixty) < stands ? 0 : fifty > sixty ? 50 : 60
}
