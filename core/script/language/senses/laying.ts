import { type Action, hasWhole, type MatKind, matKinds } from '../../table/state.ts'
import type { Clause } from '../clauses.ts'
import type { Group } from '../groups.ts'
import { anyThing, containers } from '../lexicon.ts'
import { type Ground, matHere, matOn } from '../spots.ts'
import { isVerbOf } from '../verbs.ts'
import type { Word } from '../words.ts'
import { after, bare, has, numbersSaid, type Sense, sensed, stepSaid } from './sense.ts'

const laid = (mat: MatKind, over: Partial<Extract<Action, { type: 'lay' }>> = {}): Action => ({
  type: 'lay',
  mat,
  parts: 1,
  from: 0,
  to: 10,
  every: 1,
  items: [],
  name: null,
  ...over,
})
/** Mats that are laid by being named; the others (hands, coins, dice) come with what is put or rolled. */
const layable: ReadonlySet<MatKind> = new Set<MatKind>(matKinds.filter((k) => k !== 'sound'))

const comesWith: ReadonlySet<MatKind> = new Set<MatKind>(['hands', 'coins', 'cards', 'dice'])

/** "Lay out two ten frames", "Draw a number line 0 to 20", "Paint a picture with 5 ducks". */
export const layOut: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'lay')) return null
  const first = bare(c)[0]
  if (!first || has(c, 'away', 'back', 'off') || after(c, 'through', 'round', 'around')) return null
  const mat = matLaid(c, first.group)
  if (!mat || !mayBeLaid(c, ground, first.group, mat)) return null
  const action = layAction(mat, first.group, c)
  const explained = (x: Group): boolean => x === first.group || toldOf(x, mat, ground)
  return (
    action &&
    sensed(
      [action],
      c.parts.filter((p) => explained(p.group)),
      { mat, region: 0 },
    )
  )
}
/** The mat a group names; "two rings" are places to put things in, as plates are. */
function matLaid(c: Clause, g: Group): MatKind | null {
  if (g.mat) return layable.has(g.mat) ? g.mat : null
  return containers.has(g.noun ?? '') && (g.n ?? 0) >= 1 && has(c, 'out') ? 'plates' : null
}
function mayBeLaid(c: Clause, ground: Ground, g: Group, mat: MatKind): boolean {
  const out = has(c, 'out')
  const outright = (out || has(c, 'up')) && c.verb !== 'take'
  // Hands, coins, dice and cards come with what is shown or rolled, unless they are laid out for later.
  if (comesWith.has(mat) && !(out && numbersSaid(c.words.slice(g.to)).length === 0)) return false
  // What lies there already is not laid again by the way.
  if (!out && mat !== 'skittles' && matOn(ground, mat)?.regions.some((r) => r.things.length)) return false
  if (g.place !== null && g.place !== 'whole' && mat !== 'line') return false
  if (mat === 'skittles') return g.order === null && (outright || !g.definite || c.verb === 'set')
  // "Build a tower of 7" puts things; a row or tower alone is laid empty.
  if (g.of && mat !== 'bowl' && mat !== 'square') return false
  if ((mat === 'row' || mat === 'tower') && !out) return false
  if (outright) return true
  const on = after(c, 'on', 'in')?.group.mat ?? 'table'
  return !g.definite && (on === 'table' || mat === 'line' || mat === 'scene')
}
/** Words that say how a mat is laid: "with five parts", "in fives", "with digits 0 to 9". */
function toldOf(x: Group, mat: MatKind, ground: Ground): boolean {
  if (mat === 'scene' || x.noun === null || x.mat === 'table' || x.mat === 'parts') return true
  if (mat === 'bowl' || mat === 'spinner') return ['digit', 'number', 'slip', 'card', 'part'].includes(x.noun)
  if (anyThing.has(x.noun) || ['ten', 'five', 'two', 'end', 'part'].includes(x.noun)) return true
  return matOn(ground, mat) === undefined && x.mat === mat
}
function layAction(mat: MatKind, g: Group, c: Clause): Action | null {
  const rest = c.words.slice(g.to)
  switch (mat) {
    case 'frame':
      return laid(mat, { parts: Math.min(3, g.n ?? 1) })
    case 'line':
      return layLine(rest, c)
    case 'square':
      return laid(mat, { from: rest.some((w) => w.n === 0) ? 0 : 1 })
    case 'scene':
      return laid(mat, { items: itemsIn(rest) })
    case 'bowl':
    case 'spinner':
      return laid(mat, { items: slipsIn(rest, mat).map((t) => ({ text: String(t), count: 1 })) })
    case 'plates':
      return laid(mat, {
        parts: g.n ?? numbersSaid(rest)[0] ?? 2,
        name: g.noun === 'plate' || !g.noun ? null : g.noun,
      })
    case 'dice':
      return laid(mat, { items: [{ text: '', count: g.n ?? 1 }] })
    case 'skittles':
      return laid(mat, { parts: g.n ?? 10 })
    default:
      return laid(mat, { parts: numbersSaid(rest)[0] ?? (mat === 'parts' || mat === 'bar' ? 2 : 1) })
  }
}
function layLine(rest: readonly Word[], c: Clause): Action | null {
  const ends = rest.flatMap((w) => (w.n === null ? [] : [w.n]))
  const [from, to] = ends.length >= 2 ? [ends[0]!, ends[1]!] : [0, ends[0] ?? 10]
  if (to <= from) return null
  const empty = c.words.some((w) => w.t === 'empty' || w.t === 'open')
  return laid('line', { from, to, every: empty ? 0 : (stepSaid(c.words) ?? (to - from > 20 ? 10 : 1)) })
}
/** The numbers that are named, else the digits of a bowl and the six parts of a spinner. */
function slipsIn(rest: readonly Word[], mat: 'bowl' | 'spinner'): number[] {
  const numbers = numbersSaid(rest)
  if (numbers.length) return numbers
  return mat === 'bowl' ? Array.from({ length: 10 }, (_, i) => i) : Array.from({ length: 6 }, (_, i) => i + 1)
}
/** "3 letters, two birds and no cats": names with counts, zero included. */
function itemsIn(words: readonly Word[]): { text: string; count: number }[] {
  const out: { text: string; count: number }[] = []
  words.forEach((w, i) => {
    const count = w.n ?? (w.t === 'no' ? 0 : w.t === 'a' || w.t === 'an' ? 1 : null)
    const text: string[] = []
    for (
      let k = i + 1;
      words[k] &&
      words[k]!.n === null &&
      /^\p{L}/u.test(words[k]!.t) &&
      !['and', 'no', 'with', 'in', 'on'].includes(words[k]!.t);
      k++
    )
      text.push(words[k]!.t)
    if (count !== null && count <= 20 && text.length) out.push({ text: text.join(' ').slice(0, 20), count })
  })
  return out.slice(0, 6)
}

