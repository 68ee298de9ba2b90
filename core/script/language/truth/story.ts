import { remembered } from '../../../remember.ts'
import { isVerbOf, verbOf } from '../verbs.ts'
import type { Word } from '../words.ts'
import { expressionAt, type Said, sentencesSaid } from './terms.ts'

/** What happens between two numbers of a story. */
type Change = 'more' | 'fewer'

/** Comings and goings that are no verbs of hands. */
const coming = new Set(
  'more another extra join joins joined come comes came arrive arrives arrived add adds added tips tip tipped plant planted find finds found gets get got pops popped drops buys bought brings brought put puts springs spring hops jumps lays laid'.split(
    ' ',
  ),
)
const going = new Set(
  'snap snaps snapped break breaks broke lose loses lost sells sold gave give gives used uses sail sails sailed burst bursts leave leaves fewer less away off eaten eat eats ate drank drink drinks flew fly flies blew rolled roll rolls took takes take sent sends fell falls fall slide slides goes went swam swims ran popped'.split(
    ' ',
  ),
)
/** A thing's number that says how long, how old or which: no part of the reckoning. */
const unitNouns = new Set(
  "o'clock minutes minute hours hour years year days day times time weeks week pence door house number numbers ways".split(
    ' ',
  ),
)

/** Numbers of a story with what they count, in the order they are told. */
interface Told {
  n: number
  noun: string
  at: number
  sentence: number
}
function toldIn(sentences: readonly Said[]): Told[] {
  return sentences.flatMap(({ words }, sentence) =>
    words.flatMap((w, i) => {
      if (w.n === null) return w.t === 'none' ? [{ n: 0, noun: '', at: i, sentence }] : []
      const next = words[i + 1]?.t ?? ''
      if (unitNouns.has(next)) return []
      // "two of them", "one of you", "the other one".
      if (
        w.t === 'one' &&
        (['of', 'another'].includes(next) ||
          (i === 0 && ['is', 'was', 'goes'].includes(next)) ||
          ['the', 'that', 'which', 'this', 'no', 'every', 'each', 'other', 'my'].includes(
            words[i - 1]?.t ?? '',
          ))
      )
        return []
      return [{ n: w.n, noun: next, at: i, sentence }]
    }),
  )
}
const changeIn = (words: readonly Word[]): Change | null => {
  const plain = words.map((w) => w.t)
  const springs =
    plain.some((t) => ['hop', 'jump', 'leap', 'spring', 'skip', 'bounce'].includes(verbOf(t) ?? '')) &&
    !plain.includes('back') &&
    plain.some((t) => ['further', 'on', 'forward', 'along'].includes(t))
  const more = springs || plain.some((t) => coming.has(t))
  const less =
    !springs &&
    plain.some(
      (t) => going.has(t) || (isVerbOf(verbOf(t), 'take') && !coming.has(t) && !isVerbOf(verbOf(t), 'put')),
    )
  if (more === less)
    return plain.includes('more') || plain.includes('another')
      ? 'more'
      : plain.includes('away') || plain.includes('off')
        ? 'fewer'
        : null
  return more ? 'more' : 'fewer'
}
const asksAll =
  /\b(altogether|all together|in all|in total|all day|does .* (hold|have)|do .* (hold|have) now|how many .*(are|is) .*(dry|now)|come to|are there now)\b/
const asksLeft =
  /\b(left|remains?|stay(ed|s)?|still|spare|whole|holding|hold|good|over|standing|keep|kept|now|back)\b/
const asksOther =
  /\b(below|underneath|the rest|other|others|hide|hides|hiding|hidden|under|in the (reeds|sack|jar|bag|box|tin)|can you see|down here|up there|missing|empty part|lie)\b/
const asksDifference = /\b(how many more|by how much|how many extra|how many fewer|pass)\b/

/**
 * The answer to a short story of two numbers, where its words leave one way to reckon it; null where they leave none or
 * more. Only the line's own story is read: what was told before may be another one.
 */
