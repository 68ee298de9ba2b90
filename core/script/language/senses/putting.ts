import { layMat } from '../../table/mats.ts'
import { type Action, hasWhole, type MatKind, type Spot, type Thing } from '../../table/state.ts'
import type { Clause, Part } from '../clauses.ts'
import type { Group } from '../groups.ts'
import { anyThing, placeNouns, stem } from '../lexicon.ts'
import { knownThings } from '../../../plan/things.ts'
import { thingsAt } from '../pick.ts'
import { type Ground, matNamed, matOn, spotsNamed } from '../spots.ts'
import { isVerbOf } from '../verbs.ts'
import { after, bare, has, type Sense, sensed } from './sense.ts'

/** Prepositions after which a place is where things go. */
const towards = [
  'on',
  'in',
  'into',
  'onto',
  'to',
  'inside',
  'along',
  'over',
  'under',
  'at',
  'across',
  'beside',
  'for',
  'up',
  'down',
  'towards',
  'through',
  'between',
  'among',
  'by',
  'round',
]

/** The kind of thing a noun means: a household thing's name where it is one, else the noun as it is written. */
function kindOf(noun: string | null, c: Clause, from: number): string {
  if (noun === null || anyThing.has(noun)) return 'counters'
  const known = knownThings.find(
    (k) => k.properties.includes('counted') && k.words.some((w) => stem(w) === noun || w === noun),
  )
  if (known) return known.name
  const said = c.words.slice(from).find((w) => w.n === null && stem(w.t) === noun)?.t ?? noun
  return said === noun ? plural(noun) : said
}
const plural = (noun: string): string =>
  /(s|x|ch|sh)$/.test(noun) ? `${noun}es` : /[^aeiou]y$/.test(noun) ? `${noun.slice(0, -1)}ies` : `${noun}s`

/** How many things a group says to put; null when it says no number. */
function countToPut(g: Group, ground: Ground, at: Spot | null): number | null {
  if (g.pairs) return 2 * (g.n ?? 1)
  if (
    g.of &&
    g.of.n !== null &&
    (g.mat === 'tower' || g.mat === 'row' || ['heap', 'pile', 'group', 'set', 'lot'].includes(g.noun ?? ''))
  )
    return (g.n ?? 1) * g.of.n
  if (g.quantity === 'as many') return asMany(ground, at)
  return g.n
}
/** "Just as many": the number in the only other place that holds anything. */
function asMany(ground: Ground, at: Spot | null): number | null {
  const mat = at ? matOn(ground, at.mat) : undefined
  const others = (mat?.regions ?? []).filter((r, i) => i !== at?.region && r.things.length)
  if (others.length === 1) return others[0]!.things.length
  const last = ground.table.last?.keys.length
  return last ?? null
}

/** Where things go when no place is said: with what was put last, else the only mat that takes things, else the table. */
function usualSpot(ground: Ground, g: Group): Spot {
  if (g.mat === 'tower' || (g.mat === null && onlyHolds(ground) === 'tower'))
    return { mat: 'tower', region: 0 }
  if (g.mat === 'row') return { mat: 'row', region: 0 }
  if (g.noun === 'finger' || g.noun === 'thumb') return { mat: 'hands', region: -1 }
  if (g.mat === 'coins' || (g.worth !== null && g.worth !== 1 && g.worth !== 10))
    return { mat: 'coins', region: 0 }
  const { table } = ground
  const last = table.last?.keys[0]
  if (last !== undefined)
    for (const m of table.mats)
      for (const [region, r] of m.regions.entries())
        if (r.things.some((t) => t.key === last)) return { mat: m.kind, region }
  const takes = table.mats.filter((m) => m.regions.length === 1 && m.kind !== 'sound' && m.kind !== 'scene')
  const holds = takes.filter((m) => m.regions[0]!.things.length)
  const best = holds[0] ?? (takes.length === 1 ? takes[0] : undefined)
  return best ? { mat: best.kind, region: 0 } : { mat: 'table', region: 0 }
}

