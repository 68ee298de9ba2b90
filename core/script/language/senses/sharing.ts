import {
  type Action,
  hasWhole,
  holdsThings,
  type Mat,
  type MatKind,
  type Spot,
  TableError,
  type Thing,
  thingsIn,
} from '../../table/state.ts'
import type { Clause, Part } from '../clauses.ts'
import { anyThing } from '../lexicon.ts'
import { isCalled } from '../pick.ts'
import { type Ground, matNamed } from '../spots.ts'
import { isVerbOf } from '../verbs.ts'
import { after, bare, says, type Sense, sensed } from './sense.ts'

/** Whose turn it is: "one for you, one for me". */
const turnsIn = (c: Clause): number =>
  c.words.filter(
    (w, i) =>
      w.t === 'for me' || (w.t === 'for' && ['you', 'me', 'him', 'her'].includes(c.words[i + 1]?.t ?? '')),
  ).length
function isSharing(c: Clause): boolean {
  if (!isVerbOf(c.verb, 'share')) return false
  // "Share 7 into 4 and 3" parts them; nothing is dealt.
  const parts = after(c, 'into') && c.words.filter((w) => w.n !== null).length >= 2
  if (parts && !after(c, 'among', 'between', 'onto')) return false
  return c.verb === 'share' || c.verb === 'deal' || says(c, 'equal', 'fair', 'same')
}

/** "Share 12 among 4 plates", "Deal them round, the same for everyone", "One for you, one for me, until they are gone". */
export const share: Sense = (c, { ground }) => {
  const turns = c.verb === null && turnsIn(c) >= 2
  if (!turns && !isSharing(c)) return null
  const among = after(c, 'among', 'between', 'onto', 'on', 'to', 'for', 'into', 'with')
  const round = dealtOn(c, ground, among, turns)
  if (!round) return null
  const what = bare(c).find((p) => p.group.mat === null)
  const n = turns ? null : (what?.group.n ?? null)
  const there = dealtThings(what, ground)
  const used = turns
    ? c.parts
    : c.parts.filter((p) => p === what || p === among || (p.prep !== null && p.group.mat === round.mat))
  if (!there.length) {
    if (n === null) throw new TableError('not-there', { case: 'share', have: 0, count: 1 })
    const kind = nameOf(what?.group.noun ?? null, c)
    const at = { mat: round.mat, region: round.first }
    return sensed([...round.lay, ...dealtNew(n, round.among, at, kind)], used)
  }
  if (n !== null && n > there.length)
    throw new TableError('not-there', { case: 'share', have: there.length, count: n })
  const keys = there.slice(0, n ?? there.length).map((t) => t.key)
  return sensed([...round.lay, ...dealtRound(keys, round)], used)
}

interface Round {
  mat: MatKind
  /** Index of its first place, and how many share. */
  first: number
  among: number
  /** What must be laid first; things on plates that are laid anew are gathered before. */
  lay: Action[]
}
/** What is dealt on to: the plates or parts that are there, as many as share, or such as are laid for it. */
function dealtOn(c: Clause, ground: Ground, among: Part | undefined, turns: boolean): Round | null {
  const named = among ? matNamed(among.group, ground) : null
  const there = ground.table.mats.find(
    (m) => m.kind === 'plates' || (m.regions.length > 1 && m.kind === named),
  )
  const from = there && hasWhole(there.kind) ? 1 : 0
  const places = there ? there.regions.length - from : null
  const k = turns ? (places ?? turnsIn(c)) : (among?.group.n ?? places)
  if (k === null) return null
  if (k < 2 || k > 10) throw new TableError('no-mat', { case: 'among', among: k })
  if (there && places === k) return { mat: there.kind, first: from, among: k, lay: [] }
  const parts = among?.group.mat === 'parts' || among?.group.mat === 'bar' ? among.group.mat : null
  if (parts) return { mat: parts, first: 1, among: k, lay: [laid(parts, k, null)] }
  const gathered: Action[] =
    there && thingsIn(there).length
      ? [
          {
            type: 'move',
            keys: thingsIn(there).map((t) => t.key),
            at: { mat: 'table', region: 0 },
            apart: false,
          },
        ]
      : []
  return { mat: 'plates', first: 0, among: k, lay: [...gathered, laid('plates', k, plateName(among, there))] }
}
const laid = (mat: MatKind, parts: number, name: string | null): Action => ({
  type: 'lay',
  mat,
  parts,
  from: 0,
  to: 10,
  every: 1,
  items: [],
  name,
})
/** Neighbours and cups keep their names; plates laid anew keep the one they had. */
function plateName(among: Part | undefined, there: Mat | undefined): string | null {
  const noun = among?.group.noun ?? null
  if (noun === 'neighbour' || noun === 'cup') return noun
  return there?.kind === 'plates' ? (there.regions[0]?.name.replace(/ \d+$/, '') ?? null) : null
}
/** The things that are dealt: those that are named, else all that lie there. */
function dealtThings(what: Part | undefined, ground: Ground): Thing[] {
  const all = ground.table.mats.filter(holdsThings).flatMap(thingsIn)
  const noun = what?.group.noun ?? null
  const called = noun && !anyThing.has(noun) ? all.filter((t) => isCalled(t, noun)) : []
  return called.length ? called : all.filter((t) => t.kind !== 'skittles')
}
/** One at a time, round by round; what no full round can be dealt of stays where it is. */
function dealtRound(keys: readonly number[], { mat, first, among }: Round): Action[] {
  const dealt = keys.slice(0, Math.floor(keys.length / among) * among)
  return Array.from({ length: among }, (_, j): Action => ({
    type: 'move',
    keys: dealt.filter((_, i) => i % among === j),
    at: { mat, region: j + first },
    apart: false,
  })).filter((a) => a.type === 'move' && a.keys.length > 0)
}
/** The noun as it is written: "strawberries"; counters where none is. */
function nameOf(noun: string | null, c: Clause): string {
  if (!noun || anyThing.has(noun)) return 'counters'
  return c.words.find((w) => w.n === null && w.t.startsWith(noun.slice(0, -1)))?.t ?? noun
}
/** Nothing lay there yet: each place gets its share, and what is over comes to the table. */
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
