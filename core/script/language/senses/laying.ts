import { type Action, type MatKind, matKinds } from '../../table/state.ts'
import type { Clause } from '../clauses.ts'
import { anyThing, containers } from '../lexicon.ts'
import { matOn } from '../spots.ts'
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
  const holder =
    first &&
    first.group.mat === null &&
    containers.has(first.group.noun ?? '') &&
    (first.group.n ?? 0) >= 2 &&
    has(c, 'out')
  const mat = holder ? 'plates' : first?.group.mat
  if (
    !first ||
    !mat ||
    !layable.has(mat) ||
    has(c, 'away', 'back', 'off') ||
    after(c, 'through', 'round', 'around')
  )
    return null
  // Hands, coins, dice and cards come with what is shown or rolled, unless they are laid out for later.
  if (comesWith.has(mat) && !(has(c, 'out') && numbersSaid(c.words.slice(first.group.to)).length === 0))
    return null
  const g = first.group
  // What lies there already is not laid again by the way.
  if (!has(c, 'out') && matOn(ground, mat)?.regions.some((r) => r.things.length) && mat !== 'skittles')
    return null
  if (g.place !== null && g.place !== 'whole' && mat !== 'line') return null
  const outright = has(c, 'out', 'up') && c.verb !== 'take'
  if (!outright && g.definite && !(mat === 'skittles' && c.verb === 'set')) return null
  if (
    !outright &&
    (after(c, 'on', 'in')?.group.mat ?? 'table') !== 'table' &&
    mat !== 'line' &&
    mat !== 'scene'
  )
    return null
  // "Build a tower of 7" puts things; a row or tower alone is laid empty.
  if (g.of && mat !== 'bowl' && mat !== 'square') return null
  if ((mat === 'row' || mat === 'tower') && !has(c, 'out')) return null
  if (mat === 'skittles' && g.order !== null) return null
  const rest = c.words.slice(g.to)
  const action = layAction(mat, g.n, g.noun ?? '', rest, c)
  return (
    action &&
    sensed(
      [action],
      c.parts.filter((p) => explained(p.group, mat)),
      { mat, region: 0 },
    )
  )

  function explained(x: (typeof first & object)['group'], kind: MatKind): boolean {
    if (x === g) return true
    if (kind === 'scene') return true
    if (x.mat === 'table' || x.mat === 'parts') return true
    if (['bowl', 'spinner'].includes(kind))
      return x.noun === null || ['digit', 'number', 'slip', 'card', 'part'].includes(x.noun)
    return (
      x.noun === null ||
      anyThing.has(x.noun) ||
      x.noun in { ten: 1, five: 1, two: 1, end: 1, part: 1 } ||
      (matOn(ground, kind) === undefined && x.mat === kind)
    )
  }
}
function layAction(
  mat: MatKind,
  n: number | null,
  noun: string,
  rest: readonly Word[],
  c: Clause,
): Action | null {
  switch (mat) {
    case 'frame':
      return laid(mat, { parts: Math.min(3, n ?? 1) })
    case 'line': {
      const step = stepSaid(c.words)
      const ends = numbersSaid(rest, 1000)
      const all = rest.filter((w) => w.n !== null).map((w) => w.n!)
      const [from, to] = all.length >= 2 ? [all[0]!, all[1]!] : all.length === 1 ? [0, all[0]!] : [0, 10]
      if (to <= from || !ends) return null
      const empty = c.words.some((w) => w.t === 'empty' || w.t === 'open')
      return laid(mat, { from, to, every: empty ? 0 : (step ?? (to - from > 20 ? 10 : 1)) })
    }
    case 'square':
      return laid(mat, { from: rest.some((w) => w.n === 0) ? 0 : 1 })
    case 'scene':
      return laid(mat, { items: itemsIn(rest) })
    case 'bowl':
    case 'spinner': {
      const numbers = numbersSaid(rest)
      const usual = Array.from({ length: mat === 'bowl' ? 10 : 6 }, (_, i) => (mat === 'bowl' ? i : i + 1))
      return laid(mat, {
        items: (numbers.length ? numbers : usual).map((t) => ({ text: String(t), count: 1 })),
      })
    }
    case 'plates':
      return laid(mat, {
        parts: n ?? numbersSaid(rest)[0] ?? 2,
        name: noun === 'plate' || noun === '' ? null : noun,
      })
    case 'dice':
      return laid(mat, { items: [{ text: '', count: n ?? 1 }] })
    case 'skittles':
      return laid(mat, { parts: n ?? 10 })
    default:
      return laid(mat, { parts: numbersSaid(rest)[0] ?? (mat === 'parts' || mat === 'bar' ? 2 : 1) })
  }
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

/** "Put the frame away", "Take the plates off the table": the mat itself goes. */
export const putAway: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'away') || !has(c, 'away')) return null
  const what = bare(c)[0]
  const mat = what?.group.mat
  if (!what || !mat || what.group.n !== null || !matOn(ground, mat) || mat === 'hands') return null
  return sensed([{ type: 'away', mat }], [what, after(c, 'from', 'off')])
}
