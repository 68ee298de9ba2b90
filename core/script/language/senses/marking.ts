import { type Action, holdsThings, type Mat, type Spot, TableError, thingsIn } from '../../table/state.ts'
import type { Clause, Part } from '../clauses.ts'
import { lids } from '../lexicon.ts'
import { candidates, isCalled, picked, thingsAt } from '../pick.ts'
import { type Ground, matNamed, matOn, spotsNamed } from '../spots.ts'
import { isVerbOf } from '../verbs.ts'
import { after, bare, has, says, type Sense, type Sensed, sensed } from './sense.ts'
import { isLid } from './taking.ts'

/** The place a line says things lie in: "Turn over 3 on the frame", "Cross out 2 on plate 1". */
function lyingIn(c: Clause, ground: Ground): { at: Spot | null; part: Part | undefined } {
  const part = c.parts.find(
    (p) =>
      p.prep !== null &&
      ['on', 'in', 'of', 'from', 'at'].includes(p.prep) &&
      (spotsNamed(p.group, ground)?.length ?? 0) > 0,
  )
  return { at: part ? spotsNamed(part.group, ground)![0]! : null, part }
}

/** "Cross out 2", "Strike out two of the socks", "Put a line through the first four plums". */
export const crossOut: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'cross')) return null
  const stroke = bare(c).find(
    (p) => ['line', 'cross', 'stroke'].includes(p.group.noun ?? '') && (p.group.n ?? 1) === 1,
  )
  const through = stroke ? after(c, 'through', 'over', 'on', 'across') : undefined
  if (
    !through &&
    !(
      ['cross', 'strike', 'score'].includes(c.verb!) &&
      (has(c, 'out', 'off', 'through') || c.verb === 'cross')
    )
  )
    return null
  const what = through ?? bare(c)[0] ?? after(c, 'out', 'off', 'through')
  if (!what || what.group.mat) return null
  const { at, part } = lyingIn({ ...c, parts: c.parts.filter((p) => p !== through) }, ground)
  const keys = picked(what.group, ground, { at, end: 'last', among: (t) => !t.crossed, refusal: 'cross' })
  return sensed([{ type: 'cross', keys, crossed: true }], [what, stroke, part])
}

/** "Knock down 4", "The ball knocks seven flat", "Two more topple", "Every one of them falls". */
export const knockDown: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'fall')) return null
  const skittles = matOn(ground, 'skittles')
  if (!skittles) return null
  const what =
    bare(c)[0] ?? (c.subject && (c.subject.group.n !== null || c.subject.group.quantity) ? c.subject : null)
  if (!what) return null
  const down =
    c.elided === true ||
    has(c, 'down', 'over', 'flat', 'fall', 'topple') ||
    what === c.subject ||
    ['topple', 'fall', 'tumble', 'bowl', 'flatten'].includes(c.verb!)
  if (!down || has(c, 'up')) return null
  const keys = picked({ ...what.group, noun: null, more: false, mat: null }, ground, {
    at: { mat: 'skittles', region: -1 },
    end: 'last',
    among: (t) => !t.crossed,
    refusal: 'cross',
  })
  return sensed([{ type: 'cross', keys, crossed: true }], [what, c.subject, after(c, 'with')])
}
/** "Pick two of them up again", "Put every skittle back on its feet", "Stand them up again". */
export const standUp: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'stand')) return null
  const skittles = matOn(ground, 'skittles')
  if (!skittles || !(has(c, 'up', 'back') || c.parts.some((p) => p.group.noun === 'foot'))) return null
  const what = bare(c)[0]
  if (!what || (what.group.mat !== null && what.group.mat !== 'skittles')) return null
  const keys = picked(
    { ...what.group, noun: null, mat: null, n: what.group.quantity ? null : what.group.n },
    ground,
    {
      at: { mat: 'skittles', region: -1 },
      end: 'first',
      among: (t) => t.crossed,
      refusal: 'take',
      where: 'knocked over',
    },
  )
  return sensed([{ type: 'cross', keys, crossed: false }], c.parts)
}

