import type { TakeSound } from '../../contracts/take.ts'

/** Summed squares of a stereo clip's left and right samples, and of both together (halved). */
export interface Energies {
  left: number
  right: number
  both: number
}
/** Under this many samples a second the sound is a telephone's, in which half the consonants are missing. */
const telephone = 11_025
export const isTelephone = (s: Pick<TakeSound, 'rate'> | null): boolean =>
  s !== null && s.rate > 0 && s.rate <= telephone
/** One ear is silent under a hundredth of the other's energy; two ears cancel out when hardly any is left of both together. */
const [silentEar, cancelled] = [100, 0.02]

/** How a clip's sound was recorded: in one ear only, the two ears against each other, telephone sound. `energies` is null where there is one channel. */
export function judgeChannels(
  { channels, rate }: Pick<TakeSound, 'channels' | 'rate'>,
  energies: Energies | null,
): TakeSound {
  const notes: string[] = []
  let used: TakeSound['used'] = 'both'
  if (energies) {
    const { left, right, both } = energies
    if (left > right * silentEar) used = 'left'
    else if (right > left * silentEar) used = 'right'
    if (used !== 'both') notes.push(`Sound only in the ${used} ear; it is used for both.`)
    // Two channels that cancel out are one signal with a wire crossed: one of them is enough.
    else if (left + right > 0 && both < (left + right) * cancelled) {
      used = 'left'
      notes.push('Its two channels cancel each other out; only the left one is used.')
    }
  }
  if (isTelephone({ rate }))
    notes.push(
      `Recorded at ${Math.round(rate / 100) / 10} kHz, like a telephone: what was heard is uncertain throughout.`,
    )
  return { channels, rate, used, notes }
}
