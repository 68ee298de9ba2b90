import type { Frames } from '@awlbox/core/contracts/units'
import { type CutSegment, framesPerSecond, type Overlay, overlayLooks } from '@awlbox/core/contracts/cut'
import { overlayNames } from '@awlbox/core/cut/overlays'
import { isOpen, plays, stretchesOf, toSeconds } from '@awlbox/core/cut/timeline'
import { clockTime } from '@awlbox/core/words'
import { Button } from '../../../kit/button.tsx'
import { Slider } from '../../../kit/slider.tsx'
import type { CutActs } from '../use-cut-acts.ts'

interface Props {
  row: CutSegment
  chosen: string | null
  mayChange: boolean
  /** A take is in the picture: something can be put over it. */
  canAdd: boolean
  acts: CutActs
  onChoose: (id: string | null) => void
  /** Goes to a frame of the row. */
  onGo: (frame: Frames) => void
}
/** What comes over the picture of a segment, in its order, with when and for how long; the chosen one is moved on the picture. */
export function OverlaysPanel({ row, chosen, mayChange, canAdd, acts, onChoose, onGo }: Props) {
  const at = (o: Overlay): number | null =>
    stretchesOf(row, o.takeId, toSeconds(o.from), toSeconds(o.to), 'picture')[0]?.start ?? null
  const shown = row.overlays
    .filter((o) => o.why?.state !== 'declined')
    .sort((a, b) => (at(a) ?? Infinity) - (at(b) ?? Infinity))
  const open = shown.filter(isOpen)
  return (
    <div className="grid gap-2">
      {open.length > 1 && mayChange && (
        <p className="flex flex-wrap items-center gap-2">
          <span className="flex-1">{open.length} proposed here</span>
          <Button
            small
            look="act"
            onClick={() => open.forEach((o) => acts.decide(row.segmentId, o.why!.id, 'accepted'))}
          >
            Show them all
          </Button>
          <Button
            small
            onClick={() => open.forEach((o) => acts.decide(row.segmentId, o.why!.id, 'declined'))}
          >
            None
          </Button>
        </p>
      )}
      {shown.length === 0 && (
        <p className="text-steel">
          Nothing comes over the picture in this segment. Go to a moment and add something below.
        </p>
      )}
      <ul className="grid gap-1">
        {shown.map((o) => {
          const start = at(o)
          const on = o.id === chosen
          return (
            <li
              key={o.id}
              className={`rounded-lg border ${on ? 'border-saffron border-2 bg-here' : isOpen(o) ? 'border-dashed border-moss' : 'border-hair'} px-2.5 py-1.5 grid gap-2`}
            >
              <div className="flex flex-wrap items-center gap-2">
                <button
                  type="button"
                  aria-pressed={on}
                  disabled={start === null}
                  onClick={() => {
                    onChoose(on ? null : o.id)
                    if (start !== null) onGo(Math.round(start * framesPerSecond) + 1)
                  }}
                  className="flex-1 min-w-40 min-h-8 text-left cursor-pointer disabled:cursor-default"
                >
                  <b>{overlayNames[o.look]}</b>
                  {o.text && <span className="font-child"> {o.text}</span>}{' '}
                  <span className="text-steel text-sm figures whitespace-nowrap">
                    {start === null
                      ? 'cut out'
                      : `at ${clockTime(start)} for ${((o.to - o.from) / framesPerSecond).toFixed(1)} s`}
                  </span>
                </button>
                {mayChange && isOpen(o) && (
                  <>
                    <Button
                      small
                      look="act"
                      onClick={() => acts.decide(row.segmentId, o.why!.id, 'accepted')}
                    >
                      Show it
                    </Button>
                    <Button small onClick={() => acts.decide(row.segmentId, o.why!.id, 'declined')}>
                      Leave it out
                    </Button>
                  </>
                )}
                {mayChange && !isOpen(o) && (
                  <Button
                    small
                    onClick={() => {
                      onChoose(null)
                      if (o.why) acts.decide(row.segmentId, o.why.id, 'declined')
                      else acts.overlay(row.segmentId, o.id, null, null)
                    }}
                  >
                    Take away
                  </Button>
                )}
              </div>
              {on && plays(o) && mayChange && (
                <OverlayFields
                  overlay={o}
                  onChange={(next) =>
                    acts.overlay(row.segmentId, o.id, { ...next, why: null }, `overlay ${o.id}`)
                  }
                />
              )}
            </li>
          )
        })}
      </ul>
      {mayChange && (
        <p className="flex flex-wrap gap-2 items-center text-sm text-steel border-t border-hair pt-2">
          Over the picture shown:
          {overlayLooks.map((look) => (
            <Button
              key={look}
              small
              disabled={!canAdd}
              onClick={() => {
                const id = acts.addOverlay(look)
                if (id) onChoose(id)
              }}
            >
              {overlayNames[look]}
            </Button>
          ))}
        </p>
      )}
    </div>
  )
}
function OverlayFields({ overlay: o, onChange }: { overlay: Overlay; onChange: (o: Overlay) => void }) {
  const seconds = (frames: Frames): string => (frames / framesPerSecond).toFixed(1)
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-2 items-center">
      {o.look === 'sentence' && (
        <input
          aria-label="Words of the overlay"
          maxLength={80}
          value={o.text}
          onChange={(e) => onChange({ ...o, text: e.target.value })}
          className="min-h-10 flex-1 min-w-48 rounded-lg border border-hair bg-card px-2 font-child"
        />
      )}
      <Slider
        label="Seconds it stays"
        shown="It stays"
        value={Math.min(600, o.to - o.from)}
        from={15}
        to={600}
        step={3}
        words={`${seconds(o.to - o.from)} s`}
        onChange={(frames) => onChange({ ...o, to: o.from + frames })}
      />
      <span className="flex gap-1">
        <Button
          small
          onClick={() => onChange({ ...o, from: Math.max(0, o.from - 6), to: Math.max(1, o.to - 6) })}
        >
          Sooner
        </Button>
        <Button small onClick={() => onChange({ ...o, from: o.from + 6, to: o.to + 6 })}>
          Later
        </Button>
      </span>
      <span className="text-sm text-steel">Drag it on the picture; its corner makes it larger.</span>
    </div>
  )
}
