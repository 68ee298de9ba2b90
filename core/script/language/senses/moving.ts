import { act } from '../../table/machine.ts'
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
import { anyThing } from '../lexicon.ts'
import { candidates, isCalled, picked, thingsAt } from '../pick.ts'
import { type Ground, matNamed, matOn, spotsNamed } from '../spots.ts'
import { isVerbOf } from '../verbs.ts'
import { destination } from './putting.ts'
import { after, bare, has, says, type Sense, sensed } from './sense.ts'
import { source } from './taking.ts'
import { regionName } from './words.ts'

const movers = new Set('move shift shove slide push transfer drag pass send bring take carry lift'.split(' '))
/** Things put out for use: on the open table, or in the whole of a part-whole. */
function stock(ground: Ground): Spot | null {
  for (const m of ground.table.mats) {
    if (hasWhole(m.kind) && m.regions[0]!.things.length) return { mat: m.kind, region: 0 }
    if ((m.kind === 'table' || m.kind === 'row') && thingsIn(m).length) return { mat: m.kind, region: 0 }
  }
  return null
}

/** "Move 2 from the top shelf to the bottom shelf", "Sweep all the beans into the jar", "Move five into one part and the rest into the other". */
export const move: Sense = (c, said) => {
  if (!isVerbOf(c.verb, 'move') && !isVerbOf(c.verb, 'put')) return null
  const fromParts = c.parts.filter((p) => p.prep === 'from' || p.prep === 'off' || p.prep === 'out of')
  const from = source({ ...c, parts: fromParts }, said.ground)
  const whats = bare(c)
  const subject = c.subject?.group.n || c.subject?.group.quantity ? c.subject : null
  const items = whats.length ? whats : subject ? [subject] : []
  if (!items.length) return null
  const actions: Action[] = []
  const uses: (Part | null | undefined)[] = [
    from?.part,
    c.subject,
    ...c.parts.filter((p) => p.prep === 'for' || p.prep === 'before'),
  ]
  let ground = said.ground
  for (const [i, what] of items.entries()) {
    const next = items[i + 1]?.group.from ?? Infinity
    const to = c.parts.find(
      (p) =>
        p.prep !== null &&
        p !== from?.part &&
        !fromParts.includes(p) &&
        (items.length === 1 || (p.group.from > what.group.from && p.group.from < next)) &&
        (destination(p, ground)?.length ?? 0) > 0,
    )
    const moved = moveOne(c, ground, { what, to, from })
    if (!moved) return null
    actions.push(...moved.actions)
    uses.push(what, to)
    ground = { table: moved.actions.reduce(act, ground.table), named: moved.at }
  }
  return sensed(actions, uses, ground.named)
}
function moveOne(
  c: Clause,
  ground: Ground,
  { what, to, from }: { what: Part; to: Part | undefined; from: { spots: Spot[]; part: Part } | null },
): { actions: Action[]; at: Spot } | null {
  const spots = to ? destination(to, ground)! : implied(c, ground)
  if (spots?.length !== 1) return null
  const at = settle(spots[0]!, ground)
  if (!at) return null
  const g = what.group
  const verb = c.verb ?? ''
  const sourceSpot =
    from?.spots[0] ?? (g.mat && g.quantity !== 'both' ? (spotsNamed(g, ground)?.[0] ?? null) : null)
  const moves =
    movers.has(verb) || ['lift', 'bring', 'carry', 'tip', 'lower', 'sweep', 'take', 'send'].includes(verb)
  // "Count out five into the jar": five of what lies ready.
  const countedOut =
    verb === 'count' &&
    g.n !== null &&
    thingsAt(ground.table, { mat: 'table', region: 0 }).length >= g.n &&
    at.mat !== 'table'
  const stocked = fromStock(g, ground, at) || countedOut
  if (!isOld(g, ground, at) && !moves && from === null && !stocked) return null
  if (g.more && !movers.has(verb)) return null
  const keys = keysFor(c, ground, g, { from: sourceSpot, at, stocked })
  const staying = new Set(thingsAt(ground.table, at).map((t) => t.key))
  const going = keys.filter((k) => !staying.has(k))
  if (!going.length) return keys.length ? { actions: [], at } : null
  return { actions: [{ type: 'move', keys: going, at, apart: false }], at }
}
/** "Drop them in too": the only thing on the table they can go into. */
function implied(c: Clause, ground: Ground): Spot[] | null {
  const shelves = matOn(ground, 'shelves')
  if (shelves && has(c, 'down', 'up') && movers.has(c.verb ?? ''))
    return [{ mat: 'shelves', region: has(c, 'down') ? 1 : 0 }]
  if (!has(c, 'in', 'on')) return null
  const takes = ground.table.mats.filter(
    (m) => m.kind !== 'table' && m.regions.length === 1 && holdsThings(m),
  )
  return takes.length === 1 ? [{ mat: takes[0]!.kind, region: 0 }] : null
}
const settle = (s: Spot, ground: Ground): Spot | null => {
  if (s.region >= 0) return s
  const mat = matOn(ground, s.mat)
  return mat && mat.regions.length === 1 ? { ...s, region: 0 } : null
}
function isOld(g: Group, ground: Ground, at: Spot): boolean {
  if (g.pronoun !== null || ['all', 'both', 'rest', 'all but'].includes(g.quantity ?? '')) return true
  if (g.of?.definite && g.of.mat === null) return true
  if (!g.definite) return false
  const elsewhere = thingsAt(ground.table, null).length > thingsAt(ground.table, at).length
  return elsewhere && g.mat === null
}
/** Indefinite, but just such things lie ready on the table: those are meant. */
const fromStock = (g: Group, ground: Ground, at: Spot): boolean =>
  g.noun !== null &&
  !anyThing.has(g.noun) &&
  g.n !== null &&
  !g.more &&
  at.mat !== 'table' &&
  thingsAt(ground.table, { mat: 'table', region: 0 }).filter((t) => isCalled(t, g.noun!)).length >= g.n

