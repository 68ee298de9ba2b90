import type { Seconds } from '../../contracts/units.ts'
import type { HeardFinding, HeardLine, HeardWord, SoundAdvice, Understanding } from '../../contracts/heard.ts'
import type { Piece } from '../ear/chunks.ts'
import type { OtherVoice } from '../ear/voices.ts'
import { numberWords } from '../ear/language-model.ts'
import { ofWords } from './limits.ts'
import { talkWords } from '../ear/talk-words.ts'

/**
 * From which score on a stretch was understood, and from which on partly. The score is the share of its sounding time
 * that heard words account for, each by its confidence and by whether it is expected; 1 is all of it. Against a script
 * clean takes come to 0.85–0.95 and speech of something else to 0.2–0.4; with none, clean counting and sums to 0.7–0.85
 * and other talk, cut off sound or noise at 5 dB to 0.25–0.6 (see docs/hearing.md).
 */
const from = { script: { understood: 0.6, partly: 0.36 }, free: { understood: 0.7, partly: 0.38 } } as const
/** A word that is in no line of the script counts half: an aside is usual, a take of nothing else is another take. */
const aside = 0.5
/** Stretches are parted at silences this long, and are no longer than this, in seconds. */
const [parted, longest] = [1.2, 14]
/** Words whose sound runs over their recognised edges by this much are still their own, in seconds. */
const edge = 0.12

/** Stretches of voice between longer silences: what is understood, or not, together. */
function stretchesOf(voiced: readonly Piece[]): Piece[] {
  const out: Piece[] = []
  for (const v of voiced) {
    const last = out.at(-1)
    if (last && v.from - last.to < parted && v.to - last.from <= longest) last.to = v.to
    else out.push({ ...v })
  }
  return out
}
const state = (score: number, t: { understood: number; partly: number }): Understanding['how'] =>
  score >= t.understood ? 'understood' : score >= t.partly ? 'partly' : 'not understood'

/**
 * How much of a recording was understood. `lines` are the script's, where there is one: words that were matched in them
 * speak for it. `voiced` says where anything sounds; nothing sounding is nothing to understand.
 */
export function understand(
  words: readonly HeardWord[],
  voiced: readonly Piece[],
  lines: readonly HeardLine[] | null,
): Understanding {
  const limits = lines ? from.script : from.free
  const matched = new Set(lines?.flatMap((l) => l.words.flatMap((w) => (w.status === 'said' ? [w.at] : []))))
  const credit = (k: number): number => words[k]!.confidence * (!lines || matched.has(k) ? 1 : aside)
  const explained = (v: Piece): number => {
    let [at, sum] = [v.from, 0]
    words.forEach((w, k) => {
      const [a, b] = [Math.max(at, w.start - edge), Math.min(v.to, w.end + edge)]
      if (b <= a) return
      sum += (b - a) * credit(k)
      at = b
    })
    return sum
  }
  const stretches = stretchesOf(voiced).map((s) => {
    const inside = voiced.filter((v) => v.from < s.to && v.to > s.from)
    const seconds = inside.reduce((n, v) => n + v.to - v.from, 0)
    const score = seconds ? inside.reduce((n, v) => n + explained(v), 0) / seconds : 1
    return { from: s.from, to: s.to, seconds, score, how: state(score, limits) }
  })
  const all = stretches.reduce((n, s) => n + s.seconds, 0)
  const share = all ? stretches.reduce((n, s) => n + s.score * s.seconds, 0) / all : 1
  const lost = all
    ? stretches.filter((s) => s.how === 'not understood').reduce((n, s) => n + s.seconds, 0) / all
    : 0
  const whole = state(share, limits)
  return {
    // A good part that was not understood is no understood take, however clear the rest.
    how: whole === 'understood' && lost > 0.2 ? 'partly' : whole,
    share: Math.round(Math.min(1, share) * 100) / 100,
    stretches: stretches.map(({ from: a, to: b, how }) => ({ from: a, to: b, how })),
    advice: [],
  }
}

