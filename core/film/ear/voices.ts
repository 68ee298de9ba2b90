import type { Seconds } from '../../contracts/units.ts'
import type { HeardWord } from '../../contracts/heard.ts'
import { levelsPerSecond, type Piece } from './chunks.ts'

/** Pitch of a sound, so many values a second; 0 where none is heard. */
export const pitchesPerSecond = 50
/** Hertz between which people speak: a deep man, a child that squeals. */
const [lowest, highest] = [70, 420]
/** How alike a sound must be to itself one period later to count as voiced (1: wholly), and how long it is looked at, in seconds. */
const [alike, window] = [0.6, 0.032]

/**
 * Pitch of a block of 16-bit samples by normalised autocorrelation on every second sample; half the work, and no voice's
 * pitch lies near what that loses. Blocks follow one another without a gap.
 */
export function pitchesIn(samples: ArrayLike<number>, rate: number): Float32Array {
  const slow = rate / 2
  const half = Float32Array.from(
    { length: Math.floor(samples.length / 2) },
    (_, i) => samples[i * 2]! + samples[i * 2 + 1]!,
  )
  const [size, hop] = [Math.round(window * slow), slow / pitchesPerSecond]
  const [shortest, longest] = [Math.floor(slow / highest), Math.ceil(slow / lowest)]
  const out = new Float32Array(Math.floor((samples.length / rate) * pitchesPerSecond))
  for (let k = 0; k < out.length; k++) {
    const at = Math.round(k * hop)
    if (at + size + longest > half.length) break
    let own = 0
    for (let i = at; i < at + size; i++) own += half[i]! ** 2
    if (own < size * 900) continue
    let [best, lag] = [0, 0]
    for (let l = shortest; l <= longest; l++) {
      let [both, shifted] = [0, 0]
      for (let i = at; i < at + size; i++) {
        both += half[i]! * half[i + l]!
        shifted += half[i + l]! ** 2
      }
      const like = both / Math.sqrt(own * shifted + 1)
      // Twice the period is as alike: the shorter one is the voice's, unless the longer is clearly better.
      if (like > best + 0.04) [best, lag] = [like, l]
    }
    if (best >= alike) out[k] = slow / lag
  }
  return out
}

/** A stretch in which somebody else speaks; `sure` where pitch and level both say so. */
export interface OtherVoice extends Piece {
  sure: boolean
}
const semitones = (hz: number, than: number): number => 12 * Math.log2(hz / than)
const middle = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) / 2)]!

/**
 * How far from the take's own voice a word lies when it is another's. Within a sentence a speaker's pitch moves by
 * some four semitones either way, and by more when she plays a part: pitch alone is a doubt. A child or a second adult
 * in the room is further from the microphone too. Semitones, decibels.
 */
const apart = { pitch: 4, alone: 6, level: 4 } as const
/** Voiced values a word needs for its pitch to be known. */
const enough = 3

/**
 * Where somebody else than the take's speaker is heard, word by word. The speaker is who speaks most. Nothing is told
 * where fewer than eight words have a pitch, or where the voices are not two: most lie on one side.
 */
export function otherVoices(
  words: readonly HeardWord[],
  pitches: ArrayLike<number>,
  levels: ArrayLike<number>,
): OtherVoice[] {
  const between = (of: ArrayLike<number>, each: number, from: Seconds, to: Seconds): number[] => {
    const out: number[] = []
    for (let k = Math.max(0, Math.floor(from * each)); k < Math.min(of.length, Math.ceil(to * each)); k++)
      out.push(of[k]!)
    return out
  }
  const known = words.flatMap((w) => {
    const voiced = between(pitches, pitchesPerSecond, w.start, w.end).filter((x) => x > 0)
    const loud = between(levels, levelsPerSecond, w.start, w.end).sort((a, b) => b - a)
    // The loudest third: a word's own vowels, not the silence it runs into.
    const level = loud.slice(0, Math.max(1, Math.ceil(loud.length / 3)))
    return voiced.length >= enough && level.length
      ? [{ w, pitch: middle(voiced), level: 20 * Math.log10(Math.max(1e-6, middle(level))) }]
      : []
  })
  if (known.length < 8) return []
  const [pitch, level] = [middle(known.map((k) => k.pitch)), middle(known.map((k) => k.level))]
  const others = known.flatMap(({ w, pitch: p, level: l }): OtherVoice[] => {
    const off = Math.abs(semitones(p, pitch))
    const sure = off > apart.pitch && l < level - apart.level
    return sure || off > apart.alone ? [{ from: w.start, to: w.end, sure }] : []
  })
  // A speaker whose every third word is "another's" is one who plays many parts.
  return others.length > known.length / 3 ? others.map((o) => ({ ...o, sure: false })) : others
}
/** Words but for those that somebody else surely said. */
export const withoutOthers = (words: readonly HeardWord[], others: readonly OtherVoice[]): HeardWord[] => {
  const sure = others.filter((o) => o.sure)
  return sure.length
    ? words.filter((w) => !sure.some((o) => (w.start + w.end) / 2 > o.from && (w.start + w.end) / 2 < o.to))
    : [...words]
}
