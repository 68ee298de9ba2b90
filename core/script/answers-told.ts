import type { Lesson, Segment, Step, TaskSpec } from '../contracts/lesson.ts'
import { numberName, parseNumber } from '../plan/numbers/names.ts'
import { ordinals } from './language/words.ts'

/** A segment that tells the answers of the home's tasks, in the film or to the grown-up. */
const tellsAnswers = (s: Pick<Segment, 'title' | 'kind'>): boolean =>
  /\banswers?\b/i.test(s.title) && (s.kind === 'close' || s.kind === 'note to adults')
/** The tasks homes answer, in the order they are given. */
const tasksOf = (lesson: Pick<Lesson, 'segments'>): TaskSpec[] =>
  lesson.segments.flatMap((s) => s.steps.flatMap((x) => (x.task ? [x.task] : [])))

/** A task's answer as it is told: its number in words, its right choices; null of a photo, and of what nobody checks. */
export function answerTold(task: TaskSpec): string | null {
  if (task.unchecked || task.kind === 'photo') return null
  if (task.kind === 'number') return [task.answer, ...(task.also ?? [])].map(numberName).join(' or ')
  if (task.kind === 'choice') {
    const right = [...new Set([task.answer, ...(task.also ?? [])])].sort((a, b) => a - b)
    return right.map((i) => task.choices[i]).join(', and ')
  }
  return piecesTold(task)
}
/** The same of what is given in pieces; null where there is no one answer. */
function piecesTold(task: TaskSpec): string | null {
  switch (task.kind) {
    case 'several':
      return task.right.length ? task.right.map((i) => task.choices[i]).join(', and ') : 'none of them'
    case 'sentence':
      return task.sentence
    case 'order':
      return task.items.join(', ')
    case 'gaps':
      return task.gaps.map((g) => numberName(task.run[g]!)).join(', ')
    case 'share': {
      const [each, left] = [Math.floor(task.things / task.plates), task.things % task.plates]
      return `${numberName(each)} each${left ? ` and ${numberName(left)} left over` : ''}`
    }
    case 'line':
      return task.marks.join(', ')
    case 'circles':
      return `${task.under.join(', ')} under them`
    case 'cross':
      return `${numberName(task.go)} crossed off, ${numberName(task.things - task.go)} left`
    case 'match':
      return task.pairs.map((p) => `${p[0]} is ${p[1]}`).join(', ')
    default:
      return null
  }
}

/** "The first job: five." as it stands in a line: which task it is of, and what is told. */
interface Told {
  task: number
  said: string
  from: number
  to: number
}
const told = new RegExp(`\\b(${ordinals.slice(0, 10).join('|')}) (?:job|task|question)\\b: ([^.!?]+)`, 'gi')
function toldIn(text: string): Told[] {
  return [...text.matchAll(told)].map((m) => {
    const from = m.index + m[0].length - m[2]!.length
    return {
      task: (ordinals as readonly string[]).indexOf(m[1]!.toLowerCase()),
      said: m[2]!,
      from,
      to: from + m[2]!.length,
    }
  })
}
/** Whether what is told is the task's answer: the same words, or another way to say the same number. */
function isTold(said: string, task: TaskSpec): boolean {
  const right = answerTold(task)
  if (right === null || said.trim().toLowerCase() === right.toLowerCase()) return true
  const n = parseNumber(said)
  return task.kind === 'number' && n !== null && [task.answer, ...(task.also ?? [])].includes(n)
}

/** Lines that tell another answer than the task has, with the line put right. */
export function staleAnswers(
  lesson: Pick<Lesson, 'segments'>,
): { step: Step; segment: Segment; said: string; right: string; text: string }[] {
  const tasks = tasksOf(lesson)
  return lesson.segments.filter(tellsAnswers).flatMap((segment) =>
    segment.steps.flatMap((step) =>
      toldIn(step.text).flatMap((t) => {
        const task = tasks[t.task]
        const right = task ? answerTold(task) : null
        if (!task || right === null || isTold(t.said, task)) return []
        return [
          {
            step,
            segment,
            said: t.said,
            right,
            text: step.text.slice(0, t.from) + right + step.text.slice(t.to),
          },
        ]
      }),
    ),
  )
}

/**
 * A changed lesson whose told answers follow its tasks: "The second job: …" says what the task's answer is now, where it
 * said what it was before. One that a person wrote otherwise stays.
 */
export function toldFollow(before: Pick<Lesson, 'segments'>, after: Lesson): Lesson {
  const [was, now] = [tasksOf(before), tasksOf(after)]
  if (was.length !== now.length || was.every((t, i) => answerTold(t) === answerTold(now[i]!))) return after
  const followed = (text: string): string =>
    toldIn(text).reduceRight((line, t) => {
      const [old, task] = [was[t.task], now[t.task]]
      const right = task ? answerTold(task) : null
      if (!old || right === null || !isTold(t.said, old) || isTold(t.said, task!)) return line
      return line.slice(0, t.from) + right + line.slice(t.to)
    }, text)
  return {
    ...after,
    segments: after.segments.map((s) =>
      tellsAnswers(s) ? { ...s, steps: s.steps.map((x) => ({ ...x, text: followed(x.text) })) } : s,
    ),
  }
}