/** "Turn over 3 on the frame", "Flip three to blue", "Flip two back to saffron", "Flip every one of them". */
export const turnOver: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'turn') || has(c, 'round', 'around', 'upside')) return null
  const to = c.parts.find(
    (p) =>
      p.prep !== null &&
      ['to', 'into', 'over'].includes(p.prep) &&
      p.group.face !== null &&
      p.group.n === null,
  )
  const what = bare(c)[0]
  if (
    !what ||
    !(
      what.group.n !== null ||
      what.group.quantity ||
      what.group.pronoun ||
      what.group.order !== null ||
      what.group.noun
    )
  )
    return null
  if (what.group.mat && !(what.group.mat === 'coins')) return null
  const { at, part } = lyingIn(c, ground)
  const there = thingsAt(ground.table, at).filter(() => true)
  if (!there.length) return null
  const face = to?.group.face ?? (says(c, 'blue') && what.group.face === null ? 'blue' : null)
  const wanted = { at, end: 'last' as const, refusal: 'turn' as const }
  const g = what.group
  // Saffron faces go first when no colour is said: turning shows the other colour.
  const saffron = candidates(g, ground, { ...wanted, among: (t) => t.face === 'saffron' })
  const all = candidates(g, ground, wanted)
  const showing =
    face ?? (g.face === null && g.n !== null && saffron.length >= g.n && g.order === null ? 'blue' : null)
  const keys = picked(g, ground, {
    ...wanted,
    ...(showing && all.length ? { among: (t) => t.face !== showing } : {}),
  })
  return sensed([{ type: 'turn', keys, face: showing }], [what, to, part])
}

const hiders = ['under', 'beneath', 'underneath', 'below', 'behind', 'in', 'with', 'inside', 'by']
const beneath = ['under', 'beneath', 'underneath', 'below', 'behind']
const covers = ['cloth', 'towel', 'scarf', 'hat', 'cover', 'leaf', 'blanket', 'hand']
const isCover = (p: Part): boolean =>
  (lids.has(p.group.noun ?? '') && p.group.n === null) || covers.includes(p.group.noun ?? '')

/** "Cover 3", "Tuck five of them under the cloth", "Screw the lid on", "Wrap the jar in a cloth". */
export const cover: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'cover')) return null
  const what = bare(c)[0]
  const under = c.parts.find((p) => hiders.includes(p.prep ?? '') && !holdsPlace(p, ground))
  const lid = bare(c).find(isCover)
  const over = has(c, 'on', 'over') || after(c, 'on', 'over', 'onto') !== undefined
  if (lid && !under && over && c.verb !== 'hide') return lidOn(c, ground, lid)
  const hides = ['cover', 'hide', 'wrap'].includes(c.verb!)
  if (!what || (!hides && !(under && beneath.includes(under.prep!) && isThere(what, under, ground))))
    return null
  return covered(c, ground, what, [what, under, after(c, 'with')])
}
/** "Put the lid on": over the jar, the mat that is named, or some of the things. */
function lidOn(c: Clause, ground: Ground, lid: Part): Sensed | null {
  const on = after(c, 'on', 'over', 'onto')
  const mat = on ? matNamed(on.group, ground) : coverable(ground)
  if (mat && matOn(ground, mat)) return sensed([{ type: 'cover mat', mat }], [lid, on])
  return on?.group.n != null ? coverSome(c, ground, on, [lid, on]) : null
}
/** "Put a fork under each spoon" lays forks; what is tucked under a cloth was on the table before. */
const isThere = (what: Part, under: Part, ground: Ground): boolean =>
  under.group.quantity !== 'each' &&
  (what.group.definite ||
    what.group.noun === null ||
    thingsAt(ground.table, null).some((t) => isCalled(t, what.group.noun!)))
