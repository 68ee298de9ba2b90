import type { Level } from '../contracts/reply.ts'
import { seeded } from '../plan/seeded.ts'
import { type Asked, truthOf } from './misconceptions/asked.ts'
import { rules, speaksOf } from './misconceptions/rules.ts'

/** A made-up reply whose truth is known: for judging to be practised on. */
export interface Practised {
  id: string
  child: string
  help: 'alone' | 'nudged' | 'together'
  answers: { question: string; answer: string; right: boolean }[]
  /** What the child of it can do: what a judge cannot see. */
  truth: Exclude<Level, "can't tell">
  belief: string | null
}
const names = [
  'Bram',
  'Inés',
  'Otis',
  'Zuri',
  'Fenn',
  'Leyla',
  'Kofi',
  'Maeve',
  'Suri',
  'Anouk',
  'Rafe',
  'Teodor',
]
const says = (q: Asked): string => {
  switch (q.form) {
    case 'add':
      return `${q.a} + ${q.b}`
    case 'take':
      return `${q.a} − ${q.b}`
    case 'missing':
      return `${q.known} + __ = ${q.total}`
    default:
      return JSON.stringify(q)
  }
}
/** Chance of a right answer where the child has the idea, half has it, or has it not. */
const ability = { secure: 0.94, nearly: 0.65, 'not yet': 0.25 } as const

/** Replies of four answers each from children of known ability, some with one way of thinking; the same for the same seed. */
export function practiceReplies(seed: number, many: number): Practised[] {
  const draw = seeded(seed * 7919 + 5)
  const whole = (a: number, b: number) => a + draw(b - a + 1)
  const question = (): Asked => {
    const kind = draw(3)
    if (kind === 0) return { form: 'add', a: whole(2, 9), b: whole(1, 6) }
    if (kind === 1) {
      const a = whole(6, 14)
      return { form: 'take', a, b: whole(1, Math.min(6, a - 1)) }
    }
    const total = whole(5, 10)
    return { form: 'missing', op: '+', known: whole(1, total - 1), total }
  }
  const levels = ['secure', 'nearly', 'not yet'] as const
  return Array.from({ length: many }, (_, i): Practised => {
    const truth = levels[draw(3)]!
    const rule = truth !== 'secure' && draw(2) ? rules[draw(rules.length)]! : null
    const answers = Array.from({ length: 4 }, () => {
      const q = question()
      const right = truthOf(q)
      const well = draw(1000) / 1000 < ability[truth]
      const led = rule && speaksOf(rule, q) ? rule.predicts(q)?.[0]?.answer : undefined
      const answer = well
        ? String(right)
        : (led ?? String(Math.max(0, right + (draw(2) ? 1 : -1) * whole(1, 2))))
      return { question: says(q), answer, right: answer === String(right) }
    })
    return {
      id: `${seed}-${i}`,
      child: names[i % names.length]!,
      help: truth === 'secure' ? 'alone' : (['alone', 'nudged', 'together'] as const)[draw(3)]!,
      answers,
      truth,
      belief: rule?.words ?? null,
    }
  })
}