export const storyAnswer: (text: string) => number | null = remembered((text) => {
  const sentences = sentencesSaid(text)
  const asks = sentences.filter((s) => s.end === '?')
  if (asks.length !== 1) return null
  const ask = asks[0]!.words.map((w) => w.t).join(' ')
  const numbers = toldIn(sentences)
  if (numbers.length !== 2) return null
  const [a, b] = numbers as [Told, Told]
  const plain = sentences.flatMap((s) => s.words.map((w) => w.t)).join(' ')
  const shared = shareOf(plain, a.n, b.n)
  if (shared !== null) return shared
  if (/\b(each|every|apiece)\b/.test(plain)) return groupsAsked(sentences, ask, a, b)
  if (asksDifference.test(ask)) return Math.abs(a.n - b.n)
  if (otherThing(a, b) && !asksAll.test(ask)) return null
  return changed(sentences, ask, a, b)
})
/** What a story of one change comes to, when what is asked is what there is after it, or what is hidden. */
function changed(sentences: readonly Said[], ask: string, a: Told, b: Told): number | null {
  const second = sentences[b.sentence]!.words
  // What happens is said with the second number: in its own sentence, or after the first number of the same one.
  const joint = second.slice(0, b.at).findLastIndex((w) => ['and', ',', 'then', 'but'].includes(w.t))
  const happens = a.sentence === b.sentence ? second.slice(Math.max(a.at + 1, joint + 1)) : second
  const told = sentences
    .filter((s) => s.end !== '?')
    .map((s) => s.words.map((w) => w.t).join(' '))
    .join(' ')
  const change = changeIn(happens)
  const left = b.n <= a.n ? a.n - b.n : null
  if (asksOther.test(ask) && change !== 'more' && !ofThem(second, b) && !twoOwners(happens, a, b))
    return change === null || /\b(in all|altogether)\b/.test(told) || isLaid(second, b) ? left : null
  if (asksTheChange(ask, happens)) return null
  if (change === 'more' && !/\bleft\b/.test(ask)) return asksNothingElse(ask, told) ? a.n + b.n : null
  return change === 'fewer' && asksLeft.test(ask) && !partOfChange(ask) ? left : null
}
/** "Three of them": the second number is a part of what was told. */
const ofThem = (second: readonly Word[], b: Told): boolean =>
  second
    .slice(b.at)
    .some((w, k, rest) => w.t === 'of' && ['them', 'these', 'those'].includes(rest[k + 1]?.t ?? ''))
/** "Three lie on the plate": told where they are, not what becomes of them. */
const isLaid = (second: readonly Word[], b: Told): boolean =>
  /\b(go|goes|are|is|lie|lies|stands?|sits?|swim|swims) (on|in|at|up|down|where|under|over|there)\b/.test(
    second
      .slice(b.at)
      .map((w) => w.t)
      .join(' '),
  )
const twoOwners = (happens: readonly Word[], a: Told, b: Told): boolean =>
  a.sentence !== b.sentence && /\b(has|have)\b/.test(happens.map((w) => w.t).join(' '))
/** "Seven parcels … three letters": the second number counts things of its own. */
const otherThing = (a: Told, b: Told): boolean =>
  /(?:s|ren|eet|ice)$/.test(b.noun) &&
  b.noun !== a.noun &&
  verbOf(b.noun) === null &&
  !/^(is|was|has|this|goes|comes)$/.test(b.noun)
const helping = new Set(
  'how many much what does do did is are was were there now altogether in all then has have hold holds the he she it they we i you pail jar box bag bowl basket tin house she they gets get and so of a on does'.split(
    ' ',
  ),
)
/** "He finds three more. How many does he find?" asks for the three. */
const asksTheChange = (ask: string, happens: readonly Word[]): boolean => {
  const verbs = new Set(
    happens.map((w) => verbOf(w.t)).filter((v): v is string => v !== null && !['have', 'get'].includes(v)),
  )
  return (
    ask
      .split(' ')
      .some((w) => !helping.has(w) && verbs.has(verbOf(w) ?? '') && !['hold', 'dry'].includes(w)) ||
    happens.some(
      (w) => /^(finds|joins|comes|gets)$/.test(w.t) && ask.includes(w.t.slice(0, -1)) && w.t !== 'gets',
    )
  )
}
const partOfChange = (ask: string): boolean =>
  /\b(more|fewer|took|take|ate|eat|gave|give|lost|lose)\b/.test(ask)
/** All there are is asked for: no word of the question says which, unless the story says it of both. */
function asksNothingElse(ask: string, told: string): boolean {
  const [first, ...rest] = told.split(/\b(?:and|then|more|another)\b/)
  const noun = new Set(told.split(' '))
  return ask.split(' ').every((w) => {
    if (helping.has(w) || !/^\p{L}/u.test(w)) return true
    if (!noun.has(w)) return !/ing$/.test(w) && !/^(small|big|red|blue|old|new)$/.test(w)
    return !/ing$/.test(w) || (first!.includes(w) && rest.join(' ').includes(w))
  })
}
/** "Share ten between two plates. What lies on each?": the share; null when nothing is shared or it cannot be. */
function shareOf(plain: string, whole: number, among: number): number | null {
  if (!/\b(share|shared|same for|fair|fairly|equal|equally)\b/.test(plain)) return null
  if (!/\b(each|every|your share|apiece)\b/.test(plain) || among < 2) return null
  return whole % among === 0 ? whole / among : null
}
/**
 * "Twelve parcels, three in each bag. How many bags are full?" comes to groups; "four bags with three parcels in each.
 * How many parcels?" to things. Null where the words leave open which number is whose.
 */
