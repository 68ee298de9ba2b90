import type { Level } from '../contracts/reply.ts'

/** One reply as two people judged it without seeing each other's. */
export interface Twice {
  id: string
  first: Level
  second: Level
}
export interface Agreement {
  /** Replies both could tell something of. */
  pairs: number
  /** Share judged alike, 0–1. */
  agreed: number
  /** Cohen's kappa with quadratic weights, −1 to 1, and its 95 % interval; null where it cannot be said. */
  kappa: number | null
  low: number | null
  high: number | null
  differ: string[]
  words: string
}
const scale: readonly Level[] = ['not yet', 'nearly', 'secure']
/** Fewer pairs say nothing that would hold tomorrow. */
const fewest = 5

/**
 * How far two judges agree beyond chance (Cohen 1968, quadratic weights; standard error after Fleiss, Cohen & Everitt
 * 1969). "Can't tell" is no step of the scale: a reply either could not tell of is left out and counted as differing
 * only when the other could.
 */
export function agreementOf(judged: readonly Twice[]): Agreement {
  const told = judged.filter((t) => scale.includes(t.first) && scale.includes(t.second))
  const n = told.length
  const differ = judged.filter((t) => t.first !== t.second).map((t) => t.id)
  const agreed = n ? told.filter((t) => t.first === t.second).length / n : 0
  const none = { pairs: n, agreed, kappa: null, low: null, high: null, differ }
  if (n < fewest)
    return {
      ...none,
      words: n ? `${n} replies are too few to say how far you agree.` : 'Nothing was judged twice yet.',
    }
  const k = scale.length
  const at = (l: Level) => scale.indexOf(l)
  const p = Array.from({ length: k }, () => new Array<number>(k).fill(0))
  for (const t of told) p[at(t.first)]![at(t.second)]! += 1 / n
  const row = p.map((r) => r.reduce((a, b) => a + b, 0))
  const col = scale.map((_, j) => p.reduce((s, r) => s + r[j]!, 0))
  const weight = (i: number, j: number) => 1 - ((i - j) / (k - 1)) ** 2
  let [seen, chance] = [0, 0]
  for (let i = 0; i < k; i++)
    for (let j = 0; j < k; j++) {
      seen += weight(i, j) * p[i]![j]!
      chance += weight(i, j) * row[i]! * col[j]!
    }
  // All of one level by both: there is nothing to agree about beyond chance.
  if (1 - chance < 1e-9)
    return {
      ...none,
      words: `All ${n} replies were judged alike by both, at one level: agreement beyond chance cannot be told from that.`,
    }
  const kappa = (seen - chance) / (1 - chance)
  const meanRow = scale.map((_, i) => col.reduce((s, c, j) => s + c * weight(i, j), 0))
  const meanCol = scale.map((_, j) => row.reduce((s, r, i) => s + r * weight(i, j), 0))
  let sum = 0
  for (let i = 0; i < k; i++)
    for (let j = 0; j < k; j++)
      sum += p[i]![j]! * (weight(i, j) - (meanRow[i]! + meanCol[j]!) * (1 - kappa)) ** 2
  const error = Math.sqrt(Math.max(0, sum - (kappa - chance * (1 - kappa)) ** 2) / (n * (1 - chance) ** 2))
  const [low, high] = [Math.max(-1, kappa - 1.96 * error), Math.min(1, kappa + 1.96 * error)]
  return {
    ...none,
    kappa,
    low,
    high,
    words: `${Math.round(agreed * 100)} of 100 alike; beyond chance ${kappa.toFixed(2)}, between ${low.toFixed(2)} and ${high.toFixed(2)}, on ${n} replies.`,
  }
}

/** A sample to judge again: spread over the levels first given, the same for the same seed. Ids in the order they are to be seen. */
export function sampleOf(
  replies: readonly { id: string; level: Level }[],
  many: number,
  draw: (n: number) => number,
): string[] {
  const by = new Map<Level, string[]>()
  for (const r of replies) by.set(r.level, [...(by.get(r.level) ?? []), r.id])
  const piles = [...by.values()]
  const out: string[] = []
  for (let i = 0; out.length < Math.min(many, replies.length); i++) {
    const pile = piles[i % piles.length]!
    if (pile.length) out.push(pile.splice(draw(pile.length), 1)[0]!)
  }
  // Not level by level: the order would tell what the first judge said.
  for (let i = out.length - 1; i > 0; i--) {
    const j = draw(i + 1)
    ;[out[i], out[j]] = [out[j]!, out[i]!]
  }
  return out
}
