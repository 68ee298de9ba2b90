import { assertNever } from '../contracts/assert-never.ts'
import type { TaskSpec } from '../contracts/lesson.ts'
import type { LiveGame } from '../contracts/live.ts'
import { median } from '../median.ts'
import { run } from '../plan/numbers/names.ts'

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
const upTo = (n: number): number[] => run(0, n)

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

type Kind = LiveGame['kind']
type Game<K extends Kind> = Extract<LiveGame, { kind: K }>
/** What is shown, asked and right; the game stays as it is where `then` is not told. */
type Made = Omit<Played, 'sentence' | 'then'> & Partial<Pick<Played, 'sentence' | 'then'>>

function ofNumber(g: Game<'cards'> | Game<'spinner'>, a: number): Made {
  const answer = { same: a, 'one more': a + 1, 'one fewer': Math.max(0, a - 1) }[g.ask]
  return {
    lines:
      g.kind === 'cards'
        ? [`Show the card ${a}`]
        : [`Lay out a spinner with ${listed(g.numbers)}`, `Spin ${a}`],
    prompt: g.ask === 'same' ? 'Show me this number.' : `Show me ${g.ask} than ${a}.`,
    spec: number(answer),
  }
}
const plays: {
  [K in Kind]: (g: Game<K>, thrown: readonly [number, number], all: readonly number[]) => Made
} = {
  dice(g, _, all) {
    const sum = all.reduce((s, n) => s + n, 0)
    const roll = `Roll ${all.join(' and ')}`
    if (g.start !== null)
      return {
        lines: [roll, `Show the card ${g.start}`],
        prompt: `Hold ${g.start} in your head and count on the dots. Where do you get to?`,
        sentence: `${g.start} + ${all.join(' + ')} = ${g.start + sum}`,
        spec: number(g.start + sum),
      }
    return {
      lines: [roll],
      prompt: g.dice === 1 ? 'How many dots?' : 'How many dots altogether?',
      sentence: g.dice === 1 ? '' : `${all.join(' + ')} = ${sum}`,
      spec: number(sum),
    }
  },
  cards: (g, [a]) => ofNumber(g, a),
  spinner: (g, [a]) => ofNumber(g, a),
  bowl: (g, [a, b]) => ({
    lines: [`Lay out a bowl with digits ${listed(g.digits)}`, `Show the cards ${a}, ${b}`],
    prompt: 'Tens first, then ones. Which number is it?',
    spec: number(10 * a + b),
  }),
  skittles: (g, [a]) => ({
    lines: [`Set up ${g.of} skittles`, ...(a > 0 ? [`Knock over ${a} skittles`] : [])],
    prompt: `${g.of} stood and ${a} fell. How many still stand?`,
    sentence: `${g.of} − ${a} = ${g.of - a}`,
    spec: number(g.of - a),
  }),
  hidden(g, [a]) {
    const covered = g.total - a
    return {
      lines: [`Put ${g.total} in a row`, ...(covered > 0 ? [`Cover the last ${covered}`] : [])],
      prompt: `There are ${g.total} in all, and you see ${a}. How many are hidden?`,
      sentence: `${g.total} = ${a} + ${covered}`,
      spec: number(covered),
    }
  },
  track(g, [a]) {
    const past = g.at + a > g.to
    const to = past ? g.to : g.at + a
    return {
      lines: [`Lay out a number line 0 to ${g.to}`, `Start at ${g.at}`],
      prompt: past
        ? `From ${g.at} on to the end with ${a}. Where do we stop?`
        : `From ${g.at}, ${a} on. Where do we land?`,
      sentence: past ? '' : `${g.at} + ${a} = ${to}`,
      spec: number(to),
      then: { ...g, at: to >= g.to ? 0 : to },
    }
  },
  'to and fro': (g, [a]) => ({
    lines: [`Show the card ${a}`],
    prompt: `I say ${a}. What goes with it to make ${g.total}?`,
    sentence: `${g.total} = ${a} + ${g.total - a}`,
    spec: number(g.total - a),
  }),
  'more or fewer'(g, [a, b]) {
    const fits = b === 0 ? upTo(g.upTo).filter((n) => n > a) : upTo(a - 1)
    return {
      lines: [`Show the card ${a}`],
      prompt: `Show me a number that is ${b === 0 ? 'more' : 'fewer'} than ${a}.`,
      spec: number(fits[0]!, fits.slice(1)),
    }
  },
}
/** The round a throw makes. `thrown` must be able to come ({@link canCome}). */
export function play(game: LiveGame, thrown: readonly number[]): Played {
  const make = plays[game.kind] as (
    g: LiveGame,
    two: readonly [number, number],
    all: readonly number[],
  ) => Made
  return { sentence: '', then: game, ...make(game, [thrown[0] ?? 0, thrown[1] ?? 0], thrown) }
}

/** Games as they are begun with, by the numbers of a lesson. */
export function gamesFor(upTo: number): { words: string; game: LiveGame }[] {
  const most = Math.min(20, Math.max(3, upTo))
  const pack = (ask: 'same' | 'one more' | 'one fewer'): LiveGame => ({
    kind: 'cards',
    numbers: run(ask === 'one fewer' ? 1 : 0, most),
    ask,
  })
  return [
    { words: `Ball to and fro: partners of ${most}`, game: { kind: 'to and fro', total: most } },
    { words: 'A die: how many dots', game: { kind: 'dice', dice: 1, start: null } },
    { words: 'Two dice: how many altogether', game: { kind: 'dice', dice: 2, start: null } },
    { words: 'A die: count on from the number held', game: { kind: 'dice', dice: 1, start: most } },
    { words: 'Number cards: show this one', game: pack('same') },
    { words: 'Number cards: one more', game: pack('one more') },
    { words: 'Number cards: one fewer', game: pack('one fewer') },
    { words: 'A spinner', game: { kind: 'spinner', numbers: [...faces], ask: 'same' } },
    { words: 'Two digits from a bowl', game: { kind: 'bowl', digits: run(0, 9) } },
    { words: 'Skittles: how many still stand', game: { kind: 'skittles', of: 10 } },
    { words: `A hidden set of ${most}`, game: { kind: 'hidden', total: most } },
    { words: 'A track to walk by a die', game: { kind: 'track', to: 20, at: 0 } },
    { words: 'More or fewer, by a die', game: { kind: 'more or fewer', upTo: most } },
  ]
}

/** Milliseconds a class is given where nothing is known of its pace, and the least and most it is given. */
const pace = { unknown: 8_000, least: 4_000, most: 20_000, longer: 1.5 } as const
/**
 * When ball-to-and-fro goes on by itself: as soon as this share of who is here has answered, or at the latest so many
 * milliseconds after it could be answered. `took`: milliseconds answers of the last round took; `here`: children there.
 */
export function goOnAfter(took: readonly number[], here: number): { share: number; at: number } {
  const middle = took.length ? median(took) : pace.unknown
  return {
    share: here > 4 ? 0.8 : 1,
    at: Math.min(pace.most, Math.max(pace.least, middle * pace.longer)),
  }
}
