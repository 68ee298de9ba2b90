import type { TaskSpec } from '../contracts/lesson.ts'
import type { PackTask } from '../contracts/pack.ts'
import type { PhotoReading } from '../contracts/reading.ts'
import type { Answer } from '../contracts/reply.ts'
import { parseNumber } from '../plan/numbers/names.ts'
import { checkPieces } from './kinds.ts'

/**
 * Reads a number as a home may write it: "7", " 7 ", "seven", "７", "٧", "7 parcels". Minus signs, powers,
 * emoji and numbers over 1000 are no counting numbers: null, with the reason in `readAnswer`.
 */
export function readTypedNumber(text: string): number | null {
  const plain = [...text.normalize('NFKC')]
    .map((c) => (/\p{Nd}/u.test(c) ? String(digitValue(c)) : c))
    .join('')
    .trim()
    .toLowerCase()
  if (!plain) return null
  if (/^\d{1,4}$/.test(plain)) return Number(plain) <= 1000 ? Number(plain) : null
  const word = parseNumber(plain)
  if (word !== null && !/\d/.test(plain)) return word
  const withUnit = plain.match(/^(\d{1,3})\s+[\p{L} ]{2,30}$/u)
  return withUnit ? Number(withUnit[1]) : null
}
/** Unicode's decimal digits lie in runs of ten that start at their zero. */
function digitValue(c: string): number {
  const code = c.codePointAt(0)!
  let zero = code
  while (zero > code - 10 && /\p{Nd}/u.test(String.fromCodePoint(zero - 1)) && code - (zero - 1) < 10) zero--
  // Runs can touch (mathematical digits): their starts are at multiples the run itself fixes.
  return code >= 0x1d7ce && code <= 0x1d7ff ? (code - 0x1d7ce) % 10 : code - zero
}

export type Check = { verdict: 'right' | 'wrong' | 'open' | 'look'; shown: string; why: string }

/** Checks one answer against its task. `open`: left blank (a blank is not a nought); `look`: only a person can tell. */
export function checkAnswer(
  task: PackTask,
  answer: Answer | undefined,
  reading: PhotoReading | null = null,
): Check {
  const check = checked(task, answer, reading)
  // Where nothing is right or wrong, what was given is shown and a person looks.
  return task.spec.unchecked && check.verdict !== 'open'
    ? { ...check, verdict: 'look', why: 'not checked' }
    : check
}
function checked(task: PackTask, answer: Answer | undefined, reading: PhotoReading | null): Check {
  switch (task.spec.kind) {
    case 'number':
      return numberCheck(task.spec, answer?.text?.trim() ?? '')
    case 'choice':
      return choiceCheck(task.spec, answer?.choice ?? null)
    case 'photo': {
      if (!answer?.photoId) return { verdict: 'open', shown: 'no photo', why: 'left open' }
      if (!reading) return { verdict: 'look', shown: 'photo', why: 'not read yet' }
      return photoCheck(task.spec.things, reading)
    }
    default:
      return checkPieces(task.spec, answer)
  }
}
type Spec<K extends TaskSpec['kind']> = Extract<TaskSpec, { kind: K }>
const leftOpen: Check = { verdict: 'open', shown: '—', why: 'left open' }
const rightOf = (spec: Spec<'number'> | Spec<'choice'>): number[] => [spec.answer, ...(spec.also ?? [])]
function numberCheck(spec: Spec<'number'>, text: string): Check {
  if (!text) return leftOpen
  const n = readTypedNumber(text)
  if (n === null) return { verdict: 'look', shown: text, why: 'not a number this page can read' }
  const right = rightOf(spec)
  return right.includes(n)
    ? { verdict: 'right', shown: String(n), why: '' }
    : { verdict: 'wrong', shown: String(n), why: `${right.join(' or ')} was asked` }
}
function choiceCheck(spec: Spec<'choice'>, choice: number | null): Check {
  if (choice === null) return leftOpen
  const shown = spec.choices[choice] ?? '?'
  const right = rightOf(spec)
  return right.includes(choice)
    ? { verdict: 'right', shown, why: '' }
    : { verdict: 'wrong', shown, why: `${right.map((i) => spec.choices[i]).join(' or ')} was asked` }
}

/** Finding nothing does not prove zero, and a doubtful count is a reason to look, not a verdict. */
export function photoCheck(expected: number, r: PhotoReading): Check {
  const shown = r.low === r.high ? `${r.count} found` : `${r.low} to ${r.high} found`
  if (r.count === 0) return { verdict: 'look', shown: 'nothing found', why: 'an empty photo needs your eye' }
  if (r.low === r.high)
    return r.count === expected
      ? { verdict: 'right', shown, why: '' }
      : { verdict: 'wrong', shown, why: `${expected} were asked` }
  return {
    verdict: 'look',
    shown,
    why:
      r.low <= expected && expected <= r.high
        ? `${expected} were asked: look closer`
        : `${expected} were asked`,
  }
}

/** What a photo shows against what was asked, in a sentence. */
export function photoSentence(expected: number, r: PhotoReading): string {
  if (r.count === 0) return 'Nothing was found in the photo. That is no proof that nothing is there.'
  const groups = r.groups.map((g) => `${g.count} ${g.colour}`).join(' and ')
  const total = r.low === r.high ? `${r.count}` : `${r.low} to ${r.high}`
  const parts = r.groups.length > 1 ? `: ${groups}` : ''
  if (r.low === r.high && r.count === expected) return `${total} in the photo, as asked${parts}.`
  return `${total} in the photo${parts}; ${expected} were asked.`
}