/** "Set nine bottles up as skittles", "Set up the skittles", "Fold slips for 1 to 5 and pop them in a bowl". */
export const layFromThings: Sense = (c, { ground, before }) => {
  const into = c.parts.find((p) => p.prep !== null && p.group.mat !== null)
  const what = bare(c)[0]
  if (!into || !what) return null
  if (into.prep === 'as' && into.group.mat === 'skittles' && what.group.n !== null)
    return sensed([laid('skittles', { parts: what.group.n })], [what, into])
  if (into.group.mat !== 'bowl' || matOn(ground, 'bowl')) return null
  const slips = ['slip', 'digit', 'number', 'card', 'paper'].includes(what.group.noun ?? '')
  if (!slips && what.group.pronoun === null) return null
  const pending = before.at(-1)
  const texts =
    pending?.type === 'show card'
      ? pending.texts
      : numbersSaid(c.words.filter((w) => w.n === null || true)).map(String)
  if (!texts.length) return null
  return {
    ...sensed([laid('bowl', { items: texts.map((text) => ({ text, count: 1 })) })], c.parts),
    instead: pending?.type === 'show card',
  }
}
/** "Fold slips for 1 to 5": written before they go anywhere. */
export const foldSlips: Sense = (c) => {
  const what = bare(c)[0]
  if (!what || what.group.noun !== 'slip' || !['fold', 'write', 'make', 'cut', 'put'].includes(c.verb ?? ''))
    return null
  if (after(c, 'in', 'into')) return null
  const texts = numbersSaid(c.words).map(String)
  return texts.length ? sensed([{ type: 'show card', texts, up: false }], c.parts) : null
}

/** "Bring the frame back", "Get the plates out again": a mat put away, in the form it had. */
export const bringBack: Sense = (c, { ground }) => {
  if (!has(c, 'back', 'out', 'down') && !c.words.some((w) => w.t === 'again')) return null
  const what = bare(c)[0]
  const mat = what?.group.mat
  if (!what || !mat || what.group.n !== null || what.group.of || matHere(ground, mat) || !matOn(ground, mat))
    return null
  if (!['bring', 'get', 'put', 'lay', 'fetch', 'take', 'have', 'set', 'need'].includes(c.verb ?? ''))
    return null
  return sensed([{ type: 'bring back', mat }], [what])
}

/** "Add a third part", "Draw another part", "Lay out one more plate": a place beside those there. */
export const addPlace: Sense = (c, { ground }) => {
  if (!['add', 'draw', 'put', 'lay', 'set', 'fetch', 'get', 'bring', 'make'].includes(c.verb ?? ''))
    return null
  const what = bare(c)[0]
  const mat = what?.group.mat ?? null
  const here = mat && ['parts', 'bar', 'plates'].includes(mat) ? matHere(ground, mat) : undefined
  if (!what || !mat || !here || what.group.of || what.group.place === 'whole') return null
  const places = here.regions.length - (hasWhole(mat) ? 1 : 0)
  const g = what.group
  const next = g.order === places + 1 && !g.definite
  if (!next && !(g.more && (g.n ?? 1) === 1)) return null
  if (c.parts.some((p) => p !== what && p.prep !== null && p.group.mat !== 'table' && p.group.mat !== mat))
    return null
  return sensed([{ type: 'add place', mat }], c.parts)
}

/** "Draw tally marks for 14", "Make a tally of nine": in fives, the rest beside them. */
export const tally: Sense = (c) => {
  if (
    !c.words.some((w) => /^tall(y|ies)$/.test(w.t)) ||
    !['draw', 'make', 'write', 'put', 'mark'].includes(c.verb ?? '')
  )
    return null
  const numbers = c.words.filter((w) => w.n !== null && w.t !== 'a single')
  const count = numbers.length === 1 ? numbers[0]!.n! : null
  if (count === null || count < 1 || count > 100) return null
  const actions: Action[] = []
  for (let left = count; left > 0; left -= 5)
    actions.push({
      type: 'put',
      count: Math.min(5, left),
      face: 'saffron',
      kind: 'drawn tally marks',
      worth: 1,
      at: { mat: 'table', region: 0 },
      apart: true,
    })
  return sensed(actions, c.parts)
}

/** "Put the frame away", "Take the plates off the table": the mat itself goes. */
export const putAway: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'away') || !has(c, 'away')) return null
  const what = bare(c)[0]
  const mat = what?.group.mat
  if (!what || !mat || what.group.n !== null || !matHere(ground, mat) || mat === 'hands') return null
  return sensed([{ type: 'away', mat }], [what, after(c, 'from', 'off')])
}
