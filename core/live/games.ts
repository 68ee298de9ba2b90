import { assertNever } from '../contracts/assert-never.ts'
import type { TaskSpec } from '../contracts/lesson.ts'
import type { LiveGame } from '../contracts/live.ts'

/** What one throw of a game makes: the table as script lines, the question, its answer, and the game as it stands after it. */
export interface Played {
  lines: readonly string[]
  prompt: string
  /** The sentence that may be shown once all have answered; empty where none belongs to it. */
  sentence: string
  spec: TaskSpec
  then: LiveGame
}
const faces = [1, 2, 3, 4, 5, 6] as const
/** The die of more and fewer: its faces. */
export const moreFewer = ['more', 'fewer'] as const

/** How the numbers that come up in a game are told: what each stands for, for who types in what a real one showed. */
export function thrownIn(game: LiveGame): readonly { name: string; from: readonly number[] }[] {
  switch (game.kind) {
    case 'dice':
      return Array.from({ length: game.dice }, (_, i) => ({ name: `die ${i + 1}`, from: faces }))
    case 'track':
      return [{ name: 'die', from: faces }]
    case 'cards':
      return [{ name: 'card', from: game.numbers }]
    case 'spinner':
      return [{ name: 'spinner', from: game.numbers }]
    case 'bowl':
      return [
        { name: 'tens', from: game.digits },
        { name: 'ones', from: game.digits },
      ]
    case 'skittles':
      return [{ name: 'fell', from: upTo(game.of) }]
    case 'hidden':
      return [{ name: 'seen', from: upTo(game.total) }]
    case 'to and fro':
      return [{ name: 'said', from: upTo(game.total) }]
    case 'more or fewer':
      return [
        { name: 'number', from: upTo(game.upTo) },
        { name: 'die (0 more, 1 fewer)', from: [0, 1] },
      ]
    default:
      return assertNever(game)
  }
}
const upTo = (n: number): number[] => Array.from({ length: n + 1 }, (_, i) => i)

/** Throws, draws or says for the desk. `next(n)`: uniform over 0 … n − 1. Never what no answer follows from. */
export function throwFor(game: LiveGame, next: (n: number) => number): number[] {
  const one = (list: readonly number[]): number => list[next(list.length)]!
  switch (game.kind) {
    case 'bowl': {
      // Without putting back: the same slip does not come twice; a digit that is there twice may.
      const slips = [...game.digits]
      const [tens] = slips.splice(next(slips.length), 1)
      return [tens!, one(slips)]
    }
    case 'more or fewer': {
      const n = next(game.upTo + 1)
      // Nothing is fewer than none, nothing of the range more than its end.
      return [n, n === 0 ? 0 : n === game.upTo ? 1 : next(2)]
    }
    case 'cards':
    case 'spinner': {
      const fit = game.ask === 'one fewer' ? game.numbers.filter((n) => n > 0) : game.numbers
      return [one(fit.length ? fit : game.numbers)]
    }
    default:
      return thrownIn(game).map((t) => one(t.from))
  }
}

/** Whether what is said to have come up can have. */
export function canCome(game: LiveGame, thrown: readonly number[]): boolean {
  const places = thrownIn(game)
  if (thrown.length !== places.length || !places.every((p, i) => p.from.includes(thrown[i]!))) return false
  if (game.kind === 'bowl' && thrown[0] === thrown[1])
    return game.digits.filter((d) => d === thrown[0]).length > 1
  if (game.kind === 'more or fewer') return thrown[1] === 0 ? thrown[0]! < game.upTo : thrown[0]! > 0
  return !((game.kind === 'cards' || game.kind === 'spinner') && game.ask === 'one fewer' && thrown[0] === 0)
}

const number = (answer: number, also: readonly number[] = []): TaskSpec => ({
  kind: 'number',
  answer,
  ...(also.length ? { also: [...also] } : {}),
})
const listed = (numbers: readonly number[]): string => [...new Set(numbers)].join(', ')

