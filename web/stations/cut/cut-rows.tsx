import { useState } from 'react'
import { BeforeItGoesOut } from '../../frame/before-it-goes-out.tsx'
import { Card } from '../../kit/card.tsx'
import { cutReasons } from '@awlbox/core/contracts/cut'
import { renderSeconds } from '@awlbox/core/cut/render-time'
import { clockTime } from '@awlbox/core/words'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { useOpenCut } from './cut-session.ts'
import { SegmentRow } from './segment-row.tsx'

const kindWords: Record<(typeof cutReasons)[number], readonly [one: string, many: string]> = {
  slip: ['slip', 'slips'],
  'false start': ['false start', 'false starts'],
  filler: ['filler', 'fillers'],
  silence: ['silence', 'silences'],
  ends: ['end', 'ends'],
  wait: ['wait to hold', 'waits to hold'],
  'other take': ['line from another take', 'lines from other takes'],
  card: ['card', 'cards'],
  overlay: ['overlay', 'overlays'],
  face: ['face to cover', 'faces to cover'],
  name: ['name to cover', 'names to cover'],
  'by hand': ['', ''],
}
const scales = [8, 12, 17, 26, 40, 60] as const

/** The strip in Cut: what is proposed, a row a segment, and the film's length with its checks at the foot. */
export function CutRows() {
  const c = useOpenCut()
  return (
    <>
      <div className="flex-1 min-h-0 overflow-auto p-3 grid grid-cols-[minmax(0,1fr)] gap-2 content-start">
        <Proposed />
        {c.cutProblem && <Notice kind="wrong">{c.cutProblem}</Notice>}
        {[...c.main, ...c.adults].map((r) => (
          <SegmentRow
            key={r.segmentId}
            segment={c.doc.segments.find((s) => s.id === r.segmentId)!}
            cut={r}
            takes={c.takes}
            on={r === c.current}
            selection={c.selection?.segmentId === r.segmentId ? c.selection : null}
            scale={scales[c.zoom]!}
            now={c.shown?.segmentId === r.segmentId ? c.shown : null}
            overlay={c.overlay !== null && r.overlays.some((o) => o.id === c.overlay) ? c.overlay : null}
            adults={!c.main.includes(r)}
            acts={c.rowActs}
          />
        ))}
      </div>
      <Foot />
    </>
  )
}

function Proposed() {
  const { open, record, acts, held, undo, redo, canUndo, canRedo, zoom, setZoom } = useOpenCut()
  const count = (kind: (typeof cutReasons)[number]) => open.filter((w) => w.kind === kind).length
  return (
    <Card className="px-3 py-2 flex flex-wrap items-center gap-2">
      {open.length ? (
        <>
          <b className="whitespace-nowrap">{open.length} proposed</b>
          {record.mayChange &&
            cutReasons
              .filter((kind) => count(kind) > 0)
              .map((kind) => (
                <Button key={kind} small onClick={() => acts.decideAll(kind, 'accepted')}>
                  Accept {count(kind)} {kindWords[kind][count(kind) === 1 ? 0 : 1]}
                </Button>
              ))}
          {record.mayChange && (
            <Button small look="act" onClick={() => acts.decideAll(null, 'accepted')}>
              Accept all
            </Button>
          )}
        </>
      ) : (
        <span className="text-steel">Nothing left to decide.</span>
      )}
      <span className="flex-1" />
      {held > 0 && (
        <span className="text-steel text-sm figures whitespace-nowrap">
          think-time added: {held.toFixed(0)} s
        </span>
      )}
      {record.mayChange && (
        <>
          <Button small disabled={!canUndo} onClick={undo} title="Ctrl Z">
            Undo the cut
          </Button>
          <Button small disabled={!canRedo} onClick={redo} title="Ctrl Shift Z">
            Redo
          </Button>
        </>
      )}
      <span className="flex items-center gap-1">
        <Button
          small
          look="quiet"
          aria-label="Narrower"
          disabled={zoom === 0}
          onClick={() => setZoom(zoom - 1)}
        >
          −
        </Button>
        <Button
          small
          look="quiet"
          aria-label="Wider"
          disabled={zoom === scales.length - 1}
          onClick={() => setZoom(zoom + 1)}
        >
          +
        </Button>
      </span>
    </Card>
  )
}

/** How long the work takes, as this machine has taken before; nothing where it never has. */
function renderTime(length: number, rate: number | null): string {
  if (rate === null) return ''
  const seconds = renderSeconds(rate, length)
  return ` · ${seconds < 90 ? `${Math.max(10, Math.round(seconds / 10) * 10)} s` : `${Math.round(seconds / 60)} min`}`
}

function Foot() {
  const {
    takesShown,
    length,
    limit,
    missing,
    toFilm,
    renderRate,
    wrong,
    checks,
    setPanel,
    record,
    render,
    rendering,
    concerns,
  } = useOpenCut()
  const [asking, setAsking] = useState(false)
  return (
    <div className="bg-card border-t border-hair px-4 py-2 min-h-[56px] flex flex-wrap items-center gap-x-4 gap-y-1 figures">
      <span title={`Filmed: ${clockTime(takesShown)}`}>
        Cut <b>{clockTime(length)}</b> of {clockTime(limit)}
      </span>
      {missing > 0 && (
        <span className="text-brick" title="As long as their script is likely to take">
          + about {clockTime(toFilm)} in {missing} not filmed
        </span>
      )}
      <button
        type="button"
        onClick={() => setPanel('checks')}
        className={`min-h-8 cursor-pointer underline-offset-2 hover:underline font-semibold ${wrong ? 'text-brick' : 'text-moss'}`}
      >
        {wrong ? `${wrong} wrong` : 'counts and sentences whole'}
        {checks.length > wrong && (
          <span className="font-normal text-steel"> · {checks.length - wrong} to see</span>
        )}
      </button>
      <span className="flex-1" />
      {record.mayChange && (
        <Button
          look="main"
          onClick={() => (concerns.length ? setAsking(true) : void render())}
          disabled={rendering || length < 0.1}
        >
          Render{renderTime(length, renderRate)}
        </Button>
      )}
      {asking && (
        <BeforeItGoesOut
          lessonId={record.id}
          concerns={concerns}
          doing="render"
          onClose={() => setAsking(false)}
          onGo={() => {
            setAsking(false)
            void render()
          }}
        />
      )}
    </div>
  )
}
