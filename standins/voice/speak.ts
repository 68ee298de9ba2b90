import { execFile } from 'node:child_process'
import fs from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { promisify } from 'node:util'
import type { StandInVoice } from '@awlbox/core/contracts/stand-in'

const exec = promisify(execFile)
/** Samples a second of everything the stand-in voice says. */
export const speechRate = 16_000

/**
 * Says words in one of Debian's flite voices: mono samples of 16 bits at `speechRate`, silence at both ends trimmed.
 * `slowness` stretches the voice: 1.25 is as one speaks to a young child, 1 is adult conversation.
 */
export async function speak(words: string, voice: StandInVoice, slowness = 1.25): Promise<Int16Array> {
  const folder = await fs.mkdtemp(path.join(os.tmpdir(), 'awlbox-voice-'))
  try {
    const file = path.join(folder, 'line.wav')
    await exec('flite', ['-voice', voice, '--setf', `duration_stretch=${slowness}`, '-t', words, '-o', file])
    const wav = await fs.readFile(file)
    const at = wav.indexOf('data', 12, 'latin1') + 8
    const rate = wav.readUInt32LE(24)
    if (rate !== speechRate) throw new Error(`The voice ${voice} speaks at ${rate} samples a second`)
    const samples = new Int16Array(Math.floor((wav.length - at) / 2))
    for (let i = 0; i < samples.length; i++) samples[i] = wav.readInt16LE(at + i * 2)
    return trim(samples)
  } finally {
    await fs.rm(folder, { recursive: true, force: true })
  }
}

function trim(s: Int16Array): Int16Array {
  const quiet = 300
  let [a, b] = [0, s.length]
  while (a < b && Math.abs(s[a]!) < quiet) a++
  while (b > a && Math.abs(s[b - 1]!) < quiet) b--
  const pad = Math.round(speechRate * 0.04)
  return s.slice(Math.max(0, a - pad), Math.min(s.length, b + pad))
}
