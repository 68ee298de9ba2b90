import { type Asked, isRight, numbersOf, truthOf, type Weighed } from './asked.ts'
import { chanceUnder, type Rule, rules, speaksOf } from './rules.ts'

/**
 * What children do who think soundly, or by a rule, or guess. Slips of one in ten and rules followed nine times in
 * ten are the usual findings for short answers; priors say that most children of a class think soundly.
 */
const chances = {
  slip: 0.1,
  /** A child who follows a rule does so this often where it applies; the rest is right or a slip. */
  follows: 0.87,
  rightAnyway: 0.05,
  sound: 0.66,
  guessing: 0.06,
  /** Share of all answers a guesser hits by chance. */
  hit: 0.12,
  /** Named only from here on, and never on fewer than two pieces of evidence. */
  named: 0.6,
  pieces: 2,
  /** How much an answer weighs by the help that was given with it. */
  help: { alone: 1, nudged: 0.7, together: 0.4 },
} as const

export interface Spoken {
  id: string
  words: string
}
export interface Suspected {
  id: string
  words: string
  /** Probability, 0–1, among all ways of thinking that are weighed. */
  p: number
  for: Spoken[]
  against: Spoken[]
  next: string
  strategies: readonly string[]
}
export interface Diagnosis {
  /** Answers that could be weighed, and all that were given. */
  weighed: number
  given: number
  sound: number
  guessing: number
  /** What may be said: likely, and resting on two answers or more; likeliest first. */
  named: Suspected[]
  /** Everything with any answer that speaks for it, named or not. */
  considered: Suspected[]
  /** In a sentence, for the teacher. */
  words: string
}

/** Chance of a wrong answer that nothing explains: mostly near the right one, or a number of the question. */
function slipTo(q: Asked, answer: string): number {
  const n = /^\d+$/.test(answer.trim()) ? Number(answer) : null
  if (n === null) return 0.05
  const d = Math.abs(n - truthOf(q))
  // Kept wide: what a rule explains must stand out against what might just be a slip.
  return (d === 1 ? 0.19 : d === 2 ? 0.08 : 0.015) + (numbersOf(q).includes(n) ? 0.06 : 0)
}
function underSound(w: Weighed): number {
  return isRight(w.asked, w.answer) ? 1 - chances.slip : chances.slip * slipTo(w.asked, w.answer)
}
function underGuess(w: Weighed): number {
  const many = w.choices?.length
  if (many) return 1 / many
  return isRight(w.asked, w.answer) ? chances.hit : (1 - chances.hit) * 0.06
}
function underRule(rule: Rule, w: Weighed): number {
  if (!speaksOf(rule, w.asked)) return underSound(w)
  const led = chanceUnder(rule, w.asked, w.answer)
  const else_ = 1 - chances.follows - chances.rightAnyway
  if (isRight(w.asked, w.answer)) return chances.rightAnyway + chances.follows * led
  return chances.follows * led + else_ * slipTo(w.asked, w.answer)
}
const softened = (p: number, w: Weighed): number =>
  Math.log(Math.max(p, 1e-6)) * chances.help[w.help ?? 'alone']

/**
 * Ranks ways of thinking by Bayes over all of a child's answers. Nothing is named on fewer than two answers, nor
 * where thinking soundly with slips explains them about as well.
 */
export function diagnose(answers: readonly Weighed[], given = answers.length): Diagnosis {
  const total = rules.reduce((s, r) => s + r.base, 0)
  const forRules = 1 - chances.sound - chances.guessing
  const soundAt = answers.reduce((s, w) => s + softened(underSound(w), w), Math.log(chances.sound))
  const guessAt = answers.reduce((s, w) => s + softened(underGuess(w), w), Math.log(chances.guessing))
  const at = rules.map((r) =>
    answers.reduce((s, w) => s + softened(underRule(r, w), w), Math.log((forRules * r.base) / total)),
  )
  const top = Math.max(soundAt, guessAt, ...at)
  const sum = [soundAt, guessAt, ...at].reduce((s, v) => s + Math.exp(v - top), 0)
  const share = (v: number) => Math.exp(v - top) / sum
  const considered = rules
    .map((r, i): Suspected => {
      const speaks = answers.filter((w) => speaksOf(r, w.asked))
      const speaksFor = speaks.filter(
        (w) => !isRight(w.asked, w.answer) && chanceUnder(r, w.asked, w.answer) > 0,
      )
      return {
        id: r.id,
        words: r.words,
        p: share(at[i]!),
        for: speaksFor.map(spoken),
        against: speaks.filter((w) => !speaksFor.includes(w)).map(spoken),
        next: r.next,
        strategies: r.strategies,
      }
    })
    .filter((s) => s.for.length)
    .sort((a, b) => b.p - a.p || b.for.length - a.for.length)
  return {
    weighed: answers.length,
    given,
    sound: share(soundAt),
    guessing: share(guessAt),
    named: namedOf(considered),
    considered,
    words: sentenceOf(considered, answers.length, given, share(soundAt)),
  }
}
const spoken = ({ id, words }: Weighed): Spoken => ({ id, words })
/** Two ways of thinking that predict the same answers share their probability: they are named together. */
function namedOf(considered: readonly Suspected[]): Suspected[] {
  const able = considered.filter((s) => s.for.length >= chances.pieces)
  const first = able[0]
  if (!first) return []
  const same = able.filter((s) => s.p > first.p * 0.25 && alike(s, first))
  return same.reduce((sum, s) => sum + s.p, 0) >= chances.named ? same : []
}
const alike = (a: Suspected, b: Suspected): boolean =>
  a.for.map((x) => x.id).join() === b.for.map((x) => x.id).join()

function sentenceOf(considered: readonly Suspected[], weighed: number, given: number, sound: number): string {
  if (!weighed) return given ? 'None of these answers says how the child thinks.' : 'No answers yet.'
  const named = namedOf(considered)
  const of = weighed < given ? ` ${weighed} of ${given} answers could be weighed.` : ''
  if (named.length)
    return `Perhaps ${named.map((s) => s.words).join(', or ')}: ${named[0]!.for.length} answers speak for it, ${named[0]!.against.length} against.${of}`
  if (weighed < chances.pieces) return `One answer is too few to say how the child thinks.${of}`
  return sound > 0.6
    ? `Nothing speaks for a wrong way of thinking; single slips happen.${of}`
    : `Some answers are wrong, and no one way of thinking explains them.${of}`
}
