import type { KitItem, Lesson } from '../contracts/lesson.ts'
import { numbersIn, tokens } from '../plan/numbers/names.ts'
import { type Property, thingNamed } from '../plan/things.ts'
import { type Moment, simulate } from './simulate.ts'
import { holdsThings, type Mat, type MatKind, type Thing, thingsIn } from './table/state.ts'

export interface Needed {
  thing: string
  /** Most of it ever out at once: things picked up again are counted once. */
  count: number
  /** The step at which that many are out, or at which it is first used. */
  stepId: string
  /** What it is used for: only what can do this may stand in for it. */
  uses: readonly Property[]
}

const matThing: Partial<Record<MatKind, string>> = {
  frame: 'ten frame',
  parts: 'part-whole drawing',
  shelves: 'two shelves',
  plates: 'plates',
  jar: 'jar',
  line: 'number line',
  square: 'hundred square',
  dots: 'dot card',
  pairs: 'pair plate',
  rail: 'rail with pegs',
  cards: 'number cards',
  dice: 'die',
  spinner: 'spinner',
  bowl: 'bowl with slips',
  bar: 'strip of paper',
}

/** What the children's table needs: for each thing the maximum over moments, for mats one each. */
export function needed(
  lesson: Pick<Lesson, 'segments'>,
  moments: readonly Moment[] = simulate(lesson),
): Needed[] {
  const most = new Map<string, Needed>()
  let ownMost = { count: 0, stepId: '' }
  const laidOut = new Set<string>()
  const uses = new Map<string, Set<Property>>()
  const note = (thing: string, count: number, stepId: string) => {
    if (count > (most.get(thing)?.count ?? 0)) most.set(thing, { thing, count, stepId, uses: [] })
  }
  for (const m of moments) {
    if (m.segment.audience === 'adults') continue
    // Most lines leave the table as it is and ask for nothing of one's own.
    if (m.after === m.before && m !== moments[0] && m.step.verb !== 'pause' && !m.step.task) continue
    const counts = new Map<string, number>()
    for (const mat of m.after.mats)
      if (isMadeOfThings(mat))
        for (const t of thingsIn(mat)) if (!isDrawn(t)) counts.set(t.kind, (counts.get(t.kind) ?? 0) + 1)
    for (const [kind, n] of counts) {
      note(kind === 'counters' ? 'two-faced counters' : kind, n, m.step.id)
      laidOut.add(kind === 'counters' ? 'two-faced counters' : kind)
    }
    for (const mat of m.after.mats) noteUses(mat, uses)
    for (const mat of m.after.mats) if (matThing[mat.kind]) note(matThing[mat.kind]!, matsOf(mat), m.step.id)
    if (
      m.actions.some(
        (a) => a.type === 'cross' && a.crossed && m.after.mats.some((x) => x.kind === 'skittles'),
      )
    )
      note('soft ball', 1, m.step.id)
    const own = askedFor(m)
    if (own > ownMost.count) ownMost = { count: own, stepId: m.step.id }
  }
  // Whatever a home counts with is its own: the things the lesson uses most of, or counters.
  const usual = most.has('two-faced counters')
    ? undefined
    : [...most.values()]
        .filter(
          (n) => laidOut.has(n.thing) && (thingNamed(n.thing)?.properties[0] ?? 'counted') === 'counted',
        )
        .sort((a, b) => b.count - a.count)[0]
  if (ownMost.count) note(usual?.thing ?? 'two-faced counters', ownMost.count, ownMost.stepId)
  return [...most.values()].map((n) => ({ ...n, uses: usesOf(n.thing, uses.get(n.thing)) }))
}
/** What a mat shows that its things are used for, beside being counted. */
function noteUses(mat: Mat, uses: Map<string, Set<Property>>): void {
  const used = (thing: string, use: Property) => {
    const known = uses.get(thing) ?? new Set<Property>()
    uses.set(thing, known.add(use))
  }
  if (mat.kind === 'cards') {
    // A die shows one to six one at a time; words, larger numbers and cards in a row want writing.
    if (mat.cards.length > 2 || mat.cards.some((c) => !/^[1-6]$/.test(c.text)))
      used('number cards', 'written on')
    return
  }
  if (!isMadeOfThings(mat)) return
  const things = thingsIn(mat)
  for (const kind of new Set(things.map((t) => t.kind))) {
    const name = kind === 'counters' ? 'two-faced counters' : kind
    if (new Set(things.filter((t) => t.kind === kind).map((t) => t.face)).size > 1) used(name, 'two faces')
    if (mat.kind === 'tower') used(name, 'stacks')
  }
}
function usesOf(thing: string, seen: ReadonlySet<Property> | undefined): Property[] {
  const first = thingNamed(thing)?.properties[0]
  if (!seen?.size) return first ? [first] : []
  return seen.has('written on')
    ? ['written on']
    : [...(first ? [first] : []), ...seen].filter((u, i, all) => all.indexOf(u) === i)
}

