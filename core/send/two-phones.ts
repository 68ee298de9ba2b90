import type { Answer, ReplyInput } from '../contracts/reply.ts'

type Said = Omit<ReplyInput, 'childId' | 'key'>
const isBlank = (a: Answer): boolean =>
  !a.text?.trim() &&
  (a.choice ?? null) === null &&
  !a.photoId &&
  !a.recordingId &&
  !a.drawing &&
  !a.more?.length &&
  (a.given ?? null) === null

/**
 * One reply of two that came for the same child from two phones: what the later says stands, and what it says nothing
 * of stays as the earlier had it, so that nobody's answers are lost to the other's.
 */
export function mergedReply(earlier: Said, later: Said): Said {
  const of = new Map(later.answers.filter((a) => !isBlank(a)).map((a) => [a.taskId, a]))
  const kept = earlier.answers.filter((a) => !of.has(a.taskId))
  const answers = [...of.values(), ...kept].slice(0, 20)
  const words = [earlier.words, later.words].map((w) => w.trim()).filter(Boolean)
  return {
    answers,
    help: later.help ?? earlier.help,
    way: later.way ?? earlier.way,
    feeling: later.feeling ?? earlier.feeling,
    // Whoever could do it says so by an answer.
    couldNot: (later.couldNot || earlier.couldNot) && answers.every(isBlank),
    chose: later.chose ?? earlier.chose,
    why: later.why || earlier.why,
    words: (words[0] === words[1] ? words.slice(0, 1) : words).join('\n').slice(0, 1000),
  }
}
