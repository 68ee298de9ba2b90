import type { HeardFinding, HeardWord } from '../../contracts/heard.ts'
import { hearing } from './limits.ts'

/** Words nobody plans to say. */
const fillers = new Set(['um', 'umm', 'er', 'erm', 'uh', 'oops', 'whoops', 'oopsie'])
/** What somebody says who takes up a line anew by herself; "let's do it again" is said to children. */
const again =
  /^(let me|i'll|i will|can i|shall i|i'm going to|i need to|i want to) (just |all )?((do|say|try|start|read|begin|count) (that|this|it|them) (bit |one |line |part )?(again|over|once more)|(start|begin|try|go) (again|over|from the (start|beginning|top))|have another go)\b|^(start|starting|once more from) (again|over|the (start|beginning|top))\b|^take two\b|^(sorry|no) (let me|i'll) /
/** "Let me count them again with you", "let me do it again to check" is teaching. */
const teaching = /\b(again|over|once more) (together|with (me|you)|to (check|see|make sure)|slowly)\b/

/** Fillers and second tries where there is no script to hold them against. A word heard with little confidence is none. */
export function stumbles(words: readonly HeardWord[]): HeardFinding[] {
  const out: HeardFinding[] = []
  let quietUntil = 0
  words.forEach((w, i) => {
    if (w.start < quietUntil) return
    const ahead = words.slice(i, i + 9)
    const text = ahead.map((x) => x.word).join(' ')
    const found = begins(words, i) ? text.match(again)?.[0] : undefined
    if (found && !teaching.test(text)) {
      const last = ahead[found.trim().split(' ').length - 1]!
      quietUntil = last.end
      out.push(told('false-start', [w, last], { case: 'free', words: found.trim() }))
    } else if (fillers.has(w.word)) out.push(told('filler', [w, w], { case: 'known', word: w.word }))
  })
  return out
}
/** Whether a clause may begin at word i: at the start, after a stop or a silence, or after "oh", "sorry" and the like. */
const begins = (words: readonly HeardWord[], i: number): boolean => {
  const before = words[i - 1]
  return (
    !before ||
    /[.!?;,]/.test(before.mark ?? '') ||
    words[i]!.start - before.end > 0.35 ||
    /^(oh|sorry|oops|whoops|no|okay|wait|um|er|hang|on)$/.test(before.word)
  )
}
const told = (
  code: 'false-start' | 'filler',
  [from, to]: readonly [HeardWord, HeardWord],
  params: { case: string; words?: string; word?: string },
): HeardFinding => ({
  code,
  start: from.start,
  end: to.end,
  stepId: null,
  expected: '',
  heard: params.words ?? params.word ?? '',
  certain: Math.min(from.confidence, to.confidence) >= hearing.sure,
  params,
})