const onlyHolds = (ground: Ground): MatKind | null => {
  const holding = ground.table.mats.filter(
    (m) => m.regions.some((r) => r.things.length) && m.kind !== 'scene' && m.kind !== 'sound',
  )
  return holding.length === 1 ? holding[0]!.kind : null
}
/** The place after "beside them", "on top of it": where those lie. */
function whereLies(g: Group, ground: Ground): Spot | null {
  if (!g.pronoun && g.mat === null && g.noun === null) return null
  const things = g.pronoun ? null : thingsAt(ground.table, null).find((t: Thing) => stem(t.kind) === g.noun)
  if (!g.pronoun && !things) return null
  for (const m of ground.table.mats)
    for (const [region, r] of m.regions.entries())
      if (things ? r.things.includes(things) : r.things.length > 0) return { mat: m.kind, region }
  return null
}
/** The place a part says things go to. */
export function destination(p: Part, ground: Ground): Spot[] | null {
  if (p.prep === null || !towards.includes(p.prep)) return null
  const kind = matNamed(p.group, ground)
  if (kind === 'line' && !matOn(ground, 'line')) return [{ mat: 'row', region: 0 }]
  // "In your hand" is held; fingers are put up on a hand.
  if (kind === 'hands' && p.prep !== 'on') return null
  const named = spotsNamed(p.group, ground)
  if (named?.length) return named
  if (p.prep === 'beside' || p.prep === 'on' || p.prep === 'by') {
    const there = whereLies(p.group, ground)
    return there ? [there] : null
  }
  return null
}
const frameRow = (g: Group): boolean =>
  g.mat === 'row' && (g.order !== null || g.place === 'top' || g.place === 'bottom')

interface Item {
  part: Part
  to: Spot[] | null
  toPart: Part | null
}
/** Each group with the place said after it; one with none shares the place that follows, or the one before it. */
function itemsOf(c: Clause, ground: Ground): { items: Item[]; places: Part[] } {
  const items: Item[] = []
  const places: Part[] = []
  let given: { spots: Spot[]; part: Part } | null = null
  let standing = ground
  for (const part of c.parts) {
    const spots = part.prep !== null ? destination(part, standing) : null
    if (spots) {
      places.push(part)
      if (spots[0] && spots.length === 1) standing = { ...standing, named: spots[0] }
      const waiting = items.filter((i) => i.to === null)
      for (const i of waiting) Object.assign(i, { to: spots, toPart: part })
      if (!waiting.length && !items.length) given = { spots, part }
    } else if (part.prep === null && isPlaceOnly(part.group, standing) && c.verb === 'give') {
      places.push(part)
      given = { spots: spotsNamed(part.group, standing)!, part }
    } else if (part.prep === null) items.push({ part, to: given?.spots ?? null, toPart: given?.part ?? null })
  }
  return { items, places }
}
const isPlaceOnly = (g: Group, ground: Ground): boolean => (spotsNamed(g, ground)?.length ?? 0) > 0

/** "Put 3 saffron and 4 blue on the frame", "Pop one raspberry on every plate", "Build a tower of 7". */
export const put: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'put') && !carriesOn(c)) return null
  if (has(c, 'away', 'off') || after(c, 'from', 'off', 'out of')) return null
  if (has(c, 'back', 'flat') || frameRow(c.parts[0]?.group ?? ({} as Group))) return null
  const parts = carriesOn(c)
    ? { ...c, parts: c.parts.map((p) => (p.prep === 'with' ? { ...p, prep: null } : p)) }
    : c
  const { items, places } = itemsOf(parts, ground)
  if (!items.length) return null
  const actions: Action[] = []
  const used: Part[] = [...places]
  let named: Spot | null = null
  for (const [i, item] of items.entries()) {
    const g = item.part.group
    if (isOld(g)) return null
    const spots =
      item.to ??
      (actions.length && !item.to && named
        ? [named]
        : [c.verb === 'line' ? { mat: 'row' as const, region: 0 } : usualSpot(ground, g)])
    const placed = putItem({
      c,
      ground,
      g: { ...g, face: g.face ?? faceSaid(c) },
      index: i,
      of: items.length,
      spots,
    })
    if (!placed) return null
    actions.push(...placed)
    const first = placed.find((a) => a.type === 'put')
    if (first?.type === 'put') named = first.at
    used.push(item.part)
  }
  const coloured = c.parts.filter(tellsColour)
  used.push(...coloured)
  const helpers = carriesOn(c) ? c.parts : c.parts.filter((p) => aside(p, c))
  return sensed(actions, [...used.map((u) => c.parts.find((p) => p.group === u.group)!), ...helpers], named)
}
/** "…, in blue", "blue side up": the colour of all that is put. */
const faceSaid = (c: Clause): Group['face'] =>
  has(c, 'blue side up') ? 'blue' : (c.parts.find(tellsColour)?.group.face ?? null)
