import { scaleLinear } from 'd3-scale'
import { linkHorizontal } from 'd3-shape'
import { useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react'
import type { Idea } from '@awlbox/core/contracts/idea'
import type { ClassLevel } from '@awlbox/core/judge/class-level'
import { allBefore, placeLadder, type RungPlace, walk } from '@awlbox/core/plan/ladder/order'

const [columnWidth, leastRow, boxWidth, boxHeight] = [222, 48, 190, 38]
/** Where a class is now: the idea furthest to the right that has been seen and is not secure with all; else the furthest seen. */
function presentOf(places: readonly RungPlace[], levels: ReadonlyMap<string, ClassLevel>): string | null {
  const seen = places
    .filter((p) => (levels.get(p.idea.id)?.seen ?? 0) > 0)
    .sort((a, b) => b.column - a.column)
  const open = seen.find((p) => {
    const l = levels.get(p.idea.id)!
    return l.secure < l.seen
  })
  return (open ?? seen[0])?.idea.id ?? null
}
/** A name in one line or two; the longest of ours has 46 letters. */
function inTwo(name: string): string[] {
  if (name.length <= 27) return [name]
  const middle = name.length / 2
  const spaces = [...name].flatMap((c, i) => (c === ' ' ? [i] : []))
  const at = spaces.sort((a, b) => Math.abs(a - middle) - Math.abs(b - middle))[0]
  return at === undefined ? [name] : [name.slice(0, at), name.slice(at + 1)]
}
const link = linkHorizontal<{ source: [number, number]; target: [number, number] }, [number, number]>()

/**
 * The ladder as columns of rungs, from left to right. In each box an eyelet: how full is the class's mean level, how
 * thick its rim is how many children were seen, the number in it how many are secure; dashed: nobody seen.
 */
export function LadderDrawing({
  ideas,
  levels,
  picked,
  onPick,
}: {
  ideas: readonly Idea[]
  levels: ReadonlyMap<string, ClassLevel>
  picked: string | null
  onPick: (id: string) => void
}) {
  const { places, columns, rows } = useMemo(() => placeLadder(ideas), [ideas])
  const near = useMemo(() => {
    if (!picked) return null
    const all = allBefore(picked, ideas)
    for (const i of ideas) if (i.after.includes(picked)) all.add(i.id)
    return all.add(picked)
  }, [picked, ideas])
  const [room, setRoom] = useState(0)
  // Rows use all the height there is.
  const rowHeight = Math.max(leastRow, Math.floor((room - 14) / Math.max(1, rows)))
  const x = scaleLinear([0, 1], [10, 10 + columnWidth])
  const y = scaleLinear([0, 1], [8, 8 + rowHeight])
  const box = useRef<HTMLDivElement>(null)
  const measured = useCallback((e: HTMLDivElement | null) => {
    box.current = e
    if (!e) return
    const observer = new ResizeObserver(() => setRoom(e.clientHeight))
    observer.observe(e)
    return () => observer.disconnect()
  }, [])
  const present = useMemo(() => presentOf(places, levels), [places, levels])
  // Opens where the class is now, and follows what is chosen.
  const centre = picked ?? present
  useEffect(() => {
    if (centre)
      box.current
        ?.querySelector(`[data-idea="${centre}"]`)
        ?.scrollIntoView({ block: 'nearest', inline: 'center' })
  }, [centre, rowHeight])
  const onKey = (e: KeyboardEvent, from: RungPlace): void => {
    if (e.key === 'Enter' || e.key === ' ') {
      e.preventDefault()
      onPick(from.idea.id)
      return
    }
    const to = walk(places, from, e.key)
    if (!to) return
    e.preventDefault()
    onPick(to.idea.id)
    box.current?.querySelector<SVGGElement>(`[data-idea="${to.idea.id}"]`)?.focus()
  }
  const at = new Map(places.map((p) => [p.idea.id, p]))
  const [w, h] = [columns * columnWidth + 10, rows * rowHeight + 12]
  return (
    <div
      ref={measured}
      className="overflow-auto rounded-xl border border-hair bg-card h-[calc(100dvh-186px)] min-h-80"
      role="region"
      aria-label="The ladder"
    >
      <svg
        width={w}
        height={h}
        viewBox={`0 0 ${w} ${h}`}
        className="block"
        role="group"
        aria-label={`Ladder of ${ideas.length} ideas; arrow keys go from one to the next`}
      >
        {places.flatMap((p) =>
          p.idea.after.flatMap((b) => {
            const from = at.get(b)
            if (!from) return []
            const lit = near?.has(p.idea.id) && near.has(b)
            return [
              <path
                key={`${b}-${p.idea.id}`}
                d={
                  link({
                    source: [x(from.column) + boxWidth, y(from.row) + boxHeight / 2],
                    target: [x(p.column), y(p.row) + boxHeight / 2],
                  }) ?? ''
                }
                fill="none"
                stroke={lit ? 'var(--ink)' : 'var(--hair)'}
                strokeWidth={lit ? 2.2 : 1.3}
              />,
            ]
          }),
        )}
        {places.map((p) => {
          const l = levels.get(p.idea.id)
          const mean = l?.mean ?? 0
          const r = 11
          const on = p.idea.id === picked
          const lines = inTwo(p.idea.name)
          return (
            <g
              key={p.idea.id}
              transform={`translate(${x(p.column)} ${y(p.row)})`}
              role="button"
              tabIndex={p.idea.id === (centre ?? places[0]?.idea.id) ? 0 : -1}
              aria-pressed={on}
              aria-label={`${p.idea.name}${l && l.seen > 0 ? ` ${l.secure} of ${l.children} secure` : ': nobody seen yet'}`}
              data-idea={p.idea.id}
              onClick={() => onPick(p.idea.id)}
              onKeyDown={(e) => onKey(e, p)}
              className="cursor-pointer"
            >
              <rect
                width={boxWidth}
                height={boxHeight}
                rx={8}
                fill={on ? 'var(--here)' : near && !near.has(p.idea.id) ? 'var(--card)' : 'var(--ground)'}
                stroke={on ? '#f2b705' : 'var(--hair)'}
                strokeWidth={on ? 2.5 : 1}
              />
              <g transform={`translate(18 ${boxHeight / 2})`}>
                <clipPath id={`lv-${p.idea.id}`}>
                  <rect
                    x={-r}
                    y={r - 2 * r * Math.min(1, mean)}
                    width={2 * r}
                    height={2 * r * Math.min(1, mean)}
                  />
                </clipPath>
                <circle r={r} fill="var(--card)" />
                <circle r={r} fill="var(--blue)" opacity={0.55} clipPath={`url(#lv-${p.idea.id})`} />
                <circle
                  r={r}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth={l && l.seen > 0 ? 1 + (2.4 * l.seen) / l.children : 1}
                  strokeDasharray={l && l.seen > 0 ? undefined : '3 3'}
                />
              </g>
              <text
                x={36}
                y={boxHeight / 2 + 4}
                fontSize={11.5}
                fill="var(--ink)"
                opacity={near && !near.has(p.idea.id) ? 0.55 : 1}
              >
                {lines.map((line, n) => (
                  <tspan key={n} x={36} dy={n === 0 ? (lines.length > 1 ? -6 : 0) : 13}>
                    {line}
                    {n < lines.length - 1 ? ' ' : ''}
                  </tspan>
                ))}
                <title>{p.idea.name}</title>
              </text>
              {l && l.seen > 0 && (
                <text
                  x={18}
                  textAnchor="middle"
                  y={boxHeight / 2 + 4}
                  fontSize={11}
                  fontWeight={700}
                  fill="var(--ink)"
                >
                  {' '}
                  {l.secure}
                </text>
              )}
            </g>
          )
        })}
      </svg>
    </div>
  )
}
