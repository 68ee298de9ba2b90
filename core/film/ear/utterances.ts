import type { HeardWord } from '../../contracts/heard.ts'
import type { Piece } from './chunks.ts'

/** Shares of word time that must fall on sound: below `fits` an utterance is looked at again; a move must better it by `gain`. */
const [fits, gain] = [0.7, 0.2]

/**
 * The words of a recogniser's utterances, each utterance in its place. Where a voice falls silent for just the time
 * after which an utterance would end and goes on at once, the recogniser dates the whole utterance from the later
 * start: all its words come late by the same amount. Such an utterance collides with the next one, or its words fall
 * on silence; it is moved back to where its words fall on sound. Times in seconds; `voiced` is where anything sounds.
 */
export function inPlace(
  utterances: readonly (readonly HeardWord[])[],
  voiced: readonly Piece[],
): HeardWord[] {
  const out: HeardWord[] = []
  utterances.forEach((words, i) => {
    if (!words.length) return
    const free = out.at(-1)?.end ?? -Infinity
    const next = utterances.slice(i + 1).find((u) => u.length)?.[0]!.start ?? Infinity
    const now = onSound(words, voiced, 0)
    const over = words.at(-1)!.end - next
    const collides = over > 0.3
    let [shift, best] = [0, collides ? fits : Math.max(fits, now + gain)]
    if (now < fits || collides) {
      for (const v of voiced)
        for (const w of words.slice(0, 2)) {
          const by = w.start - v.from
          if (by < Math.max(0.3, over - 0.3) || words[0]!.start - by < free - 0.1) continue
          const share = onSound(words, voiced, by)
          if (share >= best) [shift, best] = [by, share]
        }
    }
    out.push(...words.map((w) => (shift ? { ...w, start: w.start - shift, end: w.end - shift } : w)))
  })
  return out
}

/** Share of the words' time that falls on sound when all come `by` seconds earlier. */
function onSound(words: readonly HeardWord[], voiced: readonly Piece[], by: number): number {
  let [on, all] = [0, 0]
  for (const w of words) {
    all += w.end - w.start
    for (const v of voiced) on += Math.max(0, Math.min(w.end - by, v.to) - Math.max(w.start - by, v.from))
  }
  return all > 0 ? on / all : 0
}
