import type { Spot, TableState } from '../../table/state.ts'
import { readClause } from '../clauses.ts'
import { anyThing, stem } from '../lexicon.ts'
import { type Ground, matOn, spotsNamed } from '../spots.ts'
import { type Word } from '../words.ts'
import type { Aspect } from './shown.ts'
import { sentencesSaid } from './terms.ts'

type State = NonNullable<Aspect['state']>
/** Words that say in which state things are asked for, from the most particular. Several words must all be there. */
const stateWords: readonly (readonly [State, readonly string[]])[] = [
  ['free', ['gaps', 'gap', 'room', 'empty', 'to go', 'still to come', 'to fill', 'fill it', 'fills it']],
  ['over', ['over', 'remainder', 'leftover', 'did not fit', 'not fit', 'spare one']],
  ['each', ['each', 'every', 'apiece']],
  [
    'difference',
    [
      'how many more',
      'how many extra',
      'extra',
      'how many fewer',
      'by how much',
      'more than',
      'fewer than',
      'difference',
    ],
  ],
  ['seen', ['can you see', 'do you see', 'can see', 'show', 'shows', 'in sight']],
  [
    'hidden',
    [
      'under',
      'hidden',
      'hiding',
      'hide',
      'hides',
      'beneath',
      'underneath',
      'lid',
      'cloth',
      'sleep',
      'secret',
      'covered',
      'shut',
      'inside',
    ],
  ],
  [
    'gone',
    [
      'fell',
      'fallen',
      'fall',
      'toppled',
      'topple',
      'tumbled',
      'gone',
      'blew',
      'flew',
      'rolled',
      'roll',
      'eaten',
      'ate',
      'away',
      'flat',
      'knocked',
      'crossed',
      'taken',
      'took',
      'lost',
      'left us',
      'cross out',
    ],
  ],
  [
    'left',
    [
      'left',
      'stay',
      'stayed',
      'stays',
      'remain',
      'remains',
      'still',
      'standing',
      'stand',
      'stands',
      'kept',
      'budge',
      'budged',
      'wriggle',
      'wriggling',
      'to spare',
      'good',
      'whole',
      'survive',
    ],
  ],
  ['at', ['on which', 'which stone', 'which door', 'which house', 'landed', 'standing on', 'where is']],
  ['worth', ['straws', 'worth', 'pay', 'bundles']],
]
/** Both at once and therefore neither: "how many stood and fell". */
export function stateAsked(text: string): State | null {
  const plain = ` ${text
    .toLowerCase()
    .replace(/[^\p{L}\d' ]/gu, ' ')
    .replace(/\s+/g, ' ')} `
  const found = stateWords.filter(([, words]) => words.some((w) => plain.includes(` ${w} `))).map(([s]) => s)
  // "Down" is a place, unless fingers or skittles are.
  if (/ down /.test(plain) && / (fingers?|thumbs?|skittles?|bottles?) /.test(plain)) found.push('gone')
  return found[0] ?? null
}

/** What a clause speaks of: the places and colours it names, and the state it asks for. */
export function aspectOf(text: string, table: TableState, state: Aspect['state']): Aspect {
  const each = sentencesSaid(text).map((s) => aspectIn(s.words, table, state))
  const spots = each.flatMap((a) => a.spots)
  return {
    spots: spots.filter((s, i) => spots.findIndex((x) => x.mat === s.mat && x.region === s.region) === i),
    face: each.find((a) => a.face)?.face ?? null,
    noun: each.find((a) => a.pictured)?.noun ?? each.find((a) => a.noun)?.noun ?? null,
    state,
    pictured: each.some((a) => a.pictured),
  }
}
export function aspectIn(words: readonly Word[], table: TableState, state: Aspect['state']): Aspect {
  const ground: Ground = { table, named: null }
  const clause = readClause(words)
  const parts = [...(clause.subject ? [clause.subject] : []), ...clause.parts]
  const spots: Spot[] = []
  for (const p of parts) {
    for (const g of [p.group, ...(p.group.of ? [p.group.of] : [])]) {
      const placed =
        g.mat !== null ||
        (g.order !== null && g.noun === null && g.n === null && g.face === null) ||
        g.place !== null ||
        (g.noun !== null && ['part', 'side', 'wing', 'half'].includes(g.noun))
      if (
        !placed ||
        (g.place === 'middle' && g.noun === null) ||
        (g.n !== null && g.place === null && g.noun !== 'part')
      )
        continue
      const found = spotsNamed(g, ground)
      if (
        found?.length === 1 &&
        found[0]!.region >= 0 &&
        matOn(ground, found[0]!.mat) &&
        several(found[0]!, ground)
      )
        spots.push(found[0]!)
    }
  }
  for (const s of shelfWords(words, ground))
    if (!spots.some((x) => x.mat === s.mat && x.region === s.region)) spots.push(s)
  const face =
    parts.map((p) => p.group.face ?? p.group.of?.face ?? null).find((f) => f !== null) ?? faceSaid(words)
  const scene = table.mats.find((m) => m.kind === 'scene')
  const pictured = scene?.regions
    .flatMap((r) => r.name.split(' ').map(stem))
    .find((name) => words.some((w) => w.n === null && stem(w.t) === name))
  if (pictured) return { spots: [], face: null, noun: pictured, state, pictured: true }
  const noun =
    parts
      .map((p) => p.group.noun ?? p.group.of?.noun ?? null)
      .find((n): n is string => n !== null && !anyThing.has(n)) ?? null
  return { spots, face, noun, state }
}
const several = (s: Spot, ground: Ground): boolean => (matOn(ground, s.mat)?.regions.length ?? 0) > 1
const faceSaid = (words: readonly Word[]): Aspect['face'] =>
  (['blue', 'saffron', 'green'] as const).find((f) => words.some((w) => w.t === f)) ?? null
/** "up there", "down below", "the lower one": shelves named without their noun. */
function shelfWords(words: readonly Word[], ground: Ground): Spot[] {
  if (!matOn(ground, 'shelves')) return []
  const out: Spot[] = []
  for (const w of words) {
    if (['up top', 'up high', 'up above', 'up there', 'above', 'top', 'upper'].includes(w.t))
      out.push({ mat: 'shelves', region: 0 })
    if (
      ['down below', 'down low', 'down there', 'down here', 'below', 'beneath', 'bottom', 'lower'].includes(
        w.t,
      )
    )
      out.push({ mat: 'shelves', region: 1 })
  }
  return out.filter((s, i) => out.findIndex((x) => x.region === s.region) === i)
}
