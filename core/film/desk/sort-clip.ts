import type { Seconds } from '../../contracts/units.ts'
import type { HeardWord } from '../../contracts/heard.ts'
import { type HouseStyle } from '../../contracts/house-style.ts'
import type { Segment } from '../../contracts/lesson.ts'
import type { TakeMark } from '../../contracts/take.ts'
import { follow } from '../follow/align.ts'
import { inCount, soundsLike } from '../ear/sounds.ts'
import { spokenLines, type SpokenLine } from '../follow/spoken.ts'

interface SegmentMatch {
  segmentId: string
  /** Share of the segment's words heard in the clip, 0–1, those few segments have counting most. */
  score: number
  /** What was heard that belongs to it, longest first. */
  phrases: string[]
}
export interface Sorted {
  /** Best first; only segments of which something was heard. */
  matches: SegmentMatch[]
  /** The segment it is a take of; null where none stands out. */
  segmentId: string | null
  /** Stretches of a clip in which several segments are said one after another: seconds. Empty where it is one take. */
  parts: { segmentId: string; from: Seconds; to: Seconds }[]
  /** Why, in a sentence. */
  reason: string
}
/** A segment is recognised from this share of its words on, and only this far ahead of the next best. */
const [enough, ahead] = [0.4, 0.15]
/** A segment counts as said within a longer recording from this share on. */
const saidWithin = 0.6

/**
 * Which segment a clip is a take of, by what is said in it. `words` must have been recognised with the whole lesson
 * in mind. Segments that share lines are told apart by the words and numbers only one of them has.
 */
export function sortClip(
  segments: readonly Segment[],
  words: readonly HeardWord[],
  duration: Seconds,
  style: HouseStyle,
): Sorted {
  const mine = segments
    .map((s) => ({ id: s.id, title: s.title, lines: spokenLines(s, style) }))
    .filter((s) => s.lines.length > 0)
  if (words.length < 3)
    return {
      matches: [],
      segmentId: null,
      parts: [],
      reason: words.length ? 'Only a word or two was heard in it.' : 'Nothing was heard in it.',
    }
  const spread = pairsIn(mine.map((s) => s.lines))
  const matches = mine
    .map((s) => matchOf(s.id, s.lines, words, spread, mine.length))
    .filter((m) => m.score > 0.05)
    .sort((a, b) => b.score - a.score)
  const [best, next] = [matches[0], matches[1]]
  const title = (id: string): string => mine.find((s) => s.id === id)!.title
  const parts = best ? partsOf(mine, words, duration) : []
  if (parts.length > 1)
    return {
      matches,
      segmentId: null,
      parts,
      reason: `${parts.length} segments are said in it, from “${title(parts[0]!.segmentId)}” to “${title(parts.at(-1)!.segmentId)}”.`,
    }
  if (!best || best.score < 0.15)
    return { matches, segmentId: null, parts: [], reason: 'Hardly a word of this lesson is said in it.' }
  if (best.score < enough)
    return {
      matches,
      segmentId: null,
      parts: [],
      reason: `Only ${Math.round(best.score * 100)} % of “${title(best.segmentId)}” is said in it.`,
    }
  if (next && best.score - next.score < ahead)
    return {
      matches,
      segmentId: null,
      parts: [],
      reason: `It could be “${title(best.segmentId)}” or “${title(next.segmentId)}”.`,
    }
  return {
    matches,
    segmentId: best.segmentId,
    parts: [],
    reason: `${Math.round(best.score * 100)} % of “${title(best.segmentId)}” is said in it: “${best.phrases[0] ?? ''}”.`,
  }
}

const plain = (w: string): string => inCount(w)
/** For each pair of neighbouring words, in how many segments it stands. */
function pairsIn(segments: readonly (readonly SpokenLine[])[]): Map<string, number> {
  const spread = new Map<string, number>()
  for (const lines of segments)
    for (const pair of new Set(lines.flatMap((l) => pairsOf(l.words))))
      spread.set(pair, (spread.get(pair) ?? 0) + 1)
  return spread
}
const pairsOf = (words: readonly string[]): string[] =>
  words.slice(1).map((w, i) => `${plain(words[i]!)} ${plain(w)}`)

