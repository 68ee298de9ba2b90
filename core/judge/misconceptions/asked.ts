/** What was asked, as far as an answer to it can tell how a child thinks. */
export type Asked =
  | {
      form: 'add' | 'take'
      a: number
      b: number
      /** The unknown stands before the equals: __ = 17 − 6. */ resultFirst?: boolean
    }
  /** known + ? = total, or total = known + ?. With `op` "-": total is the start, known what is left or what goes. */
  | { form: 'missing'; op: '+' | '-'; known: number; total: number; resultFirst?: boolean }
  | { form: 'double' | 'half'; n: number }
  /** How many more are a than b. */
  | { form: 'compare'; a: number; b: number }
  /** Which of two has more, or fewer; `longer` is the row that reaches further where they were laid out so. */
  | { form: 'which'; a: number; b: number; more: boolean; longer?: 'a' | 'b' }
  /** So many things to be counted. */
  | { form: 'count'; n: number }
  /** What comes `by` after a number (before it, where `by` is below zero). */
  | { form: 'after'; from: number; by: number }
  /** A number heard or seen as tens and ones, to be written. */
  | { form: 'write'; n: number }
  /** Shared out: the answer is one share, or every plate. */
  | { form: 'share'; things: number; among: number }

/** One answer of a child, ready to be weighed. */
export interface Weighed {
  /** Opens the reply and task it came from. */
  id: string
  /** The task and the answer as they are shown. */
  words: string
  asked: Asked
  /** As it was given: digits as typed ("07"), or plates as "3, 4". */
  answer: string
  /** Numbers that could be chosen, where they were given to choose from. */
  choices?: readonly number[]
  help?: 'alone' | 'nudged' | 'together'
}

/** The right answer. */
export function truthOf(q: Asked): number {
  switch (q.form) {
    case 'add':
      return q.a + q.b
    case 'take':
      return q.a - q.b
    case 'missing':
      return q.total - q.known
    case 'double':
      return 2 * q.n
    case 'half':
      return Math.floor(q.n / 2)
    case 'compare':
      return Math.abs(q.a - q.b)
    case 'which':
      return q.more ? Math.max(q.a, q.b) : Math.min(q.a, q.b)
    case 'count':
    case 'write':
      return q.n
    case 'after':
      return q.from + q.by
    case 'share':
      return Math.floor(q.things / q.among)
  }
}
/** The numbers that stand in the question: what is given back unworked. */
export function numbersOf(q: Asked): number[] {
  switch (q.form) {
    case 'add':
    case 'take':
    case 'compare':
    case 'which':
      return [q.a, q.b]
    case 'missing':
      return [q.known, q.total]
    case 'double':
    case 'half':
    case 'count':
    case 'write':
      return [q.n]
    case 'after':
      return [q.from]
    case 'share':
      return [q.things, q.among]
  }
}
/** Whether what was given is right: equal shares where plates were filled, the number everywhere else. */
export function isRight(q: Asked, answer: string): boolean {
  const truth = truthOf(q)
  if (q.form === 'share' && answer.includes(',')) return platesOf(answer).every((p) => p === truth)
  return answer.trim() === String(truth)
}
export const platesOf = (answer: string): number[] => answer.split(',').map((p) => Number(p.trim()) || 0)
