import type { Word } from '../words.ts'
import { afterNoun, termAt, textOf } from './terms.ts'

/** Equal groups told in words, as one number. */
interface Groups {
  value: number
  to: number
}
const sizes = new Map(
  ['twos', 'threes', 'fours', 'fives', 'sixes', 'sevens', 'eights', 'nines', 'tens'].map((t, i) => [
    t,
    i + 2,
  ]),
)
/** "Parts of ten", "three out of five": a piece of a whole, not groups of it. */
const pieces = /^(parts?|halves|thirds|quarters|out|pieces|ones)$/
const isEach = (w: Word | undefined): boolean => w?.t === 'each' || w?.t === 'every'
const isPlace = (w: Word | undefined): boolean => ['on', 'in', 'at', 'for', 'to'].includes(w?.t ?? '')

/** Behind "on each", "in every bag", "each one": null where nothing says each. */
function pastEach(words: readonly Word[], i: number): number | null {
  const at = isPlace(words[i]) ? i + 1 : i
  if (!isEach(words[at])) return null
  return words[at + 1]?.t === 'one' ? at + 2 : afterNoun(words, at + 1)
}
/** "Four plates and two on each", "three plates with two buns on each". */
function nextToEach(words: readonly Word[], i: number): Groups | null {
  const count = words[i]!.n!
  const noun = afterNoun(words, i + 1)
  if (noun === i + 1) return null
  const joined = ['and', 'with', ',', 'of'].includes(words[noun]?.t ?? '') ? noun + 1 : noun
  const each = words[words[joined]?.t === 'there' ? joined + 2 : joined]
  if (joined === noun || each?.n == null) return null
  const to = pastEach(words, afterNoun(words, words.indexOf(each) + 1))
  return to === null ? null : { value: count * each.n, to }
}
/** "Two biscuits on each of four plates", "two in each bag and five bags". */
function eachFirst(words: readonly Word[], i: number): Groups | null {
  const each = words[i]!.n!
  const place = afterNoun(words, i + 1)
  if (!isPlace(words[place]) || !isEach(words[place + 1])) return null
  let at = afterNoun(words, place + 2)
  if (words[at]?.t === 'of' || words[at]?.t === 'and') at++
  else return null
  if (words[at]?.t === 'the') at++
  const count = words[at]
  if (count?.n == null) return null
  const to = afterNoun(words, at + 1)
  return to === at + 1 ? null : { value: count.n * each, to }
}
/** "Three lots of two", "two rows of five", "five twos", "three pairs". */
function lotsOf(words: readonly Word[], i: number): Groups | null {
  const count = words[i]!.n!
  const kind = words[i + 1]
  if (!kind || count < 2) return null
  const size = kind.t === 'pairs' ? 2 : sizes.get(kind.t)
  if (size !== undefined && words[i + 2]?.t !== 'of') return { value: count * size, to: i + 2 }
  const of = afterNoun(words, i + 1)
  if (words[of]?.t !== 'of' || of === i + 1 || pieces.test(words[of - 1]!.t) || !/s$/.test(words[of - 1]!.t))
    return null
  const inner = words[of + 1]
  // "Two pairs of five children" tells of two at a time, whatever they come from.
  if (inner?.n == null || kind.t === 'pairs') return null
  return { value: count * inner.n, to: afterNoun(words, of + 2) }
}

/** Behind ", that makes", "are", "is": where what they come to is said. */
function whatTheyMake(words: readonly Word[], i: number): number | null {
  let at = i
  while ([',', ':', '–', 'that', 'which', 'it', 'they', 'altogether'].includes(words[at]?.t ?? '')) at++
  return ['is', 'are', 'makes', 'make', 'equals', 'gives'].includes(words[at]?.t ?? '') ? at + 1 : null
}
/** What may stand before equal groups without making them a part of something else. */
const opens = new Set([',', ':', '–', 'so', 'then', 'now', 'yes', 'because', 'are', 'see'])

/**
 * "Four plates and two on each makes ten", "Three lots of two is seven": equal groups held against what they are
 * said to come to. null where the words do not tell of groups and a whole and nothing else.
 */
export function groupsOf(words: readonly Word[], i: number): { text: string; right: string } | 'so' | null {
  if (words[i]?.n == null || (i > 0 && !opens.has(words[i - 1]!.t))) return null
  const groups = nextToEach(words, i) ?? eachFirst(words, i) ?? lotsOf(words, i)
  const from = groups && whatTheyMake(words, groups.to)
  const said = from === null ? null : termAt(words, from)
  if (!groups || !said || said.made) return null
  // "Two rows of five is one frame": what is said to be one is another thing than what was counted.
  const counted = words.slice(i, groups.to).map((w) => w.t)
  const of = words.slice(said.from + 1, said.to)
  if (of.some((w) => !counted.includes(w.t))) return null
  // "That is three jars": the number of groups, or of one group, said again.
  if (of.length && words.slice(i, groups.to).some((w) => w.n === said.value)) return null
  const rest = words.slice(said.to).map((w) => w.t)
  if (rest.length && !/^(altogether|in all|in total)$/.test(rest.join(' '))) return null
  return said.value === groups.value ? 'so' : { text: textOf(words, i, said.to), right: String(groups.value) }
}
