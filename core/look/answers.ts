import type { TaskSpec } from '../contracts/lesson.ts'
import type { PackTask } from '../contracts/pack.ts'
import type { PhotoReading } from '../contracts/reading.ts'
import type { Answer } from '../contracts/reply.ts'
import { capital } from '../words.ts'
import type { Check } from './check.ts'
import { checkPieces } from './kinds.ts'
import { laidOf } from './laid.ts'
import { checkPhoto } from './photo-check.ts'
import { readTypedNumber } from './typed-number.ts'

/** Checks one answer against its task. */
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
      // Told in words, where there is no photo or none is wanted.
      const told = answer?.text?.trim()
      if (!answer?.photoId)
        return told
          ? { verdict: 'look', shown: told, why: 'in their own words' }
          : { verdict: 'open', shown: 'no photo', why: 'left open' }
      if (!reading) return { verdict: 'look', shown: 'photo', why: 'not read yet' }
      return checkPhoto(task.spec.things, laidOf(task), reading)
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

/** What a photo shows against what was asked, in a sentence. */
export function photoSentence(task: PackTask, r: PhotoReading): string {
  if (task.spec.kind !== 'photo') return ''
  if (r.count === 0) return 'Nothing was found in the photo. That is no proof that nothing is there.'
  const c = checkPhoto(task.spec.things, laidOf(task), r)
  const groups = r.groups.length > 1 ? ` (${r.groups.map((g) => `${g.count} ${g.colour}`).join(', ')})` : ''
  const asked = c.verdict === 'right' ? ', as asked' : ''
  return `${capital(c.shown)}${groups}${asked}${c.difference ? `: ${c.difference}` : ''}.`
}
