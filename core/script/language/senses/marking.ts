import { type Action, holdsThings, type Mat, type Spot, TableError, thingsIn } from '../../table/state.ts'
import type { Clause, Part } from '../clauses.ts'
import { lids } from '../lexicon.ts'
import { candidates, isCalled, picked, thingsAt } from '../pick.ts'
import { type Ground, matNamed, matOn, spotsNamed } from '../spots.ts'
import { isVerbOf } from '../verbs.ts'
import { after, bare, has, says, type Sense, sensed } from './sense.ts'
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
/** "Cover 3", "Tuck five of them under the cloth", "Screw the lid on", "Wrap the jar in a cloth". */
export const cover: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'cover')) return null
  const what = bare(c)[0]
  const under = c.parts.find((p) => p.prep !== null && hiders.includes(p.prep) && !holdsPlace(p, ground))
  const hides = ['cover', 'hide', 'wrap'].includes(c.verb!)
  const lid = bare(c).find(
    (p) =>
      (lids.has(p.group.noun ?? '') && p.group.n === null) ||
      ['cloth', 'towel', 'scarf', 'hat', 'cover', 'leaf', 'blanket', 'hand'].includes(p.group.noun ?? ''),
  )
  const lidOn =
    lid &&
    !under &&
    (has(c, 'on', 'over') || after(c, 'on', 'over', 'onto') !== undefined) &&
    c.verb !== 'hide'
  if (lidOn) {
    const on = after(c, 'on', 'over', 'onto')
    const mat = on ? matNamed(on.group, ground) : coverable(ground)
    if (!mat || !matOn(ground, mat)) return on?.group.n != null ? coverSome(c, ground, on, [lid, on]) : null
    return sensed([{ type: 'cover mat', mat }], [lid, on])
  }
  const laysUnder =
    !hides &&
    under !== undefined &&
    what !== undefined &&
    (under.group.quantity === 'each' ||
      !(
        what.group.definite ||
        thingsAt(ground.table, null).some((t) => what.group.noun !== null && isCalled(t, what.group.noun)) ||
        what.group.noun === null
      ))
  if (laysUnder) return null
  if (!hides && !(under && ['under', 'beneath', 'underneath', 'below', 'behind'].includes(under.prep!)))
    return null
  if (!what) return null
  const extra = [under, after(c, 'with')]
  const g = what.group
  if (g.mat && g.n === null && g.mat !== 'hands') {
    const kind = matNamed(g, ground)
    const mat = kind ? matOn(ground, kind) : undefined
    if (!mat || !kind) throw new TableError('no-mat', { case: 'cover' })
    const spots = spotsNamed(g, ground)
    if (mat.regions.length > 1 && spots?.length === 1 && spots[0]!.region >= 0)
      return sensed(
        [{ type: 'cover', keys: thingsAt(ground.table, spots[0]!).map((t) => t.key) }],
        [what, ...extra],
        spots[0],
      )
    if (!mat.regions.length && kind !== 'line' && kind !== 'square') return null
    return sensed([{ type: 'cover mat', mat: kind }], [what, ...extra])
  }
  if (g.mat === 'hands') return null
  const sided = g.place !== null && g.n === null ? spotsNamed(g, ground) : null
  if (sided?.length === 1)
    return sensed(
      [{ type: 'cover', keys: thingsAt(ground.table, sided[0]!).map((t) => t.key) }],
      [what, ...extra],
    )
  if (g.pronoun === 'it') {
    const mat = coverable(ground)
    return mat ? sensed([{ type: 'cover mat', mat }], [what, ...extra]) : null
  }
  if (!thingsAt(ground.table, null).length && matOn(ground, 'cards')) return null
  return coverSome(c, ground, what, [what, ...extra])
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

/** "Slide the divider to 4", "Push the divider in after the third sock", "Open a gap after the second peg", "Slide 6 pegs". */
export const divide: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'divide')) return null
  const tool = bare(c).find((p) =>
    ['divider', 'gap', 'ruler', 'straw', 'stick', 'string', 'space', 'pencil'].includes(p.group.noun ?? ''),
  )
  const mat = ground.table.mats.find((m) => holdsThings(m) && m.regions.length === 1 && thingsIn(m).length)
  if (tool) {
    if (!mat) throw new TableError('not-there', { case: 'divide', count: 1 })
    const place = c.parts.find((p) => p !== tool && (p.prep !== null || p.group.n !== null))
    const g = place?.group
    const along =
      (has(c, 'along', 'on', 'forward', 'right') || says(c, 'further', 'along', 'more')) &&
      g?.n != null &&
      place?.prep === null
    const back = has(c, 'back') && g?.n != null && place?.prep === null
    const now = mat.divider ?? 0
    const middle = says(c, 'middle') && thingsIn(mat).length % 2 === 0 ? thingsIn(mat).length / 2 : null
    const at =
      middle !== null
        ? middle
        : along
          ? now + g!.n!
          : back
            ? now - g!.n!
            : g?.order != null && g.order > 0
              ? g.order - (place!.prep === 'before' ? 1 : 0)
              : (g?.n ?? null)
    if (at === null) return null
    if (at > thingsIn(mat).length || at < 0) throw new TableError('not-there', { case: 'divide', count: at })
    if (tool.group.noun === 'gap' || tool.group.noun === 'space') {
      const keys = thingsIn(mat).map((t) => t.key)
      return sensed(
        [{ type: 'heap', heaps: [keys.slice(0, at), keys.slice(at)].filter((k) => k.length) }],
        c.parts,
      )
    }
    return sensed([{ type: 'divide', mat: mat.kind, at }], c.parts)
  }
  const rail = matOn(ground, 'rail')
  if (
    !rail ||
    !thingsIn(rail).length ||
    !['slide', 'push', 'shift', 'move', 'shove', 'put'].includes(c.verb!)
  )
    return null
  const what = bare(c)[0]
  if (!what || (what.group.mat !== null && what.group.mat !== 'rail')) return null
  const total = thingsIn(rail).length
  const now = rail.divider ?? 0
  const back = has(c, 'back')
  if (back && what.group.n === null) return sensed([{ type: 'divide', mat: 'rail', at: null }], c.parts)
  const n = what.group.n ?? (what.group.quantity === 'all' ? total : null)
  if (n === null || c.verb === 'put') return null
  const at = back ? now - n : what.group.more ? now + n : n
  if (at > total || at < 0) throw new TableError('not-there', { case: 'divide', count: at })
  return sensed([{ type: 'divide', mat: 'rail', at }], c.parts)
}

/** "Write 7 in the whole", "Write a 6 in the whole circle", "Write 12 over the whole bar". */
export const label: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'label')) return null
  const what = bare(c)[0]
  const where = c.parts.find(
    (p) =>
      p.prep !== null && ['in', 'on', 'over', 'into', 'under', 'above', 'inside', 'beside'].includes(p.prep),
  )
  if (!what || !where || what.group.n === null) return null
  const spots = spotsNamed(where.group, ground)
  if (spots?.length !== 1 || spots[0]!.region < 0) return null
  return sensed(
    [{ type: 'label', text: String(what.group.n), at: spots[0]! }],
    [what, where, ...c.parts.filter((p) => p.prep === 'of')],
  )
}

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