/** "In blue", "with a red pen". */
const tellsColour = (p: Part): boolean =>
  p.group.face !== null &&
  ((p.prep === 'in' && (p.group.n ?? 1) === 1 && p.group.noun === null) ||
    ((p.prep === 'in' || p.prep === 'with') && pens.has(p.group.noun ?? '')))
const pens = new Set('pen pencil crayon chalk marker paint ink'.split(' '))
const carriesOn = (c: Clause): boolean =>
  (c.verb === 'carry' || c.verb === 'go') && has(c, 'on') && after(c, 'with') !== undefined
/** Things already spoken of are moved, not put out anew. */
const isOld = (g: Group): boolean =>
  g.pronoun !== null ||
  ['all', 'both', 'rest', 'all but'].includes(g.quantity ?? '') ||
  (g.definite && (g.n === null || g.of !== null)) ||
  (g.quantity === 'each' && g.n === null)
/** "through the hole", "in twos", "after that", "left to right" say how it is done. */
const aside = (p: Part, c: Clause): boolean =>
  p.prep !== null &&
  ((p.prep === 'through' && p.group.mat === null) ||
    (p.prep === 'after' && p.group.pronoun !== null) ||
    (p.prep === 'in' && (p.group.pairs || p.group.worth !== null)) ||
    (p.prep === 'for' && p.group.mat === null && (p.group.n === null || p.group.state !== null)) ||
    (p.prep === 'as' && c.verb === 'lay'))

interface Put {
  c: Clause
  ground: Ground
  g: Group
  index: number
  of: number
  spots: readonly Spot[]
}
/** One group with its place as what hands put there; null where it says no number or names no thing. */
function putItem(o: Put): Action[] | null {
  const { ground, g, index, of, spots } = o
  const asThing = isThing(g, spots)
  if (!asThing && !mayBePut(g)) return null
  const count = countToPut(g, ground, spots[0] ?? null)
  if (count === null || count > 200) return null
  const base = { count, ...looksOf(o, asThing) }
  const onTable = spots[0]?.mat === 'table'
  const target = base.kind === 'coins' && onTable ? [{ mat: 'coins' as const, region: 0 }] : spots
  const heaps = heapsOf(g, count)
  const apart =
    heaps !== null &&
    (heaps.length > 1 || index > 0 || of > 1 || thingsAt(ground.table, target[0] ?? null).length > 0)
  const out: Action[] = []
  for (const at of target) {
    const where = at.region >= 0 ? at : shared(at.mat, index, of, ground)
    if (!where) return null
    if (heaps && heaps.length > 1)
      for (const n of heaps) out.push({ type: 'put', ...base, count: n, at: where, apart: true })
    else out.push(...handed({ type: 'put', ...base, at: where, apart }, ground, at.region < 0))
  }
  return out
}
const heapNouns = ['heap', 'pile', 'group', 'set', 'lot']
/** Jars and cups may be things themselves: "six jars on the top shelf". */
const isThing = (g: Group, spots: readonly Spot[]): boolean =>
  (g.mat === 'jar' || g.mat === 'plates') && g.n !== null && !g.definite && spots[0]?.mat !== g.mat
