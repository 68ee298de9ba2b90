import type { Lesson } from '../contracts/lesson.ts'
import type { LiveRound, LiveState } from '../contracts/live.ts'
import type { Pack, PackTask } from '../contracts/pack.ts'
import type { Answer } from '../contracts/reply.ts'
import { pauseWords } from '../script/reading.ts'
import type { LiveRun } from './run.ts'
import { taskOf } from './tally.ts'

/** Rounds that count: not taken back, and with something to answer. */
const countedRounds = (s: Pick<LiveState, 'rounds'>): LiveRound[] =>
  s.rounds.filter((r) => !r.undone && r.spec !== null)

/** Tasks that were kept for home: those of parts without a film, and lines that were set aside. */
export function keptForHome(
  doc: Pick<Lesson, 'segments'>,
  run: LiveRun,
  s: Pick<LiveState, 'later'>,
): PackTask[] {
  const asLater = doc.segments.flatMap((segment) =>
    segment.audience === 'children' && !segment.unfilmed
      ? segment.steps.flatMap((x): PackTask[] =>
          x.task && s.later.includes(x.id) ? [{ id: x.id, prompt: pauseWords(x.text), spec: x.task }] : [],
        )
      : [],
  )
  return [...asLater, ...run.athome.map((t) => ({ id: t.stepId, prompt: t.prompt, spec: t.spec }))]
}

/**
 * What a live lesson leaves to be looked at: a pack with the rounds that were held, in order, and what stays for home.
 * @param pack what the lesson would be sent as: its title, aim, needs and cautions
 */
export function packAfter(pack: Pack, doc: Pick<Lesson, 'segments'>, run: LiveRun, s: LiveState): Pack {
  return {
    ...pack,
    tasks: [...countedRounds(s).flatMap((r) => taskOf(r) ?? []), ...keptForHome(doc, run, s)],
  }
}

/** Answers of one child as those of a reply: in the order of the rounds, what was taken back left out. */
export function answersOf(
  s: Pick<LiveState, 'rounds'>,
  given: readonly { roundId: string; answer: Answer }[],
): Answer[] {
  return countedRounds(s).flatMap((r) => {
    const one = given.find((g) => g.roundId === r.id)
    return one ? [{ ...one.answer, taskId: r.id, kind: r.spec!.kind }] : []
  })
}

/** Where each segment lies in a recording of the call that began `began` (ms): seconds from its start. */
export function segmentTimes(
  acts: readonly { at: number; line: number | null }[],
  run: LiveRun,
  began: number,
): { segmentId: string; from: number; to: number | null }[] {
  const spans: { segmentId: string; from: number; to: number | null }[] = []
  for (const a of acts) {
    const id = a.line === null ? null : (run.lines[a.line]?.segmentId ?? null)
    const open = spans.at(-1)
    const at = Math.max(0, (a.at - began) / 1000)
    if (open && open.to === null && open.segmentId !== id) open.to = at
    if (id !== null && (!open || open.to !== null)) spans.push({ segmentId: id, from: at, to: null })
  }
  return spans
}

/** A note to homes that missed it: what was done, in a sentence each, and what can be done at home. Plain words. */
export function missedNote(
  doc: Pick<Lesson, 'title'>,
  run: LiveRun,
  s: LiveState,
): { done: string[]; rounds: number; later: number } {
  const reached = s.phase === 'waiting' ? 0 : s.line
  return {
    done: run.segments
      .filter((x) => x.from <= reached && !s.leftOut.includes(x.id))
      .map((x) => x.title || doc.title),
    rounds: countedRounds(s).length,
    later: s.later.length + run.athome.length,
  }
}
