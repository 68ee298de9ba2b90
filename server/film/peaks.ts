/** Samples of a 16-bit PCM WAV, −1 … 1, mono or its first channel. @throws Error when it is no such file. */
export function readWav(file: Buffer): { samples: Float32Array; rate: number } {
  if (file.toString('latin1', 0, 4) !== 'RIFF') throw new Error('Not a WAV file')
  let [at, rate, channels] = [12, 0, 1]
  while (at + 8 <= file.length) {
    const id = file.toString('latin1', at, at + 4)
    const size = Math.min(file.readUInt32LE(at + 4), file.length - at - 8)
    if (id === 'fmt ') {
      channels = file.readUInt16LE(at + 10)
      rate = file.readUInt32LE(at + 12)
    }
    if (id === 'data') {
      const n = Math.floor(size / 2 / channels)
      const samples = new Float32Array(n)
      for (let i = 0; i < n; i++) samples[i] = file.readInt16LE(at + 8 + i * 2 * channels) / 32768
      return { samples, rate }
    }
    at += 8 + size + (size % 2)
  }
  throw new Error('The WAV file has no sound in it')
}

export const peaksPerSecond = 50
/** Loudest sample of each fiftieth of a second, 0–255 on a square-root scale so that quiet speech shows. */
export function peaksOf({ samples, rate }: { samples: Float32Array; rate: number }): Buffer {
  const step = rate / peaksPerSecond
  const out = Buffer.alloc(Math.ceil(samples.length / step))
  for (let k = 0; k < out.length; k++) {
    let most = 0
    for (let i = Math.floor(k * step); i < Math.min(samples.length, (k + 1) * step); i++) most = Math.max(most, Math.abs(samples[i]!))
    out[k] = Math.round(Math.sqrt(most) * 255)
  }
  return out
}
