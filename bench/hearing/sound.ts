import type { Draw } from './draw.ts'

/** Sound at 16 kHz, −1 to 1. Textbook signal processing, shared with nothing that listens. */
export const rate = 16_000
export type Sound = Float32Array

export const seconds = (s: Sound): number => s.length / rate
export const silence = (s: number): Sound => new Float32Array(Math.round(s * rate))
export function joined(parts: readonly Sound[]): Sound {
  const out = new Float32Array(parts.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const p of parts) {
    out.set(p, at)
    at += p.length
  }
  return out
}
const power = (s: Sound): number => {
  // Of what sounds: the loudest half of the blocks of 20 ms.
  const size = rate / 50
  const blocks: number[] = []
  for (let i = 0; i + size <= s.length; i += size) {
    let sum = 0
    for (let k = i; k < i + size; k++) sum += s[k]! ** 2
    blocks.push(sum / size)
  }
  const loud = blocks.sort((a, b) => b - a).slice(0, Math.ceil(blocks.length / 2))
  return loud.reduce((n, x) => n + x, 0) / Math.max(1, loud.length)
}
const mixed = (a: Sound, b: Sound, gain: number): Sound => a.map((x, i) => x + (b[i] ?? 0) * gain)

/** One pole each: low-pass and high-pass of 6 dB an octave, run `times`. */
function lowPass(s: Sound, hz: number, times = 1): Sound {
  const k = 1 - Math.exp((-2 * Math.PI * hz) / rate)
  let out = s
  for (let t = 0; t < times; t++) {
    let y = 0
    out = out.map((x) => (y += k * (x - y)))
  }
  return out
}
const highPass = (s: Sound, hz: number, times = 1): Sound => {
  let out = s
  for (let t = 0; t < times; t++) {
    const low = lowPass(out, hz)
    out = out.map((x, i) => x - low[i]!)
  }
  return out
}

export const noises = ['white', 'pink', 'hum', 'kettle', 'babble', 'clatter'] as const
export type Noise = (typeof noises)[number]
const white = (d: Draw, n: number): Sound => Float32Array.from({ length: n }, () => d.next() * 2 - 1)
/** `talk` is speech of others, for babble. */
export function noiseOf(kind: Noise, n: number, d: Draw, talk: readonly Sound[]): Sound {
  switch (kind) {
    case 'white':
      return white(d, n)
    case 'pink': {
      // A sum of low-passed noises an octave apart falls by 3 dB an octave.
      const parts = [60, 240, 960, 3840].map((hz) => lowPass(white(d, n), hz))
      return Float32Array.from({ length: n }, (_, i) =>
        parts.reduce((s, p, k) => s + p[i]! * 2 ** (3 - k), 0),
      )
    }
    case 'hum':
      return Float32Array.from({ length: n }, (_, i) =>
        [1, 2, 3, 5].reduce((s, h) => s + Math.sin((2 * Math.PI * 50 * h * i) / rate) / h, 0),
      )
    case 'kettle':
      return highPass(lowPass(white(d, n), 2500, 2), 400).map((x, i) => x * (0.6 + 0.4 * Math.sin(i / 9000)))
    case 'babble': {
      const out = new Float32Array(n)
      for (let v = 0; v < 4; v++) {
        let at = -d.int(0, rate * 2)
        while (at < n) {
          const t = d.of(talk)
          for (let i = Math.max(0, -at); i < t.length && at + i < n; i++) out[at + i]! += t[i]!
          at += t.length
        }
      }
      return out
    }
    case 'clatter': {
      const out = new Float32Array(n)
      for (let at = d.int(0, rate); at < n; at += d.int(rate / 3, rate * 1.5)) {
        const loud = 0.3 + d.next()
        for (let i = 0; i < rate / 8 && at + i < n; i++)
          out[at + i]! += loud * (d.next() * 2 - 1) * Math.exp(-i / (rate / 60))
      }
      return out
    }
  }
}
/** Noise under a voice, so many decibels below what is said. */
export function under(s: Sound, noise: Sound, decibels: number): Sound {
  return mixed(s, noise, Math.sqrt(power(s) / 10 ** (decibels / 10) / Math.max(1e-12, power(noise))))
}
export const telephone = (s: Sound): Sound => lowPass(highPass(s, 300, 3), 3000, 6).map((x) => x * 3)
export const muffled = (s: Sound): Sound => lowPass(s, 1800, 3).map((x) => x * 2)
export const clipped = (s: Sound, times: number): Sound =>
  s.map((x) => Math.max(-0.98, Math.min(0.98, x * times)))
/** A gate: everything under a level is digital silence, word ends too. */
export function gated(s: Sound): Sound {
  const limit = Math.sqrt(power(s)) * 0.12
  let [env, open] = [0, 0]
  return s.map((x) => {
    env = Math.max(Math.abs(x), env * 0.999)
    open = env > limit ? Math.min(1, open + 0.01) : Math.max(0, open - 0.002)
    return open > 0.05 ? x * open : 0
  })
}
/** A hard kitchen: echoes dying away over `seconds`, as noise with an exponential tail. */
export function kitchen(s: Sound, seconds: number, d: Draw): Sound {
  const out = Float32Array.from(s)
  for (let k = 0; k < 60; k++) {
    const late = Math.floor((0.005 + seconds * d.next()) * rate)
    const gain = 0.25 * Math.exp((-4 * late) / rate / seconds) * (d.next() < 0.5 ? -1 : 1)
    for (let i = late; i < out.length; i++) out[i]! += s[i - late]! * gain
  }
  return out
}
/** Played faster, and higher: a child's voice from an adult's. */
export const higher = (s: Sound, times: number): Sound =>
  Float32Array.from({ length: Math.floor(s.length / times) }, (_, i) => {
    const at = i * times
    const k = Math.floor(at)
    return s[k]! + ((s[k + 1] ?? 0) - s[k]!) * (at - k)
  })
export function level(s: Sound, peak = 0.4): Sound {
  let most = 1e-6
  for (const x of s) most = Math.max(most, Math.abs(x))
  return s.map((x) => (x / most) * peak)
}
/** A WAV of 16 bits, one channel. */
export function wav(s: Sound): Buffer {
  const out = Buffer.alloc(44 + s.length * 2)
  out.write('RIFF', 0)
  out.writeUInt32LE(36 + s.length * 2, 4)
  out.write('WAVEfmt ', 8)
  out.writeUInt32LE(16, 16)
  out.writeUInt16LE(1, 20)
  out.writeUInt16LE(1, 22)
  out.writeUInt32LE(rate, 24)
  out.writeUInt32LE(rate * 2, 28)
  out.writeUInt16LE(2, 32)
  out.writeUInt16LE(16, 34)
  out.write('data', 36)
  out.writeUInt32LE(s.length * 2, 40)
  s.forEach((x, i) => out.writeInt16LE(Math.max(-32768, Math.min(32767, Math.round(x * 32767))), 44 + i * 2))
  return out
}
