import type { HeardFinding, HeardLine, HeardWord } from '../../contracts/heard.ts'
import { numbersSaid } from './count-heard.ts'
import { nameWords, type SpokenLine } from '../follow/spoken.ts'
import { parseNumber } from '../../plan/numbers/names.ts'
import { hearing } from './limits.ts'
import { statementsIn } from './statements.ts'
import { confusable, inCount, isNumberWord } from '../ear/sounds.ts'

/** "Twenty-one" said for "twenty": a number that went on further than written, which word by word shows nothing amiss. */
function runOn(line: SpokenLine, l: HeardLine, heard: readonly HeardWord[]): Changed[] {
  const planned = numbersSaid(
    line.words.map((word) => ({ word, start: 0, end: 0, confidence: 1 })),
    0,
    line.words.length,
    (w) => w,
  )
  return planned.flatMap((p): Changed[] => {
    const at = l.words[p.last]?.at ?? null
    const next = at === null ? undefined : heard[at + 1]
    if (
      at === null ||
      next === undefined ||
      l.words.some((w) => w.at === at + 1) ||
      l.words[p.last]!.status !== 'said'
    )
      return []
    const said = numbersSaid(heard, at, at + 2, (w) => w)[0]
    if (!said || said.last !== at + 1 || next.start - heard[at]!.end > 0.25) return []
    const word = nameWords(said.n).join(' ')
    return [
      {
        planned: nameWords(p.n).join(' '),
        h: {
          ...heard[at]!,
          word,
          end: next.end,
          confidence: Math.min(heard[at]!.confidence, next.confidence),
        },
        certain: next.confidence >= hearing.sure,
        at: p.last,
      },
    ]
  })
}

interface Changed {
  planned: string
  h: HeardWord
  certain: boolean
  /** Place of its last word in the line. */
  at: number
}

/**
 * Numbers in a spoken line that came out as another number. One slip gives one finding: a sentence that came out
 * false, a total that is not what was just counted (`counted`, null when nothing was), or else the number itself.
 */
export function lineSlips(
  line: SpokenLine,
  l: HeardLine,
  heard: readonly HeardWord[],
  counted: number | null,
): HeardFinding[] {
  const changed: Changed[] = l.words.flatMap((w, k) => {
    if (w.status !== 'changed' || w.at === null) return []
    const h = { ...heard[w.at]!, word: inCount(heard[w.at]!.word) }
    if (!isNumberWord(w.word) || !isNumberWord(h.word)) return []
    // A pair the recogniser mixes up, or one lone word among neighbours it missed, is a doubt.
    const neighbours = [l.words[k - 1], l.words[k + 1]].filter((x) => x !== undefined)
    const beside = [
      [l.words[k - 1], -1],
      [l.words[k + 1], 1],
    ] as const
    // Words between it and its neighbours that belong to nobody make it somebody else's number.
    const close = beside.every(([x, by]) => x === undefined || x.at === null || x.at === w.at! + by)
    const company = close && neighbours.length > 0 && neighbours.every((x) => x.status === 'said')
    const certain =
      !confusable(w.word, h.word) &&
      h.word === heard[w.at]!.word &&
      company &&
      h.confidence >= hearing.plainly
    return certain || h.confidence >= hearing.faint ? [{ planned: w.word, h, certain, at: k }] : []
  })
  changed.push(...runOn(line, l, heard))
  const first = changed[0]
  if (!first) return []
  const certain = changed.every((c) => c.certain)
  // Only numbers are taken as heard: another word misheard does not make another sentence.
  const said = l.words.flatMap((w, k) => changed.find((c) => c.at === k)?.h.word.split(' ') ?? [w.word])
  const wrong = statementsIn(said).find((s) => !s.holds)
  if (wrong && statementsIn(line.words).every((s) => s.holds)) {
    return [
      {
        code: 'false-sentence',
        start: first.h.start,
        end: l.end!,
        stepId: line.stepId,
        expected: line.text,
        heard: wrong.text,
        certain,
        params: { sentence: wrong.text },
      },
    ]
  }
  return changed.map(({ planned, h, certain: sure }): HeardFinding =>
    counted !== null && l.words.some((w) => w.word === planned) && parseNumber(planned) === counted
      ? {
          code: 'total-mismatch',
          start: h.start,
          end: h.end,
          stepId: line.stepId,
          expected: planned,
          heard: h.word,
          certain: sure,
          params: { case: 'line', counted, said: h.word },
        }
      : {
          code: 'number-changed',
          start: h.start,
          end: h.end,
          stepId: line.stepId,
          expected: planned,
          heard: h.word,
          certain: sure,
          params: { planned, said: h.word },
        },
  )
}
