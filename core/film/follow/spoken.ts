import { type HouseStyle } from '../../contracts/house-style.ts'
import type { Segment, Step } from '../../contracts/lesson.ts'
import { numberName, tokens } from '../../plan/numbers/names.ts'
import { pauseWords, readCount } from '../../script/reading.ts'

/** A line of script as it is said: lower-case words, numbers spelled out. */
export interface SpokenLine {
  stepId: string
  verb: Step['verb']
  words: string[]
  /** For a count: the numbers in the order said. */
  numbers: number[] | null
  text: string
  deliberate: boolean
}

/** Words as spoken: digits become names, hyphens part, signs are read out. */
export function spokenWordsOf(text: string): string[] {
  const signs: Record<string, string> = { '+': 'add', '=': 'equals', '-': 'take away', '×': 'times' }
  return tokens(text.replace(/[‘’]/g, "'")).flatMap((w) => {
    if (/^\d+$/.test(w)) return Number(w) <= 1000 ? nameWords(Number(w)) : []
    if (signs[w]) return signs[w].split(' ')
    return /^[_□]+$/.test(w) ? [] : [w]
  })
}
export const nameWords = (n: number): string[] => numberName(n).split(/[ -]/)

/** What is said aloud in a segment, line by line. Things done, written and waited for are silent. */
export function spokenLines(segment: Segment, style: HouseStyle): SpokenLine[] {
  return segment.steps
    .flatMap((step): SpokenLine[] => {
      const base = { stepId: step.id, verb: step.verb, text: step.text, deliberate: step.deliberate ?? false }
      switch (step.verb) {
        case 'say':
        case 'ask':
        case 'reveal':
          return [{ ...base, words: spokenWordsOf(step.text), numbers: null }]
        case 'pause':
          return [{ ...base, words: spokenWordsOf(pauseWords(step.text)), numbers: null }]
        case 'count': {
          const count = readCount(step.text)
          if (!count) return []
          const numbers =
            count.onFrom !== null && style.countingOn === 'next' ? count.numbers.slice(1) : count.numbers
          return [{ ...base, words: numbers.flatMap(nameWords), numbers }]
        }
        default:
          return []
      }
    })
    .filter((l) => l.words.length > 0)
}