function keysFor(
  c: Clause,
  ground: Ground,
  g: Group,
  o: { from: Spot | null; at: Spot; stocked: boolean },
): number[] {
  const last = ground.table.last?.keys ?? []
  if (
    g.pronoun !== null &&
    g.n === null &&
    g.quantity === null &&
    o.from === null &&
    last.length &&
    !['everything'].includes(g.pronoun)
  ) {
    const there = new Set(thingsAt(ground.table, null).map((t) => t.key))
    const known = last.filter((k) => there.has(k))
    if (known.length && !thingsAt(ground.table, o.at).some((t) => known.includes(t.key))) return known
    const lying = new Set(thingsAt(ground.table, o.at).map((t) => t.key))
    if (known.length && (known.every((k) => lying.has(k)) || there.size === known.length)) return known
  }
  const stocked = o.from ?? (o.stocked ? { mat: 'table' as const, region: 0 } : null)
  const from =
    stocked ?? (g.quantity === 'rest' || !g.definite || movers.has(c.verb ?? '') ? stock(ground) : null)
  const staying = new Set(thingsAt(ground.table, o.at).map((t) => t.key))
  const apart = from && from.mat === o.at.mat && from.region === o.at.region ? null : from
  const named = g.mat
    ? {
        ...g,
        noun: null,
        n: g.quantity === 'both' ? null : g.place || g.order !== null ? null : g.n,
        order: null,
      }
    : g
  return picked(named, ground, {
    at: apart,
    end: 'last',
    among: (t) => !staying.has(t.key) && !(g.quantity === 'rest' && t.crossed),
    refusal: 'take',
    where: apart ? `in ${regionName(ground, apart)}` : 'on the table',
  })
}

/** "Take two out and put them on the table": what was lifted is set down again, and was only moved. */
export const putTaken: Sense = (c, { ground, before }) => {
  const last = before.at(-1)
  if (last?.type !== 'take' || !(isVerbOf(c.verb, 'put') || isVerbOf(c.verb, 'move'))) return null
  const what = bare(c)[0]
  const to = c.parts.find((p) => p.prep !== null && (destination(p, ground)?.length ?? 0) > 0)
  if (what?.group.pronoun == null || !to) return null
  const at = settle(destination(to, ground)![0]!, ground)
  return (
    at && { ...sensed([{ type: 'move', keys: last.keys, at, apart: false }], [what, to], at), instead: true }
  )
}
/** "Put the three pegs back where they came from". */
export const putBack: Sense = (c, { ground }) => {
  if (
    !has(c, 'back') ||
    ![
      'put',
      'move',
      'slide',
      'bring',
      'take',
      'push',
      'lift',
      'give',
      'pop',
      'place',
      'send',
      'return',
      'shove',
      'lay',
      'carry',
    ].includes(c.verb ?? '')
  )
    return null
  const what = bare(c)[0]
  const last = ground.table.last
  if (
    !what ||
    !last?.from ||
    what.group.mat ||
    c.parts.some((p) => p.prep !== null && destination(p, ground))
  )
    return null
  const there = new Set(thingsAt(ground.table, null).map((t) => t.key))
  const keys = last.keys.filter((k) => there.has(k))
  const n = what.group.n
  if (!keys.length || (n !== null && n > keys.length)) return null
  return sensed(
    [{ type: 'move', keys: n === null ? keys : keys.slice(0, n), at: last.from, apart: false }],
    c.parts,
  )
}

