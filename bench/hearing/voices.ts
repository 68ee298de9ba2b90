import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import path from 'node:path'
import { rate, type Sound } from './sound.ts'

/** Two families of machine voices from Debian (flite, festival) and a person's recorded numbers (asterisk-core-sounds-en-g722). */
const voices = [
  'flite slt',
  'flite rms',
  'flite awb',
  'flite kal16',
  'festival kal',
  'festival ked',
  'person',
] as const
export type Voice = (typeof voices)[number]
const festival: Record<string, string> = { kal: 'kal_diphone', ked: 'ked_diphone' }
const sounds = '/usr/share/asterisk/sounds'
const recorded = (fs.existsSync(sounds) ? fs.readdirSync(sounds) : []).map((f) =>
  path.join(sounds, f, 'digits'),
)

const has = (program: string): boolean => {
  try {
    execFileSync('which', [program], { stdio: 'ignore' })
    return true
  } catch {
    return false
  }
}
/** Voices that are installed on this machine. */
export const here = (): Voice[] =>
  voices.filter((v) =>
    v === 'person'
      ? recorded.some((f) => fs.existsSync(f))
      : has(v.startsWith('flite') ? 'flite' : 'text2wave'),
  )

const known = new Map<string, Sound>()
/** Speaks a text at 16 kHz; the person only says numbers, word by word. `slow` stretches machine voices. */
export function speak(voice: Voice, text: string, folder: string, slow = 1.2): Sound {
  const key = `${voice}|${slow}|${text}`
  const before = known.get(key)
  if (before) return before
  const sound = voice === 'person' ? person(text) : machine(voice, text, folder, slow)
  known.set(key, sound)
  return sound
}
function machine(voice: Voice, text: string, folder: string, slow: number): Sound {
  const out = path.join(folder, 'spoken.wav')
  const [family, name] = voice.split(' ') as [string, string]
  if (family === 'flite')
    execFileSync('flite', ['-voice', name, '--setf', `duration_stretch=${slow}`, '-t', text, '-o', out])
  else {
    const file = path.join(folder, 'text.txt')
    fs.writeFileSync(file, text)
    execFileSync('text2wave', [
      '-eval',
      `(begin (voice_${festival[name]!}) (Parameter.set 'Duration_Stretch ${slow}))`,
      '-F',
      String(rate),
      file,
      '-o',
      out,
    ])
  }
  return trimmed(decoded(['-i', out]))
}
function person(text: string): Sound {
  const parts = text
    .replace(/[.,]/g, '')
    .split(' ')
    .map((word) => {
      const name = word === 'hundred' ? 'hundred' : String(numbers.indexOf(word))
      const file = recorded.map((f) => path.join(f, `${name}.g722`)).find((f) => fs.existsSync(f))
      if (!file || name === '-1') throw new Error(`no recording of “${word}”`)
      return trimmed(decoded(['-f', 'g722', '-i', file]))
    })
  const out = new Float32Array(parts.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const p of parts) {
    out.set(p, at)
    at += p.length
  }
  return out
}
const numbers = (() => {
  const out: string[] =
    'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen'.split(
      ' ',
    )
  'twenty thirty forty fifty sixty seventy eighty ninety'
    .split(' ')
    .forEach((w, i) => (out[(i + 2) * 10] = w))
  return out
})()
const decoded = (input: string[]): Sound => {
  const raw = execFileSync(
    'ffmpeg',
    ['-v', 'error', ...input, '-ar', String(rate), '-ac', '1', '-f', 'f32le', '-'],
    {
      maxBuffer: 1 << 28,
    },
  )
  return new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength))
}
function trimmed(s: Sound): Sound {
  let [a, b] = [0, s.length]
  while (a < b && Math.abs(s[a]!) < 0.01) a++
  while (b > a && Math.abs(s[b - 1]!) < 0.01) b--
  return s.slice(Math.max(0, a - 400), Math.min(s.length, b + 800))
}
