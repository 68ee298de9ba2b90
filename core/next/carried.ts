import type { Lesson } from '../contracts/lesson.ts'

/** What earlier lessons leave to the next one. */
export interface Left {
  title: string
  doc: Pick<Lesson, 'segments'>
  /** How many homes replied, and how many answered each task (by its step's id). */
  replies: number
  answered: ReadonlyMap<string, number>
}
const promise = /\b(next time|next lesson|in our next|soon we(?:'|’)ll|another day)\b/i
const kept = (text: string): string => (text.length > 200 ? `${text.slice(0, 197)}…` : text)

/** Teasers that were spoken to children: promises to keep. */
const promisesIn = (doc: Pick<Lesson, 'segments'>): string[] =>
  doc.segments
    .filter((s) => s.audience === 'children')
    .flatMap((s) => s.steps)
    .filter((s) => (s.verb === 'say' || s.verb === 'ask') && promise.test(s.text))
    .map((s) => s.text)

/** Questions few of those who replied had an answer to: perhaps too long, too hard, or out of reach. */
const fewBelow = 0.34
const fewestReplies = 4
function barelyAnswered({ doc, replies, answered }: Left): string[] {
  if (replies < fewestReplies) return []
  return doc.segments
    .flatMap((s) => s.steps)
    .filter((s) => s.task && (answered.get(s.id) ?? 0) / replies < fewBelow)
    .map((s) => s.text)
}

/** How several children of a class seem to think, by how many. */
export interface Shared {
  words: string
  next: string
  children: readonly string[]
}
/**
 * What the next lesson carries over, each in a sentence: ways of thinking two children or more may share, promises,
 * questions few answered, what most homes lack; most of use first.
 */
export function carriedOver(
  lefts: readonly Left[],
  shared: readonly Shared[],
  lacking: readonly string[],
): string[] {
  return [
    ...shared
      .filter((s) => s.children.length >= 1)
      .sort((a, b) => b.children.length - a.children.length)
      .slice(0, 4)
      .map((s) => kept(`${s.children.join(', ')}: perhaps ${s.words}. ${s.next}`)),
    ...lefts.flatMap((l) => promisesIn(l.doc).map((p) => kept(`Promised in “${l.title}”: ${p}`))).slice(0, 4),
    ...lefts
      .flatMap((l) => barelyAnswered(l).map((t) => kept(`Few answered in “${l.title}”: ${t}`)))
      .slice(0, 4),
    ...(lacking.length ? [kept(`Not every home has: ${lacking.join(', ')}.`)] : []),
  ].slice(0, 12)
}
