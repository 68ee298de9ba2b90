import { type Action, type Spot, TableError, type Thing } from '../../table/state.ts'
import type { Clause, Part } from '../clauses.ts'
import { anyThing, drawnThings } from '../lexicon.ts'
import { isCalled, picked, thingsAt } from '../pick.ts'
import { type Ground, matNamed, matOn, spotsNamed } from '../spots.ts'
import { isVerbOf } from '../verbs.ts'
import { after, bare, has, type Sense, sensed } from './sense.ts'
import { regionName } from './words.ts'

const awayFrom = ['from', 'off', 'out of', 'out', 'of']
/** Verbs that need no "away": to eat, to pocket. A thing that goes by itself stands before its verb. */
const alwaysTake = new Set(
  'take remove eat pocket unpeg unclip munch nibble gobble pinch steal swallow spend drink snatch borrow pluck whisk pay lose erase bite chew use fish scoop'.split(
    ' ',
  ),
)
const goes = new Set(
  'go fly hop swim run leave jump float bounce drift sail walk crawl vanish disappear blow roll melt burst fall slip drive cycle carry'.split(
    ' ',
  ),
)

/** Where things are taken from: the place said, or one named beside the verb ("Wipe the left square"). */
export function source(c: Clause, ground: Ground): { spots: Spot[]; part: Part } | null {
  for (const p of c.parts) {
    if (p.prep === null || !awayFrom.includes(p.prep)) {
      if (!(p.prep === 'on' || p.prep === 'in')) continue
    }
    if (p.group.mat === 'table' && !matOn(ground, 'table')) return { spots: [], part: p }
    const spots = spotsNamed(p.group, ground)
    if (spots?.length) return { spots, part: p }
    // "out of the plate" of one: places that hold something.
  }
  return null
}
const drawn = (noun: string | null): boolean => noun !== null && drawnThings.has(noun)

/** "Take 2 blue from the frame", "Nan pockets three of them", "Two pairs go home", "Fold down 3 fingers". */
export const takeAway: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'take')) return null
  const what = bare(c)[0] ?? (c.subject && counts(c.subject) ? c.subject : null)
  // Things that come of themselves stand before their verb: "two more plums roll in".
  if (what && what === c.subject && (what.group.more || has(c, 'in'))) return null
  const from = source(c, ground)
  if (!isGone(c, ground, what, from?.part ?? null) || staysHere(c, ground, from?.part ?? null)) return null
  const pay = c.verb === 'pay' ? after(c, 'with') : undefined
  const chosen = pay ?? what
  if (!chosen) return null
  const g = coinMeant(chosen.group, ground, pay !== undefined)
  if (!mayBeTaken(g, ground)) return null
  const spots = from?.spots.length ? from.spots : lyingWhere(g, ground)
  // "Take one, and another one": all that is named goes.
  const more = bare(c).filter((p) => chosen === what && p !== chosen && isCount(p.group))
  const total = more.length ? { ...g, n: (g.n ?? 0) + more.reduce((s, p) => s + p.group.n!, 0) } : g
  const actions = spots.map((at): Action => ({ type: 'take', keys: pickFrom(c, ground, total, at) }))
  const uses = c.parts.filter(
    (p) => p === from?.part || p === chosen || more.includes(p) || nowhere(p, ground),
  )
  return sensed(actions, [...uses, c.subject], spots[0] ?? null)
}
const isCount = (g: Part['group']): boolean => g.n !== null && g.mat === null && g.noun === null
/** Whether the verb, its particle or the place it is from says that things go. */
function isGone(c: Clause, ground: Ground, what: Part | null, from: Part | null): boolean {
  const verb = c.verb!
  if (alwaysTake.has(verb) || has(c, 'away', 'off', 'out', 'home')) return true
  if (from !== null && ['from', 'off', 'out of'].includes(from.prep ?? '')) return true
  if (goes.has(verb) && c.subject !== null && counts(c.subject)) return true
  if (givenAway(c, ground) || fingersDown(c, what, ground)) return true
  return ['rub', 'wipe', 'erase'].includes(verb) && drawn(what?.group.noun ?? what?.group.of?.noun ?? null)
}
/** Somewhere on the table they go to, or only away from the others: that is moving. */
function staysHere(c: Clause, ground: Ground, from: Part | null): boolean {
  const to = c.parts.some(
    (p) =>
      p !== from &&
      ['to', 'on', 'onto', 'into', 'in'].includes(p.prep ?? '') &&
      (spotsNamed(p.group, ground)?.length ?? 0) > 0,
  )
  if (to) return !['eat', 'pay'].includes(c.verb!)
  const apart = c.parts.some(
    (p) => p.prep === 'from' && (p.group.quantity === 'rest' || p.group.pronoun !== null),
  )
  return apart && ['slide', 'push', 'move', 'shove', 'pull'].includes(c.verb!)
}
const takenMats: ReadonlySet<string> = new Set([
  'hands',
  'tower',
  'coins',
  'skittles',
  'plates',
  'jar',
  'row',
])
/** "Take your time" names nothing that could go; a lid or a cloth is lifted, not taken. */
function mayBeTaken(g: Part['group'], ground: Ground): boolean {
  if (g.mat && !takenMats.has(g.mat)) return false
  if (g.noun !== null && isLid(g.noun, ground)) return false
  return !saysNoThing(g) || thingsAt(ground.table, null).some((t) => isCalled(t, g.noun!))
}
/** Where things lie when no place is said: on the hands, in a place named beside the verb, anywhere. */
function lyingWhere(g: Part['group'], ground: Ground): (Spot | null)[] {
  if (['finger', 'thumb'].includes(g.noun ?? '') || (g.noun === null && onHands(ground)))
    return [{ mat: 'hands', region: -1 }]
  const named = g.noun === null && g.place !== null ? spotsNamed(g, ground) : null
  return named?.length ? named : [null]
}
/** "Pay with the five", "Take the 2 away": among coins a number is what one is worth. */
function coinMeant(g: Part['group'], ground: Ground, paid: boolean): Part['group'] {
  const worths = (matOn(ground, 'coins')?.regions[0]?.things ?? []).map((t) => t.worth)
  const one = g.n !== null && g.noun === null && (paid || g.definite) && worths.includes(g.n)
  return one ? { ...g, n: 1, worth: g.n, noun: 'coin' } : g
}
function pickFrom(c: Clause, ground: Ground, g: Part['group'], at: Spot | null): number[] {
  // "Tuck both thumbs in": thumbs are fingers, one on each hand.
  if (g.noun === 'thumb') {
    const hands = matOn(ground, 'hands')
    const keys = (hands?.regions ?? []).flatMap((r) => r.things.slice(0, 1).map((t) => t.key))
    if (!keys.length) throw new TableError('not-there', { case: 'take-none', where: 'in the hands' })
    return g.quantity === 'both' ? keys : keys.slice(0, g.n ?? 1)
  }
  const noun =
    g.noun === 'finger' || (drawn(g.noun) && !thingsAt(ground.table, at).some((t) => isCalled(t, g.noun!)))
      ? null
      : g.noun
  const end = has(c, 'first') ? 'first' : 'last'
  return picked({ ...g, noun, of: g.of?.mat ? null : g.of }, ground, {
    at,
    end,
    refusal: 'take',
    where: at ? `in ${regionName(ground, at)}` : 'on the table',
  })
}
const counts = (p: Part): boolean =>
  p.group.n !== null || ['all', 'both', 'each', 'rest'].includes(p.group.quantity ?? '') || p.group.pairs
