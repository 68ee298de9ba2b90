import type { Frames, Seconds } from '@awlbox/core/contracts/units'
import { asWritten, wordsBetween } from '@awlbox/core/film/judge/as-written'
import { memo, useMemo, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { type Clip, framesPerSecond, type Overlay } from '@awlbox/core/contracts/cut'
import { overlayNames } from '@awlbox/core/cut/overlays'
import { isOpen } from '@awlbox/core/cut/timeline'
import { snapped } from '@awlbox/core/cut/edit'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import type { RowActs, Selection } from './selection.ts'
import { usePeaks, useSheet, Waveform } from './waveform.tsx'

interface Props {
  segmentId: string
  item: Clip
  take: TakeRecord | null
  /** Heard in place of its own sound. */
  voice: TakeRecord | null
  /** What begins to come over its picture here; `overlay` is the one chosen. */
  overlays: readonly Overlay[]
  overlay: string | null
  /** From another take than the rest of the row. */
  other: boolean
  scale: number
  chosen: Selection | null
  /** Frame of the take being shown, while it is in this span. */
  now: number | null
  points: readonly number[]
  acts: RowActs
}
/** Frames by which an edge jumps to a word or silence near by, and less than which a movement is no drawing. */
const [reach, still] = [5, 4]

/** A span with its waveform and its words. Drawing over it chooses a part; its ends are dragged, or moved by arrow keys. */
export const ClipView = memo(function ClipView({
  segmentId,
  item,
  take,
  voice,
  overlays,
  overlay,
  other,
  scale,
  chosen,
  now,
  points,
  acts,
}: Props) {
  const onSelect = (part: Selection['part'] = null): void =>
    acts.onSelect({ segmentId, itemId: item.id, part })
  const onEdge = (edge: 'from' | 'to', frame: Frames): void => acts.onEdge(segmentId, item.id, edge, frame)
  const peaks = usePeaks(take?.id ?? null)
  const [image, looked] = [useSheet(take?.looked?.sheet ? take.id : null), take?.looked?.sheet]
  const sheet = useMemo(() => (image && looked ? { image, looked } : undefined), [image, looked])
  const [drawn, setDrawn] = useState<number | null>(null)
  const frames = item.to - item.from
  const [from, to] = [item.from / framesPerSecond, item.to / framesPerSecond]
  const heard = item.voice ? voice : take
  const late = item.voice ? item.voice.from / framesPerSecond - from : 0
  const spoken = useMemo(() => (heard?.hearing ? asWritten(heard.hearing) : []), [heard])
  const { written: words, heard: otherwise } = useMemo(
    () => wordsBetween(spoken, from + late, to + late),
    [spoken, from, to, late],
  )
  const proposed = item.why?.state === 'open' ? item.why : null
  const adds = proposed?.act === 'add'
  const silent = words === ''
  const width = Math.max(
    18,
    words ? Math.min(120, words.length * 6.4 + 8) : 0,
    Math.round((frames / framesPerSecond) * scale),
  )
  const frameAt = (e: PointerEvent<HTMLElement>, box: HTMLElement): number => {
    const r = box.getBoundingClientRect()
    return Math.round(item.from + Math.min(1, Math.max(0, (e.clientX - r.left) / r.width)) * frames)
  }
  const marks = `${item.still ? 'still picture · ' : ''}${item.voice ? `sound of take ${voice?.number ?? '?'} · ` : ''}`
  const label = proposed
    ? `${proposed.kind}${proposed.sure ? '?' : ', perhaps?'}`
    : `${marks}${words}` || (silent && frames > 75 ? `quiet ${(frames / framesPerSecond).toFixed(0)} s` : '')
  const name = proposed
    ? `Proposed ${adds ? 'addition' : 'drop'}: ${proposed.kind}, ${(frames / framesPerSecond).toFixed(1)} seconds${words ? `, “${words}”` : ''}`
    : words || `quiet, ${(frames / framesPerSecond).toFixed(1)} seconds`
  const at = (frame: Frames): string => `${((frame - item.from) / frames) * 100}%`
  return (
    <span role="listitem" style={{ width }} className="block relative max-w-full">
      {overlays.map((o) => (
        <button
          key={o.id}
          type="button"
          aria-label={`${isOpen(o) ? 'Proposed overlay' : 'Overlay'}: ${overlayNames[o.look]} ${o.text}`}
          title={`${overlayNames[o.look]} ${o.text}${isOpen(o) ? ' (proposed)' : ''}`}
          aria-pressed={o.id === overlay}
          onClick={(e) => {
            e.stopPropagation()
            acts.onOverlay(segmentId, o.id)
          }}
          className="absolute -top-3.5 h-[24px] min-w-[24px] z-[5] cursor-pointer grid items-center"
          style={{
            left: at(o.from),
            width: `${Math.max(6, Math.min(100 - ((o.from - item.from) / frames) * 100, ((o.to - o.from) / frames) * 100))}%`,
          }}
        >
          <span
            aria-hidden
            className={`w-full rounded-full border-b-[3px] ${o.id === overlay ? 'border-saffron' : isOpen(o) ? 'border-dashed border-blue' : 'border-blue'}`}
          />
        </button>
      ))}
      <button
        type="button"
        data-item={item.id}
        aria-pressed={chosen !== null}
        aria-label={name}
        onClick={(e) => e.stopPropagation()}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId)
          setDrawn(frameAt(e, e.currentTarget))
        }}
        onPointerMove={(e) => {
          if (drawn === null) return
          const f = frameAt(e, e.currentTarget)
          if (Math.abs(f - drawn) > still)
            onSelect({
              from: snapped(Math.min(drawn, f), points, reach),
              to: snapped(Math.max(drawn, f), points, reach),
            })
        }}
        onPointerUp={(e) => {
          if (drawn !== null && Math.abs(frameAt(e, e.currentTarget) - drawn) <= still) onSelect()
          setDrawn(null)
        }}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' && e.key !== ' ') return
          e.preventDefault()
          e.stopPropagation()
          onSelect()
        }}
        className={`relative block w-full h-[54px] rounded-lg border overflow-hidden cursor-pointer touch-none ${chosen ? 'border-ink border-2 bg-here' : adds ? 'border-moss border-dashed border-2 bg-card' : proposed ? 'border-brick border-dashed border-2 bg-card' : silent ? 'border-steel border-dotted border-2 bg-card hatched' : other ? 'border-blue bg-wash' : 'border-hair bg-wash'}`}
      >
        <Waveform
          peaks={peaks}
          sheet={sheet}
          from={from}
          to={to}
          width={width}
          colour={adds ? '--moss' : proposed ? '--brick' : '--steel'}
        />
        {chosen?.part && (
          <span
            className="absolute inset-y-0 bg-ink/15 border-y-2 border-ink"
            style={{
              left: at(Math.max(item.from, chosen.part.from)),
              width: `${((Math.min(item.to, chosen.part.to) - Math.max(item.from, chosen.part.from)) / frames) * 100}%`,
            }}
          />
        )}
        {now !== null && <span className="absolute inset-y-0 w-0.5 bg-saffron" style={{ left: at(now) }} />}
      </button>
      {chosen && (
        <>
          <span
            aria-hidden
            className="absolute left-0 right-0 top-[62px] border-t-2 border-dashed border-ink"
          />
          <Edge
            which="from"
            item={item}
            scale={scale}
            points={points}
            beside={wordsBeside(spoken, from + late)}
            onMove={(f) => onEdge('from', f)}
          />
          <Edge
            which="to"
            item={item}
            scale={scale}
            points={points}
            beside={wordsBeside(spoken, to + late)}
            onMove={(f) => onEdge('to', f)}
          />
        </>
      )}
      <span
        className={`block text-[12px] leading-4 h-4 truncate ${chosen ? 'mt-4' : ''} ${adds ? 'text-moss' : proposed ? 'text-brick' : 'text-steel'}`}
        title={`${proposed ? `${label} ${words}` : label}${otherwise ? ` (heard: ${otherwise})` : ''}`}
      >
        {label}
      </span>
    </span>
  )
})

