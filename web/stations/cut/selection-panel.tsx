import type { CutDrop, CutSegment } from '@awlbox/core/contracts/cut'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { Button } from '../../kit/button.tsx'
import type { Selection } from './segment-row.tsx'

/** What is selected, in numbers, and what can be done with it. */
export function SelectionPanel({ selection, cut, seconds, segment, mayChange, onChange, onPlay }: { selection: Selection | null; cut: CutSegment; seconds: number | null; segment: Segment; mayChange: boolean; onChange: (c: CutSegment) => void; onPlay: (from: number) => void }) {
  const decide = (drop: CutDrop, state: CutDrop['state']) => onChange({ ...cut, drops: cut.drops.map((d) => (d.id === drop.id ? { ...d, state } : d)) })
  const field = 'min-h-10 w-24 rounded-lg border border-hair bg-card px-2 figures'
  const end = cut.end ?? seconds ?? 0
  return (
    <section aria-label="Selected" className="rounded-xl border border-hair bg-card p-3 grid gap-3">
      {selection ? <div className="grid gap-2">
        <p className="flex justify-between gap-3"><b>{title(selection)}</b><span className="figures text-steel whitespace-nowrap">{selection.from.toFixed(1)}–{selection.to.toFixed(1)} s · {(selection.to - selection.from).toFixed(1)} s</span></p>
        <div className="flex flex-wrap gap-2">
          <Button small onClick={() => onPlay(Math.max(0, selection.from - 0.5))}>Play from here</Button>
          {mayChange && selection.piece.kind === 'proposed' && <><Button small look="act" onClick={() => decide((selection.piece as { drop: CutDrop }).drop, 'accepted')}>Cut it out</Button><Button small onClick={() => decide((selection.piece as { drop: CutDrop }).drop, 'declined')}>Keep it</Button></>}
          {mayChange && selection.piece.kind === 'dropped' && <Button small look="act" onClick={() => {
            const { drop } = selection.piece as { drop: CutDrop }
            if (drop.reason === 'by hand') onChange({ ...cut, drops: cut.drops.filter((d) => d.id !== drop.id) })
            else decide(drop, 'declined')
          }}>Put it back</Button>}
          {mayChange && selection.piece.kind === 'kept' && <>
            <Button small look="act" onClick={() => drop(selection, cut, onChange)}>Drop this span</Button>
            <Button small onClick={() => onChange({ ...cut, start: selection.from })}>Begin here</Button>
            <Button small onClick={() => onChange({ ...cut, end: selection.to })}>End here</Button>
          </>}
          {mayChange && selection.piece.kind === 'trimmed' && <Button small look="act" onClick={() => onChange({ ...cut, ...(selection.from < 0.01 ? { start: 0 } : { end: null }) })}>Take the trim back</Button>}
        </div>
      </div> : <p className="text-steel">Choose a span, or draw over a waveform to choose part of one.</p>}
      {seconds !== null && <div className="flex flex-wrap gap-x-5 gap-y-2 items-center border-t border-hair pt-3">
        <label className="flex items-center gap-2">Begins <input type="number" aria-label="Begins at second" step={0.1} min={0} max={Math.max(0, end - 0.1)} disabled={!mayChange} className={field} value={Number(cut.start.toFixed(2))} onChange={(e) => onChange({ ...cut, start: Math.min(Math.max(0, Number(e.target.value)), Math.max(0, end - 0.1)) })} /> s</label>
        <label className="flex items-center gap-2">ends <input type="number" aria-label="Ends at second" step={0.1} min={cut.start + 0.1} max={seconds} disabled={!mayChange} className={field} value={Number(end.toFixed(2))} onChange={(e) => onChange({ ...cut, end: Math.max(cut.start + 0.1, Math.min(seconds, Number(e.target.value))) })} /> s</label>
      </div>}
      <div className="flex flex-wrap gap-2 items-center border-t border-hair pt-3">
        {cut.card ? <>
          <label className="flex items-center gap-2 flex-1 min-w-56">Card <input aria-label="Words on the card" disabled={!mayChange} maxLength={160} className="min-h-10 flex-1 min-w-0 rounded-lg border border-hair bg-card px-2" value={cut.card.text} onChange={(e) => e.target.value.trim() && onChange({ ...cut, card: { ...cut.card!, text: e.target.value } })} /></label>
          <label className="flex items-center gap-2"><input type="number" aria-label="Seconds the card stays" min={1} max={30} disabled={!mayChange} className="min-h-10 w-16 rounded-lg border border-hair bg-card px-2 figures" value={cut.card.seconds} onChange={(e) => onChange({ ...cut, card: { ...cut.card!, seconds: Math.min(30, Math.max(1, Number(e.target.value) || 4)) } })} /> s</label>
          {mayChange && <Button small onClick={() => onChange({ ...cut, card: null })}>Take the card away</Button>}
        </> : mayChange && <Button small onClick={() => onChange({ ...cut, card: cardFor(segment) })}>Pause card after this segment</Button>}
      </div>
    </section>
  )
}
export const cardFor = (segment: Segment): NonNullable<CutSegment['card']> => ({ text: segment.steps.some((s) => s.verb === 'pause') ? 'Stop the film. Press play when you are ready.' : 'Stop the film and have a go.', seconds: 4 })
export function drop(s: Selection, cut: CutSegment, onChange: (c: CutSegment) => void): void {
  if (s.piece.kind !== 'kept' || s.to - s.from < 0.05) return
  onChange({ ...cut, drops: [...cut.drops, { id: `h${Math.round(s.from * 100)}-${Math.round(s.to * 100)}`, from: s.from, to: s.to, reason: 'by hand', note: s.piece.words.slice(0, 200), state: 'accepted' }] })
}
function title(s: Selection): string {
  switch (s.piece.kind) {
    case 'kept': return s.piece.words ? `“${s.piece.words.slice(0, 60)}”` : 'Quiet'
    case 'proposed': return `Proposed: ${s.piece.drop.reason}${s.piece.drop.note ? `, ${s.piece.drop.note}` : ''}`
    case 'dropped': return `Cut out: ${s.piece.drop.reason}`
    case 'trimmed': return 'Trimmed off'
  }
}
