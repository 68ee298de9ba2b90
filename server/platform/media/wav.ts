import fs from 'node:fs/promises'

/** Where the sound of a WAV file lies. */
export interface WavSpan {
  /** Samples a second. */
  rate: number
  channels: number
  /** Byte at which samples begin, and bytes of them. */
  from: number
  bytes: number
}

/** Finds the samples of a 16-bit PCM WAV without reading them. @throws Error when it is no such file. */
export async function openWav(file: string): Promise<WavSpan> {
  const handle = await fs.open(file)
  try {
    const { size } = await handle.stat()
    const head = Buffer.alloc(Math.min(size, 4096))
    await handle.read(head, 0, head.length, 0)
    if (head.toString('latin1', 0, 4) !== 'RIFF') throw new Error('Not a WAV file')
    let [at, rate, channels] = [12, 0, 1]
    while (at + 8 <= head.length) {
      const id = head.toString('latin1', at, at + 4)
      const length = Math.min(head.readUInt32LE(at + 4), size - at - 8)
      if (id === 'fmt ') {
        channels = head.readUInt16LE(at + 10)
        rate = head.readUInt32LE(at + 12)
      }
      if (id === 'data') return { rate, channels, from: at + 8, bytes: length }
      at += 8 + length + (length % 2)
    }
    throw new Error('The WAV file has no sound in it')
  } finally {
    await handle.close()
  }
}

/** Samples `from` up to `to` of a mono 16-bit WAV. */
export async function readSamples(file: string, wav: WavSpan, from: number, to: number): Promise<Int16Array> {
  const [a, b] = [Math.max(0, Math.floor(from)), Math.min(Math.floor(wav.bytes / 2), Math.floor(to))]
  const buffer = Buffer.alloc(Math.max(0, b - a) * 2)
  const handle = await fs.open(file)
  try {
    await handle.read(buffer, 0, buffer.length, wav.from + a * 2)
  } finally {
    await handle.close()
  }
  return new Int16Array(buffer.buffer, buffer.byteOffset, buffer.length / 2)
}

/** Hands a mono 16-bit WAV over in blocks of some seconds, so that three hours take no more memory than a minute. */
export async function eachBlock(
  file: string,
  wav: WavSpan,
  seconds: number,
  tell: (samples: Int16Array, from: number) => void,
): Promise<void> {
  const block = Math.round(wav.rate * seconds)
  for (let at = 0; at < wav.bytes / 2; at += block) tell(await readSamples(file, wav, at, at + block), at)
}
