/** A mono WAV file of 16-bit samples; `rate` in samples a second. */
export function wavOf(samples: Int16Array, rate: number): Uint8Array<ArrayBuffer> {
  const bytes = samples.length * 2
  const out = new Uint8Array(44 + bytes)
  const view = new DataView(out.buffer)
  const text = (at: number, s: string) => [...s].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)))
  text(0, 'RIFF')
  view.setUint32(4, 36 + bytes, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, 1, true)
  view.setUint16(22, 1, true)
  view.setUint32(24, rate, true)
  view.setUint32(28, rate * 2, true)
  view.setUint16(32, 2, true)
  view.setUint16(34, 16, true)
  text(36, 'data')
  view.setUint32(40, bytes, true)
  samples.forEach((x, i) => view.setInt16(44 + i * 2, x, true))
  return out
}
