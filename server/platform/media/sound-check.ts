import path from 'node:path'
import type { TakeSound } from '@awlbox/core/contracts/take'
import { type Energies, judgeChannels } from '@awlbox/core/film/ear/channels'
import { log } from '../log.ts'
import { decode, type Probe } from './ffmpeg.ts'
import { ToolError } from './run.ts'

/** Looks at how a clip's sound was recorded. Reads it once at a low rate; memory does not grow with its length. */
export async function soundCheck(file: string, p: Probe, signal?: AbortSignal): Promise<TakeSound> {
  return judgeChannels(p, p.channels >= 2 ? await energies(file, signal) : null)
}

async function energies(file: string, signal?: AbortSignal): Promise<Energies> {
  const { bytes, ended } = decode(file, ['-vn', '-ac', '2', '-ar', '8000', '-f', 's16le'], signal)
  const sum = { left: 0, right: 0, both: 0 }
  let rest: Buffer = Buffer.alloc(0)
  for await (const data of bytes) {
    const all = rest.length ? Buffer.concat([rest, data]) : data
    const whole = all.length - (all.length % 4)
    for (let i = 0; i < whole; i += 4) {
      const [l, r] = [all.readInt16LE(i) / 32_768, all.readInt16LE(i + 2) / 32_768]
      sum.left += l * l
      sum.right += r * r
      sum.both += ((l + r) * (l + r)) / 2
    }
    rest = all.subarray(whole)
  }
  try {
    await ended
  } catch (error) {
    // A corrupt tail ends the reading early; what came before it tells enough.
    if (!(error instanceof ToolError)) throw error
    log.info({ file: path.basename(file), ended: error.code }, 'sound read up to where it is broken')
  }
  return sum
}