/** Circles drawn with a pen: they are on the table, and in no drawer. */
const isDrawn = (t: Thing): boolean => t.kind.startsWith('drawn ')
/** Dots are drawn, fingers grow on hands and claps are in the air: no home needs to find them. */
const isMadeOfThings = (m: Mat): boolean => holdsThings(m) && !['dots', 'pairs', 'hands'].includes(m.kind)
/** How many of a mat's own thing it takes: two frames, four plates, two dice. */
function matsOf(m: Mat): number {
  switch (m.kind) {
    case 'frame':
      return Math.ceil((m.regions[0]?.slots ?? 10) / 10)
    case 'plates':
      return m.regions.length
    case 'dice':
      return Math.max(1, m.cards.length)
    default:
      return 1
  }
}

/** What each segment needs by itself, for those who leave early or join late. */
export function neededBySegment(
  lesson: Pick<Lesson, 'segments'>,
  moments: readonly Moment[] = simulate(lesson),
): Map<string, Needed[]> {
  const by = new Map<string, Moment[]>()
  for (const m of moments) by.set(m.segment.id, [...(by.get(m.segment.id) ?? []), m])
  return new Map(lesson.segments.map((s) => [s.id, needed(lesson, by.get(s.id) ?? [])]))
}

/** Whether a listed thing can serve where another is needed: the same, or one with the properties that matter. */
function serves(listed: string, need: string): boolean {
  const [l, n] = [thingNamed(listed), thingNamed(need)]
  if (!l || !n) return listed.trim().toLowerCase() === need.trim().toLowerCase()
  return l === n || (n.properties.length > 0 && l.properties.includes(n.properties[0]!))
}

/** How many of their own things a pause asks children for: "Put out 5, then 3 more", or what a photo must show. */
function askedFor(m: Moment): number {
  if (m.step.task?.kind === 'photo') return m.step.task.things
  if (m.step.verb !== 'pause') return 0
  const words = tokens(m.step.text)
  const numbers = numbersIn(words)
  const out = numbers.find((n) => words[n.from - 1] === 'out' && words[n.from - 2] === 'put')
  if (!out) return 0
  const more = numbers.find((n) => n.from > out.from && words[n.to] === 'more')
  return out.value + (more?.value ?? 0)
}

/** Paper, pencils and chalk serve anywhere in a lesson: the table never shows whether a child used them. */
const isForWriting = (k: KitItem): boolean => thingNamed(k.thing)?.properties.includes('written on') ?? false

/** Compares the list of things needed with what the script uses. */
export function compareStock(
  list: readonly KitItem[],
  needs: readonly Needed[],
): { missing: Needed[]; short: { need: Needed; listed: number }[]; unused: KitItem[] } {
  const missing: Needed[] = []
  const short: { need: Needed; listed: number }[] = []
  for (const need of needs) {
    const items = list.filter((k) => serves(k.thing, need.thing))
    if (items.length === 0) missing.push(need)
    else {
      const listed = items.reduce((s, k) => s + k.count, 0)
      if (listed < need.count) short.push({ need, listed })
    }
  }
  return {
    missing,
    short,
    unused: list.filter((k) => !isForWriting(k) && !needs.some((n) => serves(k.thing, n.thing))),
  }
}