/** The same beside what the sound itself tells: cut off or through a telephone, half the consonants are guessed at. */
export const withAdvice = (u: Understanding, advice: readonly SoundAdvice[]): Understanding => ({
  ...u,
  how: u.how === 'understood' && isMaimed(advice) ? 'partly' : u.how,
  advice: [...advice],
})
const isMaimed = (advice: readonly SoundAdvice[]): boolean =>
  advice.includes('telephone') || advice.includes('cut off')

/** The same beside where somebody else speaks. */
export const withOthers = (u: Understanding, others: readonly OtherVoice[]): Understanding =>
  others.length
    ? {
        ...u,
        others: others.map(({ from: a, to: b, sure }) => ({ from: a, to: b, sure })),
        advice: others.some((o) => o.sure) ? [...new Set([...u.advice, 'second voice' as const])] : u.advice,
      }
    : u
/** What sounds but for where somebody else surely does: there is nothing in that to be understood. */
export const withoutStretches = (voiced: readonly Piece[], others: readonly OtherVoice[]): Piece[] =>
  others
    .filter((o) => o.sure)
    .reduce<Piece[]>(
      (left, o) =>
        left.flatMap((v) =>
          o.from >= v.to || o.to <= v.from
            ? [v]
            : [
                ...(o.from > v.from ? [{ from: v.from, to: o.from }] : []),
                ...(o.to < v.to ? [{ from: o.to, to: v.to }] : []),
              ],
        ),
      [...voiced],
    )

/** English of a lesson is half small words; captions in which they are this rare are of another language, or of none. */
const known = { understood: 0.3, partly: 0.16 } as const
const common = new Set<string>([...talkWords, ...numberWords])
/** The same for captions, which have no sound: by their words. */
export function understandCaptions(
  words: readonly HeardWord[],
  lines: readonly HeardLine[] | null,
): Understanding {
  const matched = new Set(lines?.flatMap((l) => l.words.flatMap((w) => (w.status === 'said' ? [w.at] : []))))
  const told = words.filter((w) => /\p{L}|\d/u.test(w.word))
  const mine = words.filter(
    (w, k) => matched.has(k) || common.has(w.word.toLowerCase()) || /^\d+$/.test(w.word),
  )
  const share = told.length ? mine.length / told.length : 0
  return { how: state(share, known), share: Math.round(share * 100) / 100, stretches: [], advice: [] }
}

/**
 * Findings as sure as their sound allows: none through a telephone, cut off, or with the room nearly as loud as the
 * voice (of 246 takes made apart, five of the eleven wrong and sure ones were such); else each where it was understood.
 */
export const asSureAsHeard = (
  findings: readonly HeardFinding[],
  u: Understanding,
  unsure = false,
): HeardFinding[] => {
  if (unsure || isMaimed(u.advice)) return findings.map((f) => ({ ...f, certain: false }))
  // Silences and pace are heard in a loud room too.
  if (u.advice.includes('noise'))
    return findings.map((f) => (ofMeaning.has(f.code) ? { ...f, certain: false } : f))
  return certainWhereUnderstood(findings, u)
}
/** Findings with those in or beside a stretch that was not understood turned into doubts. Times alone (a silence, a pace) need no understanding. */
function certainWhereUnderstood(findings: readonly HeardFinding[], u: Understanding): HeardFinding[] {
  const near: Seconds = 0.6
  const beside = (f: HeardFinding): boolean =>
    u.others?.some((o) => o.from < f.end + near && o.to > f.start - near) ?? false
  const clear = (f: HeardFinding): boolean => {
    if (beside(f)) return false
    const here = u.stretches.filter((s) => s.from < f.end + near && s.to > f.start - near)
    return here.length ? here.every((s) => s.how === 'understood') : u.how === 'understood'
  }
  return findings.map((f) => (f.certain && ofMeaning.has(f.code) && !clear(f) ? { ...f, certain: false } : f))
}
const ofMeaning: ReadonlySet<HeardFinding['code']> = new Set([
  ...ofWords,
  'filler',
  'answer-early',
  'pause-cue',
  'recount',
])
