import type { Device } from '../../contracts/chance.ts'
import { fractions } from './fractions.ts'
import { outcomes, read, type Reading } from './plan.ts'

export interface Played {
  games: number
  /** How many rounds came to each number, over all games. */
  tally: Map<number, number>
  /** Rounds each game took to meet every number, as a tally; games cut off at `longest` are in its last entry. */
  rounds: Map<number, number>
}
export interface Game {
  device: Device
  rule: Reading
  /** Rounds of one game. 0 plays each game until every number has come. */
  rounds: number
  longest: number
}

/**
 * Plays `games` games by picking outcomes at their exact chances (alias tables, so a round costs the same however
 * many outcomes there are). Pure: the same seed plays the same games.
 */
export function playGames(game: Game, games: number, seed: number): Played {
  const all = outcomes(game.device)
  const numbers = all.map((o) => read(o.numbers, game.rule))
  const values = [...new Set(numbers)].sort((a, b) => a - b)
  const indexOf = numbers.map((n) => values.indexOf(n))
  const pick = aliasTable(
    all.map((o) => o.chance),
    fractions(seed),
  )
  const tally = new Float64Array(values.length)
  const lengths = new Float64Array(game.longest + 1)
  const met = new Int32Array(values.length)
  for (let g = 1; g <= games; g++) {
    let missing = values.length
    let round = 0
    const until = game.rounds || game.longest
    while (round < until && (game.rounds > 0 || missing > 0)) {
      const v = indexOf[pick()]!
      tally[v] = tally[v]! + 1
      if (met[v] !== g) {
        met[v] = g
        missing--
      }
      round++
    }
    lengths[round] = lengths[round]! + 1
  }
  return {
    games,
    tally: new Map(values.map((v, i) => [v, tally[i]!])),
    rounds: new Map([...lengths].flatMap((n, i) => (n ? [[i, n] as [number, number]] : []))),
  }
}

function aliasTable(chances: readonly number[], random: () => number): () => number {
  const n = chances.length
  const share = chances.map((c) => c * n)
  const alias = new Int32Array(n)
  const small = share.flatMap((s, i) => (s < 1 ? [i] : []))
  const large = share.flatMap((s, i) => (s >= 1 ? [i] : []))
  while (small.length && large.length) {
    const [s, l] = [small.pop()!, large.at(-1)!]
    alias[s] = l
    share[l] = share[l]! - (1 - share[s]!)
    if (share[l] < 1) small.push(large.pop()!)
  }
  for (const i of [...small, ...large]) share[i] = 1
  return () => {
    const u = random() * n
    const i = Math.min(n - 1, Math.floor(u))
    return u - i < share[i]! ? i : alias[i]!
  }
}
/** Adds the games of one batch to another's. */
export function addPlayed(a: Played | null, b: Played): Played {
  if (!a) return b
  const sum = (x: Map<number, number>, y: Map<number, number>) =>
    new Map(
      [...new Set([...x.keys(), ...y.keys()])]
        .sort((p, q) => p - q)
        .map((k) => [k, (x.get(k) ?? 0) + (y.get(k) ?? 0)]),
    )
  return { games: a.games + b.games, tally: sum(a.tally, b.tally), rounds: sum(a.rounds, b.rounds) }
}
