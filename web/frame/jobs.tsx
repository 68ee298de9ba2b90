import * as filmApi from '@awlbox/core/contracts/api/film'
import * as jobsApi from '@awlbox/core/contracts/api/jobs'
import { secondsLeft } from '@awlbox/core/cut/render-time'
import { useAsked } from './use-asked.ts'
import { ask } from '../api.ts'
import { timeLeft } from './time.ts'
import { Button } from '../kit/button.tsx'
import { Notice, WorkBar } from '../kit/notice.tsx'
import type { JobRecord } from '@awlbox/core/contracts/api/jobs'

const words: Record<JobRecord['kind'], string> = {
  film: 'The stand-in films',
  take: 'A take',
  render: 'The film',
  photo: 'A photo',
}
function left(j: JobRecord): string | null {
  if (j.status === 'queued') return 'waiting its turn'
  if (!j.startedAt) return null
  const gone = (Date.now() - new Date(j.startedAt).getTime()) / 1000
  const s = secondsLeft(typeof j.data.expected === 'number' ? j.data.expected : null, gone, j.share)
  return s === null ? null : timeLeft(s)
}

export function useJobs(lessonId: string): JobRecord[] {
  const { data } = useAsked(jobsApi.jobs, { lessonId })
  return data?.items ?? []
}

/** Work under way for a lesson, with its step, the time left, and how to stop it; then what went wrong. */
export function JobList({ jobs, name }: { jobs: readonly JobRecord[]; name?: (j: JobRecord) => string }) {
  const open = jobs.filter((j) => j.status === 'queued' || j.status === 'running')
  // A failure is shown until the same thing is tried again.
  const failed = jobs
    .filter(
      (j, i) =>
        j.status === 'failed' && !jobs.slice(0, i).some((k) => k.kind === j.kind && k.subject === j.subject),
    )
    .slice(0, 3)
  if (!open.length && !failed.length) return null
  return (
    <div className="grid gap-2">
      {open.slice(0, 4).map((j) => (
        <WorkBar
          key={j.id}
          label={`${name?.(j) ?? words[j.kind]}: ${j.step}`}
          share={j.share}
          left={left(j)}
          onCancel={() => void ask(jobsApi.cancelJob, { jobId: j.id })}
        />
      ))}
      {open.length > 4 && <p className="text-sm text-steel">and {open.length - 4} more waiting</p>}
      {failed.map((j) => (
        <Notice
          key={j.id}
          kind="wrong"
          action={
            j.kind === 'take' ? (
              <Button small onClick={() => void ask(filmApi.hearTake, { takeId: j.subject })}>
                Try again
              </Button>
            ) : undefined
          }
        >
          {name?.(j) ?? words[j.kind]}: {j.problem}
        </Notice>
      ))}
    </div>
  )
}