/** What is said last before a second of a take, and first after it. */
function wordsBeside(all: readonly { word: string; start: Seconds; end: Seconds }[], at: number) {
  const words = all.filter((w) => w.word !== '')
  const middle = (w: { start: Seconds; end: Seconds }): number => (w.start + w.end) / 2
  return {
    before: words.filter((w) => middle(w) < at).at(-1)?.word ?? '',
    after: words.find((w) => middle(w) >= at)?.word ?? '',
  }
}
/** The hole at one end of a chosen span, on the thread that runs under it: it snaps to words and silences, with Alt held it does not; arrows move it by a frame. */
function Edge({
  which,
  item,
  scale,
  points,
  beside,
  onMove,
}: {
  which: 'from' | 'to'
  item: Clip
  scale: number
  points: readonly number[]
  /** The words before and after this edge. */
  beside: { before: string; after: string }
  onMove: (frame: Frames) => void
}) {
  const [held, setHeld] = useState<{ x: number; frame: Frames } | null>(null)
  const key = (e: KeyboardEvent) => {
    if (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight') return
    e.preventDefault()
    e.stopPropagation()
    onMove(item[which] + (e.key === 'ArrowRight' ? 1 : -1) * (e.shiftKey ? 10 : 1))
  }
  const [at, setAt] = useState(false)
  return (
    <button
      type="button"
      aria-label={`${which === 'from' ? 'Beginning of the span' : 'End of the span'}, between “${beside.before}” and “${beside.after}”`}
      title="Drag, or arrow keys: a frame; with Shift, ten. Alt while dragging: no snapping."
      onKeyDown={key}
      onClick={(e) => e.stopPropagation()}
      onFocus={() => setAt(true)}
      onBlur={() => setAt(false)}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId)
        setHeld({ x: e.clientX, frame: item[which] })
      }}
      onPointerMove={(e) => {
        if (!held) return
        const frame = Math.round(held.frame + ((e.clientX - held.x) / scale) * framesPerSecond)
        onMove(e.altKey ? frame : snapped(frame, points, reach))
      }}
      onPointerUp={() => setHeld(null)}
      onPointerCancel={() => setHeld(null)}
      className={`absolute top-[49px] size-7 grid place-items-center cursor-ew-resize touch-none rounded-full z-10 ${which === 'from' ? '-left-3.5' : '-right-3.5'}`}
    >
      <span aria-hidden className="size-[15px] rounded-full border-[4px] border-ink bg-card" />
      {(at || held !== null) && (
        <span
          aria-hidden
          className={`absolute bottom-full mb-1 whitespace-nowrap rounded-md bg-ink text-card text-lg px-2 py-0.5 ${which === 'from' ? 'left-0' : 'right-0'}`}
        >
          {beside.before || '…'} <b className="text-saffron">|</b> {beside.after || '…'}
        </span>
      )}
    </button>
  )
}