function groupsAsked(sentences: readonly Said[], ask: string, a: Told, b: Told): number | null {
  const place = placeOfEach(sentences)
  const asked = ask.match(/\bhow many (\w+)/)?.[1] ?? ''
  // "Each" belongs to the number told last before it.
  if (place === null || b.n < 1 || sentences[b.sentence]!.words[b.at + 1]?.t === 'more') return null
  // "Six bags, three parcels in each bag": the bags are told, and only things can be asked for.
  if (same(a.noun, place)) return same(asked, b.noun) ? a.n * b.n : null
  if (same(asked, place) || (same(asked, 'groups') && !same(a.noun, 'groups')))
    return a.n % b.n === 0 || /\bfull\b/.test(ask) ? Math.floor(a.n / b.n) : null
  // Groups told first, then how many in one: things are asked for.
  return !/^\p{L}/u.test(place) && same(asked, b.noun) ? a.n * b.n : null
}
/** What "each" names ("three in each bag": bag), empty where it names nothing; null where nothing is told of each. */
function placeOfEach(sentences: readonly Said[]): string | null {
  const words = sentences.flatMap((s) => (s.end === '?' ? [] : s.words))
  const each = words.find((w) => ['each', 'every', 'apiece'].includes(w.t))
  if (!each) return null
  return each.t === 'apiece' ? '' : (words[words.indexOf(each) + 1]?.t ?? '')
}
/** One thing and several of it are the same thing. */
const same = (x: string, y: string): boolean =>
  x !== '' && y !== '' && x.replace(/(?:es|s)$/, '') === y.replace(/(?:es|s)$/, '')
/** "You and a friend, the same for both": one number shared by two. */
export const shareOfTwo: (text: string) => number | null = remembered((text) => {
  const sentences = sentencesSaid(text)
  const numbers = toldIn(sentences)
  const plain = sentences.flatMap((s) => s.words.map((w) => w.t)).join(' ')
  if (
    numbers.length !== 1 ||
    !/\bboth\b|\byou and (a|your|me)\b/.test(plain) ||
    !/\bshare|same for\b/.test(plain)
  )
    return null
  return numbers[0]!.n % 2 === 0 ? numbers[0]!.n / 2 : null
})

/** A story as it stands after some lines: the number it has come to, or two numbers waiting for what they make. */
export interface Ledger {
  /** Numbers it may be said to have come to now. */
  now: readonly number[]
  /** What is left when the second number goes from the first. */
  less: number
  /** Its numbers so far: saying one of them again is no claim. */
  said: readonly number[]
}
/** What told sentences come to: "four sat on the pot, and three joined them" is seven. Null when they tell no change. */
export const ledgerOf: (text: string) => Ledger | null = remembered((text) => {
  const sentences = sentencesSaid(text)
  if (sentences.some((s) => s.end === '?')) return null
  const words = sentences.flatMap((s) => s.words)
  const sum = words.map((_, i) => expressionAt(words, i)).find((e) => e?.made && e.to >= words.length)
  if (sum && sum.from === 0) return { now: [sum.value], less: sum.value, said: [] }
  const numbers = toldIn(sentences)
  if (numbers.length !== 2) return null
  const [a, b] = numbers as [Told, Told]
  const between = sentences.flatMap((s, k) =>
    k === a.sentence ? s.words.slice(a.at + 1) : k > a.sentence ? s.words : [],
  )
  if (b.n === 0) return { now: [a.n], less: a.n, said: [a.n] }
  const less = a.n - b.n
  const said = [a.n, b.n]
  // "Four boys and three girls": side by side, they are counted together.
  const joined =
    a.sentence === b.sentence &&
    sentences[a.sentence]!.words.slice(a.at, b.at).some((w) => w.t === 'and') &&
    b.at - a.at <= 4 &&
    [a, b].every((x) => /^\p{L}/u.test(x.noun) && !['and', 'is', 'are', 'or'].includes(x.noun))
  const change = changeIn(between)
  if (change === null) return joined ? { now: [a.n + b.n], less, said } : null
  return {
    now: [...(change === 'more' || joined ? [a.n + b.n] : []), ...(change === 'fewer' ? [less] : [])],
    less,
    said,
  }
})
/** The one number a sentence says a story has come to: "Now eight snails sit there"; null when it says none or several. */
export const cameTo: (text: string) => number | null = remembered((text) => {
  const sentences = sentencesSaid(text)
  const numbers = toldIn(sentences)
  if (numbers.length !== 1 || sentences.some((s) => s.end === '?')) return null
  return numbers[0]!.n
})
