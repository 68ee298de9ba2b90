import { pauseWords, readSeconds } from '../reading.ts'
import { solve, sentencesIn, hasUnknown } from '../sentence.ts'
import type { Moment } from '../simulate.ts'
import { isBare, thingsOn } from '../table/state.ts'
import { clock } from '../time.ts'
import { at, type Finding, type Rule, saysNumber } from './finding.ts'

const following = (moments: readonly Moment[], i: number): Moment | undefined => {
  const next = moments[i + 1]
  return next && next.segment === moments[i]!.segment ? next : undefined
}
/** Questions that ask for no thought: greetings, permission, "shall we". */
const isIdle = (text: string): boolean =>
  /\b(shall we|are you (all )?(ready|well|sitting)|how are you|can you see|ok(ay)?\?|right\?|ready\?)/i.test(
    text,
  )

export const waits: Rule = ({ moments }) => {
  const out: Finding[] = []
  moments.forEach((m, i) => {
    if (m.segment.audience === 'adults') return
    const next = following(moments, i)
    if (m.step.verb === 'ask' && !m.step.task && !isIdle(m.step.text)) {
      // Children may be given something to do or count as their time to think.
      const nextTime = moments
        .slice(i + 1)
        .find(
          (x) =>
            x.segment !== m.segment ||
            ['wait', 'pause', 'reveal', 'ask', 'count', 'do', 'write', 'say'].includes(x.step.verb),
        )
      const waited =
        nextTime &&
        nextTime.segment === m.segment &&
        ['wait', 'pause', 'count', 'do'].includes(nextTime.step.verb)
      if (!waited) {
        const answered = next && (next.step.verb === 'reveal' || next.step.verb === 'write')
        out.push(
          at(
            m,
            answered ? 'answer-early' : 'no-wait',
            {},
            {
              kind: 'insert-after',
              stepId: m.step.id,
              verb: 'wait',
              text: '5 s',
            },
          ),
        )
      }
    }
    if (m.step.verb === 'wait') {
      const seconds = readSeconds(m.step.text)
      const before = i > 0 && moments[i - 1]!.segment === m.segment ? moments[i - 1]! : undefined
      if (seconds !== null && seconds < clock.shortestWait)
        out.push(at(m, 'short-wait', { wait: seconds }, { kind: 'replace', stepId: m.step.id, text: '5 s' }))
      if (!before || !['ask', 'do', 'count', 'say', 'sound'].includes(before.step.verb))
        out.push(at(m, 'wait-alone', {}))
    }
    if (m.step.verb === 'pause' && !pauseWords(m.step.text).trim()) out.push(at(m, 'pause-empty', {}))
  })
  return out
}

/** The answer to a question said or written in the question itself, or before its wait is over. */
export const answerBeforeWait: Rule = ({ moments }) => {
  const out: Finding[] = []
  moments.forEach((m, i) => {
    if (m.step.verb !== 'ask' || m.segment.audience === 'adults') return
    const open = sentencesIn(m.step.text).find(hasUnknown)
    const answer = m.step.task?.kind === 'number' ? m.step.task.answer : open ? solve(open) : null
    const next = following(moments, i)
    // Asked, then told, and only then given time.
    if (
      next &&
      (next.step.verb === 'reveal' ||
        (next.step.verb === 'say' && answer !== null && saysNumber(next.step.text, answer)))
    ) {
      const after = following(moments, i + 1)
      if (after?.step.verb === 'wait')
        out.push(at(next, 'answer-before-wait', {}, { kind: 'remove', stepId: next.step.id }))
    }
    if (m.step.task?.kind === 'number' && answer !== null) {
      const given = moments
        .slice(0, i)
        .find(
          (x) =>
            x.segment === m.segment &&
            (x.step.verb === 'reveal' || x.step.verb === 'say') &&
            saysNumber(x.step.text, answer) &&
            sentencesIn(x.step.text).length > 0,
        )
      if (given) out.push(at(m, 'answer-given', {}))
    }
  })
  return out
}
/** Words that take over what lies there: "six stay up there", "four plop in as well", "on top". */
const takesOver =
  /\b(stay|stays|still|already|as well|more|another|too|on top|nobody|nothing was|has not moved|leave|keep|add|joins?|also|again|go on|in with)\b/i
/** Whether a line since the last sentence says that what lies there is part of what comes. */
function takenOver(moments: readonly Moment[], i: number): boolean {
  const there = thingsOn(moments[i]!.before).length
  for (let k = i; k >= 0 && k >= i - 4; k--) {
    const m = moments[k]!
    if (m.step.verb === 'write' || (k < i && m.actions.length)) return false
    if (takesOver.test(m.step.text) || (k < i && saysNumber(m.step.text, there))) return true
  }
  return false
}
/** A new example that begins on a table still holding the last one. */
export const unclearedTable: Rule = ({ moments }) => {
  const out: Finding[] = []
  let finished = false
  moments.forEach((m, i) => {
    if (m.segment.audience === 'adults') return
    if (m.step.verb === 'write' && sentencesIn(m.step.text).some((s) => !hasUnknown(s))) finished = true
    if (m.actions.some((a) => a.type === 'clear') || isBare(m.after)) finished = false
    // "put" opens an example when something finished still lies there and nothing was taken or moved to prepare it.
    const puts = m.actions.find((a) => a.type === 'put')
    if (puts && finished && thingsOn(m.before).length > 0 && m.step.verb === 'do') {
      const previous = moments[i - 1]
      const kept = takenOver(moments, i)
      const prepared =
        kept || previous?.actions.some((a) => ['take', 'cross', 'heap', 'move'].includes(a.type))
      if (!prepared)
        out.push(
          at(
            m,
            'table-not-cleared',
            { there: thingsOn(m.before).length },
            {
              kind: 'insert-before',
              stepId: m.step.id,
              verb: 'do',
              text: 'Clear the table',
            },
          ),
        )
      finished = false
    }
  })
  return out
}
