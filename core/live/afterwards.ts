import type { LiveRound, LiveState } from '../contracts/live.ts'
import type { Pack } from '../contracts/pack.ts'
import type { Answer } from '../contracts/reply.ts'
import { spansOf } from './clock.ts'
import type { LiveRun } from './run.ts'
import { taskOf } from './tally.ts'

/** Rounds that count: not taken back, and with something to answer. */
const countedRounds = (s: Pick<LiveState, 'rounds'>): LiveRound[] =>
  s.rounds.filter((r) => !r.undone && r.spec !== null)

/**
 * What a live lesson leaves to be looked at: a pack with the rounds that were held, in order, and what stays for home.
 * @param pack what the lesson would be sent as, with all of its tasks
 */
export function packAfter(pack: Pack, run: LiveRun, s: LiveState): Pack {
  const stays = new Set([...s.later, ...run.athome])
  return {
    ...pack,
    tasks: [
      ...countedRounds(s).flatMap((r) => taskOf(r) ?? []),
      ...pack.tasks.filter((t) => stays.has(t.id)),
    ],
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

/** Where each segment lies in a recording that began with the lesson: seconds; the last one ends with it. */
export const segmentTimes = (
  s: Pick<LiveState, 'visits' | 'startedAt' | 'endedAt'>,
): { segmentId: string; from: number; to: number | null }[] => {
  const seconds = (at: number): number => Math.max(0, (at - (s.startedAt ?? at)) / 1000)
  return spansOf(s).map((x) => ({
    segmentId: x.segmentId,
    from: seconds(x.from),
    to: x.to === null ? null : seconds(x.to),
  }))
}

/** A note to homes that missed it, in plain words: what was done, and that it can be done at home. `day` as it is said. */
export function missedNote(run: LiveRun, s: Pick<LiveState, 'visits'>, day: string): string {
  const been = new Set(s.visits.map((v) => v.segmentId))
  const done = run.segments
    .filter((x) => been.has(x.id) && x.title)
    .map((x) => x.title.replace(/[\s.,:;!?…]+$/, ''))
  const did = done.length ? ` We did: ${done.join(', ')}.` : ''
  return `We met live on ${day}.${did} If you could not be there, do the tasks here when it suits you: they count just as much.`
}
