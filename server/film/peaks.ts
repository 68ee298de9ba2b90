import { eachBlock, openWav } from '../platform/media/wav.ts'

export const peaksPerSecond = 50
/** Loudest sample of each fiftieth of a second of 16-bit samples, 0–255 on a square-root scale so that quiet speech shows. */
function peaksOf(samples: Int16Array, rate: number): Buffer {
  const step = rate / peaksPerSecond
  const out = Buffer.alloc(Math.ceil(samples.length / step))
  for (let k = 0; k < out.length; k++) {
    let most = 0
    for (let i = Math.floor(k * step); i < Math.min(samples.length, (k + 1) * step); i++)
      most = Math.max(most, Math.abs(samples[i]! / 32_768))
    out[k] = Math.round(Math.sqrt(most) * 255)
  }
  return out
}
/** The peaks of a mono 16-bit WAV, read a minute at a time. */
export async function peaksIn(wav: string): Promise<Buffer> {
  const span = await openWav(wav)
  const parts: Buffer[] = []
  await eachBlock(wav, span, 60, (samples) => void parts.push(peaksOf(samples, span.rate)))
  return Buffer.concat(parts)
}
