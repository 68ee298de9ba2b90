import type { Action, Line } from '../../table/state.ts'
import type { Clause } from '../clauses.ts'
import { thingsAt } from '../pick.ts'
import type { Ground } from '../spots.ts'
import { isVerbOf } from '../verbs.ts'
import type { Word } from '../words.ts'
import { colourOf } from './shading.ts'
import { bare, has, numbersSaid, says, type Sense, sensed, stepSaid } from './sense.ts'

const lineOn = (g: Ground): { kind: 'line' | 'square'; line: Line } | null => {
  const m = g.table.mats.find((x) => x.line)
  return m?.line ? { kind: m.kind as 'line' | 'square', line: m.line } : null
}
const unitOf: Readonly<Record<string, number>> = {
  ten: 10,
  tens: 10,
  ones: 1,
  twos: 2,
  fives: 5,
  hundred: 100,
}
const hopNouns = /^(hops?|jumps?|steps?|leaps?|springs?|skips?|bounds?|bounces?)$/
const rowNouns = /^(rows?|lines?)$/

/** Nouns a hop may be told with: how it is made, or where it starts and ends. */
const hopWith = new Set(
  'ten one five two step place space square row door stone house number time end'.split(' '),
)
const numberMats = new Set(['line', 'square', 'row'])
const onwards = ['on', 'back', 'forward', 'forwards', 'backwards'] as const
const saysHops = (c: Clause): boolean => c.words.some((x) => hopNouns.test(x.t))

/** "Hop 3 on from 5", "Jump back 2 tens from 87", "Four small hops forward", "One row further down", "From 15 back to 10". */
export const hop: Sense = (c, { ground, before }) => {
  const here = lineOn(ground)
  const verb = hopVerb(c)
  if (!verb && !(here && (c.verb === null || says(c, 'hops', 'jumps', 'steps')) && c.parts.length))
    return null
  if (!here && !['hop', 'jump', 'leap', 'spring', 'skip'].includes(c.verb ?? '')) return null
  if (c.parts.some((p) => !toldWith(p))) return null
  const used = c.subject ? [...c.parts, c.subject] : c.parts
  const [start, end] = [numberAfter(c.words, ['from']), numberAfter(c.words, ['to', 'until'])]
  const action =
    start !== null && end !== null
      ? fromTo(c, start, end)
      : bareNumber(c.words) < 0
        ? onTo(here?.line ?? null, end)
        : byNumber(c, { here: here?.kind ?? null, verb, from: start ?? startBefore(before) })
  return action && sensed([action], used)
}
const hopVerb = (c: Clause): boolean =>
  (isVerbOf(c.verb, 'hop') && c.verb !== 'count') ||
  (['make', 'take', 'do'].includes(c.verb ?? '') && saysHops(c))
function toldWith({ prep, group }: Clause['parts'][number]): boolean {
  if (group.mat && !numberMats.has(group.mat)) return false
  return prep !== null || group.noun === null || hopNouns.test(group.noun) || hopWith.has(group.noun)
}
/** "From 2 to 6": in one hop, or by the step that is said. */
function fromTo(c: Clause, start: number, end: number): Action | null {
  const by = stepSaid(c.words) ?? (says(c, 'one at a time', 'one by one') ? 1 : Math.abs(end - start))
  if (!by || end === start || (end - start) % by !== 0) return null
  return { type: 'hop', from: start, by: Math.sign(end - start) * by, times: Math.abs(end - start) / by }
}
/** "… then back to 8": on from where one stands. */
function onTo(line: Line | null, end: number | null): Action | null {
  const at = line?.at ?? line?.from
  if (end === null || at === undefined || end === at) return null
  return { type: 'hop', from: null, by: end - at, times: 1 }
}
/** The number that says how far or how often: none that "from", "to" or "number" leads up to. */
const bareNumber = (w: readonly Word[]): number =>
  w.findIndex((x, i) => x.n !== null && !['from', 'to', 'until', 'number'].includes(w[i - 1]?.t ?? ''))
const isBack = (c: Clause, here: 'line' | 'square' | null): boolean => {
  if (says(c, 'down')) return false
  return says(c, 'back', 'backwards', 'backward') || (here === 'square' && says(c, 'up', 'left'))
}
/** "Three tens on", "two rows up", "four hops of five", "hop 3". */
function byNumber(
  c: Clause,
  { here, verb, from }: { here: 'line' | 'square' | null; verb: boolean; from: number | null },
): Action | null {
  const w = c.words
  const at = bareNumber(w)
  const n = w[at]!.n!
  const next = w.slice(at + 1).find((x) => !sizes.has(x.t))?.t ?? ''
  const hopOf = w.findIndex((x, k) => hopNouns.test(x.t) && w[k + 1]?.t === 'of' && w[k + 2]?.n != null)
  const each = hopOf >= 0 ? w[hopOf + 2]!.n! : (unitOf[next] ?? 1)
  const rows = here === 'square' && rowNouns.test(next)
  const hops = hopNouns.test(next) || says(c, 'times')
  // With no verb, "ten back" and "three hops" are hops; a bare "four more" is not.
  if (!verb && !hops && !rows && !says(c, ...onwards) && each === 1) return null
  const sign = isBack(c, here) ? -1 : 1
  if (each > 1) return { type: 'hop', from, by: sign * each, times: n }
  if (rows) return { type: 'hop', from, by: sign * 10, times: n }
  return hops || next === 'ones'
    ? { type: 'hop', from, by: sign, times: n }
    : { type: 'hop', from, by: sign * n, times: 1 }
}
const sizes = new Set(['small', 'big', 'more', 'little', 'whole', 'great', 'other'])
const startBefore = (before: readonly Action[]): number | null => {
  const last = before.at(-1)
  return last?.type === 'stand' ? last.at : null
}
function numberAfter(w: readonly Word[], preps: readonly string[]): number | null {
  const i = w.findIndex(
    (x, k) =>
      preps.includes(x.t) &&
      (w[k + 1]?.n != null || (w[k + 1] && !preps.includes(w[k + 1]!.t) && w[k + 2]?.n != null)),
  )
  return i < 0 ? null : (w[i + 1]!.n ?? w[i + 2]!.n)
}

