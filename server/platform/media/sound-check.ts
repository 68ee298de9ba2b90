import { spawn } from 'node:child_process'
import type { TakeSound } from '@awlbox/core/contracts/take'
import type { Probe } from './ffmpeg.ts'

/** Under this many samples a second the sound is a telephone's, in which half the consonants are missing. */
const telephone = 11_025

/**
 * Looks at how a clip's sound was recorded: in one ear only, the two ears against each other, telephone sound. Reads it
 * once at a low rate; memory does not grow with its length.
 */
export async function soundCheck(file: string, p: Probe, signal?: AbortSignal): Promise<TakeSound> {
  const notes: string[] = []
  let used: TakeSound['used'] = 'both'
  if (p.channels >= 2) {
    const { left, right, both } = await energies(file, signal)
    if (left > right * 100) used = 'left'
    else if (right > left * 100) used = 'right'
    // Two channels that cancel out are one signal with a wire crossed: one of them is enough.
    else if (left + right > 0 && both < (left + right) * 0.02) {
      used = 'left'
      notes.push('Its two channels cancel each other out; only the left one is used.')
    }
    if (used !== 'both' && !notes.length) notes.push(`Sound only in the ${used} ear; it is used for both.`)
  }
  if (p.rate > 0 && p.rate <= telephone) notes.push(`Recorded at ${Math.round(p.rate / 100) / 10} kHz, like a telephone: what was heard is uncertain throughout.`)
  return { channels: p.channels, rate: p.rate, used, notes }
}
export const isTelephone = (s: Pick<TakeSound, 'rate'> | null): boolean => s !== null && s.rate > 0 && s.rate <= telephone

function energies(file: string, signal?: AbortSignal): Promise<{ left: number; right: number; both: number }> {
  return new Promise((resolve, reject) => {
    const child = spawn('ffmpeg', ['-v', 'error', '-nostdin', '-protocol_whitelist', 'file,pipe', '-i', file, '-vn', '-ac', '2', '-ar', '8000', '-f', 's16le', 'pipe:1'], { stdio: ['ignore', 'pipe', 'ignore'], ...(signal ? { signal } : {}) })
    const sum = { left: 0, right: 0, both: 0 }
    let rest: Buffer = Buffer.alloc(0)
    child.stdout.on('data', (data: Buffer) => {
      const all = rest.length ? Buffer.concat([rest, data]) : data
      const whole = all.length - (all.length % 4)
      for (let i = 0; i < whole; i += 4) {
        const [l, r] = [all.readInt16LE(i) / 32_768, all.readInt16LE(i + 2) / 32_768]
        sum.left += l * l
        sum.right += r * r
        sum.both += ((l + r) * (l + r)) / 2
      }
      rest = all.subarray(whole)
    })
    child.on('error', reject)
    // A corrupt tail ends the reading early; what came before it tells enough.
    child.on('close', () => resolve(sum))
  })
}
