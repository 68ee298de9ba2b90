import type { ReplyRecord } from '@awlbox/core/contracts/api/look'

/** The tasks this child had before it: of its set and everybody's. */
export function tasksTaken(reply: ReplyRecord): ReplyRecord['tasks'] {
  const set = reply.chose ?? reply.gave
  const answered = new Set(reply.answers.map((a) => a.taskId))
  return reply.tasks.filter(
    (t) => !t.spec.sets || answered.has(t.id) || (set !== null && t.spec.sets.includes(set)),
  )
}