/** Whether a group can be put out as so many things: no mat, no place of one, no heap of nothing, no "two fewer". */
function mayBePut(g: Group): boolean {
  const noun = g.noun ?? ''
  if (
    noun === 'fewer' ||
    noun === 'less' ||
    (heapNouns.includes(noun) && (!g.of || (g.many && g.n === null)))
  )
    return false
  if (g.mat === 'tower' || g.mat === 'row') return g.of !== null
  return !(noun in placeNouns) && (g.mat === null || g.mat === 'coins')
}
/** Face, kind and worth of what is put. */
/** What things are called: of a mat or a heap of them, what lies in it. */
const thingNoun = (g: Group, asThing: boolean): string | null =>
  (g.mat && !asThing) || heapNouns.includes(g.noun ?? '') ? (g.of?.noun ?? null) : g.noun
function looksOf({ c, g }: Put, asThing: boolean): { face: Thing['face']; kind: string; worth: number } {
  const inner = g.of && !g.of.definite ? g.of : null
  const worth = g.worth ?? inner?.worth ?? 1
  const face = g.face ?? inner?.face ?? 'saffron'
  if (g.mat === 'coins' || isCoin(g)) return { face, kind: 'coins', worth }
  if (g.noun === 'friend' || g.noun === 'partner') return { face, kind: 'counters', worth }
  const noun = thingNoun(g, asThing)
  const kind = kindOf(g.worth !== null ? null : noun, c, g.from)
  return { face, kind: ['draw', 'paint', 'dot'].includes(c.verb ?? '') ? drawnKind(kind) : kind, worth }
}
/** What is drawn nobody has to find: "draw eight circles on the frame". */
const drawnKind = (kind: string): string => `drawn ${kind === 'counters' ? 'circles' : kind}`
/** "A tower of 3", "3 groups of 4": sizes of what stands together; null for things that are no heap. */
function heapsOf(g: Group, count: number): number[] | null {
  if (!(g.mat === 'tower' || heapNouns.includes(g.noun ?? ''))) return null
  const size = g.of?.n ?? count
  return Array.from({ length: g.n ?? 1 }, () => size)
}
const isCoin = (g: Group): boolean => g.worth !== null && ![1, 10].includes(g.worth)

/** "3 and 4 on the dot card": one number for each of its places; a single one on a mat of several places is open. */
function shared(mat: MatKind, index: number, of: number, ground: Ground): Spot | null {
  const first = hasWhole(mat) ? 1 : 0
  const there = matOn(ground, mat)
  const places = (there?.regions.length ?? 2 + first) - first
  if (mat === 'hands') return { mat, region: 0 }
  if (mat === 'scene') return null
  if (of === places) return { mat, region: index + first }
  // The only place still empty is where one more goes.
  const free = (there?.regions ?? [])
    .map((r, i) => ({ r, i }))
    .filter(({ r, i }) => i >= first && !r.things.length)
  return free.length === 1 && of === 1 ? { mat, region: free[0]!.i } : null
}
/** A hand too full goes on with the other, unless one was named. */
function handed(a: Extract<Action, { type: 'put' }>, ground: Ground, anyHand: boolean): Action[] {
  if (a.at.mat !== 'hands' || !anyHand) return [a]
  const up = (i: number) => matOn(ground, 'hands')?.regions[i]?.things.length ?? 0
  const left = Math.min(a.count, 5 - up(0))
  const out: Action[] = []
  if (left > 0) out.push({ ...a, count: left, at: { mat: 'hands', region: 0 } })
  if (a.count - left > 0) out.push({ ...a, count: a.count - left, at: { mat: 'hands', region: 1 } })
  return out
}

