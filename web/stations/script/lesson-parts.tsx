import { segmentKinds, type Segment } from '@awlbox/core/contracts/lesson'
import type { Finding } from '@awlbox/core/script/proof/finding'
import { useLesson } from '../../frame/lesson-context.ts'
import { newId } from '../../frame/new-id.ts'
import { FindingLine } from './finding-line.tsx'

export function LessonFindings({ findings }: { findings: readonly Finding[] }) {
  if (!findings.length) return null
  return <section aria-label="Findings about the whole lesson" className="rounded-xl border border-hair bg-card px-3 py-1.5"><h2 className="font-semibold text-sm">The whole lesson</h2>{findings.map((f, i) => <FindingLine key={f.code + i} finding={f} />)}</section>
}

export function AddSegment() {
  const { edit, record, goTo } = useLesson()
  if (!record.mayChange) return null
  const add = (kind: string) => {
    if (!kind) return
    const id = newId()
    const segment: Segment = { id, title: kind[0]!.toUpperCase() + kind.slice(1), kind: kind as Segment['kind'], audience: kind === 'note to adults' ? 'adults' : 'children', steps: [{ id: newId(), verb: 'say', text: '' }] }
    edit((d) => ({ ...d, segments: [...d.segments, segment] }))
    goTo(id)
  }
  return (
    <label className="flex items-center gap-2 text-steel px-1">Add a segment
      <select value="" onChange={(e) => add(e.target.value)} className="min-h-10 rounded-lg border border-hair bg-card px-2"><option value="">of kind…</option>{segmentKinds.map((k) => <option key={k}>{k}</option>)}</select>
    </label>
  )
}