function covered(c: Clause, ground: Ground, what: Part, uses: readonly (Part | undefined)[]): Sensed | null {
  const g = what.group
  if (g.mat === 'hands') return null
  if (g.mat && g.n === null) return coverMatOf(g, ground, uses)
  const sided = g.place !== null && g.n === null ? spotsNamed(g, ground) : null
  if (sided?.length === 1) return sensed([coverAll(ground, sided[0]!)], uses)
  if (g.pronoun === 'it') {
    const mat = coverable(ground)
    return mat ? sensed([{ type: 'cover mat', mat }], uses) : null
  }
  if (!thingsAt(ground.table, null).length && matOn(ground, 'cards')) return null
  return coverSome(c, ground, what, uses)
}
const coverAll = (ground: Ground, at: Spot): Action => ({
  type: 'cover',
  keys: thingsAt(ground.table, at).map((t) => t.key),
})
/** A mat as a whole, or all that lies in one of its places. */
function coverMatOf(g: Part['group'], ground: Ground, uses: readonly (Part | undefined)[]): Sensed | null {
  const kind = matNamed(g, ground)
  const mat = kind ? matOn(ground, kind) : undefined
  if (!mat || !kind) throw new TableError('no-mat', { case: 'cover' })
  const spots = spotsNamed(g, ground)
  if (mat.regions.length > 1 && spots?.length === 1 && spots[0]!.region >= 0)
    return sensed([coverAll(ground, spots[0]!)], uses, spots[0])
  if (!mat.regions.length && kind !== 'line' && kind !== 'square') return null
  return sensed([{ type: 'cover mat', mat: kind }], uses)
}
function coverSome(c: Clause, ground: Ground, what: Part, uses: readonly (Part | undefined)[]) {
  const { at, part } = lyingIn({ ...c, parts: c.parts.filter((p) => !uses.includes(p)) }, ground)
  const keys = picked(what.group, ground, {
    at,
    end: 'last',
    among: (t) => !t.hidden && !t.crossed,
    refusal: 'cover',
  })
  return sensed([{ type: 'cover', keys }], [...uses, part])
}
const holdsPlace = (p: Part, ground: Ground): boolean =>
  p.group.mat !== 'table' &&
  (spotsNamed(p.group, ground)?.length ?? 0) > 0 &&
  matOn(ground, matNamed(p.group, ground)!) !== undefined
/** The mat with a lid, or the only one things lie on. */
function coverable(ground: Ground): Mat['kind'] | null {
  const jar = matOn(ground, 'jar')
  if (jar) return 'jar'
  const holding = ground.table.mats.filter((m) => holdsThings(m) && m.regions.length)
  return (holding.find((m) => thingsIn(m).length) ?? holding[0])?.kind ?? null
}

/** "Uncover the jar", "Lift the lid", "Peel the cloth back", "Take my hat away again". */
export const uncover: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'uncover')) return null
  const what = bare(c)[0]
  const opens =
    c.verb === 'open' && bare(c).every((p) => p.group.mat !== null || lids.has(p.group.noun ?? ''))
  const plain = opens || ['uncover', 'unveil', 'unwrap', 'reveal'].includes(c.verb!)
  const lid =
    what &&
    (what.group.mat === null || (what.group.noun === 'cup' && !matOn(ground, 'plates'))) &&
    what.group.n === null &&
    what.group.noun !== null &&
    isLid(what.group.noun, ground)
  const cloth = what?.group.noun === 'cloth' || what?.group.noun === 'hand'
  if (!plain && !lid && !cloth) return null
  if (
    !plain &&
    !(
      has(c, 'off', 'away', 'back', 'up') ||
      ['lift', 'take', 'peel', 'remove', 'unscrew', 'whisk', 'pull', 'raise'].includes(c.verb!)
    )
  )
    return null
  const from = after(c, 'off', 'from')
  const named = plain
    ? what
      ? matNamed(what.group, ground)
      : null
    : from
      ? matNamed(from.group, ground)
      : null
  return sensed([{ type: 'uncover', mat: named && matOn(ground, named) ? named : null }], [what, from])
}

