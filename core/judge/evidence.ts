import type { TaskSpec } from '../contracts/lesson.ts'
import type { Pack } from '../contracts/pack.ts'
import type { Answer, Help, Rung } from '../contracts/reply.ts'
import { checksOf, type Readings } from '../look/checks.ts'
import type { Evidence } from './standing.ts'

export interface RepliedTo {
  id: string
  childId: string
  lessonId: string
  at: Date
  pack: Pack
  answers: readonly Answer[]
  help: Help | null
  /** Which way the home said it was done. */
  way?: Rung | null
  /** The rung a judge saw in it, where one has looked. */
  rung: Rung | null
  /** Given round by round in a live lesson, beside others. */
  live?: boolean
}
export type SaidBy = Evidence & {
  childId: string
  ideaId: string
  words: string
  lessonId: string
  title: string
}

/** On which rung an answer of a kind is given, as long as nobody looked. */
const rungs: Record<TaskSpec['kind'], Rung> = {
  number: 'head',
  choice: 'picture',
  photo: 'things',
  several: 'picture',
  sentence: 'head',
  ways: 'head',
  order: 'track',
  gaps: 'track',
  share: 'things',
  match: 'picture',
  own: 'head',
  tell: 'head',
  line: 'track',
  circles: 'picture',
  cross: 'picture',
  draw: 'picture',
  record: 'things',
}
/** How likely the answer is hit upon by chance: by how many there would be to choose from. */
function guessed(spec: TaskSpec): Pick<Evidence, 'kind' | 'choices'> {
  switch (spec.kind) {
    case 'choice':
      return { kind: 'choice', choices: spec.choices.length }
    case 'several':
      return { kind: 'choice', choices: 2 ** spec.choices.length }
    case 'order':
      return { kind: 'choice', choices: orders(spec.items.length) }
    case 'match':
      return { kind: 'choice', choices: orders(spec.pairs.length) }
    case 'photo':
      return { kind: 'photo' }
    default:
      return { kind: 'number' }
  }
}
const orders = (n: number): number => (n <= 1 ? 1 : n * orders(n - 1))

/** What each answer of a reply says, when it says anything: blank and unreadable answers are no evidence. */
export function evidenceOf(reply: RepliedTo, readings: Readings): SaidBy[] {
  return checksOf(reply.pack.tasks, reply.answers, readings).flatMap(({ task, check }) => {
    if (check.verdict !== 'right' && check.verdict !== 'wrong') return []
    const { kind } = task.spec
    return [
      {
        id: `${reply.id}:${task.id}`,
        at: reply.at.getTime(),
        ...guessed(task.spec),
        right: check.verdict === 'right',
        help: reply.help ?? 'nudged',
        rung: reply.rung ?? reply.way ?? rungs[kind],
        ...(reply.live ? { live: true } : {}),
        childId: reply.childId,
        ideaId: reply.pack.ideaId,
        lessonId: reply.lessonId,
        title: reply.pack.title,
        words: `${task.prompt} ${check.shown}${check.why ? ` (${check.why})` : ''}`,
      },
    ]
  })
}
