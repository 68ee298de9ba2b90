import type { Seconds } from '../../contracts/units.ts'
import { told } from '../../findings/say.ts'
import { type HeardCode, type HeardFinding, type Hearing, plainCodes } from '../../contracts/heard.ts'
import { type ToFilm, filmingOrder } from './table-order.ts'
import type { TableState } from '../../script/table/state.ts'

/** Slips that leave no trace once the drops proposed are cut away; all others can only be filmed again. */
const cutAway: ReadonlySet<HeardCode> = new Set(['false-start', 'filler', 'dead-air'])
/** Slips that a viewer hardly notices, or that Cut mends by holding a picture. */
const mended: ReadonlySet<HeardCode> = new Set(['wait-short', 'answer-early', 'pace'])

export interface SheetTake {
  id: string
  number: number
  seconds: Seconds
  hearing: Pick<Hearing, 'quality' | 'findings' | 'drops' | 'pace'> | null
}
export interface TakeRow {
  id: string
  number: number
  /** 0–100; null before it is heard. */
  score: number | null
  pace: number | null
  seconds: Seconds
  /** Seconds left once the proposed drops are gone, and how that compares with the plan: 1 is as planned. */
  kept: number
  ofPlan: number | null
  slips: HeardFinding[]
  best: boolean
  /** Why it is the best one; or what keeps it from being so. */
  reason: string
}
const slipsIn = (h: Pick<Hearing, 'findings'> | null): HeardFinding[] =>
  h?.findings.filter((f) => !plainCodes.has(f.code)) ?? []
/** Slips for which a segment must be filmed again. */
export const toFilmAgain = (h: Pick<Hearing, 'findings'> | null): HeardFinding[] =>
  slipsIn(h).filter((f) => f.certain && !cutAway.has(f.code) && !mended.has(f.code))

const plural = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`
type Merit = Pick<SheetTake, 'number' | 'seconds'> & {
  hearing: Pick<Hearing, 'quality' | 'findings' | 'drops'> | null
}
const keptOf = (t: Merit): number =>
  t.seconds - (t.hearing?.drops.reduce((s, d) => s + d.to - d.from, 0) ?? 0)
/** Orders takes, best first: what cannot be cut away, then the score, then closeness to the planned length (0: unknown), then the later take. */
export function byMerit(a: Merit, b: Merit, planned = 0): number {
  const off = (t: Merit): number => (planned > 0 ? Math.abs(Math.log(Math.max(1, keptOf(t)) / planned)) : 0)
  return (
    toFilmAgain(a.hearing).length - toFilmAgain(b.hearing).length ||
    (b.hearing?.quality ?? 50) - (a.hearing?.quality ?? 50) ||
    Math.round(off(a) * 4) - Math.round(off(b) * 4) ||
    b.number - a.number
  )
}

/** The takes of one segment, side by side, latest last, with the best one named and why. `planned` is the film time of its script in seconds, 0 where unknown. */
export function takeRows(takes: readonly SheetTake[], planned: number): TakeRow[] {
  const ranked = [...takes].sort((a, b) => byMerit(a, b, planned))
  const [best, second] = [ranked[0], ranked[1]]
  return takes.map((t): TakeRow => {
    const slips = slipsIn(t.hearing)
    const stays = toFilmAgain(t.hearing)
    const kept = keptOf(t)
    const reason =
      t !== best
        ? whyNot(t, best!, planned)
        : !t.hearing
          ? 'Not heard yet.'
          : [
              slips.length === 0
                ? 'No slip'
                : stays.length === 0
                  ? `${plural(slips.length, 'slip')}, all of which can be cut or held`
                  : `${plural(stays.length, 'slip')} that cannot be cut`,
              second
                ? second.hearing
                  ? second.hearing.quality < t.hearing.quality
                    ? `${t.hearing.quality} of 100 against ${second.hearing.quality}`
                    : 'closer to the plan, or later'
                  : 'the only one heard'
                : '',
            ]
              .filter(Boolean)
              .join('; ') + '.'
    return {
      id: t.id,
      number: t.number,
      score: t.hearing?.quality ?? null,
      pace: t.hearing?.pace ?? null,
      seconds: t.seconds,
      kept,
      ofPlan: planned > 0 ? kept / planned : null,
      slips,
      best: t === best,
      reason,
    }
  })
}
function whyNot(t: SheetTake, best: SheetTake, planned: number): string {
  if (!t.hearing) return 'Not heard yet.'
  const stays = toFilmAgain(t.hearing)
  if (stays.length)
    return `${told('take', stays[0]!)}${stays.length > 1 ? ` And ${stays.length - 1} more.` : ''}`
  if (t.hearing.quality < (best.hearing?.quality ?? 50))
    return slipsIn(t.hearing)
      .slice(0, 1)
      .map((f) => told('take', f))
      .join('')
  return planned > 0
    ? `As good, at ${Math.round((keptOf(t) / planned) * 100)} % of the planned length.`
    : 'As good.'
}

export interface AgainRow {
  segmentId: string
  why: 'no take' | 'slips'
  slips: HeardFinding[]
  /** Things to lay, take off or turn before it. */
  moves: number
}
export interface SheetSegment extends ToFilm {
  takes: readonly SheetTake[]
}

/**
 * What has to be filmed, or filmed again, while the table is set up: segments with no take, and those whose best take
 * has a slip nobody can cut away; in the order that moves fewest things, from the table as it stands `now`.
 */
export function filmAgain(segments: readonly SheetSegment[], now: TableState): AgainRow[] {
  const wanted = segments.flatMap((s): { s: SheetSegment; why: AgainRow['why']; slips: HeardFinding[] }[] => {
    if (!s.takes.length) return [{ s, why: 'no take', slips: [] }]
    if (s.takes.some((t) => !t.hearing)) return []
    const best = [...s.takes].sort((a, b) => byMerit(a, b))[0]!
    const slips = toFilmAgain(best.hearing)
    return slips.length ? [{ s, why: 'slips', slips }] : []
  })
  return filmingOrder(
    now,
    wanted.map((w) => w.s),
  ).map(({ segmentId, moves }) => {
    const w = wanted.find((x) => x.s.segmentId === segmentId)!
    return { segmentId, why: w.why, slips: w.slips, moves }
  })
}