/** The round a throw makes. `thrown` must be able to come ({@link canCome}). */
export function play(game: LiveGame, thrown: readonly number[]): Played {
  const [a = 0, b = 0] = thrown
  const same = { then: game, sentence: '' }
  switch (game.kind) {
    case 'dice': {
      const sum = thrown.reduce((s, n) => s + n, 0)
      const roll = `Roll ${thrown.join(' and ')}`
      if (game.start !== null) {
        const total = game.start + sum
        return {
          ...same,
          lines: [roll, `Show the card ${game.start}`],
          prompt: `Hold ${game.start} in your head and count on the dots. Where do you get to?`,
          sentence: `${game.start} + ${thrown.join(' + ')} = ${total}`,
          spec: number(total),
        }
      }
      return {
        ...same,
        lines: [roll],
        prompt: game.dice === 1 ? 'How many dots?' : 'How many dots altogether?',
        sentence: game.dice === 1 ? '' : `${thrown.join(' + ')} = ${sum}`,
        spec: number(sum),
      }
    }
    case 'cards':
    case 'spinner': {
      const answer = game.ask === 'same' ? a : game.ask === 'one more' ? a + 1 : Math.max(0, a - 1)
      const lines =
        game.kind === 'cards'
          ? [`Show the card ${a}`]
          : [`Lay out a spinner with ${listed(game.numbers)}`, `Spin ${a}`]
      return {
        ...same,
        lines,
        prompt: game.ask === 'same' ? 'Show me this number.' : `Show me ${game.ask} than ${a}.`,
        spec: number(answer),
      }
    }
    case 'bowl':
      return {
        ...same,
        lines: [`Lay out a bowl with digits ${listed(game.digits)}`, `Show the cards ${a}, ${b}`],
        prompt: 'Tens first, then ones. Which number is it?',
        spec: number(10 * a + b),
      }
    case 'skittles':
      return {
        ...same,
        lines: [`Set up ${game.of} skittles`, ...(a > 0 ? [`Knock over ${a} skittles`] : [])],
        prompt: `${game.of} stood and ${a} fell. How many still stand?`,
        sentence: `${game.of} − ${a} = ${game.of - a}`,
        spec: number(game.of - a),
      }
    case 'hidden': {
      const covered = game.total - a
      return {
        ...same,
        lines: [`Put ${game.total} in a row`, ...(covered > 0 ? [`Cover the last ${covered}`] : [])],
        prompt: `There are ${game.total} in all, and you see ${a}. How many are hidden?`,
        sentence: `${game.total} = ${a} + ${covered}`,
        spec: number(covered),
      }
    }
    case 'track': {
      const to = Math.min(game.to, game.at + a)
      return {
        lines: [`Lay out a number line 0 to ${game.to}`, `Start at ${game.at}`],
        prompt:
          game.at + a > game.to
            ? `From ${game.at} on to the end with ${a}. Where do we stop?`
            : `From ${game.at}, ${a} on. Where do we land?`,
        sentence: game.at + a > game.to ? '' : `${game.at} + ${a} = ${to}`,
        spec: number(to),
        then: { ...game, at: to >= game.to ? 0 : to },
      }
    }
    case 'to and fro':
      return {
        ...same,
        lines: [`Show the card ${a}`],
        prompt: `I say ${a}. What goes with it to make ${game.total}?`,
        sentence: `${game.total} = ${a} + ${game.total - a}`,
        spec: number(game.total - a),
      }
    case 'more or fewer': {
      const fits = b === 0 ? upTo(game.upTo).filter((n) => n > a) : upTo(a - 1)
      return {
        ...same,
        lines: [`Show the card ${a}`],
        prompt: `Show me a number that is ${b === 0 ? 'more' : 'fewer'} than ${a}.`,
        spec: number(fits[0]!, fits.slice(1)),
      }
    }
    default:
      return assertNever(game)
  }
}
/**
 * Milliseconds after which ball-to-and-fro goes on by itself: when nearly all have answered, or at the pace the class
 * has had, half as long again. `answered`: milliseconds each answer of the last rounds took; `here`: homes there now.
 */
export function goOnAfter(answered: readonly number[], here: number): { share: number; at: number } {
  const middle = [...answered].sort((x, y) => x - y)[Math.floor(answered.length / 2)] ?? 8_000
  return { share: here > 4 ? 0.8 : 1, at: Math.min(20_000, Math.max(4_000, middle * 1.5)) }
}
