import type { Help, Level, Rung } from '../contracts/reply.ts'

/**
 * Constants of knowledge tracing (after Corbett & Anderson 1995). `learn` and `slip` are usual values for short
 * practice; guess rates follow the kind of answer. Evidence counts less the more help was given.
 */
export const tracing = {
  start: 0.25,
  learn: 0.08,
  slip: 0.12,
  guess: { number: 0.05, choice: (n: number) => 1 / n, photo: 0.05, word: 0.3 },
  help: { alone: 1, nudged: 0.5, together: 0.25 } satisfies Record<Help, number>,
  /** What is seen live, in a round beside others, against what comes from home. */
  live: 0.5,
  /** Days after which half of what was gained above the start is no longer taken for granted. */
  halfLife: 60,
} as const

export interface Evidence {
  id: string
  /** Milliseconds since 1970. */
  at: number
  kind: 'number' | 'choice' | 'photo' | 'word'
  /** Choices offered, for a choice. */
  choices?: number
  right: boolean
  help: Help
  rung: Rung
  live?: boolean
}
/** What a person decided; `override` where it was said of the child and the idea, not of a reply. */
export interface Judged {
  id: string
  at: number
  level: Level
  help: Help
  rung: Rung
  by: string
  override?: boolean
  /** When what it judges came, ms: a reply judged a day later is no second day. */
  cameAt?: number
}
/** What is kept of a child's standing on an idea until its evidence changes; how much is forgotten is worked out when it is read. */
export interface Kept {
  /** Probability, 0–1, just after the last event, and when that was (ms). */
  p: number
  at: number
  start: number
  /** Sum of the evidence's weights: how much the interval rests on. */
  weight: number
  occasions: number
  /** Whether the evidence suffices to be called secure, and to go on to what comes after. */
  suffices: boolean
  ready: boolean
  judged: 'secure' | 'nearly' | 'not yet' | null
  right: number
  answers: number
  helps: Record<Help, number>
  rungs: Record<Rung, number>
  because: string
}
export interface Standing {
  /** Probability, 0–1, that the child has the idea. */
  level: number
  low: number
  high: number
  /** Occasions: answers and judgements that say something. */
  occasions: number
  word: 'not seen' | 'not yet' | 'nearly' | 'secure'
  /** Whether the word is a teacher's judgement rather than computed. */
  judged: boolean
  /** Whether a child may go on to what comes after: one "Secure" alone does not make it. */
  ready: boolean
  because: string
  /** Answers with each help and on each rung. */
  helps: Record<Help, number>
  rungs: Record<Rung, number>
}

const day = 86_400_000
/** Level from which evidence that suffices is called secure. */
const secureFrom = 0.85
const levelOf: Record<Exclude<Level, "can't tell">, number> = { secure: 0.92, nearly: 0.6, 'not yet': 0.2 }

const weightOf = (e: Evidence): number => tracing.help[e.help] * (e.live ? tracing.live : 1)
/** One answer's update of the probability, softened by the help that was given. */
export function update(p: number, e: Evidence): number {
  const guess =
    e.kind === 'choice' ? tracing.guess.choice(Math.max(2, e.choices ?? 2)) : tracing.guess[e.kind]
  const [ifKnown, ifNot] = e.right ? [1 - tracing.slip, guess] : [tracing.slip, 1 - guess]
  const posterior = (p * ifKnown) / (p * ifKnown + (1 - p) * ifNot)
  const weight = weightOf(e)
  const seen = p + (posterior - p) * weight
  return seen + (1 - seen) * tracing.learn * weight
}
const forget = (p: number, days: number, start: number): number =>
  start + (p - start) * 0.5 ** (Math.max(0, days) / tracing.halfLife)

/** Whether computed evidence may be called secure: three right answers alone, on two days, with two representations. */
export function maySecure(evidence: readonly Evidence[]): boolean {
  const alone = evidence.filter((e) => e.right && e.help === 'alone')
  return (
    alone.length >= 3 &&
    new Set(alone.map((e) => dayOf(e.at))).size >= 2 &&
    new Set(alone.map((e) => e.rung)).size >= 2
  )
}
const dayOf = (at: number): number => Math.floor(at / day)
/**
 * Whether a child judged secure is ready for what comes after: a teacher said so of the child itself, or there are
 * three signs of it (right answers alone, judgements "secure" alone) on two days. One look at one reply is not enough.
 */
