import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Gesture, Spot } from '@awlbox/core/script/gesture'
import { spotWords } from '@awlbox/core/script/gesture'
import { describeTable } from '@awlbox/core/script/table/description'
import { tableHeight, tableWidth } from '@awlbox/core/script/table/drawing/paper'
import { layTable, type TableThing, type TableZone } from '@awlbox/core/script/table/drawing/table'
import { drawThing } from '@awlbox/core/script/table/drawing/things'
import { hasWhole, type TableState } from '@awlbox/core/script/table/state'
import { Painted } from './drawing.tsx'
import { node } from './shapes.tsx'

export type Hand = 'saffron' | 'blue' | 'turn' | 'cross' | 'take'
const spotOf = (z: TableZone): Spot => ({ mat: z.mat, region: z.region })
const spotOfThing = (t: TableThing): Spot => ({
  mat: t.mat,
  region: hasWhole(t.mat) ? t.region - 1 : t.region,
})
const numberMats = ['line', 'square']

type Drag =
  | { kind: 'thing'; thing: TableThing; x: number; y: number; moved: boolean }
  | { kind: 'number'; from: number; at: number; zone: TableZone }

/**
 * The table one can put hands on: tap a place to put a thing there, tap a thing to turn, cross out or take it, drag it
 * to another place or off the table; on a line tap a number or drag a hop. Each writes a line of the script. By
 * keyboard: arrows choose a place, + and − put and take, t turns over, x crosses out.
 */
