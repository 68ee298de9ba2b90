import type { StandingCell } from '@awlbox/core/contracts/api/next'

/** How full an eyelet is: the level. How thick its rim: certainty. The number: occasions. Dotted: not seen. */
export function Eyelet({
  cell,
  name,
  idea,
  on = false,
  onPick,
}: {
  cell: StandingCell
  name: string
  idea: string
  on?: boolean
  /** Without it the eyelet is only looked at. */
  onPick?: () => void
}) {
  const seen = cell.word !== 'not seen'
  const sure = 1 - (cell.high - cell.low)
  const r = 13
  const full = seen ? cell.level : 0
  const top = r - 2 * r * full
  const half = Math.sqrt(Math.max(0, r * r - top * top))
  const words = `${name}, ${idea}: ${seen ? `${cell.word}, level ${Math.round(cell.level * 100)} of 100, ${cell.occasions} ${cell.occasions === 1 ? 'occasion' : 'occasions'}` : 'not seen yet'}`
  const drawing = (
    <svg
      width="34"
      height="34"
      viewBox="-17 -17 34 34"
      {...(onPick ? { 'aria-hidden': true } : { role: 'img', 'aria-label': words })}
    >
      <circle
        r={r}
        fill="var(--card)"
        stroke={seen ? 'var(--ink)' : 'var(--steel)'}
        strokeWidth={seen ? 1.5 + 3 * Math.max(0, sure) : 1.2}
        strokeDasharray={seen ? undefined : '2 3'}
      />
      {full > 0.02 && (
        <path
          d={
            full > 0.98
              ? `M${-r} 0 A${r} ${r} 0 1 1 ${r} 0 A${r} ${r} 0 1 1 ${-r} 0Z`
              : `M${-half} ${top} A${r} ${r} 0 ${full > 0.5 ? 1 : 0} 0 ${half} ${top}Z`
          }
          fill="var(--moss)"
          opacity="0.5"
        />
      )}
      {seen && (
        <text y="4.5" textAnchor="middle" fontSize="13" fontWeight="700" fill="var(--ink)">
          {cell.occasions}
        </text>
      )}
    </svg>
  )
  if (!onPick) return drawing
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onPick}
      aria-label={words}
      className={`size-10 rounded-full grid place-items-center cursor-pointer ${on ? 'bg-saffron' : 'hover:bg-wash'}`}
    >
      {drawing}
    </button>
  )
}
