import type { PhotoLaid } from '../contracts/lesson.ts'
import type { PackTask } from '../contracts/pack.ts'
import { numbersIn, parseNumber, tokens } from '../plan/numbers/names.ts'

const count = String.raw`(two|three|four|five|six|[2-6])`
const group = String.raw`(?:groups|heaps|piles|rows|plates|bowls|boxes|trays|rings|hoops|parts|houses|shelves|pigeon-?holes|sides|friends|neighbours|people|children|bears|dolls)`
const several = new RegExp(String.raw`\b${count}\s+(?:\w+\s+)?${group}\b`, 'i')
const equal =
  /\b(share[sd]?|fair(ly)?|the same (number|amount)|as many (on|in) each|equal(ly)?|gets? the same|get the same|half|halves|double)\b/i
const goes =
  /\b(move|push|slide|put|take)\b[^.]*\b(away|aside|apart|off)\b[^.]*?(\bthat go\b|\bthe ones\b)?|\bthe ones that go\b/i
const frame = /\bten[- ]frames?\b|\begg ?box(es)?\b|\bone ten\b|\btwo rows of five\b/i

/**
 * How the things of a photo are to lie: as the task's own words have it, or as its writer set it; null where any way
 * of showing them will do. Only words that name places are taken; where they leave it open nothing is looked for.
 */
export function laidOf({ prompt, spec }: Pick<PackTask, 'prompt' | 'spec'>): PhotoLaid | null {
  if (spec.kind !== 'photo') return null
  if (spec.laid) return spec.laid
  // What is said of taking the photo says nothing of how things lie.
  const words =
    prompt.split(
      /\b(?:then )?(?:ask|let) [^.]*?(?:take|photograph)\b|\b(?:then )?(?:take|send) (?:a|one|us) photo\b/i,
    )[0] ?? prompt
  const n = several.exec(words)
  const groups = n ? (parseNumber(n[1]!) ?? Number(n[1])) : null
  if (goes.test(words) && /\bgo\b|\baway\b/i.test(words)) {
    const found = numbersIn(tokens(words)).map((x) => x.value)
    const go = found.length === 2 ? found[1]! : null
    return go === null ? null : { as: 'gone', go }
  }
  const marked = markedOf(words)
  if (marked) return marked
  const split = twoRows(words)
  if (split) return { as: 'parts', parts: 2, split }
  if (/\beach half of a folded\b|\bboth halves\b/i.test(words)) return { as: 'shares', plates: 2 }
  if (groups !== null && equal.test(words)) return { as: 'shares', plates: groups }
  if (groups !== null && !frame.test(words)) return { as: 'parts', parts: groups }
  if (frame.test(words)) return { as: 'frame' }
  return null
}
const numbers = (words: string): number[] => numbersIn(tokens(words)).map((x) => x.value)
/** Towers, sides, strokes and dice, where the words name them with their numbers. */
function markedOf(words: string): PhotoLaid | null {
  if (/\btally\b|\btallies\b/i.test(words)) return { as: 'tally' }
  const heights = numbers(/\btowers? of\b([^.!?]*)/i.exec(words)?.[1] ?? '').filter((n) => n > 0 && n <= 20)
  if (heights.length && heights.length <= 10) return { as: 'towers', heights }
  const crossed =
    /\bcross(?:ed)?\s+(?:off|out)?\s*(\w+)|\bcross\s+(\w+)(?: of (?:them|those))?\s+(?:off|out)\b/i.exec(
      words,
    )
  const n = crossed && [crossed[1], crossed[2]].flatMap((w) => (w ? [parseNumber(w)] : []))[0]
  if (n) return { as: 'crossed', crossed: n }
  const side = /\b((?:\w+ ){1,4})on (?:one|the (?:left|first)) side\b/i.exec(words)
  const one = side?.[1]!
    .split(' ')
    .map(parseNumber)
    .find((n) => n !== null)
  if (one !== undefined && one !== null && /\b(pegs?|rail|string|hanger|line|row)\b/i.test(words))
    return { as: 'sides', one }
  return null
}
/** "Put six in one row and four in another". */
function twoRows(words: string): number[] | null {
  const m =
    /\b(\w+)(?: of your own things| things| \w+)? (?:in|on) one (?:\w+),? and (\w+)(?: \w+)? (?:in|on) (?:another|the other)\b/i.exec(
      words,
    )
  if (!m) return null
  const [a, b] = [parseNumber(m[1]!), parseNumber(m[2]!)]
  return a === null || b === null ? null : [a, b]
}
