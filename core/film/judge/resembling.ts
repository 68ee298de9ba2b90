import type { HeardWord } from '../../contracts/heard.ts'
import { substitution } from '../ear/sounds.ts'
import { cost, type Followed } from '../follow/align.ts'
import type { SpokenLine } from '../follow/spoken.ts'

/** What a word too many or too few costs when two lines are held against the same sound: as in following the script. */
const { insert: tooMany, delete: tooFew } = cost
/** What was said fits another line as well when it fits it worse by less than about one word. */
const margin = 0.9
/** Lines this far from one that is missing may have been said in its place: people lose their place nearby. */
const nearby = 4

/** How badly heard words fit a line, in words. */
function misfit(words: readonly string[], heard: readonly string[]): number {
  let row = Array.from({ length: heard.length + 1 }, (_, j) => j * tooMany)
  for (const word of words) {
    const next = [row[0]! + tooFew]
    heard.forEach((h, j) =>
      next.push(Math.min(row[j]! + substitution(word, h), row[j + 1]! + tooFew, next[j]! + tooMany)),
    )
    row = next
  }
  return row.at(-1)!
}

/**
 * Whether a line that seems to be left out may be the one that was said, and a line near it that resembles it the one
 * that was not: what was heard of that one fits this one as well. Then which of them is missing is a doubt.
 */
export function mayBeAnother(
  i: number,
  lines: readonly SpokenLine[],
  followed: Followed,
  heard: readonly HeardWord[],
): boolean {
  return lines.some((other, j) => {
    if (j === i || Math.abs(j - i) > nearby || other.numbers !== null || lines[i]!.numbers !== null)
      return false
    const at = followed.final[j]?.words.filter((w) => w !== null) ?? []
    if (!at.length) return false
    const said = heard.slice(at[0], at.at(-1)! + 1).map((w) => w.word)
    return misfit(lines[i]!.words, said) - misfit(other.words, said) < margin
  })
}