export function TableBoard({
  table,
  fill,
  hand,
  onGesture,
  disabled,
  className = '',
}: {
  table: TableState
  fill: HouseStyle['frameFill']
  hand: Hand
  onGesture: (g: Gesture) => void
  disabled: boolean
  className?: string
}) {
  const picture = useMemo(() => layTable(table, fill), [table, fill])
  const svg = useRef<SVGSVGElement>(null)
  const [drag, setDrag] = useState<Drag | null>(null)
  const [focus, setFocus] = useState(0)
  const point = (e: PointerEvent): { x: number; y: number } => {
    const matrix = svg.current!.getScreenCTM()!.inverse()
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix)
    return { x: p.x, y: p.y }
  }
  const thingAt = (x: number, y: number) =>
    [...picture.things].reverse().find((t) => Math.hypot(t.x - x, t.y - y) <= t.r * 1.15)
  const zoneAt = (x: number, y: number) =>
    [...picture.zones].reverse().find((z) => x >= z.x && x <= z.x + z.w && y >= z.y && y <= z.y + z.h)
  const onThing = (t: TableThing): void => {
    const at = spotOfThing(t)
    if (hand === 'turn') onGesture({ type: 'turn', at, count: 1 })
    else if (hand === 'cross' || t.mat === 'skittles') onGesture({ type: 'cross', at, count: 1 })
    else if (hand === 'take') onGesture({ type: 'take', at, count: 1 })
    else onGesture({ type: 'put', at, count: 1, face: hand })
  }
  const onZone = (z: TableZone, x: number, y: number): void => {
    const n = z.numberAt?.(x, y)
    if (numberMats.includes(z.mat)) {
      if (n !== null && n !== undefined) onGesture({ type: 'mark', number: n, square: z.mat === 'square' })
    } else if (hand === 'take') onGesture({ type: 'take', at: spotOf(z), count: 1 })
    else if (hand === 'saffron' || hand === 'blue')
      onGesture({ type: 'put', at: spotOf(z), count: 1, face: hand })
  }
  const down = (e: PointerEvent) => {
    if (disabled || e.button !== 0) return
    const { x, y } = point(e)
    const thing = thingAt(x, y)
    const zone = zoneAt(x, y)
    const n = zone?.numberAt?.(x, y)
    if (thing) setDrag({ kind: 'thing', thing, x, y, moved: false })
    else if (zone && n !== null && n !== undefined) setDrag({ kind: 'number', from: n, at: n, zone })
    else if (zone) onZone(zone, x, y)
    if (thing || n != null) e.currentTarget.setPointerCapture(e.pointerId)
  }
  const move = (e: PointerEvent) => {
    if (!drag) return
    const { x, y } = point(e)
    if (drag.kind === 'thing')
      setDrag({
        ...drag,
        x,
        y,
        moved: drag.moved || Math.hypot(x - drag.thing.x, y - drag.thing.y) > drag.thing.r * 1.3,
      })
    else setDrag({ ...drag, at: drag.zone.numberAt?.(x, y) ?? drag.at })
  }
  const up = (e: PointerEvent) => {
    if (!drag) return
    const { x, y } = point(e)
    setDrag(null)
    if (drag.kind === 'number') {
      if (drag.at !== drag.from) onGesture({ type: 'hop', from: drag.from, to: drag.at })
      else onZone(drag.zone, x, y)
      return
    }
    const from = spotOfThing(drag.thing)
    const zone = zoneAt(x, y)
    if (!drag.moved) onThing(drag.thing)
    else if (!zone) onGesture({ type: 'take', at: from, count: 1 })
    else if (zone.mat !== from.mat || zone.region !== from.region) {
      if (!numberMats.includes(zone.mat)) onGesture({ type: 'move', from, to: spotOf(zone), count: 1 })
    }
  }
  const zone = picture.zones[Math.min(focus, picture.zones.length - 1)]
  const onKey = (e: KeyboardEvent) => {
    if (!zone || disabled) return
    const step =
      e.key === 'ArrowRight' || e.key === 'ArrowDown'
        ? 1
        : e.key === 'ArrowLeft' || e.key === 'ArrowUp'
          ? -1
          : 0
    const at = spotOf(zone)
    const line = numberMats.includes(zone.mat)
    if (step) setFocus((f) => (f + step + picture.zones.length) % picture.zones.length)
    else if (line) return
    else if (e.key === '+' || e.key === '=' || e.key === 'Enter')
      onGesture({ type: 'put', at, count: 1, face: hand === 'blue' ? 'blue' : 'saffron' })
    else if (e.key === '-') onGesture({ type: 'take', at, count: 1 })
    else if (e.key === 't') onGesture({ type: 'turn', at, count: 1 })
    else if (e.key === 'x') onGesture({ type: 'cross', at, count: 1 })
    else return
    e.preventDefault()
    e.stopPropagation()
  }
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${tableWidth} ${tableHeight}`}
      role="application"
      tabIndex={disabled ? -1 : 0}
      aria-label={`${describeTable(table)}.${zone && !disabled ? ` At ${spotWords(spotOf(zone))}: plus puts, minus takes, t turns over, x crosses out, arrows change the place.` : ''}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={() => setDrag(null)}
      onKeyDown={onKey}
      className={`peer block w-full bg-white rounded-lg select-none ${disabled ? '' : 'cursor-pointer touch-none'} ${className}`}
    >
      <Painted picture={picture} moving />
      {drag?.kind === 'thing' && drag.moved && (
        <g opacity={0.85} style={{ transform: `translate(${drag.x}px, ${drag.y}px)` }}>
          {drawThing(drag.thing.form, drag.thing.r * 1.1, drag.thing.thing).map(node)}
        </g>
      )}
      {drag?.kind === 'number' && drag.at !== drag.from && (
        <text
          x={tableWidth / 2}
          y={30}
          textAnchor="middle"
          fontSize={22}
          fontFamily="Andika"
        >{`${drag.from} to ${drag.at}`}</text>
      )}
      {zone && (
        <rect
          x={zone.x - 3}
          y={zone.y - 3}
          width={zone.w + 6}
          height={zone.h + 6}
          rx={10}
          fill="none"
          stroke="#1F5F99"
          strokeWidth={3}
          strokeDasharray="3 5"
          className="board-focus"
        />
      )}
    </svg>
  )
}
