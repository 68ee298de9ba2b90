import { useMemo, useState, type PointerEvent } from 'react'
import { type CutSegment, framesPerSecond } from '@awlbox/core/contracts/cut'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { type Piece, piecesOf } from '@awlbox/core/cut/pieces'
import { segmentFrames } from '@awlbox/core/cut/spans'
import { clockTime } from '@awlbox/core/words'
import type { TakeRecord } from '../../frame/types.ts'
import { usePeaks, Waveform } from './waveform.tsx'

/** Pixels of a second: the same in every row, so that lengths can be compared; a short word gets room to be read. */
const scale = 17
export interface Selection { segmentId: string; from: number; to: number; piece: Piece }

export function SegmentRow({ segment, cut, takes, on, selection, onSelect, onTake, onGo, now }: {
  segment: Segment; cut: CutSegment; takes: readonly TakeRecord[]; on: boolean; selection: Selection | null
  onSelect: (s: Selection) => void; onTake: (takeId: string) => void; onGo: () => void; now: number | null
}) {
  const take = takes.find((t) => t.id === cut.takeId) ?? null
  const pieces = useMemo(() => (take?.seconds ? piecesOf(cut, take.seconds, take.hearing) : []), [cut, take])
  const peaks = usePeaks(take?.id ?? null)
  const length = segmentFrames(cut, take?.seconds ?? null) / framesPerSecond
  return (
    <section aria-label={segment.title} onClick={onGo} className={`rounded-xl border bg-card px-3 py-2 ${on ? 'border-saffron border-l-[4px]' : 'border-hair'}`}>
      <header className="flex items-center gap-3 min-h-8"><b className="truncate">{segment.title}</b>
        {takes.length > 1 ? <select aria-label={`Take of ${segment.title}`} value={cut.takeId ?? ''} onChange={(e) => onTake(e.target.value)} className="min-h-8 text-sm rounded-md border border-hair bg-card px-1">{takes.map((t) => <option key={t.id} value={t.id}>take {t.number} of {takes.length}{t.hearing ? ` · ${t.hearing.quality}` : ''}</option>)}</select>
          : <span className="text-sm text-steel">{takes.length ? 'take 1 of 1' : 'not filmed'}</span>}
        <span className="flex-1" /><span className="figures">{clockTime(length)}</span></header>
      <div className="flex flex-wrap items-start gap-x-1 gap-y-1 mt-1">
        {pieces.map((p) => <PieceView key={`${p.kind}${p.from}`} piece={p} peaks={peaks} selected={selection?.segmentId === segment.id && selection.piece.from === p.from ? selection : null} onSelect={(from, to) => onSelect({ segmentId: segment.id, from, to, piece: p })} now={now} />)}
        {cut.card && <span className="self-start h-9 flex items-center rounded-lg bg-ink text-card text-sm font-semibold px-3 max-w-52" title={cut.card.text}><span className="truncate">{cut.card.text}</span><span className="figures pl-2 font-normal whitespace-nowrap">{cut.card.seconds} s</span></span>}
      </div>
    </section>
  )
}

function PieceView({ piece, peaks, selected, onSelect, now }: { piece: Piece; peaks: Uint8Array | undefined; selected: Selection | null; onSelect: (from: number, to: number) => void; now: number | null }) {
  const [drag, setDrag] = useState<number | null>(null)
  const seconds = piece.to - piece.from
  if (piece.kind === 'dropped' || piece.kind === 'trimmed') {
    const words = piece.kind === 'trimmed' ? `trimmed ${seconds.toFixed(1)} s` : `${piece.drop.reason} ${seconds.toFixed(1)} s`
    return (
      <button type="button" aria-pressed={selected !== null} title={piece.kind === 'dropped' ? `${words}: ${piece.drop.note}` : words} onClick={() => onSelect(piece.from, piece.to)} className={`h-[54px] rounded-md px-1 text-left cursor-pointer ${selected ? 'bg-here' : 'hover:bg-wash'}`}>
        <svg width="14" height="36" viewBox="0 0 14 36" aria-hidden><path d="M3 2 L11 18 L3 34" fill="none" stroke="var(--brick)" strokeWidth="2" /></svg><span className="sr-only">{words}, cut out</span>
      </button>
    )
  }
  const said = piece.kind === 'kept' && piece.words ? Math.min(120, piece.words.length * 6.4 + 8) : 0
  const width = Math.max(18, said, Math.round(seconds * scale))
  const at = (e: PointerEvent<HTMLElement>) => {
    const r = e.currentTarget.getBoundingClientRect()
    return piece.from + Math.min(1, Math.max(0, (e.clientX - r.left) / r.width)) * seconds
  }
  const proposed = piece.kind === 'proposed'
  const silent = piece.kind === 'kept' && piece.silent
  const label = proposed ? `${piece.drop.reason}?` : piece.words || (silent && seconds > 2.5 ? `quiet ${seconds.toFixed(0)} s` : '')
  return (
    <span style={{ width }} className="block">
      <button type="button" aria-pressed={selected !== null} aria-label={proposed ? `Proposed drop: ${piece.drop.reason}, ${seconds.toFixed(1)} seconds` : piece.words || `quiet, ${seconds.toFixed(1)} seconds`}
        onPointerDown={(e) => (e.currentTarget.setPointerCapture(e.pointerId), setDrag(at(e)))}
        onPointerMove={(e) => drag !== null && Math.abs(at(e) - drag) > 0.12 && onSelect(Math.min(drag, at(e)), Math.max(drag, at(e)))}
        onPointerUp={(e) => {
          if (drag !== null && Math.abs(at(e) - drag) <= 0.12) onSelect(piece.from, piece.to)
          setDrag(null)
        }}
        onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), onSelect(piece.from, piece.to))}
        style={{ width }} className={`relative block h-9 rounded-lg border overflow-hidden cursor-pointer touch-none ${selected ? 'border-saffron border-2 bg-here' : proposed ? 'border-brick border-dashed border-2 bg-card' : silent ? 'border-steel border-dotted border-2 bg-card bg-[repeating-linear-gradient(115deg,transparent_0_7px,var(--hair)_7px_9px)]' : 'border-hair bg-wash'}`}>
        <Waveform peaks={peaks} from={piece.from} to={piece.to} width={width} colour={proposed ? '--brick' : '--steel'} />
        {selected && (selected.from > piece.from + 0.01 || selected.to < piece.to - 0.01) && <span className="absolute inset-y-0 bg-saffron/40 border-x-2 border-saffron" style={{ left: `${((selected.from - piece.from) / seconds) * 100}%`, width: `${((selected.to - selected.from) / seconds) * 100}%` }} />}
        {now !== null && now >= piece.from && now < piece.to && <span className="absolute inset-y-0 w-0.5 bg-saffron" style={{ left: `${((now - piece.from) / seconds) * 100}%` }} />}
      </button>
      <span className={`block text-[12px] leading-4 h-4 truncate ${proposed ? 'text-brick' : 'text-steel'}`} title={label}>{label}</span>
    </span>
  )
}
