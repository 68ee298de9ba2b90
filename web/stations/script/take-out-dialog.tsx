import { useState } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { useLesson } from '../../frame/lesson-context.ts'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'

/** Takes several segments out of the lesson together: a template's that are not wanted, or all from here on. */
export function TakeOutDialog({ from, onClose }: { from: Segment; onClose: () => void }) {
  const { doc, edit } = useLesson()
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set([from.id]))
  const here = doc.segments.findIndex((s) => s.id === from.id)
  const gone = doc.segments.filter((s) => ticked.has(s.id))
  const turn = (id: string) => {
    const next = new Set(ticked)
    if (!next.delete(id)) next.add(id)
    setTicked(next)
  }
  return (
    <Dialog open onClose={onClose} title="Take out several segments">
      <div className="flex flex-wrap gap-2 mb-3">
        <Button
          small
          disabled={here === doc.segments.length - 1}
          onClick={() => setTicked(new Set(doc.segments.slice(here).map((s) => s.id)))}
        >
          Tick all from “{from.title}” on
        </Button>
        <Button small disabled={!gone.length} onClick={() => setTicked(new Set())}>
          Tick none
        </Button>
      </div>
      <ul className="grid mb-4 max-h-[52dvh] overflow-auto">
        {doc.segments.map((s) => (
          <li key={s.id}>
            <label className="flex items-center gap-3 min-h-10 rounded-md px-2 hover:bg-wash cursor-pointer">
              <input
                type="checkbox"
                className="size-4 accent-moss"
                checked={ticked.has(s.id)}
                onChange={() => turn(s.id)}
              />
              <span className="min-w-0 flex-1 truncate">{s.title}</span>
              <span className="text-sm text-steel whitespace-nowrap">
                {s.kind} · {s.steps.length} {s.steps.length === 1 ? 'line' : 'lines'}
              </span>
            </label>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-center justify-end gap-3">
        <span className="text-sm text-steel">Undo brings them back.</span>
        <Button onClick={onClose}>Keep all</Button>
        <Button
          look="act"
          disabled={!gone.length}
          onClick={() => {
            edit((d) => ({ ...d, segments: d.segments.filter((s) => !ticked.has(s.id)) }))
            onClose()
          }}
        >
          Take out {gone.length} {gone.length === 1 ? 'segment' : 'segments'}
        </Button>
      </div>
    </Dialog>
  )
}