function isReady(evidence: readonly Evidence[], told: readonly Judged[]): boolean {
  if (told[0]?.override && told[0].level === 'secure') return true
  if (told[0] && told[0].level !== 'secure') return false
  const signs = [
    ...evidence.filter((e) => e.right && e.help === 'alone').map((e) => e.at),
    ...told.filter((j) => j.level === 'secure' && j.help === 'alone').map((j) => j.cameAt ?? j.at),
  ]
  return signs.length >= 3 && new Set(signs.map(dayOf)).size >= 2
}

/**
 * What a child's standing on one idea rests on. Judgements outrank answers: the newest that says something sets the
 * word and the level; answers after it move the level on from there.
 */
export function keptStanding(
  evidence: readonly Evidence[],
  judgements: readonly Judged[],
  start: number = tracing.start,
): Kept {
  const told = [...judgements].filter((j) => j.level !== "can't tell").sort((a, b) => b.at - a.at)
  const newest = told[0]
  const events = [...evidence].sort((a, b) => a.at - b.at)
  const later = newest ? events.filter((e) => e.at > newest.at) : events
  let p = newest ? levelOf[newest.level as Exclude<Level, "can't tell">] : start
  let at = newest?.at ?? events[0]?.at ?? 0
  for (const e of later) {
    p = update(forget(p, (e.at - at) / day, start), e)
    at = e.at
  }
  const suffices = maySecure(events)
  const helps: Record<Help, number> = { alone: 0, nudged: 0, together: 0 }
  const rungs: Record<Rung, number> = { things: 0, picture: 0, track: 0, head: 0 }
  for (const e of events) {
    helps[e.help]++
    rungs[e.rung]++
  }
  return {
    p,
    at,
    start,
    weight:
      events.reduce((s, e) => s + weightOf(e), 0) + told.reduce((s, j) => s + 2 * tracing.help[j.help], 0),
    occasions: new Set([...events.map((e) => e.id), ...told.map((j) => j.id)]).size,
    suffices,
    ready: newest ? isReady(events, told) : suffices && p >= secureFrom,
    judged: newest ? (newest.level as 'secure' | 'nearly' | 'not yet') : null,
    right: events.filter((e) => e.right).length,
    answers: events.length,
    helps,
    rungs,
    because: becauseOf(events, newest),
  }
}
/** A kept standing as it is at `now` (ms): what lies long back is no longer taken for granted. */
export function standingAt(kept: Kept, now: number): Standing {
  let p = kept.occasions ? forget(kept.p, (now - kept.at) / day, kept.start) : kept.start
  // What may not be called secure is not shown as if it were.
  if (!kept.judged && !kept.suffices) p = Math.min(p, secureFrom - 0.01)
  // A beta interval's width from the weight of the evidence, about 80 %.
  const half = 1.28 * Math.sqrt((p * (1 - p) + 0.02) / (kept.weight + 2))
  const computed = p >= secureFrom && kept.suffices ? 'secure' : p >= 0.5 ? 'nearly' : 'not yet'
  return {
    level: p,
    low: Math.max(0, p - half),
    high: Math.min(1, p + half),
    occasions: kept.occasions,
    word: kept.judged ?? (kept.occasions ? computed : 'not seen'),
    judged: kept.judged !== null,
    ready: kept.ready && p >= 0.6,
    because: kept.because,
    helps: kept.helps,
    rungs: kept.rungs,
  }
}
/** Both at once. */
export const standing = (
  evidence: readonly Evidence[],
  judgements: readonly Judged[],
  now: number,
  start: number = tracing.start,
): Standing => standingAt(keptStanding(evidence, judgements, start), now)

/** Where a child starts on an idea nothing was seen of: by how it stands on those it needs; a quarter where those are unknown too. */
export function startFrom(needed: readonly Pick<Standing, 'level' | 'word'>[]): number {
  const seen = needed.filter((s) => s.word !== 'not seen')
  if (!seen.length) return tracing.start
  const mean = seen.reduce((s, x) => s + x.level, 0) / seen.length
  return 0.1 + 0.32 * mean
}

function becauseOf(events: readonly Evidence[], newest: Judged | undefined): string {
  if (newest?.override) return `${newest.by} says so of the child: ${newest.level}.`
  if (newest)
    return `Judged ${newest.level}, ${newest.help}, with ${newest.rung === 'head' ? 'nothing but the head' : newest.rung === 'things' ? 'things' : `a ${newest.rung}`}.`
  if (!events.length) return 'Nothing has been sent back on this idea.'
  const right = events.filter((e) => e.right).length
  const held =
    right === events.length && right > 1 && !maySecure(events)
      ? ' Not called secure: that takes three right answers alone, on two days, in two ways.'
      : ''
  return `${right} of ${events.length} answers right.${held}`
}
