import { type Group, groupAt, placeGroup, startsQuantity } from './groups.ts'
import { determiners, fillers, particles, placeNouns, prepositions, pronouns } from './lexicon.ts'
import { isVerbOf, verbOf } from './verbs.ts'
import type { Word } from './words.ts'

/** A part of a clause: a group, alone or after a preposition. */
export interface Part {
  prep: string | null
  group: Group
}
/** One act as it is said: its verb, who does it, the groups with it in order. Not yet a meaning. */
export interface Clause {
  verb: string | null
  /** The verb is the one before it on the line, not said again. */
  elided?: boolean
  /** Words in quotation marks, parted at commas. */
  quoted?: readonly string[]
  /** What stands before the verb: "Three bees", "The ball", "Nan". */
  subject: Part | null
  parts: readonly Part[]
  particles: ReadonlySet<string>
  words: readonly Word[]
  /** Words no part and no filler accounts for. */
  loose: readonly Word[]
}

/** Prepositions of more than one word, and pairs of them that mean one. */
const sameAs: Readonly<Record<string, string>> = {
  'out of': 'out of',
  'next to': 'beside',
  'on top of': 'on',
  'on the top of': 'on',
  'at the top of': 'on',
  'at the end of': 'on',
  'on the end of': 'on',
  'to the edge of': 'along',
  'in front of': 'before',
  'as far as': 'until',
  'off of': 'off',
  'in among': 'in',
  'in beside': 'beside',
}
const doubled: readonly (readonly [string, string])[] = [
  ['up', 'in'],
  ['up', 'on'],
  ['up', 'to'],
  ['down', 'to'],
  ['down', 'in'],
  ['down', 'on'],
  ['down', 'onto'],
  ['over', 'to'],
  ['across', 'to'],
  ['along', 'to'],
  ['back', 'to'],
  ['back', 'in'],
  ['back', 'on'],
  ['along', 'from'],
  ['across', 'from'],
]
/** Places that need no noun. */
const placeWords: Readonly<Record<string, 'top' | 'bottom'>> = {
  'up top': 'top',
  'up high': 'top',
  'up above': 'top',
  'up there': 'top',
  'down below': 'bottom',
  'down low': 'bottom',
  'down there': 'bottom',
  'down here': 'bottom',
}
/** "so that it is fair", "so nobody can see": a reason, which no hand carries out. */
const reasons = new Set(['so', 'because', 'while', 'that'])

