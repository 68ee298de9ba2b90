import { drawFrom } from './draw.ts'
import {
  clipped,
  gated,
  higher,
  joined,
  kitchen,
  level,
  muffled,
  type Noise,
  noiseOf,
  noises,
  rate,
  silence,
  type Sound,
  telephone,
  under,
} from './sound.ts'
import { type Mistake, type Plan, type Text, textOf } from './texts.ts'
import { speak, type Voice } from './voices.ts'

export type Surrounding =
  | { kind: 'studio' | 'kitchen' | 'gate' | 'telephone' | 'muffled' | 'quiet' }
  | { kind: 'noise'; noise: Noise; decibels: number }
  | { kind: 'clipped'; times: number }
  | { kind: 'second voice'; decibels: number; over: boolean }
export const surroundings: readonly Surrounding[] = [
  { kind: 'studio' },
  { kind: 'kitchen' },
  { kind: 'gate' },
  { kind: 'quiet' },
  { kind: 'telephone' },
  { kind: 'muffled' },
  { kind: 'clipped', times: 6 },
  { kind: 'clipped', times: 20 },
  ...noises.flatMap((noise) =>
    [25, 20, 15, 10, 5].map((decibels): Surrounding => ({ kind: 'noise', noise, decibels })),
  ),
  { kind: 'second voice', decibels: 6, over: false },
  { kind: 'second voice', decibels: 12, over: false },
  { kind: 'second voice', decibels: 12, over: true },
]
export const nameOf = (s: Surrounding): string =>
  s.kind === 'noise'
    ? `${s.noise} ${s.decibels} dB`
    : s.kind === 'clipped'
      ? `clipped ${s.times}×`
      : s.kind === 'second voice'
        ? `second voice −${s.decibels} dB ${s.over ? 'over' : 'between'}`
        : s.kind

export interface Take {
  text: Text
  sound: Sound
  /** When each thing said begins and ends, seconds. */
  times: { from: number; to: number }[]
}
/** What a child says beside the teacher: numbers of its own, and talk. */
const childish = [
  'three',
  'five',
  'I can see it',
  'nine',
  'mine is blue',
  'two',
  'can I have one',
  'six',
  'look',
  'eight',
]

/** What a take is to be: everything that is crossed, and the seed of the rest. */
export interface Order {
  seed: number
  voice: Voice
  around: Surrounding
  plan: Plan
  mistake: Mistake
}
export function takeOf({ seed, voice, around, plan, mistake }: Order, folder: string): Take {
  const d = drawFrom(seed)
  const text = textOf(d, plan, mistake)
  const said = voice === 'person' ? text.said.filter((s) => s.counted) : text.said
  const times: { from: number; to: number }[] = []
  const parts: Sound[] = [silence(0.8)]
  const child: { at: number; sound: Sound }[] = []
  let at = parts[0]!.length
  const add = (p: Sound): void => {
    parts.push(p)
    at += p.length
  }
  const other: Voice = voice === 'flite slt' ? 'flite rms' : 'flite slt'
  said.forEach((s, i) => {
    const sound = level(speak(voice, s.text, folder))
    times.push({ from: at / rate, to: (at + sound.length) / rate })
    if (around.kind === 'second voice' && around.over && i % 3 === 1)
      child.push({ at: at + rate / 10, sound: childSays(d.of(childish)) })
    add(sound)
    const gap = s.counted ? 0.25 + d.next() * 0.4 : 0.5 + d.next() * 0.6
    if (around.kind === 'second voice' && !around.over && i % 4 === 2) {
      const more = childSays(d.of(childish))
      child.push({ at: at + rate * 0.3, sound: more })
      add(silence(0.6 + more.length / rate))
    }
    add(silence(gap))
  })
  add(silence(0.8))
  function childSays(words: string): Sound {
    return level(higher(speak(other, words, folder, 1), 1.3))
  }
  let sound = joined(parts)
  for (const c of child)
    for (let i = 0; i < c.sound.length && c.at + i < sound.length; i++)
      sound[Math.round(c.at) + i]! += c.sound[i]! * 10 ** (-(around as { decibels: number }).decibels / 20)
  const floor = drawFrom(seed + 7)
  // A room is never wholly still but behind a gate.
  const hiss = noiseOf('pink', sound.length, floor, [])
  const still = around.kind === 'gate' ? gated(sound) : under(sound, hiss, 45)
  sound = still
  if (around.kind === 'kitchen') sound = kitchen(still, 0.45, floor)
  if (around.kind === 'telephone') sound = telephone(still)
  if (around.kind === 'muffled') sound = muffled(still)
  if (around.kind === 'quiet') sound = still.map((x) => x * 0.03)
  if (around.kind === 'clipped') sound = clipped(still, around.times)
  if (around.kind === 'noise') {
    const talk = [
      'the bus was late again this morning',
      'I put the kettle on for you',
      'where did you leave your shoes',
    ].map((t) => level(speak(other, t, folder, 1)))
    sound = level(under(sound, noiseOf(around.noise, sound.length, floor, talk), around.decibels), 0.6)
  }
  return { text, sound, times }
}