/** "Tip the last plate out onto the first", "Tip out the beans", "Turn the jar upside down and let everything out". */
export const tipOut: Sense = (c, { ground }) => {
  if (!['tip', 'turn', 'empty', 'pour', 'let', 'shake', 'spill', 'take'].includes(c.verb ?? '')) return null
  const out = has(c, 'out', 'upside') || after(c, 'out', 'onto', 'on', 'out of') !== undefined
  if (!out) return null
  const what = bare(c)[0]
  if (!what) return null
  const named = what.group.mat ? spotsNamed(what.group, ground) : null
  const jar = matOn(ground, 'jar')
  const inJar = jar !== undefined && thingsIn(jar).length > 0
  const to = c.parts.find(
    (p) =>
      p.prep !== null &&
      (spotsNamed(p.group, ground)?.length ?? 0) > 0 &&
      !(p.group.mat === what.group.mat && p.group.place === null && p.group.order === null) &&
      p.group.mat !== 'jar',
  )
  const at: Spot = to ? spotsNamed(to.group, ground)![0]! : { mat: 'table', region: 0 }
  if (named?.length && named[0]!.region >= 0 && what.group.mat !== 'jar') {
    const keys = thingsAt(ground.table, named[0]!).map((t) => t.key)
    return keys.length ? sensed([{ type: 'move', keys, at, apart: false }], c.parts) : null
  }
  const some = what.group.n !== null && what.group.mat === null
  if (!inJar || (c.verb === 'take' && !to && what.group.quantity !== 'all')) return null
  const actions: Action[] = []
  if (jar.covered) actions.push({ type: 'uncover', mat: 'jar' })
  if (has(c, 'upside') && !says(c, 'out')) return sensed([], c.parts)
  actions.push({
    type: 'move',
    keys: some
      ? picked(what.group, ground, {
          at: { mat: 'jar', region: 0 },
          end: 'last',
          refusal: 'take',
          where: 'in the jar',
        })
      : thingsIn(jar).map((t) => t.key),
    at,
    apart: false,
  })
  return sensed(actions, c.parts)
}

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
function partsSaid(c: Clause, heaps: Part | undefined, there: number): number[] | null {
  const g = heaps?.group
  if (says(c, 'half', 'halves', 'middle') && there % 2 === 0 && !numbersOf(c).length)
    return [there / 2, there / 2]
  if (g && g.n !== null && g.n > 1 && g.of?.n !== null && g.of)
    return Array.from({ length: g.n }, () => g.of!.n!)
  if (g && g.n !== null && g.n > 1 && !g.of && there % g.n === 0 && says(c, 'equal', 'same', 'fair'))
    return Array.from({ length: g.n! }, () => there / g.n!)
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
  const blue = things.filter((t) => t.face === 'blue').map((t) => t.key)
  return blue.length && blue.length < things.length ? [{ type: 'turn', keys: blue, face: 'saffron' }] : []
}

