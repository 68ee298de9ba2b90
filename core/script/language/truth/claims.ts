import { hasWhole, holdsThings, type Spot, type TableState, thingsIn } from '../../table/state.ts'
import { stem } from '../lexicon.ts'
import { isCalled, thingsAt } from '../pick.ts'
import { afterNoun, sentencesSaid } from './terms.ts'
import type { Word } from '../words.ts'
import { aspectIn, stateAsked } from './aspects.ts'
import { type Aspect, numbersFor } from './shown.ts'

/** A number said of a group of the table, with what lies there. */
export interface Claim {
  said: number
  there: readonly number[]
  /** The words that say it. */
  text: string
}
const joints = new Set([',', 'and', 'but', ':', 'while', '–'])
/** The pieces of a sentence that say one number each, parted at commas and "and". */
function pieces(words: readonly Word[]): Word[][] {
  const out: Word[][] = [[]]
  for (const w of words) {
    if (joints.has(w.t) && out.at(-1)!.some((x) => x.n !== null)) out.push([])
    else out.at(-1)!.push(w)
  }
  return out.filter((p) => p.some((w) => w.n !== null))
}
const numberOf = (words: readonly Word[]): number | null => {
  const ns = words.filter(
    (w, i) =>
      w.n !== null &&
      !(
        w.t === 'one' &&
        (['of', 'plate', 'shelf'].includes(words[i + 1]?.t ?? '') ||
          ['the', 'this', 'that', 'other', 'last', 'part', 'plate'].includes(words[i - 1]?.t ?? ''))
      ) &&
      !['plate', 'part', 'shelf', 'number', 'door', 'house', 'cup'].includes(words[i - 1]?.t ?? ''),
  )
  return ns.length === 1 ? ns[0]!.n : null
}

/**
 * Numbers a line says of one colour, place or state of the table: "five saffron ducks and three blue", "up high stand
 * seven", "but four kept their feet". Only pieces whose group is named are claims.
 */
export function claimsOf(text: string, table: TableState): Claim[] {
  return sentencesSaid(text).flatMap(({ words, end }) => {
    if (
      end === '?' ||
      words.some((w) =>
        [
          'if',
          'would',
          'when',
          'tens',
          'today',
          'suppose',
          'more',
          'fewer',
          'extra',
          'another',
          'for',
        ].includes(w.t),
      )
    )
      return []
    const parts = pieces(words)
    let state: Aspect['state'] = null
    let spotsBefore: readonly Spot[] = []
    return parts.flatMap((piece): Claim[] => {
      const n = numberOf(piece)
      const said = piece.map((w) => w.t).join(' ')
      state = stateAsked(said)
      if (piece.some((w) => /^(tens?|bundles?|rods?)$/.test(w.t))) return []
      if (['free', 'each', 'over', 'at', 'worth', 'difference', 'pairs'].includes(state ?? '')) return []
      const a = aspectIn(piece, table, state)
      // "On its left wing" and "stand up high" are places, not what is left standing.
      if (a.spots.length && state === 'left') state = a.state = null
      const spots = a.spots.length ? a.spots : elliptical(piece) ? other(spotsBefore, table) : []
      if (a.spots.length) spotsBefore = a.spots
      if (n === null || piece.some((w) => w.t === 'not')) return []
      if (
        a.pictured &&
        words.some((w) =>
          ['get', 'gets', 'go', 'goes', 'without', 'need', 'needs', 'each', 'want', 'come', 'leave'].includes(
            w.t,
          ),
        )
      )
        return []
      // States are told of what hands have just done to; a place or a colour is plain to see.
      const stated = state === 'gone' || state === 'left'
      if (!spots.length && a.face === null && !a.pictured && !(stated && changed(table))) return []
      if (stated && spots.length) return []
      const there = numbersFor(a.pictured ? a : { ...a, spots, noun: null }, table)
      return there.length && !there.includes(n) ? [{ said: n, there, text: said }] : []
    })
  })
}
/** "… and three on its right", "two down there": the sentence goes on about the next place. */
const elliptical = (piece: readonly Word[]): boolean =>
  piece.some((w) => ['other', 'right', 'rest'].includes(w.t))
