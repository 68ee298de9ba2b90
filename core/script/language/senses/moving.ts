import { act } from '../../table/machine.ts'
import { type Action, hasWhole, holdsThings, type Spot, TableError, thingsIn } from '../../table/state.ts'
import type { Clause, Part } from '../clauses.ts'
import type { Group } from '../groups.ts'
import { anyThing } from '../lexicon.ts'
import { isCalled, picked, thingsAt } from '../pick.ts'
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

interface Going {
  from: Spot | null
  at: Spot
  stocked: boolean
}
/** Which things go: those in hand last for "them", else such as the group names, from where they are said or ready to be. */
function keysFor(c: Clause, ground: Ground, g: Group, o: Going): number[] {
  const known = lastInHand(g, ground, o)
  if (known) return known
  const staying = new Set(thingsAt(ground.table, o.at).map((t) => t.key))
  const from = comingFrom(c, ground, g, o)
  const apart = from && from.mat === o.at.mat && from.region === o.at.region ? null : from
  return picked(withoutPlace(g), ground, {
    at: apart,
    end: 'last',
    among: (t) => !staying.has(t.key) && !(g.quantity === 'rest' && t.crossed),
    refusal: 'take',
    where: apart ? `in ${regionName(ground, apart)}` : 'on the table',
  })
}
function comingFrom(c: Clause, ground: Ground, g: Group, o: Going): Spot | null {
  if (o.from) return o.from
  if (o.stocked) return { mat: 'table', region: 0 }
  return g.quantity === 'rest' || !g.definite || movers.has(c.verb ?? '') ? stock(ground) : null
}
/** "Them", said alone, are the things last put or moved, while they are still together. */
function lastInHand(g: Group, ground: Ground, o: Going): number[] | null {
  if (g.pronoun === null || g.pronoun === 'everything' || g.n !== null || g.quantity !== null || o.from)
    return null
  const there = new Set(thingsAt(ground.table, null).map((t) => t.key))
  const known = (ground.table.last?.keys ?? []).filter((k) => there.has(k))
  const lying = new Set(thingsAt(ground.table, o.at).map((t) => t.key))
  const already = known.filter((k) => lying.has(k)).length
  const together = already === 0 || already === known.length || there.size === known.length
  return known.length && together ? known : null
}
/** "The second plate" names where, not how many: a group that is a place counts nothing of its own. */
function withoutPlace(g: Group): Group {
  if (!g.mat) return g
  const counted = g.quantity !== 'both' && !g.place && g.order === null
  return { ...g, noun: null, order: null, n: counted ? g.n : null }
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
  const given = after(c, 'for', 'into')?.group ?? null
  const what = bare(c)[0]?.group ?? null
  const traded = unties(c, what)
    ? { from: 10, keys: 1, count: 10, worth: 1 }
    : makesTen(c, what, given)
      ? { from: 1, keys: 10, count: 1, worth: 10 }
      : swapped(c, what, given)
  if (!traded) return null
  const things = thingsAt(ground.table, null).filter((t) => t.worth === traded.from && !t.crossed)
  const keys = (traded.keys === 10 ? things.slice(0, 10) : things.slice(-1)).map((t) => t.key)
  if (keys.length < traded.keys) throw new TableError('not-there', { case: 'swap' })
  return sensed([{ type: 'exchange', keys, count: traded.count, worth: traded.worth }], c.parts)
}
const isTen = (g: Group): boolean => g.worth === 10 || ['ten', 'bundle', 'rod'].includes(g.noun ?? '')
const unties = (c: Clause, what: Group | null): boolean =>
  ['untie', 'unbundle', 'undo', 'break', 'split'].includes(c.verb!) &&
  what !== null &&
  (isTen(what) || what.of?.n === 10)
function makesTen(c: Clause, what: Group | null, given: Group | null): boolean {
  if (c.verb === 'bundle' || c.verb === 'tie') return true
  const ten = given !== null && (isTen(given) || (given.n === 10 && given.noun === null))
  return ten && what !== null && (what.n === 10 || what.of?.worth === 1 || what.worth === 1)
}
/** One coin for smaller ones: "the ten for two fives". */
function swapped(
  c: Clause,
  what: Group | null,
  given: Group | null,
): { from: number; keys: number; count: number; worth: number } | null {
  const from = what?.worth ?? what?.n ?? null
  if (!['swap', 'trade', 'exchange', 'change'].includes(c.verb!) || from === null || !given) return null
  return given.worth === null ? null : { from, keys: 1, count: given.n ?? 1, worth: given.worth }
}