const saysNoThing = (g: Part['group']): boolean =>
  g.n === null &&
  g.quantity === null &&
  g.pronoun === null &&
  g.mat === null &&
  g.noun !== null &&
  g.order === null &&
  g.face === null &&
  !g.many
/** "Give three of them to Nan": to somebody who is nowhere on the table. */
const givenAway = (c: Clause, ground: Ground): boolean =>
  ['give', 'hand', 'pass', 'send'].includes(c.verb ?? '') &&
  c.parts.some(
    (p) =>
      (p.prep === 'to' || p.prep === 'for') &&
      p.group.noun !== null &&
      p.group.n === null &&
      p.group.quantity === null &&
      !(spotsNamed(p.group, ground)?.length ?? 0),
  )
/** Fingers are meant when nothing else is there to go. */
const onHands = (ground: Ground): boolean =>
  ground.named?.mat === 'hands' ||
  ground.table.mats.filter((m) => m.regions.some((r) => r.things.length)).every((m) => m.kind === 'hands')
const fingersDown = (c: Clause, what: Part | null | undefined, ground: Ground): boolean =>
  (['finger', 'thumb'].includes(what?.group.noun ?? '') || (onHands(ground) && what?.group.noun === null)) &&
  (has(c, 'down', 'away', 'in') ||
    ['fold', 'tuck', 'shut', 'close', 'bend', 'hide', 'drop'].includes(c.verb ?? ''))
/** Nowhere on the table: "into your apron", "in the box", "for tea", "with the five". */
const nowhere = (p: Part, ground: Ground): boolean =>
  p.prep !== null &&
  p.group.quantity !== 'each' &&
  [
    'into',
    'in',
    'to',
    'for',
    'with',
    'over',
    'through',
    'behind',
    'from',
    'off',
    'out of',
    'on',
    'onto',
    'out',
  ].includes(p.prep) &&
  (p.group.n === null || p.prep === 'with') &&
  !(spotsNamed(p.group, ground)?.length ?? 0) &&
  p.group.pronoun === null