/** The acts a line says, each with its words: parted by "then", a full stop, a semicolon, and by "and" before a verb. */
export function clausesOf(words: readonly Word[]): Word[][] {
  const out: Word[][] = [[]]
  words.forEach((w, i) => {
    if (parts(words, i, out.at(-1)!)) out.push([])
    if (!(['.', ';', '!', '?', '…'].includes(w.t) || (w.t === 'then' && out.at(-1)!.length === 0)))
      out.at(-1)!.push(w)
  })
  return out.filter((c) => c.some((w) => /[\p{L}\d]/u.test(w.t)))
}
function parts(words: readonly Word[], i: number, sofar: readonly Word[]): boolean {
  const w = words[i]!
  if (['.', ';', '!', '?', '…', 'then'].includes(w.t)) return true
  if (w.t === 'until' && verbOf(words[i + 2]?.t ?? '') !== null && words[i + 1]?.n === null) return false
  if (w.t !== 'and' && w.t !== ',' && w.t !== ':') return false
  // "However many are left, they go on plate 2": what comes before has no act of its own yet.
  if (w.t === ',' && !sofar.some((x, k) => saysVerb(sofar, k) && x.t !== 'are' && x.t !== 'is')) return false
  if (w.t === ':' && sofar.some((_, k) => saysVerb(sofar, k)) && actFollows(words, i + 1)) return true
  let k = i + 1
  while (words[k] && (fillers.has(words[k]!.t) || words[k]!.t === 'and') && words[k]!.t !== 'let') k++
  const next = words[k]
  if (!next) return false
  if (['it', 'they', 'she', 'he', 'we', 'i'].includes(next.t) && words[k + 1]) return saysVerb(words, k + 1)
  // "… and jumps back four": the one who did the first does this too.
  const third =
    w.t === 'and' &&
    sofar.some((_, x) => saysVerb(sofar, x) || verbOf(sofar[x]!.t) !== null) &&
    /s$/.test(next.t) &&
    verbOf(next.t) !== null
  if (third && words[k + 1] && (particles.has(words[k + 1]!.t) || words[k + 1]!.n !== null)) return true
  return saysVerb(words, k)
}
/** "Roll the ball: five fall down": somebody does something after the colon, before the line stops. */
function actFollows(words: readonly Word[], i: number): boolean {
  for (let k = i; words[k] && !['.', ';', ','].includes(words[k]!.t); k++)
    if (saysVerb(words, k) && !['is', 'are'].includes(words[k]!.t) && k > i) return true
  return false
}
/** Whether a word is a verb where it stands, not the name of a thing. */
function saysVerb(words: readonly Word[], i: number): boolean {
  const w = words[i]!
  if (w.n !== null || (verbOf(w.t) === null && !['is', 'are'].includes(w.t))) return false
  const next = words[i + 1]
  if (/s$/.test(w.t) && (words[i - 1]?.n ?? null) !== null) return false
  // "spots on the other side", "hops forward": a noun in the plural is followed by no thing of its own.
  return (
    !/s$/.test(w.t) ||
    next === undefined ||
    next.n !== null ||
    determiners.has(next.t) ||
    /^(is|points|shows|gets|goes|lands|comes)$/.test(w.t) ||
    /^(is|goes|shows)/.test(w.t) ||
    pronouns.has(next.t)
  )
}

/** Reads the words of one act into its verb, groups and particles. */
export function readClause(words: readonly Word[]): Clause {
  const into: Reading = { found: [], particlesSaid: new Set(), loose: [], verb: null, verbAt: -1 }
  let subject: Part | null = null
  for (let i = 0; i < words.length;) {
    const w = words[i]!
    if (reasons.has(w.t) && i > 0 && isReason(words, i)) break
    // "Add one to make ten": what for, which no hand carries out.
    if (
      w.t === 'to' &&
      into.verb !== null &&
      ['make', 'fill', 'get', 'have', 'see', 'check', 'show', 'help'].includes(words[i + 1]?.t ?? '')
    )
      break
    if ((w.t === 'until' || w.t === 'till') && !words.slice(i).some((x) => x.n !== null)) break
    if (into.verb === null && startsVerb(words, i)) {
      into.verb = verbOf(w.t)
      subject = into.found[0] ?? null
      // "However many are left, they …": the pronoun stands for what was named first.
      if (into.found.length > 1 && into.found[1]!.group.pronoun === null)
        into.loose.push(...words.slice(into.found[1]!.group.from, i))
      into.found.length = 0
      into.verbAt = i
      i++
    } else i = nextPart(words, i, into)
  }
  return {
    verb: into.verb,
    ...withTopic(subject, into.found),
    particles: into.particlesSaid,
    words,
    loose: into.loose,
  }
}
interface Reading {
  found: Part[]
  particlesSaid: Set<string>
  loose: Word[]
  verb: string | null
  verbAt: number
}
/** "However many beans are left, drop them in": "them" are the beans that are left. */
function withTopic(subject: Part | null, parts: readonly Part[]): Pick<Clause, 'subject' | 'parts'> {
  if (subject?.group.quantity !== 'rest' && subject?.group.quantity !== 'all') return { subject, parts }
  const pronoun = parts.findIndex((p) => p.prep === null && p.group.pronoun !== null)
  if (pronoun < 0) return { subject, parts }
  return { subject: null, parts: parts.map((p, i) => (i === pronoun ? { ...p, group: subject.group } : p)) }
}
const isReason = (words: readonly Word[], i: number): boolean =>
  (words[i]!.t !== 'so' && words[i]!.t !== 'that') ||
  ['that', 'nobody', 'it', 'they', 'we', 'you', 'the', 'everyone', 'i', 'everybody', 'there'].includes(
    words[i + 1]?.t ?? '',
  )
    ? words[i]!.t !== 'that'
    : false

