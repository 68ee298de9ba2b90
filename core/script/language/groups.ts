import type { Face, MatKind } from '../table/state.ts'
import {
  determiners,
  faces,
  fillers,
  matNouns,
  people,
  particles,
  placeNouns,
  prepositions,
  pronouns,
  stem,
  worths,
} from './lexicon.ts'
import { verbOf } from './verbs.ts'
import type { Word } from './words.ts'

/** How many of a group, where no number says it. */
type Quantity = 'half' | 'all' | 'both' | 'each' | 'rest' | 'all but' | 'as many' | 'another' | 'none'
export type Which =
  number | 'each' | 'other' | 'left' | 'right' | 'top' | 'bottom' | 'middle' | 'last' | 'whole'

/** What a noun phrase picks out: how many, which, of what, where. Not yet held against a table. */
export interface Group {
  n: number | null
  quantity: Quantity | null
  /** "two more", "another two": on top of what is there. */
  more: boolean
  /** "the", "those", "of them": things already spoken of. */
  definite: boolean
  pronoun: string | null
  /** "the first four", "the last one": 1 the first, −1 the last, 0 the middle. */
  order: number | null
  face: Face | null
  /** "crossed", "fallen", "standing", "hidden", "lonely", "loose", "empty". */
  state: string | null
  /** The thing's noun, in the singular; null when only a number or pronoun is said. */
  noun: string | null
  mat: MatKind | null
  /** Which place of the mat: "plate 2", "the top shelf", "each plate". */
  place: Which | null
  worth: number | null
  /** The noun is in the plural. */
  many: boolean
  /** Counted two by two: "two pairs". */
  pairs: boolean
  /** "three of them", "a heap of 6", "a tower of seven". */
  of: Group | null
  from: number
  to: number
}
const nothing: Omit<Group, 'from' | 'to'> = {
  n: null,
  quantity: null,
  more: false,
  definite: false,
  pronoun: null,
  order: null,
  face: null,
  state: null,
  noun: null,
  mat: null,
  place: null,
  worth: null,
  many: false,
  pairs: false,
  of: null,
}

const sizes = new Set('small big little large neat tall short long new same equal'.split(' '))
const states: Readonly<Record<string, string>> = {
  crossed: 'crossed',
  fallen: 'fallen',
  toppled: 'fallen',
  flat: 'fallen',
  standing: 'standing',
  hidden: 'hidden',
  covered: 'hidden',
  lonely: 'alone',
  odd: 'alone',
  single: 'single',
  lone: 'alone',
  loose: 'loose',
  empty: 'empty',
  open: 'empty',
  spare: 'rest',
  remaining: 'rest',
  leftover: 'rest',
}
const wheres: Readonly<Record<string, Which>> = {
  left: 'left',
  right: 'right',
  top: 'top',
  upper: 'top',
  bottom: 'bottom',
  lower: 'bottom',
  last: 'last',
  middle: 'middle',
  other: 'other',
  others: 'other',
  whole: 'whole',
}
/** Two or more words that say how many. */
const quantityPhrases: readonly (readonly [readonly string[], Partial<Group>])[] = [
  [['all', 'but'], { quantity: 'all but', definite: true }],
  [['however', 'many'], { quantity: 'rest', definite: true }],
  [['how', 'ever', 'many'], { quantity: 'rest', definite: true }],
  [['what', 'is', 'left'], { quantity: 'rest', definite: true }],
  [['whatever', 'is', 'left'], { quantity: 'rest', definite: true }],
  [['what', 'is', 'there'], { quantity: 'all', definite: true }],
  [['what', 'is', 'in'], { quantity: 'all', definite: true, of: null }],
  [['as', 'many', 'as'], { quantity: 'as many' }],
  [['as', 'many', 'again'], { quantity: 'as many', more: true }],
  [['as', 'many'], { quantity: 'as many' }],
  [['the', 'same', 'number'], { quantity: 'as many' }],
  [['that', 'many'], { quantity: 'as many' }],
  [['half', 'of'], { quantity: 'half', definite: true }],
  [['half', 'the'], { quantity: 'half', definite: true }],
  [['the', 'same'], { quantity: 'as many' }],
  [['the', 'rest'], { quantity: 'rest', definite: true }],
  [['the', 'others'], { quantity: 'rest', definite: true, place: 'other' }],
  [['the', 'other', 'ones'], { quantity: 'rest', definite: true, place: 'other' }],
  [['every', 'one'], { quantity: 'all' }],
  [['each', 'one'], { quantity: 'all' }],
]
const nounWords = (w: Word | undefined): string => (w && w.n === null ? w.t : '')

