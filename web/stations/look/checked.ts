import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import type { PhotoReading } from '@awlbox/core/contracts/reading'
import { type Proposal, propose } from '@awlbox/core/judge/proposal'
import { checkAnswer } from '@awlbox/core/look/answers'
import type { Check } from '@awlbox/core/look/check'
import { tasksTaken } from './answers.tsx'
import type { Order } from './queue.tsx'

export interface Checked {
  prompt: string
  check: Check
}
/** What every answer of a reply comes to by rule. */
export function checksOf(reply: ReplyRecord, readings: ReadonlyMap<string, PhotoReading>): Checked[] {
  return tasksTaken(reply).map((t) => {
    const a = reply.answers.find((x) => x.taskId === t.id)
    return {
      prompt: t.prompt,
      check: checkAnswer(t, a, a?.photoId ? (readings.get(a.photoId) ?? null) : null),
    }
  })
}
export const proposalOf = (
  reply: ReplyRecord,
  readings: ReadonlyMap<string, PhotoReading>,
): Proposal | null =>
  propose(
    checksOf(reply, readings).map((c) => c.check),
    reply.help,
    reply.way,
  )

/** Replies in the order they are to be looked at: as they came, what needs most thought first or last, or by name. */
export function inOrder(
  replies: readonly ReplyRecord[],
  order: Order,
  proposals: ReadonlyMap<string, Proposal | null>,
): ReplyRecord[] {
  const plain = (r: ReplyRecord) => (proposals.get(r.id)?.plain ? 1 : 0)
  const came = (a: ReplyRecord, b: ReplyRecord) => a.receivedAt.localeCompare(b.receivedAt)
  switch (order) {
    case 'oldest':
      return [...replies].sort(came)
    case 'undecided':
      return [...replies].sort((a, b) => plain(a) - plain(b) || came(a, b))
    case 'agreed':
      return [...replies].sort((a, b) => plain(b) - plain(a) || came(a, b))
    case 'child':
      return [...replies].sort((a, b) => a.child.localeCompare(b.child))
  }
}
