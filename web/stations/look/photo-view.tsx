import { useState } from 'react'
import type { PhotoReading, PhotoThing } from '@awlbox/core/contracts/reading'
import { laidOver } from '@awlbox/core/look/over'
import { tableHeight, tableWidth } from '@awlbox/core/script/table/drawing/paper'
import type { TablePicture } from '@awlbox/core/script/table/drawing/table'
import { Painted } from '../../table/drawing.tsx'
import { PutRight } from './put-right.tsx'
import { Ring, type Shown, stage } from './ring.tsx'

/** The photo with what was found ringed and numbered, and where it lies outlined; wrong rings are put right by clicking. */
export function PhotoView({
  photo,
  onCorrected,
  over = null,
}: {
  photo: Shown
  onCorrected: () => void
  /** The planned table, to lie over what was found at the scale of that. */
  over?: TablePicture | null
}) {
  const [righting, setRighting] = useState(false)
  if (righting && photo.reading)
    return (
      <PutRight
        photo={photo}
        things={photo.reading.things}
        onDone={(changed) => {
          setRighting(false)
          if (changed) onCorrected()
        }}
      />
    )
  return <Found photo={photo} over={over} onRight={() => setRighting(true)} />
}
const onPhoto = 'rounded-lg bg-black/65 text-white text-sm px-2.5 min-h-9 cursor-pointer'
function Found({
  photo: { id, width, height, reading, unread, corrected },
  over,
  onRight,
}: {
  photo: Shown
  over: TablePicture | null
  onRight: () => void
}) {
  const [whole, setWhole] = useState(false)
  const things = reading?.things ?? []
  const view = whole || !things.length ? { x: 0, y: 0, w: width, h: height } : around(things, width, height)
  const unit = Math.max(view.w, view.h) / 100
  return (
    <div className={stage}>
      <svg
        viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`}
        className="max-w-full max-h-full w-full h-full"
        role="img"
        aria-label={reading ? `Photo: ${things.length} things found` : 'Photo'}
      >
        <image href={`/api/photos/${id}`} width={width} height={height} />
        {reading && <Places reading={reading} unit={unit} />}
        {things.map((t, i) => (
          <Ring key={i} thing={t} n={i + 1} unit={unit} on={false} />
        ))}
        {over && <Over plan={over} reading={reading} width={width} height={height} />}
      </svg>
      {reading ? (
        <div className="absolute right-2 bottom-2 flex gap-1.5">
          {corrected && (
            <span className="rounded-lg bg-card px-2.5 min-h-9 grid items-center text-sm">
              put right by hand
            </span>
          )}
          <button type="button" onClick={onRight} className={onPhoto}>
            Put right
          </button>
          {things.length > 0 && (
            <button type="button" aria-pressed={whole} onClick={() => setWhole(!whole)} className={onPhoto}>
              {whole ? 'Closer' : 'Whole photo'}
            </button>
          )}
        </div>
      ) : (
        <span role="status" className="absolute left-2 bottom-2 rounded-lg bg-card px-2.5 py-1 text-sm">
          {unread ?? 'The photo is being read. Judge by eye meanwhile, or go on.'}
        </span>
      )}
    </div>
  )
}
/** Outlines of what the things lie in: frames, plates, rings, parts, or the boxes of a reply sheet. */
function outlinesOf({ structure, sheet }: PhotoReading): [number, number][][] {
  if (sheet) return sheet.map((b) => b.outline)
  if (!structure) return []
  switch (structure.kind) {
    case 'frames':
      return structure.frames.map((f) => f.outline)
    case 'parts':
      return structure.parts.map((p) => p.outline)
    case 'groups':
      return structure.groups.map((g) => g.outline)
  }
}
/** Places as they were seen, and a drawn line with things along it. */
function Places({ reading, unit }: { reading: PhotoReading; unit: number }) {
  const pen = {
    fill: 'none',
    stroke: '#1F5F99',
    strokeWidth: unit * 0.5,
    strokeDasharray: `${unit * 1.6} ${unit}`,
  }
  const { line } = reading
  return (
    <g>
      {outlinesOf(reading).map((outline, i) => (
        <polygon key={i} points={outline.map((p) => p.join(',')).join(' ')} {...pen} />
      ))}
      {line && <line x1={line.from[0]} y1={line.from[1]} x2={line.to[0]} y2={line.to[1]} {...pen} />}
    </g>
  )
}
/** The planned table over where the frame, or the things, were found; over the whole photo where nothing was. */
function Over({
  plan,
  reading,
  width,
  height,
}: {
  plan: TablePicture
  reading: PhotoReading | null
  width: number
  height: number
}) {
  const whole = Math.min(width / tableWidth, height / tableHeight)
  const m = (reading && laidOver(plan, reading)) ?? [whole, 0, 0, whole, 0, 0]
  return (
    <g transform={`matrix(${m.join(' ')})`} className="opacity-60 pointer-events-none">
      <Painted picture={plan} moving={false} />
    </g>
  )
}
/** The part of the photo with things in it and some table round them: about the scale of the drawing beside it. */
function around(
  things: readonly PhotoThing[],
  width: number,
  height: number,
): { x: number; y: number; w: number; h: number } {
  const edge = 3.2 * Math.max(...things.map((t) => t.r))
  const [left, right] = [
    Math.min(...things.map((t) => t.x)) - edge,
    Math.max(...things.map((t) => t.x)) + edge,
  ]
  const [top, bottom] = [
    Math.min(...things.map((t) => t.y)) - edge,
    Math.max(...things.map((t) => t.y)) + edge,
  ]
  const w = Math.min(width, Math.max(right - left, (bottom - top) * 1.1))
  const h = Math.min(height, Math.max(bottom - top, w * 0.8))
  const place = (centre: number, size: number, most: number) =>
    Math.min(Math.max(0, centre - size / 2), most - size)
  return { x: place((left + right) / 2, w, width), y: place((top + bottom) / 2, h, height), w, h }
}
const words: Record<PhotoReading['warnings'][number], string> = {
  blurred: 'blurred',
  dark: 'dark',
  'too small': 'things are small',
  touching: 'things touch or lie on one another',
  'cut off': 'something is cut off at the edge',
  'nothing found': 'nothing found',
  'busy ground': 'a busy ground',
  'pale on pale': 'things hardly differ from the table',
  'something large in view': 'something large is in view and was left out',
  'perhaps a hand': 'perhaps a hand is in view',
  'not a photo of things': 'this seems to be no photo of things',
}
export const warningText = (r: PhotoReading): string => r.warnings.map((w) => words[w]).join(', ')