/** Mat nouns by their first word, in the order they are tried: nearly all words begin none. */
const matNounsFrom = new Map<string, { noun: string; mat: MatKind; rank: number; words: string[] }[]>()
matNouns.forEach(([noun, mat], rank) => {
  const words = noun.split(' ')
  const list = matNounsFrom.get(words[0]!) ?? []
  matNounsFrom.set(words[0]!, [...list, { noun, mat, rank, words }])
})
/** Numbers that are part of a mat's name: a ten frame, a hundred square. */
const numberNames = new Map([
  [2, 'two'],
  [10, 'ten'],
  [100, 'hundred'],
])
/** "Groups of three", "a set of four": words that are verbs elsewhere. */
const isHeapOf = (words: readonly Word[], i: number): boolean =>
  /^(groups?|sets?|piles?)$/.test(words[i]?.t ?? '') && words[i + 1]?.t === 'of'
/** The mat or place noun at i: how many words it takes. */
function matAt(words: readonly Word[], i: number): { mat: MatKind; noun: string; to: number } | null {
  const first = words[i]
  if (!first) return null
  const keys = new Set([first.t, first.n === null ? stem(first.t) : (numberNames.get(first.n) ?? first.t)])
  const found = [...keys]
    .flatMap((k) => matNounsFrom.get(k) ?? [])
    .sort((a, b) => a.rank - b.rank)
    .find((x) =>
      x.words.every((p, k) => {
        const w = words[i + k]
        if (!w) return false
        if (w.t === p || (w.n !== null && numberNames.get(w.n) === p)) return true
        return k === x.words.length - 1 && w.n === null && stem(w.t) === p
      }),
    )
  return found ? { mat: found.mat, noun: found.noun, to: i + found.words.length } : null
}

/** Whether a way of saying how many begins here: "as many", "however many". */
export const startsQuantity = (words: readonly Word[], i: number): boolean =>
  quantityPhrases.some(([p]) => p.every((t, k) => words[i + k]?.t === t))
/** The group of "up top", "down below". */
export const placeGroup = (place: Which, at: number): Group => ({ ...nothing, place, from: at, to: at + 1 })
/** Words that end a noun phrase: they never name a thing. */
const isNoNoun = (w: Word, words: readonly Word[], i: number): boolean =>
  w.n !== null ||
  /^[^\p{L}]/u.test(w.t) ||
  prepositions.has(w.t) ||
  particles.has(w.t) ||
  w.t.includes(' ') ||
  determiners.has(w.t) ||
  pronouns.has(w.t) ||
  people.has(w.t) ||
  (fillers.has(w.t) && w.t !== 'one') ||
  w.t === 'more' ||
  w.t === 'are' ||
  w.t === 'is' ||
  w.t === 'each' ||
  w.t === 'all' ||
  w.t === 'both' ||
  w.t === 'without' ||
  w.t === 'while' ||
  (w.ord !== null && w.t !== 'second') ||
  (verbOf(w.t) !== null && !canBeNoun(words, i))

/** A verb's word stands for a thing when a number, "the" or an adjective leads up to it: "two jumps", "the mark". */
function canBeNoun(words: readonly Word[], i: number): boolean {
  const before = words[i - 1]
  if (!before) return false
  if (isHeapOf(words, i) && prepositions.has(before.t)) return true
  const many = /s$|^(hop|jump|step|peg|cross|mark|ring|dot|box|shell|card|clap)$/.test(words[i]!.t)
  if (before.n !== null || before.t === 'more' || sizes.has(before.t)) return many
  if (verbOf(before.t) !== null && /s$/.test(words[i]!.t)) return !determiners.has(words[i + 1]?.t ?? '')
  return determiners.has(before.t) || before.t in faces || before.t in states || before.ord !== null
}

/** Reads a group expression at word i, or null. */
export function groupAt(words: readonly Word[], i: number): Group | null {
  const g: Group = { ...nothing, from: i, to: i }
  let at = readQuantity(words, i, g)
  at = readWhich(words, at, g)
  at = readHead(words, at, g)
  if (at === i || (at === i + 1 && determiners.has(words[i]!.t) && !pronouns.has(words[i]!.t))) return null
  if (at === i + 1 && fillers.has(words[i]!.t) && g.noun === null && g.n === null && g.pronoun === null)
    return null
  g.to = at
  return readRest(words, g)
}

