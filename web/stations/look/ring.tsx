import type { PhotoReading, PhotoThing } from '@awlbox/core/contracts/reading'

export interface Shown {
  id: string
  width: number
  height: number
  reading: PhotoReading | null
  unread: string | null
  corrected: boolean
}
/** Where a photo stands: filling what room there is. */
export const stage =
  'relative grid place-items-center h-full min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)]'

/** A thing as it was found: its number beside it, dashed where the edge cuts it, a stroke where it is crossed out. */
export function Ring({ thing: t, n, unit, on }: { thing: PhotoThing; n: number; unit: number; on: boolean }) {
  return (
    <g>
      <circle
        cx={t.x}
        cy={t.y}
        r={t.r * 1.12}
        fill={on ? '#F2B70555' : 'none'}
        stroke="#fff"
        strokeWidth={unit * 0.9}
      />
      <circle
        cx={t.x}
        cy={t.y}
        r={t.r * 1.12}
        fill="none"
        stroke="#14232B"
        strokeWidth={unit * 0.45}
        strokeDasharray={t.cutOff ? `${unit} ${unit}` : undefined}
      />
      {t.crossed && (
        <line
          x1={t.x - t.r}
          y1={t.y + t.r}
          x2={t.x + t.r}
          y2={t.y - t.r}
          stroke="#14232B"
          strokeWidth={unit * 0.6}
        />
      )}
      <rect
        x={t.x + t.r * 0.5}
        y={t.y - t.r * 1.5}
        width={unit * (n > 9 ? 4.4 : 3.4)}
        height={unit * 3.6}
        rx={unit * 0.7}
        fill="#14232B"
      />
      <text
        x={t.x + t.r * 0.5 + unit * (n > 9 ? 2.2 : 1.7)}
        y={t.y - t.r * 1.5 + unit * 2.7}
        fontSize={unit * 2.7}
        fontWeight={700}
        textAnchor="middle"
        fill="#fff"
      >
        {n}
      </text>
    </g>
  )
}
