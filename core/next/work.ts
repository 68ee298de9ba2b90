import type { JobRecord } from '../contracts/api/jobs.ts'

/** What is told of work under way for one lesson: how much of it is done, and about how long the rest takes. */
export interface WorkLeft {
  /** Pieces of work, done and to come; a film still being made counts for its take as well. */
  done: number
  all: number
  /** What is being done now, in words; empty while everything waits. */
  step: string
  /** Seconds; null until something has been finished to measure by. */
  secondsLeft: number | null
}
type Timed = Pick<JobRecord, 'kind' | 'status' | 'step' | 'share' | 'startedAt'> & { endedAt: string | null }

/** Seconds a job of a kind has taken, on average, of those finished; null where none has been. */
function usual(jobs: readonly Timed[], kind: JobRecord['kind']): number | null {
  const took = jobs.flatMap((j) =>
    j.kind === kind && j.status === 'done' && j.startedAt !== null && j.endedAt !== null
      ? [(Date.parse(j.endedAt) - Date.parse(j.startedAt)) / 1000]
      : [],
  )
  return took.length ? took.reduce((a, b) => a + b, 0) / took.length : null
}

/**
 * The work of one lesson, from its jobs of one sitting; null where none is under way. Every film that a stand-in
 * makes becomes a take to be heard, so it counts twice. Times come from what was finished of the same kind.
 */
export function workLeft(jobs: readonly Timed[]): WorkLeft | null {
  const open = jobs.filter((j) => j.status === 'queued' || j.status === 'running')
  if (!open.length) return null
  const running = open.find((j) => j.status === 'running')
  const films = open.filter((j) => j.kind === 'film')
  const done = jobs.filter((j) => j.status === 'done').length
  const left = (j: Timed): number | null => {
    const one = usual(jobs, j.kind)
    return one === null ? null : one * (1 - (j.status === 'running' ? j.share : 0))
  }
  const perTake = usual(jobs, 'take')
  const parts = [...open.map(left), ...films.map(() => perTake)]
  return {
    done,
    all: done + open.length + films.length,
    step: running?.step ?? '',
    secondsLeft: parts.includes(null) ? null : Math.round((parts as number[]).reduce((a, b) => a + b, 0)),
  }
}