/** "Ring four", "Loop the string round the last three shells", "Draw a ring round 3". */
export const ring: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'ring')) return null
  const loop = bare(c).find(
    (p) =>
      ['ring', 'string', 'loop', 'circle', 'rope', 'wool', 'hoop', 'ribbon', 'line'].includes(
        p.group.noun ?? '',
      ) && (p.group.n ?? 1) === 1,
  )
  const round = loop ? after(c, 'round', 'around', 'on', 'over') : undefined
  const what = round ?? (['ring', 'circle', 'loop', 'lasso'].includes(c.verb!) ? bare(c)[0] : undefined)
  if (!what || (what.group.mat && what.group.mat !== 'row')) return null
  const { at, part } = lyingIn({ ...c, parts: c.parts.filter((p) => p !== round) }, ground)
  const mat = ground.table.mats.find(
    (m) => holdsThings(m) && m.regions.length && thingsIn(m).length && (!at || m.kind === at.mat),
  )
  if (!mat) return null
  const all = thingsIn(mat).map((t) => t.key)
  const ringed = new Set(mat.rings.flatMap((r) => all.slice(r.from, r.to)))
  const size = ringSize(c, what)
  if (size) {
    const free = all.filter((k) => !ringed.has(k)).length
    const first = all.length - free
    const rings = Array.from({ length: Math.floor(free / size) }, (_, i): Action => ({
      type: 'ring',
      mat: mat.kind,
      from: first + i * size,
      to: first + (i + 1) * size,
    }))
    return rings.length ? sensed(rings, c.parts) : null
  }
  const keys = picked(what.group, ground, {
    at: { mat: mat.kind, region: -1 },
    end: 'first',
    among: (t) => !ringed.has(t.key),
    refusal: 'ring-left',
  })
  const from = all.indexOf(keys[0]!)
  // A ring goes round things that lie together.
  if (keys.some((k, i) => all[from + i] !== k)) return null
  return sensed([{ type: 'ring', mat: mat.kind, from, to: from + keys.length }], [what, loop, part])
}

/** "Ring them in twos", "Ring groups of 5": how many each ring holds. */
function ringSize(c: Clause, what: Part): number | null {
  const inGroups = c.parts.find(
    (p) =>
      p.prep === 'in' &&
      (p.group.pairs || p.group.worth !== null || ['group', 'pair'].includes(p.group.noun ?? '')),
  )
  if (inGroups) return inGroups.group.pairs ? 2 : (inGroups.group.of?.n ?? inGroups.group.worth)
  return ['group', 'set', 'lot'].includes(what.group.noun ?? '') && what.group.n === null
    ? (what.group.of?.n ?? null)
    : null
}

const dividers = ['divider', 'gap', 'ruler', 'straw', 'stick', 'string', 'space', 'pencil']
/** "Slide the divider to 4", "Push the divider in after the third sock", "Open a gap after the second peg", "Slide 6 pegs". */
export const divide: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'divide')) return null
  const tool = bare(c).find((p) => dividers.includes(p.group.noun ?? ''))
  if (!tool) return slidePegs(c, ground)
  const mat = ground.table.mats.find((m) => holdsThings(m) && m.regions.length === 1 && thingsIn(m).length)
  if (!mat) throw new TableError('not-there', { case: 'divide', count: 1 })
  const at = dividedAt(c, mat, tool)
  if (at === null) return null
  const keys = thingsIn(mat).map((t) => t.key)
  if (at > keys.length || at < 0) throw new TableError('not-there', { case: 'divide', count: at })
  const gap = tool.group.noun === 'gap' || tool.group.noun === 'space'
  const heaps = [keys.slice(0, at), keys.slice(at)].filter((k) => k.length)
  return sensed([gap ? { type: 'heap', heaps } : { type: 'divide', mat: mat.kind, at }], c.parts)
}
/** How many things stand before the divider: by a number, an order, a step along or back, or the middle. */
function dividedAt(c: Clause, mat: Mat, tool: Part): number | null {
  const total = thingsIn(mat).length
  if (says(c, 'middle')) return total % 2 === 0 ? total / 2 : null
  const place = c.parts.find((p) => p !== tool && (p.prep !== null || p.group.n !== null))
  const g = place?.group
  if (!place || !g) return null
  if (g.n !== null && place.prep === null) {
    const now = mat.divider ?? 0
    if (has(c, 'along', 'on', 'forward', 'right') || says(c, 'further', 'along', 'more')) return now + g.n
    if (has(c, 'back')) return now - g.n
  }
  if (g.order !== null && g.order > 0) return g.order - (place.prep === 'before' ? 1 : 0)
  return g.n
}
/** On a rail the pegs themselves are slid: so many, one more, two of them back, all of them back. */
function slidePegs(c: Clause, ground: Ground): Sensed | null {
  const rail = matOn(ground, 'rail')
  if (!rail || !thingsIn(rail).length) return null
  if (!['slide', 'push', 'shift', 'move', 'shove', 'put'].includes(c.verb!)) return null
  const what = bare(c)[0]
  if (!what || (what.group.mat !== null && what.group.mat !== 'rail')) return null
  const total = thingsIn(rail).length
  const back = has(c, 'back')
  if (back && what.group.n === null) return sensed([{ type: 'divide', mat: 'rail', at: null }], c.parts)
  const n = what.group.n ?? (what.group.quantity === 'all' ? total : null)
  if (n === null || c.verb === 'put') return null
  const now = rail.divider ?? 0
  const at = back ? now - n : what.group.more ? now + n : n
  if (at > total || at < 0) throw new TableError('not-there', { case: 'divide', count: at })
  return sensed([{ type: 'divide', mat: 'rail', at }], c.parts)
}