function other(spots: readonly Spot[], table: TableState): Spot[] {
  const spot = spots[0]
  const mat = spot && table.mats.find((m) => m.kind === spot.mat)
  if (!spot || !mat) return []
  const first = hasWhole(mat.kind) ? 1 : 0
  return mat.regions.length - first === 2
    ? [{ mat: spot.mat, region: spot.region === first ? first + 1 : first }]
    : []
}
const changed = (t: TableState): boolean =>
  t.taken > 0 || t.mats.some((m) => m.divider !== null || thingsIn(m).some((x) => x.crossed))

/** "Here hang the six stripy socks", "there are five shells": all of one thing that lies there. */
export function wholeClaims(text: string, table: TableState): Claim[] {
  const things = table.mats.filter(holdsThings).flatMap(thingsIn)
  if (!things.length) return []
  return sentencesSaid(text).flatMap(({ words, end }): Claim[] => {
    if (end === '?') return []
    const numbers = words.flatMap((w, i) => (w.n === null ? [] : [{ n: w.n, i }]))
    const first = words[0]?.t
    const every =
      words.some((w) => ['still', 'altogether', 'all of them', 'as before'].includes(w.t)) ||
      /\bin all\b/.test(words.map((w) => w.t).join(' '))
    if (
      every &&
      numbers.length === 1 &&
      things.every((t) => t.worth === 1) &&
      !words.some((w) => ['need', 'more', 'standing', 'stand', 'tens'].includes(w.t))
    ) {
      const total = [
        things.length,
        things.filter((t) => !t.crossed).length,
        ...table.mats.filter(holdsThings).map((m) => thingsIn(m).length),
      ]
      return total.includes(numbers[0]!.n) || /\bnot\b/.test(words.map((w) => w.t).join(' '))
        ? []
        : [{ said: numbers[0]!.n, there: total, text: words.map((w) => w.t).join(' ') }]
    }
    if (numbers.length !== 1 || !['here', 'there', 'look', 'see'].includes(first ?? '')) return []
    const { n, i } = numbers[0]!
    const nouns = words.slice(i + 1, Math.max(afterNoun(words, i + 1), i + 1)).map((w) => stem(w.t))
    const called = things.filter((t) => nouns.some((noun) => isCalled(t, noun)))
    if (!called.length) return []
    const there = [
      called.length,
      called.filter((t) => !t.crossed).length,
      called.filter((t) => !t.hidden).length,
    ]
    return there.includes(n) ? [] : [{ said: n, there, text: words.map((w) => w.t).join(' ') }]
  })
}