/** "Fill the first row", "Put one in every box of the frame", "Fill up the gaps with blue". */
export const fill: Sense = (c, { ground }) => {
  const boxes = c.parts.find((p) =>
    ['box', 'gap', 'space', 'slot', 'hole', 'place'].includes(p.group.noun ?? ''),
  )
  const row = c.parts.find(
    (p) =>
      frameRow(p.group) ||
      (p.group.order !== null && p.prep !== null && p.group.noun === null && p.group.n === null),
  )
  // "Fill the frame" lays it where none lies yet.
  const named = c.parts.some((p) => p.group.mat === 'frame')
  const frame = matOn(ground, 'frame') ?? (named && c.verb === 'fill' ? layMat('frame') : undefined)
  if (!frame) return null
  const filling =
    c.verb === 'fill' ||
    (c.words.some((w) => w.t === 'full') && isVerbOf(c.verb, 'put')) ||
    (boxes && ['each', 'all'].includes(boxes.group.quantity ?? '') && bare(c)[0]?.group.n === 1)
  const face = c.parts.find((p) => p.group.face)?.group.face ?? 'saffron'
  const on = frame.regions[0]!.things.length
  const slots = frame.regions[0]!.slots ?? 10
  const kindThere = frame.regions[0]!.things[0]?.kind ?? 'counters'
  const at = { mat: 'frame' as const, region: 0 }
  const puts = (count: number): Action[] => [
    { type: 'put', count, face, kind: kindThere, worth: 1, at, apart: false },
  ]
  if (!filling) {
    // "put two in the second": the second row, or the second frame, once the first is full.
    const what = bare(c)[0]
    if (!row || !isVerbOf(c.verb, 'put') || what?.group.n === null || !what || on % 5 !== 0) return null
    return sensed(puts(what.group.n), [what, row], at)
  }
  if (row) {
    const end = 5 * (row.group.order ?? (row.group.place === 'bottom' ? 2 : 1))
    return on < end ? sensed(puts(end - on), [row], at) : null
  }
  const one = c.parts.find((p) => p.group.mat === 'frame' && p.group.n === 1)
  const end = one ? Math.ceil((on + 1) / 10) * 10 : slots
  return end > on ? sensed(puts(end - on), c.parts, at) : null
}
/** "… and put 7 on the other": the other frame of two. */
export const putOnOtherFrame: Sense = (c, { ground }) => {
  const other = c.parts.find(
    (p) => p.prep !== null && p.group.place === 'other' && (p.group.mat === 'frame' || p.group.mat === null),
  )
  const what = bare(c)[0]
  const frame = matOn(ground, 'frame')
  if (!other || !what || !frame || what.group.n === null || !isVerbOf(c.verb, 'put')) return null
  if (frame.regions[0]!.things.length % 10 !== 0) return null
  const at = { mat: 'frame' as const, region: 0 }
  return sensed(
    [
      {
        type: 'put',
        count: what.group.n,
        face: what.group.face ?? 'saffron',
        kind: 'counters',
        worth: 1,
        at,
        apart: false,
      },
    ],
    [what, other],
    at,
  )
}

/** "Double what is there", "Make the right side match the left". */
export const double: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'double')) return null
  const spots = ground.table.mats.flatMap((m) =>
    m.regions.flatMap((r, region) =>
      r.things.length && m.kind !== 'scene' ? [{ at: { mat: m.kind, region }, things: r.things }] : [],
    ),
  )
  if (!spots.length) return null
  return sensed(
    spots.map(({ at, things }) => ({
      type: 'put',
      count: things.length,
      face: things[0]!.face,
      kind: things[0]!.kind,
      worth: things[0]!.worth,
      at,
      apart: false,
    })),
    c.parts,
  )
}
export const match: Sense = (c, { ground }) => {
  if (
    !isVerbOf(c.verb, 'match') ||
    !(has(c, 'match') || c.verb === 'match' || c.words.some((w) => w.t === 'match' || w.t === 'like'))
  )
    return null
  const spots = c.parts.flatMap((p) => (spotsNamed(p.group, ground) ?? []).slice(0, 1))
  const [to, like] = spots
  if (!to || !like || to.mat !== like.mat || to.region === like.region) return null
  const [have, want] = [thingsAt(ground.table, to), thingsAt(ground.table, like)]
  const more = want.length - have.length
  if (more <= 0) return null
  return sensed(
    [{ type: 'put', count: more, face: want[0]!.face, kind: want[0]!.kind, worth: 1, at: to, apart: false }],
    c.parts,
  )
}

