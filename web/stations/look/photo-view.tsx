import { useState } from 'react'
import type { PhotoReading } from '@awlbox/core/contracts/reading'

/** The photo with what was found ringed and numbered. */
export function PhotoView({
  id,
  width,
  height,
  reading,
  unread,
}: {
  id: string
  width: number
  height: number
  reading: PhotoReading | null
  unread: string | null
}) {
  const [whole, setWhole] = useState(false)
  const view =
    whole || !reading?.things.length ? { x: 0, y: 0, w: width, h: height } : around(reading, width, height)
  const unit = Math.max(view.w, view.h) / 100
  return (
    <div className="relative grid place-items-center h-full min-h-0">
      <svg
        viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`}
        className="max-w-full max-h-full w-full h-full"
        role="img"
        aria-label={reading ? `Photo: ${reading.count} things found` : 'Photo'}
      >
        <image href={`/api/photos/${id}`} width={width} height={height} />
        {reading?.things.map((t, i) => (
          <g key={i}>
            <circle cx={t.x} cy={t.y} r={t.r * 1.12} fill="none" stroke="#fff" strokeWidth={unit * 0.9} />
            <circle
              cx={t.x}
              cy={t.y}
              r={t.r * 1.12}
              fill="none"
              stroke="#14232B"
              strokeWidth={unit * 0.45}
              strokeDasharray={t.cutOff ? `${unit} ${unit}` : undefined}
            />
            <rect
              x={t.x + t.r * 0.5}
              y={t.y - t.r * 1.5}
              width={unit * (i > 8 ? 4.4 : 3.4)}
              height={unit * 3.6}
              rx={unit * 0.7}
              fill="#14232B"
            />
            <text
              x={t.x + t.r * 0.5 + unit * (i > 8 ? 2.2 : 1.7)}
              y={t.y - t.r * 1.5 + unit * 2.7}
              fontSize={unit * 2.7}
              fontWeight={700}
              textAnchor="middle"
              fill="#fff"
            >
              {i + 1}
            </text>
          </g>
        ))}
      </svg>
      {reading && reading.things.length > 0 && (
        <button
          type="button"
          aria-pressed={whole}
          onClick={() => setWhole(!whole)}
          className="absolute right-2 bottom-2 rounded-lg bg-black/65 text-white text-sm px-2.5 min-h-9 cursor-pointer"
        >
          {whole ? 'Closer' : 'Whole photo'}
        </button>
      )}
      {!reading && (
        <span role="status" className="absolute left-2 bottom-2 rounded-lg bg-card px-2.5 py-1 text-sm">
          {unread ?? 'The photo is being read. Judge by eye meanwhile, or go on.'}
        </span>
      )}
    </div>
  )
}
/** The part of the photo with things in it and some table round them: about the scale of the drawing beside it. */
function around(
  r: PhotoReading,
  width: number,
  height: number,
): { x: number; y: number; w: number; h: number } {
  const edge = 3.2 * Math.max(...r.things.map((t) => t.r))
  const [left, right] = [
    Math.min(...r.things.map((t) => t.x)) - edge,
    Math.max(...r.things.map((t) => t.x)) + edge,
  ]
  const [top, bottom] = [
    Math.min(...r.things.map((t) => t.y)) - edge,
    Math.max(...r.things.map((t) => t.y)) + edge,
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
  touching: 'things touch',
  'cut off': 'something is cut off at the edge',
  'nothing found': 'nothing found',
  'busy ground': 'a busy ground',
}
export const warningText = (r: PhotoReading): string => r.warnings.map((w) => words[w]).join(', ')
