import { readNumberAt } from '../../plan/numbers/names.ts'
import { remembered } from '../../remember.ts'

/** One word of a line, or several that stand for one number, with where it stands. */
export interface Word {
  /** In lower case; a number's own words joined by spaces. */
  t: string
  from: number
  to: number
  /** What it counts, when it is a number (0–1000). */
  n: number | null
  /** Which in a row: "third" is 3; "last" is −1, "middle" 0. */
  ord: number | null
}

export const ordinals = [
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
  'thirteenth',
  'fourteenth',
  'fifteenth',
  'sixteenth',
  'seventeenth',
  'eighteenth',
  'nineteenth',
  'twentieth',
] as const
const whichOf: ReadonlyMap<string, number> = new Map<string, number>([
  ...ordinals.map((w, i) => [w, i + 1] as const),
  ['last', -1],
  ['middle', 0],
])
/** Words for a number that are not its name: "a dozen", "a couple of". */
const otherNumbers: readonly (readonly [readonly string[], number])[] = [
  [['half', 'a', 'dozen'], 6],
  [['a', 'dozen'], 12],
  [['a', 'couple', 'of'], 2],
  [['a', 'couple'], 2],
  [['a', 'single'], 1],
  [['twice'], 2],
  [['once'], 1],
]
/**
 * Several words that stand as one. Numbers that say how and not how many ("one at a time"), places without a noun ("up
 * top"), turns of phrase that move nothing ("side by side"), and prepositions of more than one word.
 */
const phrases: readonly (readonly string[])[] = [
  ...'one to one|one at a time|one by one|two by two|one after another|one after the other|one another|in one go|at once'.split(
    '|',
  ),
  ...'up top|up high|up above|up there|down below|down low|down there|down here'.split('|'),
  ...'on the end|at the end|at the top|at the bottom|in front|side by side|left to right|from left to right'.split(
    '|',
  ),
  ...'with me|for me|in turn|plink by plink|as well|half way round|halfway round'.split('|'),
  ...'with a bean|with my hand|with your hand|with both hands|with one hand|with a finger|to begin with'.split(
    '|',
  ),
  ...'to start with|this time|all of it|all of them|of them all|the same for everyone|from there|from here'.split(
    '|',
  ),
  ...'where they came from|where it came from|to the other side|on your knees|behind your back|behind my back|once more|and so on|face down|face up|blue side up|saffron side up|on top|to one side'.split(
    '|',
  ),
  ...'out of|next to|on top of|on the top of|at the top of|at the end of|on the end of|to the edge of'.split(
    '|',
  ),
  ...'in front of|as far as|off of|in among|in beside'.split('|'),
]
  .map((p) => p.split(' '))
  .sort((x, y) => y.length - x.length)
const starts = (raw: readonly string[], i: number, words: readonly string[]): boolean =>
  words.every((w, k) => raw[i + k] === w)

/** The words of a line with their places; punctuation stays, since it parts one act from the next. */
export const wordsOf: (text: string) => readonly Word[] = remembered((text) => {
  const raw = [...text.toLowerCase().matchAll(/\d+|[\p{L}]+(?:['’][\p{L}]+)?|_{2,}|□|[+=×−–-]|[.,;:…?!]/gu)]
  // A hyphen joins ("part-whole", "twenty-one") unless it stands between numbers or by itself.
  const kept = raw.filter((m, i) => m[0] !== '-' || !joins(text, m.index, raw[i + 1]?.[0]))
  const all = kept.map((m) => m[0].replace('’', "'"))
  const out: Word[] = []
  for (let i = 0; i < all.length;) {
    const piece = pieceAt(all, i)
    out.push({
      t: all.slice(i, piece.to).join(' '),
      from: kept[i]!.index,
      to: kept[piece.to - 1]!.index + kept[piece.to - 1]![0].length,
      n: piece.n,
      ord: whichOf.get(all[i]!) ?? null,
    })
    i = piece.to
  }
  return out
})
const joins = (text: string, at: number, next: string | undefined): boolean =>
  /\p{L}/u.test(text[at - 1] ?? '') && next !== undefined && /^\p{L}/u.test(next)

function pieceAt(all: readonly string[], i: number): { to: number; n: number | null } {
  const fixed = phrases.find((words) => starts(all, i, words))
  if (fixed) return { to: i + fixed.length, n: null }
  const other = otherNumbers.find(([words]) => starts(all, i, words))
  if (other) return { to: i + other[0].length, n: other[1] }
  // "none" and "nothing" are words about groups here; "double" is done to what lies there.
  if (all[i] === 'none' || all[i] === 'nothing' || all[i] === 'double') return { to: i + 1, n: null }
  // "two fours" would be a double: on a table they are two things worth four.
  const found = /s$/.test(all[i + 1] ?? '') ? readNumberAt([all[i]!], 0) : readNumberAt(all, i)
  const shift = found && /s$/.test(all[i + 1] ?? '') ? i : 0
  return found && found.value <= 1000 ? { to: found.to + shift, n: found.value } : { to: i + 1, n: null }
}