/** Two groups of the table set against one another: "more pegs live up on the top than down on the bottom". */
export function comparedOnTable(text: string, table: TableState): { text: string; right: string }[] {
  return sentencesSaid(text).flatMap(({ words, end }) => {
    const than = words.findIndex((w) => w.t === 'than')
    const way = words.findIndex((w) =>
      ['more', 'fewer', 'less', 'higher', 'lower', 'taller', 'shorter'].includes(w.t),
    )
    if (end === '?' || than < 0 || way < 0 || way > than || words.some((w) => ['not', 'no'].includes(w.t)))
      return []
    const sides = sidesOf(words, than, table)
    if (!sides) return []
    const up = ['more', 'higher', 'taller'].includes(words[way]!.t)
    const by = byOf(words, way)
    const difference = (sides.left - sides.right) * (up ? 1 : -1)
    if (by === null ? difference > 0 : difference === by) return []
    return [{ text: words.map((w) => w.t).join(' '), right: `${sides.left} and ${sides.right}` }]
  })
}
function byOf(words: readonly Word[], way: number): number | null {
  const near = [words[way - 1], words[way - 2]]
  return near.find((w) => w?.n != null)?.n ?? null
}
function sidesOf(
  words: readonly Word[],
  than: number,
  table: TableState,
): { left: number; right: number } | null {
  const [a, b] = [words.slice(0, than), words.slice(than + 1)]
  const spotOf = (w: readonly Word[]): Spot | null => {
    const found = aspectIn(w, table, null).spots
    return found.length === 1 ? found[0]! : null
  }
  const [left, right] = [spotOf(a), spotOf(b)]
  if (left && right && left.mat === right.mat && left.region !== right.region)
    return { left: thingsAt(table, left).length, right: thingsAt(table, right).length }
  const scene = table.mats.find((m) => m.kind === 'scene')
  const inScene = (w: readonly Word[]) =>
    scene?.regions.find((r) =>
      w.some((x) => x.n === null && r.name.split(' ').some((name) => stem(name) === stem(x.t))),
    )
  const [l, r] = [
    inScene(
      words.slice(
        words.findIndex((w) => ['more', 'fewer', 'less'].includes(w.t)),
        than,
      ),
    ),
    inScene(b),
  ]
  if (l && r && l !== r) return { left: l.things.length, right: r.things.length }
  // "A tower of six would be three blocks lower than mine."
  const tower = table.mats.find((m) => m.kind === 'tower')
  const of = a.findIndex((w) => w.t === 'of')
  if (tower && of > 0 && a[of + 1]?.n != null && b.some((w) => ['mine', 'this', 'ours', 'my'].includes(w.t)))
    return { left: a[of + 1]!.n!, right: thingsIn(tower).length }
  return null
}
/** "Both of you got equal shares", "as many above as beneath", "halved": places said to hold the same. */
export function sameClaims(text: string, table: TableState): string | null {
  const plain = sentencesSaid(text)
    .map((s) => (s.end === '?' ? '' : s.words.map((w) => w.t).join(' ')))
    .join(' . ')
  if (
    !/\b(equal shares|the same each|(?:everybody|everyone|both|all) (?:has|have|got|get) the same|fair shares|as many \w+ as|halved|is fair|are fair|shared fairly|the same number)\b/.test(
      plain,
    ) ||
    /\b(not|no|nobody has|would|if|until|unless|one more)\b/.test(plain)
  )
    return null
  const mat = table.mats.find(
    (m) =>
      m.regions.length > 1 &&
      holdsThings(m) &&
      ['plates', 'shelves', 'dots', 'parts', 'bar'].includes(m.kind),
  )
  if (!mat) return null
  const sizes = (hasWhole(mat.kind) ? mat.regions.slice(1) : mat.regions).map((r) => r.things.length)
  return sizes.some((n) => n > 0) && new Set(sizes).size > 1 ? sizes.join(' and ') : null
}
/** Cards lie in an order: "third along stands the five, and first of all the three". */
/** "Two go to the first house": the first of what, and it is no card. */
const ofOtherThings = (piece: readonly Word[]): boolean => {
  const i = piece.findIndex((w) => w.ord !== null && w.t !== 'middle')
  const next = piece[i + 1]?.t ?? ''
  return (
    i >= 0 &&
    /^\p{L}{3}/u.test(next) &&
    !/^(cards?|numbers?|digits?|slips?|ones?|places?|comes|stands|lies|was|now|and)$/.test(next)
  )
}
export function cardClaims(text: string, table: TableState): Claim[] {
  const cards = table.mats.find((m) => m.kind === 'cards')?.cards.filter((c) => c.up) ?? []
  if (cards.length < 2) return []
  return sentencesSaid(text).flatMap(({ words, end }) => {
    if (end === '?') return []
    return pieces(words).flatMap((piece): Claim[] => {
      const n = piece.find((w) => w.n !== null)?.n
      const order =
        piece.find((w) => w.ord !== null && w.t !== 'middle')?.ord ??
        (piece.some((w) => w.t === 'at the end') ? -1 : null)
      if (n == null || order === null || ofOtherThings(piece)) return []
      const card = order === -1 ? cards.at(-1) : cards[order - 1]
      const there = Number(card?.text)
      return card && Number.isFinite(there) && there !== n
        ? [{ said: n, there: [there], text: piece.map((w) => w.t).join(' ') }]
        : []
    })
  })
}