/** "Begin on 9": where the first hop starts. */
export const startOn: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'start') || !lineOn(ground)) return null
  const said = c.words.filter((x) => x.n !== null)
  const n = said.length === 1 ? said[0]!.n : null
  return n == null || bare(c).some((p) => p.group.noun !== null)
    ? null
    : sensed([{ type: 'stand', at: n }], c.subject ? [...c.parts, c.subject] : c.parts)
}

/** "Mark 50, 25 and 75 on the line", "Clip a peg on 17", "Pop the snail on number 3", "Shade every five as far as 25". */
export const mark: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'mark')) return null
  const here = lineOn(ground)
  const shades = ['shade', 'colour'].includes(c.verb!)
  const plain =
    shades || ['mark', 'point', 'tap', 'touch', 'find', 'stand', 'circle', 'ring', 'tick'].includes(c.verb!)
  // Where squares to colour in lie on the table, no other mat is meant.
  if (!here && shades && !says(c, 'hundred', 'square', 'number', 'numbers') && ground.table.mats.length)
    return null
  if (!here && !shades && !(c.verb === 'mark' || says(c, 'line', 'square'))) return null
  const numbers = numbersMarked(c, here?.line ?? null)
  // "Shade four squares" says how many, not which.
  const howMany = c.words.some(
    (w, i) => w.n !== null && /^(squares|boxes|spaces|slots|places)$/.test(c.words[i + 1]?.t ?? ''),
  )
  if (!numbers.length || howMany) return null
  const token = bare(c).find(
    (p) =>
      p.group.noun !== null &&
      p.group.mat === null &&
      !['number', 'middle', 'door', 'stone', 'house'].includes(p.group.noun),
  )
  // "Put 3 pegs on the line" hangs three things up; "Clip a peg on 17" marks the seventeen.
  if (token && (token.group.n ?? 1) > 1 && !plain) return null
  const onNumber = c.words.some(
    (x, i) =>
      x.n !== null &&
      [
        'on',
        'at',
        'by',
        'number',
        'over',
        'round',
        'around',
        'stone',
        'door',
        'house',
        'the',
        'beside',
        'above',
        'to',
      ].includes(c.words[i - 1]?.t ?? ''),
  )
  if (!plain && !(token && onNumber) && !(c.verb === 'make' || c.verb === 'put')) return null
  if ((c.verb === 'put' || c.verb === 'make') && !(token || onNumber)) return null
  if (!here && thingsAt(ground.table, null).length && !says(c, 'line', 'square')) return null
  const kind = says(c, 'square') || shades ? 'square' : 'line'
  return sensed(
    [{ type: 'mark', numbers, mat: here ? here.kind : kind, face: colourOf(c) }],
    c.subject ? [...c.parts, c.subject] : c.parts,
  )
}
function numbersMarked(c: Clause, line: Line | null): number[] {
  const step = stepSaid(c.words)
  const every = c.words.findIndex((w) => w.t === 'every')
  if (every >= 0 && step) {
    const to = c.words.slice(every + 2).find((w) => w.n !== null)?.n ?? line?.to ?? 100
    const out: number[] = []
    for (let n = step; n <= to; n += step) out.push(n)
    return out
  }
  const many = c.words.findIndex((w) => /^(twos|fives|tens)$/.test(w.t))
  if (many >= 0) {
    const by = unitOf[c.words[many]!.t]!
    const last = c.words.slice(many + 1).find((w) => w.n !== null)?.n
    const first = c.words.slice(0, many).find((w) => w.n !== null)?.n ?? by
    if (last != null && !c.words.slice(0, many).some((w, i) => w.n !== null && c.words[i + 1]?.t === 'to'))
      return Array.from({ length: Math.floor((last - first) / by) + 1 }, (_, i) => first + i * by)
  }
  const said = numbersSaid(
    c.words.filter((w, i) => !(w.n !== null && /^(twos|fives|tens)$/.test(c.words[i + 1]?.t ?? ''))),
    step ?? 1,
  )
  const article = c.words.filter((w) => w.n !== null && w.t === 'a single').length
  return said.slice(article)
}
/** "Mark the middle of the line: ten" needs nothing more than its number; without one the line's own middle is meant. */
export const markMiddle: Sense = (c, { ground }) => {
  const here = lineOn(ground)
  if (!here || c.verb !== 'mark' || !says(c, 'middle', 'half')) return null
  const n = c.words.find((w) => w.n !== null)?.n ?? (here.line.from + here.line.to) / 2
  return Number.isInteger(n) && !has(c, 'off')
    ? sensed([{ type: 'mark', numbers: [n], mat: here.kind, face: null }], c.parts)
    : null
}
