import { useEffect, useRef, useState } from 'react'
import type { TableState } from '@awlbox/core/script/table/state'
import { clockTime } from '@awlbox/core/words'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { TableDrawing } from '../../table/drawing.tsx'
import type { RecorderState } from './use-recorder.ts'

/** The camera with the planned table as a faint drawing over it. */
export function CameraView({ state, onOpen, table }: { state: RecorderState; onOpen: () => void; table: TableState | null }) {
  const video = useRef<HTMLVideoElement>(null)
  const [overlay, setOverlay] = useState(true)
  const stream = state.kind === 'open' || state.kind === 'filming' ? state.stream : null
  useEffect(() => {
    if (video.current) video.current.srcObject = stream
  }, [stream])
  if (!stream)
    return (
      <div className="rounded-xl border border-hair bg-card aspect-[16/5] grid place-items-center p-5 text-center">
        <div className="grid gap-3 justify-items-center">{state.kind === 'refused' ? <Notice kind="wrong">{state.why}</Notice> : <p className="text-steel max-w-sm">The camera over your table. No faces of children, no names or addresses in view; hot drinks off the table.</p>}<Button look="main" onClick={onOpen}>Open the camera</Button></div>
      </div>
    )
  return (
    <div className="relative rounded-xl overflow-hidden border border-hair bg-black aspect-video">
      <video ref={video} autoPlay muted playsInline className="w-full h-full object-cover" />
      {overlay && table && <div className="absolute inset-[8%] opacity-25 pointer-events-none"><TableDrawing table={table} /></div>}
      <button type="button" aria-pressed={overlay} onClick={() => setOverlay(!overlay)} className="absolute left-2 bottom-2 rounded-lg bg-black/60 text-white text-sm px-2.5 min-h-9 cursor-pointer">{overlay ? 'Hide the plan' : 'Show the plan'}</button>
      {state.kind === 'filming' && <Elapsed since={state.since} />}
    </div>
  )
}
function Elapsed({ since }: { since: number }) {
  const [now, setNow] = useState(Date.now())
  useEffect(() => {
    const t = setInterval(() => setNow(Date.now()), 500)
    return () => clearInterval(t)
  }, [])
  return <span role="status" className="absolute right-2 top-2 rounded-lg bg-brick text-card font-semibold px-2.5 py-1 figures">Filming {clockTime((now - since) / 1000)}</span>
}
