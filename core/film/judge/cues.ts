import type { HeardFinding, HeardWord } from '../../contracts/heard.ts'
import { hearing, round } from './limits.ts'

const shown = new Set(['video', 'film', 'recording', 'clip', 'screen', 'me', 'lesson', 'it', 'here', 'now'])

/** Places where viewers are told to stop the film, as plain information. What is said about an earlier pause is none. */
export function pauseCues(words: readonly HeardWord[]): HeardFinding[] {
  const out: HeardFinding[] = []
  words.forEach((w, i) => {
    const after = words.slice(i + 1, i + 4).map((x) => x.word)
    const before = words.slice(Math.max(0, i - 3), i).map((x) => x.word)
    const told =
      w.word === 'pause'
        ? after.some((x) => shown.has(x)) ||
          before.some((x) =>
            ['press', 'hit', 'to', 'can', 'please', 'and', 'you', 'now', 'so'].includes(x),
          ) ||
          i + 1 === words.length ||
          words[i + 1]!.start - w.end > 0.3
        : w.word === 'stop'
          ? after.some((x) => ['video', 'film', 'recording', 'clip', 'lesson', 'screen'].includes(x)) ||
            before.includes('press')
          : w.word === 'pausing' && after.some((x) => shown.has(x))
    if (
      !told ||
      before.some((x) =>
        ['did', "don't", 'after', 'not', 'a', 'no', 'short', 'little', 'dramatic', "didn't"].includes(x),
      )
    )
      return
    const last = out.at(-1)
    if (last && w.start - last.start < 6) return
    const end = words[Math.min(words.length - 1, i + 3)]!.end
    out.push({
      code: 'pause-cue',
      start: w.start,
      end,
      stepId: null,
      expected: '',
      heard: words
        .slice(i, i + 4)
        .map((x) => x.word)
        .join(' '),
      certain: true,
      params: {},
    })
  })
  return out
}

const askers =
  /^(what|how|which|who|where|when|why|can|could|do|does|did|is|are|will|would|shall|has|have|should)$/
/** Silences left after a question, as plain information: how long children were given. */
export function waitsIn(words: readonly HeardWord[]): HeardFinding[] {
  return words.slice(1).flatMap((w, k): HeardFinding[] => {
    const from = words[k]!.end
    const gap = w.start - from
    if (gap < hearing.waitTold || !asksBefore(words, k)) return []
    return [
      {
        code: 'wait',
        start: from,
        end: w.start,
        stepId: null,
        expected: '',
        heard: `${round(gap)} s`,
        certain: true,
        params: { left: round(gap) },
      },
    ]
  })
}
/** Whether the last thing said up to word k is a question, or an invitation to think. */
function asksBefore(words: readonly HeardWord[], k: number): boolean {
  if (words[k]!.mark?.includes('?')) return true
  let from = k
  while (
    from > 0 &&
    k - from < 14 &&
    words[from]!.start - words[from - 1]!.end < 0.6 &&
    !/[.!]/.test(words[from - 1]!.mark ?? '')
  )
    from--
  const line = words.slice(from, k + 1).map((w) => w.word)
  return (
    line.some((w, i) => askers.test(w) && (i === 0 || line.length - i >= 3)) ||
    /\b(have a (think|go|try)|think about|your turn|show me|count (with|along))\b/.test(line.join(' '))
  )
}
