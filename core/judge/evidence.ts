import type { Pack } from '../contracts/pack.ts'
import type { PhotoReading } from '../contracts/reading.ts'
import type { Answer, Help, Rung } from '../contracts/reply.ts'
import { checkAnswer } from '../look/answers.ts'
import type { Evidence } from './standing.ts'

export interface RepliedTo {
  id: string
  childId: string
  lessonId: string
  at: Date
  pack: Pack
  answers: readonly Answer[]
  help: Help | null
  /** The rung a judge saw in it, where one has looked. */
  rung: Rung | null
}
export type SaidBy = Evidence & {
  childId: string
  ideaId: string
  words: string
  lessonId: string
  title: string
}

/** What each answer of a reply says, when it says anything: blank and unreadable answers are no evidence. */
export function evidenceOf(reply: RepliedTo, readings: ReadonlyMap<string, PhotoReading | null>): SaidBy[] {
  return reply.pack.tasks.flatMap((task) => {
    const answer = reply.answers.find((a) => a.taskId === task.id)
    const check = checkAnswer(task, answer, answer?.photoId ? (readings.get(answer.photoId) ?? null) : null)
    if (check.verdict !== 'right' && check.verdict !== 'wrong') return []
    const { kind } = task.spec
    return [
      {
        id: `${reply.id}:${task.id}`,
        at: reply.at.getTime(),
        kind,
        ...(task.spec.kind === 'choice' ? { choices: task.spec.choices.length } : {}),
        right: check.verdict === 'right',
        help: reply.help ?? 'nudged',
        rung: reply.rung ?? (kind === 'photo' ? 'things' : kind === 'choice' ? 'picture' : 'head'),
        childId: reply.childId,
        ideaId: reply.pack.ideaId,
        lessonId: reply.lessonId,
        title: reply.pack.title,
        words: `${task.prompt} ${check.shown}${check.why ? ` (${check.why})` : ''}`,
      },
    ]
  })
}