function matchOf(
  segmentId: string,
  lines: readonly SpokenLine[],
  words: readonly HeardWord[],
  spread: ReadonlyMap<string, number>,
  all: number,
): SegmentMatch {
  const { final } = follow(lines, words)
  let [got, sum] = [0, 0]
  const phrases: { text: string; worth: number }[] = []
  lines.forEach((line, i) => {
    const attempt = final[i]
    const said = line.words.map((w, k) => {
      const at = attempt?.words[k] ?? null
      return at !== null && soundsLike(plain(w), plain(words[at]!.word))
    })
    let [run, worth] = [said[0] ? [line.words[0]!] : [], 0]
    pairsOf(line.words).forEach((pair, k) => {
      // A pair of words that stands in every segment tells next to nothing.
      const weight = Math.log((all + 1) / (spread.get(pair) ?? 1)) + 0.05
      sum += weight
      const both = said[k]! && said[k + 1]!
      if (both) {
        got += weight
        worth += weight
        run.push(line.words[k + 1]!)
      } else {
        if (run.length > 2) phrases.push({ text: run.join(' '), worth })
        ;[run, worth] = [said[k + 1] ? [line.words[k + 1]!] : [], 0]
      }
    })
    if (run.length > 2) phrases.push({ text: run.join(' '), worth })
  })
  return {
    segmentId,
    score: sum > 0 ? got / sum : 0,
    phrases: phrases
      .sort((a, b) => b.worth - a.worth)
      .slice(0, 3)
      .map((p) => p.text),
  }
}

/** Where each segment said in a long recording begins and ends: cut in the middle of what lies between two of them. */
function partsOf(
  segments: readonly { id: string; lines: readonly SpokenLine[] }[],
  words: readonly HeardWord[],
  duration: Seconds,
): Sorted['parts'] {
  const lines = segments.flatMap((s) => s.lines.map((l) => ({ ...l, segmentId: s.id })))
  const { lineOf, final } = follow(lines, words)
  const spans = segments
    .flatMap((s) => {
      const own = lines.flatMap((l, i) => (l.segmentId === s.id ? [i] : []))
      const said = own.reduce((n, i) => n + (final[i]?.words.filter((w) => w !== null).length ?? 0), 0)
      const total = own.reduce((n, i) => n + lines[i]!.words.length, 0)
      const ats = lineOf.flatMap((l, k) => (l !== null && lines[l]!.segmentId === s.id ? [k] : []))
      return said / total >= saidWithin
        ? [{ segmentId: s.id, first: words[ats[0]!]!.start, last: words[ats.at(-1)!]!.end }]
        : []
    })
    .sort((a, b) => a.first - b.first)
  return spans.map((s, i) => ({
    segmentId: s.segmentId,
    from: i === 0 ? 0 : Math.max(0, (spans[i - 1]!.last + s.first) / 2),
    to: i === spans.length - 1 ? duration : (s.last + spans[i + 1]!.first) / 2,
  }))
}

/** The stretches between the marks at which the prompter went on to a segment; those under two seconds were only passed through. */
export function partsFromMarks(marks: readonly TakeMark[], seconds: Seconds): Sorted['parts'] {
  const begins = marks.filter((m) => m.kind === 'segment').sort((a, b) => a.at - b.at)
  const within = marks.find((m) => m.kind === 'within') ?? { at: 0, to: seconds }
  return begins
    .map((m, i) => ({
      segmentId: m.segmentId,
      from: i === 0 ? within.at : m.at,
      to: begins[i + 1]?.at ?? Math.min(seconds, within.to),
    }))
    .filter((p) => p.to - p.from > 2)
}
