import {
  type Action,
  hasWhole,
  holdsThings,
  type Mat,
  type Spot,
  TableError,
  type Thing,
  thingsIn,
} from '../../table/state.ts'
import type { Clause, Part } from '../clauses.ts'
import type { Group } from '../groups.ts'
import { candidates, picked, thingsAt } from '../pick.ts'
import { type Ground, matNamed, matOn } from '../spots.ts'
import { isVerbOf } from '../verbs.ts'
import { destination } from './putting.ts'
import { after, bare, has, says, type Sense, sensed } from './sense.ts'

/** The mat whose things are parted or joined: the one that is named, else the first with several places, else the first with things. */
function partedMat(c: Clause, ground: Ground): Mat | null {
  for (const p of c.parts) {
    const kind = matNamed(p.group, ground)
    const mat = kind ? matOn(ground, kind) : undefined
    if (mat && holdsThings(mat) && mat.regions.length) return mat
  }
  const holding = ground.table.mats.filter((m) => holdsThings(m) && m.regions.length && thingsIn(m).length)
  // "Them" are the things one had in hand last.
  const last = new Set(ground.table.last?.keys ?? [])
  const inHand = holding.find((m) => thingsIn(m).some((t) => last.has(t.key)))
  if (inHand && bare(c).some((p) => p.group.pronoun !== null)) return inHand
  return holding.find((m) => m.regions.length > 1) ?? holding[0] ?? null
}
const numbersOf = (c: Clause): number[] => c.words.filter((w) => w.n !== null).map((w) => w.n!)

/** "Cut the apple in half", "Halve both apples", "Break each biscuit into two": things themselves in two. */
export const halve: Sense = (c, { ground }) => {
  const cuts = ['cut', 'break', 'snap', 'split', 'slice', 'halve', 'tear'].includes(c.verb ?? '')
  const what = bare(c)[0]
  const noun = what?.group.noun ?? null
  const two = c.words.some((w) => ['half', 'halves'].includes(w.t))
  if (!cuts || !what || !noun || what.group.mat !== null || (!two && c.verb !== 'halve')) return null
  if (['heap', 'pile', 'group', 'set', 'lot', 'counter', 'one', 'bundle', 'rod', 'ten'].includes(noun))
    return null
  const one = what.group.definite && !what.group.many && what.group.n === null
  const things = candidates({ ...what.group, n: one ? 1 : what.group.n }, ground, {
    at: null,
    end: 'last',
    refusal: 'take',
  })
  const cut = one || what.group.n !== null ? things.slice(-(what.group.n ?? 1)) : things
  return cut.length ? sensed([{ type: 'halve', keys: cut.map((t) => t.key) }], c.parts) : null
}
/** "Split into 4 and 3", "Separate them into a heap of 6 and a heap of 3", "Move the shells into three heaps of three". */
export const split: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'split')) return null
  const heaps = c.parts.find(
    (p) =>
      ['heap', 'pile', 'group', 'set', 'lot'].includes(p.group.noun ?? '') ||
      (p.prep === 'in' && p.group.mat === 'row' && (p.group.n ?? 0) > 1 && p.group.of !== null),
  )
  const into = after(c, 'into', 'as', 'in', 'to')
  const apart =
    has(c, 'apart', 'up') ||
    ['split', 'part', 'separate', 'break', 'partition', 'snap', 'cut'].includes(c.verb ?? '')
  const size = ofOneSize(heaps?.group) ?? sizeSaid(c)
  if (size !== null) return inGroupsOf(size, c, ground)
  if (!heaps && !apart && !(c.verb === 'share' && into)) return null
  const mat = partedMat(c, ground)
  if (!mat) return null
  const things = mattered(mat, c, ground)
  const parts = partsSaid(c, heaps, things.length)
  if (!parts || parts.length < 2) return null
  if (
    (c.verb === 'put' || c.verb === 'make') && !says(c, 'equal')
      ? !c.parts.some((p) => p.prep === null && (p.group.pronoun !== null || p.group.definite))
      : false
  )
    return null
  const sum = parts.reduce((a, b) => a + b, 0)
  if (sum !== things.length) throw new TableError('not-conserved', { parts, sum, have: things.length })
  const actions = parted(mat, things, parts, ground)
  return actions.length ? sensed(actions, c.parts) : null
}
/** "Put them in groups of 3", "Group them in twos": as many groups as there are, and what is over. */
function inGroupsOf(size: number, c: Clause, ground: Ground): ReturnType<Sense> {
  const mat = partedMat(c, ground)
  if (!mat) return null
  const things = mattered(mat, c, ground)
  const parts = equally(things.length, size)
  const actions = parts ? parted(mat, things, parts, ground) : []
  return actions.length ? sensed(actions, c.parts) : null
}
/** Everything on the mat that is to be parted; where the whole is named or has all, what lies in it. */
const mattered = (mat: Mat, c: Clause, ground: Ground): Thing[] => {
  const named = c.parts.find((p) => p.prep === null && p.group.noun !== null && p.group.mat === null)
  const all = thingsIn(mat)
  if (!named || ['heap', 'pile', 'group', 'lot'].includes(named.group.noun ?? '')) return all
  const called = candidates({ ...named.group, n: null }, ground, {
    at: { mat: mat.kind, region: -1 },
    end: 'last',
    refusal: 'take',
  })
  return called.length ? called : all
}
/** "Groups of three": as many as there are, all of one size, and what is over. */
const ofOneSize = (g: Group | undefined): number | null =>
  g && g.n === null && g.many && g.of?.n != null && g.of.n > 0 ? g.of.n : null
