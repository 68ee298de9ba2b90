import type { Device } from '../../contracts/chance.ts'
import type { Example, Structure } from '../../contracts/lesson.ts'
import { fractions } from './fractions.ts'

/** One outcome of a round: the numbers that came, in order, with its exact chance (0–1). */
export interface Outcome {
  numbers: readonly number[]
  chance: number
}

/**
 * Every outcome of one round, in order of the numbers, with exact chances. Dice and spinners are independent; a
 * pack or bowl without putting back is drawn from what is left. At most a few thousand outcomes.
 */
export function outcomes(device: Device): Outcome[] {
  switch (device.kind) {
    case 'none':
      return []
    case 'dice':
      return independent(even(device.faces), device.dice)
    case 'spinner': {
      const all = device.parts.reduce((s, p) => s + p.share, 0)
      return independent(
        device.parts.map((p) => ({ number: p.number, chance: p.share / all })),
        device.spins,
      )
    }
    case 'cards':
      return device.back
        ? independent(even(device.numbers), device.draws)
        : without(device.numbers, device.draws)
    case 'bowl':
      return device.back
        ? independent(even(device.digits), device.draws)
        : without(device.digits, device.draws)
  }
}
interface Single {
  number: number
  chance: number
}
const even = (numbers: readonly number[]): Single[] =>
  numbers.map((number) => ({ number, chance: 1 / numbers.length }))

function merge(list: readonly Outcome[]): Outcome[] {
  const by = new Map<string, Outcome>()
  for (const o of list) {
    const key = o.numbers.join()
    by.set(key, { numbers: o.numbers, chance: (by.get(key)?.chance ?? 0) + o.chance })
  }
  return [...by.values()].sort((x, y) => x.numbers.reduce((d, n, i) => d || n - y.numbers[i]!, 0))
}
function independent(singles: readonly Single[], times: number): Outcome[] {
  let list: Outcome[] = [{ numbers: [], chance: 1 }]
  for (let i = 0; i < times; i++)
    list = merge(
      list.flatMap((o) =>
        singles.map((s) => ({ numbers: [...o.numbers, s.number], chance: o.chance * s.chance })),
      ),
    )
  return list
}
function without(numbers: readonly number[], draws: number): Outcome[] {
  let list: { numbers: number[]; left: number[]; chance: number }[] = [
    { numbers: [], left: [...numbers], chance: 1 },
  ]
  for (let i = 0; i < draws; i++)
    list = list.flatMap((o) =>
      [...new Set(o.left)].map((n) => {
        const left = [...o.left]
        left.splice(left.indexOf(n), 1)
        return {
          numbers: [...o.numbers, n],
          left,
          chance: (o.chance * o.left.filter((x) => x === n).length) / o.left.length,
        }
      }),
    )
  return merge(list)
}

/** What is made of the numbers that come: their sum, their difference, a two-digit number, or the first alone. */
export type Reading = 'total' | 'difference' | 'tens and ones' | 'first'
export function read(numbers: readonly number[], rule: Reading): number {
  switch (rule) {
    case 'total':
      return numbers.reduce((a, b) => a + b, 0)
    case 'difference':
      return Math.abs((numbers[0] ?? 0) - (numbers[1] ?? 0))
    case 'tens and ones':
      return numbers.reduce((n, d) => n * 10 + d, 0)
    case 'first':
      return numbers[0] ?? 0
  }
}
export const usualReading = (d: Device): Reading =>
  d.kind === 'bowl' && d.draws === 2 ? 'tens and ones' : 'total'

export interface Bar {
  number: number
  chance: number
}
/** Exact distribution of what a round comes to, smallest number first; chances sum to one. */
export function distribution(device: Device, rule: Reading): Bar[] {
  const by = new Map<number, number>()
  for (const o of outcomes(device))
    by.set(read(o.numbers, rule), (by.get(read(o.numbers, rule)) ?? 0) + o.chance)
  return [...by].map(([number, chance]) => ({ number, chance })).sort((x, y) => x.number - y.number)
}

/** What can never come of a device, for the words under its drawing. */
export function cannotCome(device: Device): { numbers: number[]; doubles: boolean; why: string[] } {
  if (device.kind === 'none') return { numbers: [], doubles: false, why: [] }
  const all = outcomes(device)
  const rule = usualReading(device)
  const come = new Set(all.map((o) => read(o.numbers, rule)))
  const [low, high] = [rule === 'tens and ones' ? 0 : Math.min(0, ...come), Math.max(...come)]
  const numbers = Array.from({ length: high - low + 1 }, (_, i) => low + i).filter((n) => !come.has(n))
  const many = all[0]!.numbers.length > 1
  const doubles = many && !all.some((o) => o.numbers[0] === o.numbers[1])
  const why: string[] = []
  if (doubles)
    why.push(
      device.kind === 'bowl'
        ? 'Drawn without putting back, no digit comes twice: 11, 22, 33 and the other doubles never come.'
        : 'Without putting back, the same one never comes twice.',
    )
  const least = Math.min(...come)
  if (rule === 'total' && least > 0)
    why.push(
      least === 1
        ? 'Zero never comes: no face shows it.'
        : `Nothing under ${least} comes: the smallest faces together make ${least}.`,
    )
  const gaps = numbers.filter((n) => n > least && !(doubles && rule === 'tens and ones' && n % 11 === 0))
  if (gaps.length && rule !== 'tens and ones')
    why.push(
      `${listWords(gaps)} never ${gaps.length === 1 ? 'comes' : 'come'} either: no faces make ${gaps.length === 1 ? 'it' : 'them'}.`,
    )
  if (rule === 'tens and ones' && come.has(7) && all.some((o) => o.numbers[0] === 0))
    why.push('Zero drawn first gives a one-digit number: 0 and 7 is 7, not 70.')
  return { numbers, doubles, why }
}
const listWords = (ns: readonly number[]): string =>
  ns.length > 8
    ? `${ns.slice(0, 8).join(', ')} and others`
    : ns.length > 1
      ? `${ns.slice(0, -1).join(', ')} and ${ns.at(-1)}`
      : String(ns[0])