/** "Write 7 in the whole", "Write a 6 in the whole circle", "Write 12 over the whole bar". */
export const label: Sense = (c, { ground }) => {
  const names = c.verb === 'name' || c.verb === 'call'
  if (!isVerbOf(c.verb, 'label') && !names) return null
  // What is quoted stands in no part of the line: "Write “top” in part 1", "Call the first part “buttons”".
  const quoted = c.quoted?.length === 1 ? c.quoted[0]! : null
  const where = names
    ? bare(c)[0]
    : c.parts.find(
        (p) =>
          p.prep !== null &&
          ['in', 'on', 'over', 'into', 'under', 'above', 'inside', 'beside'].includes(p.prep),
      )
  const what = bare(c).find((p) => p !== where)
  const text = quoted ?? (what?.group.n != null ? String(what.group.n) : names ? nameSaid(c, what) : null)
  if (text === null || !where || (!quoted && !what)) return null
  const spots = spotsNamed(where.group, ground)
  if (spots?.length !== 1 || spots[0]!.region < 0) return null
  return sensed(
    [{ type: 'label', text: text.slice(0, 20), at: spots[0]! }],
    [what, where, ...c.parts.filter((p) => p.prep === 'of')],
  )
}
/** "Name the first part plates": the one word that is left. */
const nameSaid = (c: Clause, what: Part | undefined): string | null =>
  what && what.group.to - what.group.from === 1 ? (c.words[what.group.from]?.t ?? null) : null

/** "Hold 6", "Keep hold of nine", "Tuck seven away in your head". */
export const hold: Sense = (c) => {
  if (!isVerbOf(c.verb, 'hold')) return null
  const head = c.parts.find((p) => ['head', 'mind', 'memory'].includes(p.group.noun ?? ''))
  const plain = ['hold', 'keep', 'remember'].includes(c.verb!) && !has(c, 'up', 'out', 'back')
  if (!head && !plain) return null
  const number = [...bare(c), ...c.parts].find(
    (p) => p !== head && p.group.n !== null && p.group.noun === null,
  )
  if (!number || number.group.face !== null) return null
  return sensed(
    [{ type: 'hold', number: number.group.n! }],
    c.parts.filter((p) => p === number || p === head || p.group.noun === 'hold' || p.group.noun === 'pocket'),
  )
}

/** "Rearrange them", "Shake the jar": the same things, otherwise. */
export const shake: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'shake') || c.verb === 'toss') return null
  if (has(c, 'out') || bare(c).some((p) => p.group.n !== null && p.group.mat === null)) return null
  const what = bare(c)[0]
  const kind = what ? matNamed(what.group, ground) : null
  if (kind === 'dice') return null
  if (kind && (!matOn(ground, kind) || kind === 'bowl'))
    return kind === 'bowl' && matOn(ground, kind) ? sensed([], c.parts) : null
  // Shuffled cards and shaken dice look as before to whoever knows them by heart.
  if (!thingsAt(ground.table, null).length && ground.table.mats.some((m) => m.cards.length))
    return sensed([], c.parts)
  if (!thingsAt(ground.table, null).length) throw new TableError('not-there', { case: 'rearrange' })
  return sensed([{ type: 'rearrange', mat: kind } satisfies Action], c.parts)
}