function readQuantity(words: readonly Word[], i: number, g: Group): number {
  const phrase = quantityPhrases.find(([p]) => p.every((t, k) => words[i + k]?.t === t))
  if (phrase) {
    Object.assign(g, phrase[1])
    return skipOf(words, i + phrase[0].length, g)
  }
  const w = words[i]
  if (!w) return i
  switch (w.t) {
    case 'all':
    case 'every':
      g.quantity = w.t === 'every' ? 'each' : 'all'
      g.definite = w.t === 'all'
      return skipOf(words, i + 1, g)
    case 'both':
      g.quantity = 'both'
      g.definite = true
      return skipOf(words, i + 1, g)
    case 'each':
      g.quantity = 'each'
      return skipOf(words, i + 1, g)
    case 'another':
      g.more = true
      g.n = 1
      g.quantity = 'another'
      return i + 1
    case 'none':
    case 'no':
      g.quantity = 'none'
      g.n = 0
      return skipOf(words, i + 1, g)
    default:
      return i
  }
}
/** "all of them", "each of the plates". */
function skipOf(words: readonly Word[], i: number, g: Group): number {
  if (words[i]?.t !== 'of') return i
  g.definite = true
  return i + 1
}

function readWhich(words: readonly Word[], i: number, g: Group): number {
  let at = i
  for (let guard = 0; guard < 8; guard++) {
    const w = words[at]
    if (!w) break
    const next = words[at + 1]
    if (determiners.has(w.t) && !(pronouns.has(w.t) && endsGroup(words, at + 1))) {
      if (!['a', 'an', 'some'].includes(w.t)) g.definite = true
      else if (g.n === null && w.t !== 'some') g.n = 1
      at++
    } else if (/'s$/.test(w.t)) at++
    else if (w.n === 10 && w.t === 'ten' && g.n !== null) break
    // "The ten frame", "your hundred square": the number is the mat's name.
    else if (w.n !== null && w.n !== 2 && matAt(words, at)) break
    else if (w.n !== null && at > i && words[at - 1]!.t === 'others') break
    else if (w.n !== null && !isHeadOne(words, at, g)) {
      g.n = w.n
      if (g.quantity === 'another') g.quantity = null
      at++
    } else if (w.t === 'more' || w.t === 'extra') {
      g.more = true
      if (g.n === null && g.quantity === null) g.n = 1
      at++
    } else if (w.t in faces) {
      g.face = faces[w.t]!
      at++
    } else if (w.t in states && w.t !== 'standing' && next) {
      g.state = states[w.t]!
      if (g.state === 'rest') g.quantity = 'rest'
      at++
    } else if (w.ord !== null && (next || at > i)) {
      g.order = w.ord
      if (w.ord === -1) g.place ??= 'last'
      if (w.ord === 0) g.place ??= 'middle'
      at++
    } else if (
      w.t in wheres &&
      (at > i || nounWords(next)) &&
      !(w.t === 'left' && at === i && !nounWords(next))
    ) {
      g.place = wheres[w.t]!
      at++
    } else if (
      sizes.has(w.t) ||
      (/ed$/.test(w.t) && g.n !== null && next !== undefined && !isNoNoun(next, words, at + 1))
    )
      at++
    else break
  }
  return at
}
const endsGroup = (words: readonly Word[], i: number): boolean => {
  const w = words[i]
  return (
    !w ||
    /^[^\p{L}\d]/u.test(w.t) ||
    prepositions.has(w.t) ||
    particles.has(w.t) ||
    fillers.has(w.t) ||
    (verbOf(w.t) !== null && !matAt(words, i)) ||
    ['all', 'both', 'are', 'is'].includes(w.t)
  )
}
/** "one" after "the", a colour or an order names a thing: "the saffron one", "the last one". */
const isHeadOne = (words: readonly Word[], i: number, g: Group): boolean =>
  words[i]!.t === 'one' &&
  (g.face !== null ||
    g.state !== null ||
    (g.place !== null && g.place !== 'other' && g.n === null) ||
    (g.order !== null && g.n === null && g.quantity === null) ||
    ['this', 'that', 'every', 'each', 'another'].includes(words[i - 1]?.t ?? ''))

function readHead(words: readonly Word[], i: number, g: Group): number {
  const w = words[i]
  if (!w) return i
  if (pronouns.has(w.t) && g.n === null && g.noun === null) {
    g.pronoun = w.t
    g.definite = true
    return words[i + 1]?.t === 'all' || words[i + 1]?.t === 'both'
      ? quantified(words[i + 1]!.t, g, i + 2)
      : i + 1
  }
  if (w.t === 'one' && isHeadOne(words, i, g)) return i + 1
  if (w.t === 'ones' && g.n !== null && g.face === null && g.order === null && !g.definite) {
    g.worth = 1
    g.noun = 'one'
    return i + 1
  }
  if (w.t === 'ones') {
    g.noun = 'one'
    return i + 1
  }
  if (w.t === 'ten' && g.n !== null && !matAt(words, i)) {
    g.worth = 10
    g.noun = 'ten'
    return i + 1
  }
  const mat = matAt(words, i)
  if (mat) return readMat(words, mat, g)
  if (/^(pairs|twos)$/.test(w.t) || (w.t === 'pair' && (g.n !== null || g.quantity))) {
    g.pairs = true
    return i + 1
  }
  const s = stem(w.t)
  if (s in worths && w.t !== s && s !== 'single' && s !== 'stick' && s !== 'rod' && s !== 'bundle') {
    g.worth = worths[s]!
    g.noun = s
    return i + 1
  }
  if ((s === 'bundle' || s === 'rod') && g.n !== null) {
    g.worth = 10
    g.noun = s
    return i + 1
  }
  if (w.n !== null || isNoNoun(w, words, i)) return i
  return readNoun(words, i, g)
}
const quantified = (word: string, g: Group, to: number): number => {
  g.quantity = word === 'both' ? 'both' : 'all'
  return to
}
function readNoun(words: readonly Word[], i: number, g: Group): number {
  let at = i
  // "jam jars", "two top blocks": of several nouns the last one is the thing.
  while (words[at + 1] && words[at + 1]!.n === null && at - i < 2 && !isNoNoun(words[at + 1]!, words, at + 1))
    at++
  g.noun = stem(words[at]!.t)
  g.many = g.noun !== words[at]!.t
  return at + 1
}
function readMat(
  words: readonly Word[],
  found: { mat: MatKind; noun: string; to: number },
  g: Group,
): number {
  let at = found.to
  g.mat = found.mat
  g.noun = found.noun
  // "plate cards"? "card 7", "plate 2", "part one": the number after it says which.
  const which = words[at]
  const one = words[at - 1]!.t === stem(words[at - 1]!.t)
  if (
    which !== undefined &&
    which.n !== null &&
    which.n <= 10 &&
    one &&
    found.noun in placeNouns &&
    g.quantity !== 'each'
  ) {
    g.order = which.n
    at++
  } else if (found.noun === 'whole' && ['circle', 'bar', 'box', 'part'].includes(which?.t ?? '')) {
    if (which!.t === 'bar') g.mat = 'bar'
    at++
  }
  if (found.noun === 'whole') g.place = 'whole'
  return at
}

/** "of …", "worth …", "that are left". */
function readRest(words: readonly Word[], g: Group): Group {
  let at = g.to
  const next = words[at]
  if (next?.t === 'of' && !(g.mat === 'hands' && g.n !== null)) {
    const of = groupAt(words, at + 1)
    if (of) {
      g.of = of
      at = of.to
      if (of.definite) g.definite = true
      if (of.mat && g.noun !== null && g.mat && of.mat !== g.mat && of.mat === 'bar') g.mat = 'bar'
    }
  } else if (next?.t === 'worth' && words[at + 1]?.n !== null && words[at + 1]) {
    g.worth = words[at + 1]!.n
    at += 2
  }
  for (const tail of tails)
    if (tail.every((t, k) => words[at + k]?.t === t)) {
      at += tail.length
      if (tail.at(-1) === 'left' || tail.at(-1) === 'over') g.quantity ??= 'rest'
      if (tail.at(-1) === 'alone') g.state = 'alone'
      break
    }
  g.to = at
  return g
}
const tails: readonly (readonly string[])[] = [
  ['that', 'are', 'left'],
  ['that', 'is', 'left'],
  ['that', 'are', 'left', 'over'],
  ['are', 'left'],
  ['is', 'left'],
  ['left', 'over'],
  ['that', 'is', 'alone'],
  ['that', 'is', 'there'],
  ['that', 'are', 'there'],
]
