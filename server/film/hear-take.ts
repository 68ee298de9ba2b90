import type {
  HeardFinding,
  HeardWord,
  Hearing,
  SoundFacts,
  Understanding,
} from '@awlbox/core/contracts/heard'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { clapTimes } from '@awlbox/core/film/judge/claps'
import { corrected } from '@awlbox/core/film/desk/corrections'
import { hear } from '@awlbox/core/film/judge/heard'
import { spokenLines } from '@awlbox/core/film/follow/spoken'
import { hearFree } from '@awlbox/core/film/judge/free'
import { freeLines } from '@awlbox/core/film/ear/free-language'
import { agreedFindings, doubtful, withSecond } from '@awlbox/core/film/judge/second-ear'
import { addSamples, adviceOf, factsOf, gather } from '@awlbox/core/film/ear/sound-facts'
import {
  asSureAsHeard,
  understand,
  withAdvice,
  withOthers,
  withoutStretches,
} from '@awlbox/core/film/judge/understood'
import { otherVoices, pitchesIn, pitchesPerSecond, withoutOthers } from '@awlbox/core/film/ear/voices'
import { voicedIn, withinVoice } from '@awlbox/core/film/ear/voiced'
import { readClaps } from '@awlbox/core/script/reading'
import { levelsIn, type Listening, recognise } from '../platform/media/recogniser.ts'
import { eachBlock, openWav } from '../platform/media/wav.ts'
import { hearTwice } from './hear-twice.ts'
import type { Correction } from '@awlbox/core/contracts/correction'

export interface HearTakeOptions extends Listening {
  style: HouseStyle
  age: number
  /** Nothing in it can be certain: telephone sound. */
  unsure?: boolean
  /** What a person said was really said: holds over what is recognised. */
  corrections?: readonly Correction[]
}

/** Hears a 16 kHz mono WAV against its segment: words, silences and claps. */
export async function hearTake(
  wav: string,
  segment: Segment,
  { style, age, unsure = false, corrections = [], ...listening }: HearTakeOptions,
): Promise<Hearing> {
  const span = await openWav(wav)
  const duration = span.bytes / 2 / span.rate
  const levels = await levelsIn(wav)
  const voiced = voicedIn(levels)
  const { facts, pitches } = await soundOf(wav, levels)
  const advice = adviceOf(facts)
  const claps = segment.steps.some((s) => s.verb === 'sound' && readClaps(s.text)) ? await clapsIn(wav) : null
  return hearTwice(
    wav,
    spokenLines(segment, style),
    duration,
    (words, unpronounced) =>
      hear(segment, corrected(words, corrections), duration, {
        style,
        age,
        unpronounced,
        claps,
        voiced,
        unsure,
        advice,
        others: otherVoices(words, pitches, levels),
      }),
    { ...listening, levels },
  )
}

/** Hears a 16 kHz mono WAV with no script: the words, and what they say of counts and sums. */
export async function hearFreeTake(
  wav: string,
  listening: Listening = {},
): Promise<{ words: HeardWord[]; findings: HeardFinding[]; understood: Understanding }> {
  const span = await openWav(wav)
  const duration = span.bytes / 2 / span.rate
  const levels = await levelsIn(wav)
  const voiced = voicedIn(levels)
  const { facts, pitches } = await soundOf(wav, levels)
  const advice = adviceOf(facts)
  const said = withinVoice(voiced, (await recognise(wav, freeLines, { ...listening, levels })).words)
  const others = otherVoices(said, pitches, levels)
  const words = withoutOthers(said, others)
  const understood = withOthers(
    withAdvice(understand(words, withoutStretches(voiced, others), null), advice),
    others,
  )
  const sure = (found: readonly HeardFinding[]): HeardFinding[] => asSureAsHeard(found, understood)
  const findings = hearFree(words)
  const stretches = doubtful({ words, findings }, duration)
  if (!stretches.length) return { words, findings: sure(findings), understood }
  const again = withoutOthers(
    withinVoice(
      voiced,
      (await recognise(wav, freeLines, { ...listening, levels, only: stretches, second: true })).words,
    ),
    others,
  )
  const agreed = agreedFindings(findings, hearFree(withSecond(words, again, stretches)), [])
  return { words, findings: sure(agreed), understood }
}
/** What the sound of a WAV is like, and its pitch, read in blocks. */
async function soundOf(
  wav: string,
  levels: ArrayLike<number>,
): Promise<{ facts: SoundFacts; pitches: Float32Array }> {
  const [gathered, span] = [gather(), await openWav(wav)]
  const pitches = new Float32Array(Math.ceil((span.bytes / 2 / span.rate) * pitchesPerSecond) + 1)
  await eachBlock(wav, span, 30, (samples, from) => {
    addSamples(gathered, samples)
    pitches.set(pitchesIn(samples, span.rate), Math.round((from / span.rate) * pitchesPerSecond))
  })
  return { facts: factsOf(gathered, levels), pitches }
}

/** Claps of a WAV, a minute at a time so that a long take costs no more memory than a short one. */
async function clapsIn(wav: string): Promise<number[]> {
  const span = await openWav(wav)
  const out: number[] = []
  let at = 0
  await eachBlock(wav, span, 60, (samples) => {
    for (const t of clapTimes(samples, span.rate)) out.push(at + t)
    at += samples.length / span.rate
  })
  return out
}
