import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import type { PhotoReading } from '@awlbox/core/contracts/reading'
import { type Proposal, propose } from '@awlbox/core/judge/proposal'
import { type Checked, checksOf } from '@awlbox/core/look/checks'
import { tasksTaken } from './tasks-taken.ts'
import type { Order } from './queue.tsx'

/** What every answer of a reply comes to by rule: of the tasks this child had before it. */
export function takenChecks(reply: ReplyRecord, readings: ReadonlyMap<string, PhotoReading>): Checked[] {
  const taken = new Set(tasksTaken(reply).map((t) => t.id))
  // Of all tasks: a reply sheet's boxes go by their place among them.
  return checksOf(reply.tasks, reply.answers, readings).filter((c) => taken.has(c.task.id))
}
export const proposalOf = (
  reply: ReplyRecord,
  readings: ReadonlyMap<string, PhotoReading>,
): Proposal | null =>
  propose(
    takenChecks(reply, readings).map((c) => c.check),
    reply.help,
    reply.way,
  )

/** What a reply answered, question by question: the same words are the same answers. */
const answeredBy = (r: ReplyRecord, readings: ReadonlyMap<string, PhotoReading>): string =>
  takenChecks(r, readings)
    .map((c) => c.check.shown.toLowerCase())
    .join(' · ')

/**
 * Replies in the order they are to be looked at: as they came, what needs most thought first or last, those that
 * answered alike beside each other (the commonest answers first), or by name.
 */
export function inOrder(
  replies: readonly ReplyRecord[],
  order: Order,
  {
    proposals,
    readings,
  }: { proposals: ReadonlyMap<string, Proposal | null>; readings: ReadonlyMap<string, PhotoReading> },
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
    case 'alike': {
      const said = new Map(replies.map((r) => [r.id, answeredBy(r, readings)]))
      const many = new Map<string, number>()
      for (const words of said.values()) many.set(words, (many.get(words) ?? 0) + 1)
      const of = (r: ReplyRecord) => said.get(r.id)!
      return [...replies].sort(
        (a, b) => many.get(of(b))! - many.get(of(a))! || of(a).localeCompare(of(b)) || came(a, b),
      )
    }
    case 'child':
      return [...replies].sort((a, b) => a.child.localeCompare(b.child))
  }
}
