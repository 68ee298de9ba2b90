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
}
export interface Judged {
  id: string
  at: number
  level: Level
  help: Help
  rung: Rung
  by: string
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
  because: string
  /** Ids of the evidence and judgements it rests on, newest first. */
  evidence: string[]
}

const day = 86_400_000
/** Level from which evidence that suffices is called secure. */
const secureFrom = 0.85
const levelOf: Record<Exclude<Level, "can't tell">, number> = { secure: 0.92, nearly: 0.6, 'not yet': 0.2 }

/** One answer's update of the probability, softened by the help that was given. */
export function update(p: number, e: Evidence): number {
  const guess =
    e.kind === 'choice' ? tracing.guess.choice(Math.max(2, e.choices ?? 2)) : tracing.guess[e.kind]
  const [ifKnown, ifNot] = e.right ? [1 - tracing.slip, guess] : [tracing.slip, 1 - guess]
  const posterior = (p * ifKnown) / (p * ifKnown + (1 - p) * ifNot)
  const weight = tracing.help[e.help]
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
    new Set(alone.map((e) => Math.floor(e.at / day))).size >= 2 &&
    new Set(alone.map((e) => e.rung)).size >= 2
  )
}

/**
 * A child's standing on one idea at `now` (ms). Judgements outrank answers: the newest that says something sets
 * the word and the level; answers after it move the level on from there.
 */
export function standing(
  evidence: readonly Evidence[],
  judgements: readonly Judged[],
  now: number,
  start: number = tracing.start,
): Standing {
  const told = [...judgements].filter((j) => j.level !== "can't tell").sort((a, b) => b.at - a.at)
  const newest = told[0]
  const events = [...evidence].sort((a, b) => a.at - b.at)
  const later = newest ? events.filter((e) => e.at > newest.at) : events
  let p = newest ? levelOf[newest.level as Exclude<Level, "can't tell">] : start
  let at = newest?.at ?? events[0]?.at ?? now
  for (const e of later) {
    p = update(forget(p, (e.at - at) / day, start), e)
    at = e.at
  }
  p = forget(p, (now - at) / day, start)
  // What may not be called secure is not shown as if it were.
  if (!newest && !maySecure(events)) p = Math.min(p, secureFrom - 0.01)
  const weights =
    events.reduce((s, e) => s + tracing.help[e.help], 0) +
    told.reduce((s, j) => s + 2 * tracing.help[j.help], 0)
  // A beta interval's width from the weight of the evidence, about 80 %.
  const half = 1.28 * Math.sqrt((p * (1 - p) + 0.02) / (weights + 2))
  const occasions = new Set([...events.map((e) => e.id), ...told.map((j) => j.id)]).size
  const computed = p >= secureFrom && maySecure(events) ? 'secure' : p >= 0.5 ? 'nearly' : 'not yet'
  return {
    level: p,
    low: Math.max(0, p - half),
    high: Math.min(1, p + half),
    occasions,
    word: newest ? (newest.level as 'secure' | 'nearly' | 'not yet') : occasions ? computed : 'not seen',
    judged: newest !== undefined,
    because: becauseOf(events, newest),
    evidence: [...told.map((j) => ({ id: j.id, at: j.at })), ...events.map((e) => ({ id: e.id, at: e.at }))]
      .sort((a, b) => b.at - a.at)
      .map((x) => x.id),
  }
}

function becauseOf(events: readonly Evidence[], newest: Judged | undefined): string {
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