/** Whether a noun is what hides things rather than one of them. */
export const isLid = (noun: string, ground: Ground): boolean =>
  !anyThing.has(noun) &&
  !thingsAt(ground.table, null).some((t: Thing) => isCalled(t, noun)) &&
  (ground.table.mats.some((m) => m.covered || m.regions.some((r) => r.things.some((t) => t.hidden))) ||
    ['lid', 'cloth', 'hat', 'cover', 'scarf', 'leaf', 'towel'].includes(noun))

/** "Clear the table", "Wipe the left square", "Empty the egg box, all of it", "Hide your hands behind your back". */
export const clear: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'clear')) return null
  const what = bare(c)[0]
  if (!what)
    return ['clear', 'wipe', 'tidy', 'empty'].includes(c.verb!)
      ? sensed([{ type: 'clear', at: null }], c.parts)
      : null
  const g = what.group
  const clears = ['clear', 'wipe', 'empty', 'tidy', 'wash', 'clean', 'brush', 'sweep', 'rub'].includes(
    c.verb!,
  )
  if (g.mat === 'hands') {
    const down =
      ['hide', 'put', 'fold', 'close', 'drop', 'shake', 'lower', 'rest', 'clear', 'tip', 'take'].includes(
        c.verb!,
      ) &&
      (has(c, 'down', 'away') ||
        after(c, 'behind', 'in', 'under', 'on') !== undefined ||
        c.verb === 'hide' ||
        c.verb === 'close')
    return down && matOn(ground, 'hands')
      ? sensed([{ type: 'clear', at: { mat: 'hands', region: null } }], c.parts)
      : null
  }
  if (!clears) return null
  if (g.pronoun === 'everything' || g.quantity === 'all')
    return bare(c).length === 1 && !after(c, 'off', 'from') && g.noun === null && !has(c, 'off', 'out')
      ? sensed([{ type: 'clear', at: null }], c.parts)
      : null
  const kind = matNamed(g, ground)
  if (!kind) return null
  if (kind === 'table' && !after(c, 'off', 'from'))
    return sensed(
      [{ type: 'clear', at: null }],
      c.parts.filter((p) => p === what || everything(p)),
    )
  const spots = spotsNamed(g, ground)
  const leaves = c.parts.filter((p) => p === what || everything(p))
  if (!matOn(ground, kind)) throw new TableError('no-mat', { case: 'mat', mat: kind })
  const whole =
    !spots?.length || spots.length > 1 || spots[0]!.region < 0 || matOn(ground, kind)!.regions.length === 1
  return sensed(
    spots && spots.length > 1 && spots.length < matOn(ground, kind)!.regions.length
      ? spots.map((s): Action => ({ type: 'clear', at: s }))
      : [{ type: 'clear', at: { mat: kind, region: whole ? null : spots[0]!.region } }],
    leaves,
    spots?.[0] ?? null,
  )
}
const everything = (p: Part): boolean =>
  p.group.pronoun === 'everything' || p.group.quantity === 'all' || p.group.noun === 'everything'

/** "Rub out the crosses", "Rub out the mark at 8", "Wipe the jumps off the line", "Rub it out". */
export const rubOut: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'unmark')) return null
  const what = bare(c)[0]
  const noun = what?.group.noun ?? null
  const line = ground.table.mats.find((m) => m.line)
  const numbers = c.words.filter((w) => w.n !== null).map((w) => w.n!)
  if (c.verb === 'uncross' || (noun === 'cross' && what!.group.n === null)) {
    const keys = thingsAt(ground.table, null)
      .filter((t) => t.crossed)
      .map((t) => t.key)
    return keys.length ? sensed([{ type: 'cross', keys, crossed: false }], c.parts) : null
  }
  if (noun === 'ring' || noun === 'loop')
    return ground.table.mats.some((m) => m.rings.length) ? sensed([{ type: 'unring' }], c.parts) : null
  if (line && ['jump', 'hop', 'leap', 'step'].includes(noun ?? ''))
    return sensed([{ type: 'unhop' }], c.parts)
  if (
    line &&
    (['mark', 'shading', 'colour', 'ring', 'number', 'peg'].includes(noun ?? '') ||
      (noun === null && numbers.length && !thingsAt(ground.table, null).length))
  )
    return sensed([{ type: 'unmark', numbers: numbers.length ? numbers : null }], c.parts)
  const writing =
    ['sentence', 'writing', 'sum'].includes(noun ?? '') || (c.verb === 'rub' && what?.group.pronoun === 'it')
  return writing && ground.table.written.length ? sensed([{ type: 'rub out' }], c.parts) : null
}