/** The number of a fact that a single round gives: what is added or taken, the ones of a teen, how many tens, else the first. */
function givenOf(e: Example, structure: Structure, device: Device): number {
  if (e.op === '#' || usualReading(device) === 'tens and ones') return e.a
  switch (structure) {
    case 'count-on':
    case 'take-away':
    case 'teens':
      return e.b
    case 'tens':
      return e.b / 10
    default:
      return e.a
  }
}
/** Whether a round of the device shows both numbers of a fact at once, in their order. */
const givesBoth = (device: Device, e: Example, all: readonly Outcome[]): boolean =>
  device.kind !== 'bowl' && e.op !== '#' && (all[0]?.numbers.length ?? 0) > 1

/** Facts of an aim that a device can never give: a die gives no first part of 0 or above 6. */
export function unreachable(device: Device, facts: readonly Example[], structure: Structure): Example[] {
  if (device.kind === 'none') return []
  const all = outcomes(device)
  const pairs = new Set(all.map((o) => `${o.numbers[0]},${o.numbers[1]}`))
  const singles = new Set(all.map((o) => read(o.numbers, usualReading(device))))
  return facts.filter((e) =>
    givesBoth(device, e, all) ? !pairs.has(`${e.a},${e.b}`) : !singles.has(givenOf(e, structure, device)),
  )
}

/**
 * Expected rounds until every reachable number has come. Rounds are let come at the moments of a Poisson process, which
 * makes the numbers independent: the answer is the integral over t ≥ 0 of 1 − Π(1 − e^(−pₖt)), taken here by
 * Simpson's rule to better than a thousandth.
 */
export function roundsToMeetAll(bars: readonly Bar[]): number {
  if (!bars.length) return 0
  const rarest = Math.min(...bars.map((b) => b.chance))
  const missing = (t: number): number => 1 - bars.reduce((p, b) => p * -Math.expm1(-b.chance * t), 1)
  // Beyond this only a ten-billionth is missing.
  const end = (Math.log(bars.length) + 23) / rarest
  const steps = 4000
  const h = end / steps
  let sum = missing(0) + missing(end)
  for (let i = 1; i < steps; i++) sum += missing(i * h) * (i % 2 ? 4 : 2)
  return (sum * h) / 3
}

/** Chance that a round asks for more than the things there are. */
export const chanceAbove = (bars: readonly Bar[], things: number): number =>
  bars.reduce((s, b) => s + (b.number > things ? b.chance : 0), 0)

/** Seconds of one round: rolling or drawing, saying it, putting out what came (1.5 s a thing), writing it (2 s + 1.2 s a sign). */
const roundTime = { device: 3, say: 4, perThing: 1.5, write: 2 + 4 * 1.2, clear: 4 } as const
/** Expected seconds of a game of `rounds` rounds, things put out included, or not when it is played on a line. */
export function gameSeconds(bars: readonly Bar[], draws: number, rounds: number, things: boolean): number {
  const expected = bars.reduce((s, b) => s + b.number * b.chance, 0)
  return (
    rounds *
    (roundTime.device * draws +
      roundTime.say +
      (things ? roundTime.perThing * expected : 3) +
      roundTime.write +
      roundTime.clear)
  )
}

/** Where each outcome's share of 0–1 ends; the last one ends at 1 whatever the sums round to. */
function endsOf(all: readonly Outcome[]): number[] {
  let sum = 0
  return all.map((o, i) => (i === all.length - 1 ? 1 : (sum += o.chance)))
}
/** Picks outcomes by their chances, the same ones for the same seed. */
export function rollsFrom(device: Device, seed: number): () => readonly number[] {
  const all = outcomes(device)
  const ends = endsOf(all)
  const random = fractions(seed)
  return () => {
    const u = random()
    return all[ends.findIndex((end) => u < end)]!.numbers
  }
}

/**
 * A seed whose first rolls give a wanted run, in order, for filming; null when none is found in `tries` seeds or
 * when some number can never come. Deterministic. A seed costs one comparison in most cases, however many outcomes
 * the device has: twenty million of them take a second or so.
 */
export function luckySeed(
  device: Device,
  wanted: readonly (readonly number[])[],
  tries = 20_000_000,
): number | null {
  const all = outcomes(device)
  const ends = endsOf(all)
  const at = wanted.map((w) => all.findIndex((o) => o.numbers.join() === w.join()))
  if (at.includes(-1)) return null
  const shares = at.map((i) => [i === 0 ? 0 : ends[i - 1]!, ends[i]!] as const)
  for (let seed = 1; seed <= tries; seed++) {
    const random = fractions(seed)
    let met = 0
    for (const [from, to] of shares) {
      const u = random()
      if (u < from || u >= to) break
      met++
    }
    if (met === shares.length) return seed
  }
  return null
}
/** The rolls a set of examples asks for, as the device would show them; null for an example it cannot show. */
export function rollsFor(
  device: Device,
  examples: readonly Example[],
  structure: Structure,
): (readonly number[] | null)[] {
  const all = outcomes(device)
  return examples.map(
    (e) =>
      all.find((o) =>
        givesBoth(device, e, all)
          ? o.numbers[0] === e.a && o.numbers[1] === e.b
          : read(o.numbers, usualReading(device)) === givenOf(e, structure, device),
      )?.numbers ?? null,
  )
}
