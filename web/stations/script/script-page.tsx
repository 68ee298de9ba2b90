import { useMemo, useState } from 'react'
import { useLesson } from '../../frame/lesson-context.ts'
import { Ruler } from '../../frame/ruler.tsx'
import { Split } from '../../frame/split.tsx'
import type { Finding } from '@awlbox/core/script/proof/finding'
import { clockTime } from '@awlbox/core/words'
import { AddSegment } from './add-segment.tsx'
import { ScriptDragging } from './dragging.tsx'
import { LessonFindings } from './lesson-findings.tsx'
import { SegmentCard } from './segment-card.tsx'
import { TablePane } from './table-pane.tsx'
import { TimeDialog } from './time-dialog.tsx'
import { WordsDialog } from './words-dialog.tsx'

export default function ScriptPage() {
  const { doc, proofed, at, goTo, record } = useLesson()
  const [stepId, setStepId] = useState<string | null>(null)
  const [open, setOpen] = useState<'time' | 'words' | null>(null)
  const bySegment = useMemo(() => {
    const map = new Map<string, Finding[]>()
    const home = new Map(proofed.moments.map((m) => [m.step.id, m.segment.id]))
    for (const f of proofed.findings) {
      const id = f.segmentId ?? (f.stepId ? home.get(f.stepId) : null) ?? ''
      map.set(id, [...(map.get(id) ?? []), f])
    }
    return map
  }, [proofed])
  const current = doc.segments.find((s) => s.id === at) ?? doc.segments[0]
  const { time, findings } = proofed
  const over = time.watched > time.filmLimit
  const toFinding = () => {
    const withStep = findings.filter((f) => f.stepId)
    const here = withStep.findIndex((f) => f.stepId === stepId)
    const next = withStep[(here + 1) % Math.max(1, withStep.length)]
    const segment = next && proofed.moments.find((m) => m.step.id === next.stepId)?.segment.id
    if (next && segment) {
      goTo(segment)
      setStepId(next.stepId)
    }
  }
  return (
    <Split
      left={
        <>
          <div className="flex flex-1 min-h-0">
            <Ruler time={time} at={current?.id ?? null} />
            <div className="flex-1 min-w-0 overflow-auto py-3 pr-3 grid grid-cols-[minmax(0,1fr)] gap-2 content-start">
              <LessonFindings findings={bySegment.get('') ?? []} />
              <ScriptDragging open={current?.id ?? null}>
                {doc.segments.map((s, i) => (
                  <SegmentCard
                    key={s.id}
                    segment={s}
                    time={time.segments[i]!}
                    open={s.id === current?.id}
                    findings={bySegment.get(s.id) ?? none}
                    stepId={stepId}
                    onStep={setStepId}
                    first={i === 0}
                    last={i === doc.segments.length - 1}
                    mayChange={record.mayChange}
                    goTo={goTo}
                  />
                ))}
              </ScriptDragging>
              <AddSegment />
            </div>
          </div>
          <div className="bg-card border-t border-hair px-4 min-h-[52px] py-2 flex items-center gap-x-4 gap-y-1 flex-wrap figures">
            <button
              type="button"
              onClick={() => setOpen('time')}
              title="Where the time goes"
              className="min-h-8 cursor-pointer underline decoration-hair underline-offset-4 hover:decoration-ink"
            >
              Film <b className={over ? 'text-brick' : ''}>{clockTime(time.watched)}</b> of{' '}
              {clockTime(time.filmLimit)}
            </button>
            {time.watched < time.film && (
              <span title="The grown-ups’ parts, outside what a child is to watch">
                Grown-ups <b>{clockTime(time.film - time.watched)}</b>
              </span>
            )}
            <span>
              Home <b>{clockTime(time.home)}</b>
            </span>
            <span title="Time in which children think, count or do, of film and home together">
              Doing <b>{Math.round(time.doing * 100)} %</b>
            </span>
            {findings.length > 0 ? (
              <button
                type="button"
                onClick={toFinding}
                className="font-bold text-brick underline-offset-2 hover:underline min-h-8 cursor-pointer"
              >
                {findings.length} {findings.length === 1 ? 'finding' : 'findings'}
              </button>
            ) : (
              <span className="font-semibold text-moss" title="The proof-reader found nothing wrong">
                Nothing wrong
              </span>
            )}
            <button
              type="button"
              onClick={() => setOpen('words')}
              className="min-h-8 cursor-pointer underline decoration-hair underline-offset-4 hover:decoration-ink"
            >
              {doc.words.length
                ? `${doc.words.length} new ${doc.words.length === 1 ? 'word' : 'words'}`
                : 'New words'}
            </button>
            {open === 'time' && <TimeDialog onClose={() => setOpen(null)} />}
            {open === 'words' && <WordsDialog onClose={() => setOpen(null)} />}
          </div>
        </>
      }
      right={<TablePane segment={current ?? null} stepId={stepId} onStep={setStepId} />}
    />
  )
}
const none: Finding[] = []