/** "Share 12 among 4 plates", "Deal them round, the same for everyone", "One for you, one for me, until they are gone". */
export const share: Sense = (c, { ground }) => {
  const each = c.words.filter(
    (w, i) =>
      w.t === 'for me' || (w.t === 'for' && ['you', 'me', 'him', 'her'].includes(c.words[i + 1]?.t ?? '')),
  ).length
  const turns = c.verb === null && each >= 2
  if (
    !turns &&
    !(
      isVerbOf(c.verb, 'share') &&
      (c.verb === 'share' || c.verb === 'deal' || says(c, 'equal', 'fair', 'same'))
    )
  )
    return null
  if (
    after(c, 'into') &&
    c.words.filter((w) => w.n !== null).length >= 2 &&
    !after(c, 'among', 'between', 'onto')
  )
    return null
  const among = after(c, 'among', 'between', 'onto', 'on', 'to', 'for', 'into', 'with')
  const plates = ground.table.mats.find(
    (m) =>
      m.kind === 'plates' || (m.regions.length > 1 && m.kind === matNamed(among?.group ?? noGroup, ground)),
  )
  const places = plates ? plates.regions.length - (hasWhole(plates.kind) ? 1 : 0) : null
  const k = turns ? (places ?? each) : (among?.group.n ?? plates?.regions.length ?? null)
  if (k === null) return null
  if (k < 2 || k > 10) throw new TableError('no-mat', { case: 'among', among: k })
  const first = (plates && hasWhole(plates.kind)) || among?.group.mat === 'parts' ? 1 : 0
  const fits = plates && plates.regions.length - first === k
  const what = bare(c).find((p) => p.group.mat === null)
  const n = turns ? null : (what?.group.n ?? null)
  const all = ground.table.mats.filter(holdsThings).flatMap(thingsIn)
  const kind =
    what?.group.noun && !anyThing.has(what.group.noun) ? all.filter((t) => isCalled(t, what.group.noun!)) : []
  const there = kind.length ? kind : all.filter((t) => t.kind !== 'skittles')
  const actions: Action[] = []
  const inParts =
    !fits && (among?.group.mat === 'parts' || among?.group.mat === 'bar') ? among.group.mat : null
  const mat = fits ? plates.kind : (inParts ?? 'plates')
  if (!fits) actions.push(...(inParts ? [laidParts(inParts, k)] : laidPlates(plates, k, among?.group.noun)))
  if (!there.length) {
    if (n === null) throw new TableError('not-there', { case: 'share', have: 0, count: 1 })
    const name = what!.group.noun && !anyThing.has(what!.group.noun) ? what!.group.noun : null
    return sensed(
      [...actions, ...dealtNew(n, k, { mat, region: first }, nameOf(name, c))],
      c.parts.filter((p) => p === what || p === among),
    )
  }
  if (n !== null && n > there.length)
    throw new TableError('not-there', { case: 'share', have: there.length, count: n })
  const keys = there.slice(0, n ?? there.length).map((t) => t.key)
  const share = Math.floor(keys.length / k)
  // What lies on plates that are laid anew is gathered first, and shared with the rest.
  const gathered: Action[] =
    !fits && plates
      ? [
          {
            type: 'move',
            keys: thingsIn(plates).map((t) => t.key),
            at: { mat: 'table', region: 0 },
            apart: false,
          },
        ]
      : []
  const round = Array.from({ length: k }, (_, j): Action => ({
    type: 'move',
    keys: keys.slice(0, share * k).filter((_, i) => i % k === j),
    at: { mat, region: j + (fits || inParts ? first : 0) },
    apart: false,
  }))
  return sensed(
    [
      ...gathered.filter((a) => a.type === 'move' && a.keys.length),
      ...actions,
      ...round.filter((a) => a.type === 'move' && a.keys.length),
    ],
    turns
      ? c.parts
      : c.parts.filter((p) => p === what || p === among || (p.prep !== null && p.group.mat === mat)),
  )
}
const noGroup = { mat: null } as Group
const laidParts = (mat: 'parts' | 'bar', parts: number): Action => ({
  type: 'lay',
  mat,
  parts,
  from: 0,
  to: 10,
  every: 1,
  items: [],
  name: null,
})
const laidPlates = (there: Mat | undefined, k: number, noun: string | null | undefined): Action[] => [
  {
    type: 'lay',
    mat: 'plates',
    parts: k,
    from: 0,
    to: 10,
    every: 1,
    items: [],
    name:
      noun === 'neighbour' || noun === 'cup'
        ? noun
        : there?.kind === 'plates'
          ? (there.regions[0]?.name.replace(/ \d+$/, '') ?? null)
          : null,
  },
]
const nameOf = (noun: string | null, c: Clause): string => {
  if (!noun) return 'counters'
  return c.words.find((w) => w.n === null && w.t.startsWith(noun.slice(0, -1)))?.t ?? noun
}
function dealtNew(n: number, k: number, from: Spot, kind: string): Action[] {
  const each = Math.floor(n / k)
  const puts: Action[] = each
    ? Array.from({ length: k }, (_, i) => ({
        type: 'put',
        count: each,
        face: 'saffron',
        kind,
        worth: 1,
        at: { mat: from.mat, region: i + from.region },
        apart: false,
      }))
    : []
  if (n % k)
    puts.push({
      type: 'put',
      count: n % k,
      face: 'saffron',
      kind,
      worth: 1,
      at: { mat: 'table', region: 0 },
      apart: false,
    })
  return puts
}