const inSizes = ['twos', 'threes', 'fours', 'fives', 'sixes', 'tens']
/** "Group them in threes", "into twos". */
function sizeSaid(c: Clause): number | null {
  const at = c.words.findIndex(
    (w, i) => ['in', 'into'].includes(w.t) && inSizes.includes(c.words[i + 1]?.t ?? ''),
  )
  return at < 0 ? null : ([2, 3, 4, 5, 6, 10][inSizes.indexOf(c.words[at + 1]!.t)] ?? null)
}
/** Groups of a size and what is over; null where there are not enough for one. */
const equally = (there: number, size: number): number[] | null =>
  there < size
    ? null
    : Array.from({ length: Math.ceil(there / size) }, (_, i) => Math.min(size, there - i * size))
function partsSaid(c: Clause, heaps: Part | undefined, there: number): number[] | null {
  const g = heaps?.group
  if (says(c, 'half', 'halves', 'middle') && there % 2 === 0 && !numbersOf(c).length)
    return [there / 2, there / 2]
  if (g && g.n !== null && g.n > 1 && g.of?.n !== null && g.of)
    return Array.from({ length: g.n }, () => g.of!.n!)
  if (g && g.n !== null && g.n > 1 && !g.of && there % g.n === 0 && says(c, 'equal', 'same', 'fair'))
    return Array.from({ length: g.n }, () => there / g.n!)
  const heapSizes = c.parts
    .filter((p) => ['heap', 'pile', 'group'].includes(p.group.noun ?? '') && p.group.of?.n != null)
    .map((p) => p.group.of!.n!)
  if (heapSizes.length >= 2) return heapSizes
  const said = numbersOf(c)
  // "Split 7 into 4 and 3": the first number is the whole.
  return said.length > 2 && said[0] === there && said[0] === said.slice(1).reduce((a, b) => a + b, 0)
    ? said.slice(1)
    : said
}
const apartOn: ReadonlySet<Mat['kind']> = new Set<Mat['kind']>(['table', 'row', 'tower', 'jar', 'coins'])
/** Parts go to the mat's places where it has enough of them, else stand apart in heaps, or before and after a divider. */
function parted(mat: Mat, things: readonly Thing[], parts: readonly number[], ground: Ground): Action[] {
  const first = hasWhole(mat.kind) ? 1 : 0
  const places = mat.regions.length - first
  let used = 0
  const groups = parts.map((n) => things.slice(used, (used += n)).map((t) => t.key))
  if (mat.kind === 'rail') return [{ type: 'divide', mat: 'rail', at: parts[0]! }]
  if (places > 1) {
    if (parts.length > places)
      throw new TableError('no-room', { case: 'places', mat: mat.kind, room: places, count: parts.length })
    return groups.flatMap((keys, i): Action[] =>
      keys.length ? [{ type: 'move', keys, at: { mat: mat.kind, region: i + first }, apart: false }] : [],
    )
  }
  const other = ground.table.mats.find(
    (m) =>
      m !== mat &&
      m.regions.length - (hasWhole(m.kind) ? 1 : 0) === parts.length &&
      holdsThings(m) &&
      m.kind !== 'hands' &&
      !thingsIn(m).length,
  )
  if (other && mat.kind !== 'tower') {
    const from = hasWhole(other.kind) ? 1 : 0
    return groups.flatMap((keys, i): Action[] =>
      keys.length ? [{ type: 'move', keys, at: { mat: other.kind, region: i + from }, apart: false }] : [],
    )
  }
  // In a frame or on a pair plate nothing can lie apart.
  if (!apartOn.has(mat.kind)) return []
  return [{ type: 'heap', heaps: groups.filter((k) => k.length) }]
}