/** A verb begins here: not where "the", a number or a colour makes it a thing. */
function startsVerb(words: readonly Word[], i: number): boolean {
  if (verbOf(words[i]!.t) === null) return false
  // "Part one holds five": a place and its number.
  if (
    words[i]!.t in placeNouns &&
    words[i + 1]?.n != null &&
    words[i + 2] !== undefined &&
    verbOf(words[i + 2]!.t) !== null
  )
    return false
  const before = words[i - 1]
  if (!before || before.t === ',' || before.t === ':') return true
  if (words[i]!.t === 'let' && i > 0) return true
  return (
    !(
      before.n !== null &&
      !/^(knocks?|topples?|falls?|goes?|go|roll|blow|fly|hop|swim|run)$/.test(words[i]!.t)
    ) &&
    !determiners.has(before.t) &&
    before.t !== 'of' &&
    !prepositions.has(before.t) &&
    before.ord === null
  )
}

function nextPart(words: readonly Word[], i: number, into: Reading): number {
  const w = words[i]!
  if (/^[^\p{L}\d]/u.test(w.t)) return i + 1
  const place = placeWords[w.t]
  if (place) {
    into.found.push({ prep: 'on', group: placeGroup(place, i) })
    return i + 1
  }
  const pair = doubled.find(([a, b]) => w.t === a && words[i + 1]?.t === b)
  const prep = startsQuantity(words, i)
    ? null
    : pair
      ? pair[1]
      : (sameAs[w.t] ?? (prepositions.has(w.t) ? w.t : null))
  if (prep) {
    const after = i + (pair ? 2 : 1)
    const group = groupAt(words, after)
    if (group && !actsAsParticle(words, i, group, into)) {
      into.found.push({ prep, group })
      if (pair) into.particlesSaid.add(w.t)
      return group.to
    }
    into.particlesSaid.add(w.t)
    // A preposition with nothing after it only changes the verb: "put the lid on".
    if (!particles.has(w.t) && !changers.has(w.t)) into.loose.push(w)
    return i + 1
  }
  const group = groupAt(words, i)
  if (group && group.to > i) {
    into.found.push({ prep: null, group })
    return group.to
  }
  if (particles.has(w.t) || (w.t.includes(' ') && w.n === null)) into.particlesSaid.add(w.t)
  else if (!fillers.has(w.t) && !determiners.has(w.t) && !pronouns.has(w.t)) leftAlone(w, into)
  return i + 1
}
const changers = new Set('as for with of by through under to from between below above at next'.split(' '))
const quiet = new Set(
  'me you and is are worth side way each until till everyone be it they goes as many how'.split(' '),
)
function leftAlone(w: Word, into: Reading): void {
  const also = verbOf(w.t)
  // "let them fall": the verb that follows is the one that is done.
  if (also !== null && into.verb !== null) into.particlesSaid.add(also)
  else if (quiet.has(w.t)) into.particlesSaid.add(w.t)
  else into.loose.push(w)
}
/** Right after its verb "off", "over", "up" … belong to it: "take off 3", "turn over the cards", "hop on 4". */
function actsAsParticle(words: readonly Word[], i: number, group: Group, { verb, verbAt }: Reading): boolean {
  if (verb === null || i !== verbAt + 1) return false
  const w = words[i]!.t
  if (['out', 'off', 'over', 'up', 'down', 'back', 'away', 'along', 'round', 'together'].includes(w))
    return words[i + 1]?.t !== 'of' && !(group.mat !== null && w === 'along')
  return (
    (w === 'on' || w === 'in') &&
    group.mat === null &&
    (group.n !== null || group.quantity !== null) &&
    !isVerbOf(verb, 'start') &&
    verb !== 'land'
  )
}