/** "Pair them up", "Put the socks in pairs": set two by two, an odd one at the end. */
export const pair: Sense = (c, { ground }) => {
  const inPairs = c.parts.find(
    (p) => p.prep === 'in' && (p.group.pairs || p.group.noun === 'pair' || p.group.worth === 2),
  )
  const named = says(c, 'pairs', 'pair') && isVerbOf(c.verb, 'pair')
  if (['ring', 'circle', 'group'].includes(c.verb ?? '')) return null
  if (c.verb !== 'pair' && !inPairs && !(named && after(c, 'in', 'into'))) return null
  const what = bare(c)[0]
  const all = thingsAt(ground.table, null)
  if (!all.length && what?.group.n != null)
    return sensed(
      [
        {
          type: 'put',
          count: what.group.n,
          face: 'saffron',
          kind: 'counters',
          worth: 1,
          at: { mat: 'pairs', region: 0 },
          apart: false,
        },
      ],
      c.parts,
    )
  if (!all.length) throw new TableError('not-there', { case: 'pair' })
  const keys =
    what && what.group.n !== null && !what.group.pairs
      ? picked(what.group, ground, { at: null, end: 'first', refusal: 'take' })
      : what?.group.noun && all.some((t) => isCalled(t, what.group.noun!))
        ? all.filter((t) => isCalled(t, what.group.noun!)).map((t) => t.key)
        : all.map((t) => t.key)
  if (keys.length > 20) throw new TableError('no-room', { case: 'pairs', room: 20, count: keys.length })
  return sensed([{ type: 'move', keys, at: { mat: 'pairs', region: 0 }, apart: false }], c.parts)
}

/** "Swap the plates over", "Let the two shelves change places", "Turn the card round", "Flip the bar round". */
export const swapPlaces: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'swap')) return null
  const round =
    has(c, 'round', 'over', 'half way round', 'halfway round', 'around', 'change', 'swap') ||
    ['swap', 'switch', 'change', 'rotate'].includes(c.verb!)
  if (!round) return null
  const several = ground.table.mats.filter((m) => m.regions.length > 1 && holdsThings(m))
  const it =
    c.parts.some((p) => p.group.pronoun !== null) && several.length === 1 ? several[0]!.kind : undefined
  const named = c.parts.map((p) => matNamed(p.group, ground)).find((k) => k && matOn(ground, k)) ?? it
  const mat = named ? matOn(ground, named) : undefined
  if (!mat || !holdsThings(mat)) return null
  const first = hasWhole(mat.kind) ? 1 : 0
  if (mat.regions.length - first !== 2) return null
  if (bare(c).some((p) => p.group.n !== null && p.group.mat === null)) return null
  return sensed([{ type: 'swap places', mat: mat.kind, a: first, b: first + 1 }], c.parts)
}

/** "Swap ten ones for a ten", "Trade ten of the ones in for one ten", "Untie one bundle of ten", "Swap the ten for two fives". */
export const exchange: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'exchange')) return null
  const things = thingsAt(ground.table, null)
  const forPart = after(c, 'for', 'into')
  const what = bare(c)[0]
  const untie =
    ['untie', 'unbundle', 'undo', 'break', 'split'].includes(c.verb!) &&
    (what?.group.worth === 10 ||
      what?.group.of?.n === 10 ||
      ['ten', 'bundle', 'rod'].includes(what?.group.noun ?? ''))
  if (untie) {
    const ten = things.filter((t) => t.worth === 10).slice(-1)
    if (!ten.length) throw new TableError('not-there', { case: 'swap' })
    return sensed([{ type: 'exchange', keys: ten.map((t) => t.key), count: 10, worth: 1 }], c.parts)
  }
  const bundles = c.verb === 'bundle' || c.verb === 'tie'
  const toTen =
    bundles ||
    (forPart &&
      (forPart.group.worth === 10 ||
        (forPart.group.n === 10 && forPart.group.noun === null) ||
        ['ten', 'bundle', 'rod'].includes(forPart.group.noun ?? '')) &&
      (what?.group.n === 10 || what?.group.of?.worth === 1 || what?.group.worth === 1))
  if (toTen) {
    const ones = things.filter((t) => t.worth === 1 && !t.crossed)
    if (ones.length < 10) throw new TableError('not-there', { case: 'swap' })
    return sensed(
      [{ type: 'exchange', keys: ones.slice(0, 10).map((t) => t.key), count: 1, worth: 10 }],
      c.parts,
    )
  }
  if (!forPart || !what || !['swap', 'trade', 'exchange', 'change'].includes(c.verb!)) return null
  const from = what.group.worth ?? what.group.n
  const [count, worth] = [forPart.group.n ?? 1, forPart.group.worth]
  if (from === null || worth === null) return null
  const one = things.filter((t) => t.worth === from).slice(-1)
  if (!one.length) throw new TableError('not-there', { case: 'swap' })
  return sensed([{ type: 'exchange', keys: [one[0]!.key], count, worth }], c.parts)
}