/** "Break five off", "Shove four along to the edge of the table": some stand apart from the rest. */
export const setApart: Sense = (c, { ground }) => {
  const edge = after(c, 'along', 'to', 'at')
  const off = ['break', 'snap', 'split'].includes(c.verb ?? '') && has(c, 'off')
  const fromOthers = after(c, 'from')?.group
  const away =
    has(c, 'away') &&
    fromOthers !== undefined &&
    (fromOthers.quantity === 'rest' || fromOthers.place === 'other' || fromOthers.pronoun !== null)
  const shoved =
    ['move', 'shift', 'shove', 'slide', 'push', 'drag', 'put'].includes(c.verb ?? '') &&
    (away ||
      edge?.prep === 'along' ||
      edge?.group.noun === 'edge' ||
      (edge !== undefined && (edge.group.place === 'left' || edge.group.place === 'right')) ||
      has(c, 'to one side') ||
      has(c, 'apart', 'aside', 'to the other side'))
  if (!off && !shoved) return null
  const what = bare(c)[0]
  const mat = partedMat({ ...c, parts: [] }, ground)
  if (!what || !mat || mat.kind === 'rail' || mat.regions.length > 1) return null
  const keys = picked(what.group, ground, {
    at: { mat: mat.kind, region: -1 },
    end: 'last',
    refusal: 'take',
    where: `in ${mat.regions[0]!.name}`,
  })
  const rest = thingsIn(mat)
    .map((t) => t.key)
    .filter((k) => !keys.includes(k))
  return sensed(
    [{ type: 'heap', heaps: [rest, keys].filter((k) => k.length) }],
    [what, edge, after(c, 'from')],
  )
}

/** "Push them all together on the bottom shelf", "Push the parts together again", "Stick the two towers together". */
export const join: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'join') || !(has(c, 'together') || says(c, 'together') || c.verb === 'join'))
    return null
  const to = c.parts
    .map((p) => (p.prep ? destination(p, ground) : null))
    .find((s) => s?.length === 1 && s[0]!.region >= 0)?.[0]
  const mat = to ? matOn(ground, to.mat) : partedMat(c, ground)
  if (!mat) return null
  const things = to ? thingsAt(ground.table, null) : thingsIn(mat)
  if (!things.length) throw new TableError('not-there', { case: 'join' })
  const keys = things.map((t) => t.key)
  const at: Spot = to ?? { mat: mat.kind, region: 0 }
  const there = new Set(thingsAt(ground.table, at).map((t) => t.key))
  if (mat.regions.length > 1 || to) {
    const going = keys.filter((k) => !there.has(k))
    return sensed(going.length ? [{ type: 'move', keys: going, at, apart: false }] : [], c.parts, at)
  }
  const undivided: Action[] = mat.divider === null ? [] : [{ type: 'divide', mat: mat.kind, at: null }]
  return sensed([...undivided, { type: 'heap', heaps: [keys] }, ...faced(things)], c.parts)
}
/** Parts told apart by their faces become one again. */
const faced = (things: readonly Thing[]): Action[] => {
  const other = things.filter((t) => t.face !== 'saffron').map((t) => t.key)
  return other.length && other.length < things.length ? [{ type: 'turn', keys: other, face: 'saffron' }] : []
}