/** "Hold up 3 fingers", "All fingers up, both hands", "Show me three fingers on this hand and four on that hand". */
export const fingers: Sense = (c, { ground }) => {
  const finger = [...c.parts, ...(c.subject ? [c.subject] : [])].find(
    (p) => ['finger', 'thumb'].includes(p.group.noun ?? '') || p.group.of?.noun === 'finger',
  )
  const up =
    has(c, 'up') ||
    ['show', 'hold', 'raise', 'put', 'pop', 'lift', 'wave', 'stretch', 'open', 'make'].includes(c.verb ?? '')
  if (!finger || !up || has(c, 'down', 'away', 'in')) return null
  if (finger.group.quantity === 'all' || finger.group.n === 10) {
    const full: Action[] = [0, 1].map((region) => ({
      type: 'put',
      count: 5,
      face: 'saffron',
      kind: 'counters',
      worth: 1,
      at: { mat: 'hands', region },
      apart: false,
    }))
    return sensed([...lowered(ground), ...full], [...c.parts, ...(c.subject ? [c.subject] : [])])
  }
  const sides = c.parts.filter((p) => p.prep !== null && p.group.mat === 'hands')
  const said = bare(c).filter((p) => p.group.n !== null)
  // "seven fingers: five and two" says the seven again, hand by hand.
  const numbers =
    said.length === 3 && said[0]!.group.n === said[1]!.group.n! + said[2]!.group.n! ? said.slice(1) : said
  if (!numbers.length) return null
  const puts: Action[] = []
  for (const [i, p] of numbers.entries()) {
    const side =
      sides.length === numbers.length
        ? sides[i]!
        : sides.length === 1 && sides[0]!.group.place
          ? sides[0]
          : undefined
    const region =
      numbers !== said
        ? i
        : side
          ? side.group.place === 'right' || (sides.length > 1 && i === 1)
            ? 1
            : 0
          : -1
    puts.push({
      type: 'put',
      count: p.group.n!,
      face: 'saffron',
      kind: 'counters',
      worth: 1,
      at: { mat: 'hands', region },
      apart: false,
    })
  }
  // A new number of fingers is shown instead of the old; "more" comes on top.
  const fresh = !numbers[0]!.group.more && !sides.some((s) => s.group.place !== null && numbers.length === 1)
  const start = fresh
    ? { ...ground, table: { ...ground.table, mats: ground.table.mats.filter((m) => m.kind !== 'hands') } }
    : ground
  const actions = puts.flatMap((a) => (a.type === 'put' && a.at.region < 0 ? handed(a, start, true) : [a]))
  return sensed([...(fresh ? lowered(ground) : []), ...actions], [...said, ...sides, finger], {
    mat: 'hands',
    region: -1,
  })
}
const lowered = (ground: Ground): Action[] =>
  matOn(ground, 'hands')?.regions.some((r) => r.things.length)
    ? [{ type: 'clear', at: { mat: 'hands', region: null } }]
    : []

/** "Three more arrive", "Two more plums roll in": things come by themselves. */
export const arrive: Sense = (c, { ground }) => {
  const g = c.subject?.group
  if (!g || g.n === null || g.mat || g.definite) return null
  const comes =
    ['come', 'arrive', 'join', 'appear', 'land'].includes(c.verb ?? '') ||
    (isVerbOf(c.verb, 'take') && has(c, 'in', 'on', 'over', 'along') && !after(c, 'from', 'off', 'out of'))
  if (
    !comes ||
    (!g.more && !has(c, 'in') && !['come', 'arrive', 'join', 'appear', 'land'].includes(c.verb ?? ''))
  )
    return null
  const at = usualSpot(ground, g)
  const there = thingsAt(ground.table, at)[0]
  const kind = g.noun && !anyThing.has(g.noun) ? kindOf(g.noun, c, g.from) : (there?.kind ?? 'counters')
  return sensed(
    [{ type: 'put', count: g.n, face: g.face ?? 'saffron', kind, worth: 1, at, apart: false }],
    [c.subject, ...c.parts.filter((p) => p.group.pronoun !== null)],
    at,
  )
}
