import { useState, type PointerEvent } from 'react'
import type { FilmBox } from '@awlbox/core/contracts/cut'
import { film } from '@awlbox/core/film/camera/frame'

/** Pixels of the film an arrow key moves a box, and with Shift held. */
const [step, small] = [8, 1]
const least = 24
function within(b: FilmBox): FilmBox {
  const [w, h] = [Math.min(film.width, Math.max(least, b.w)), Math.min(film.height, Math.max(least, b.h))]
  return {
    w: Math.round(w),
    h: Math.round(h),
    x: Math.round(Math.min(film.width - w, Math.max(0, b.x))),
    y: Math.round(Math.min(film.height - h, Math.max(0, b.y))),
  }
}

/** A box over the picture to be dragged, made larger at its corner, or moved by arrow keys (Alt: size). `done` is false while a drag goes on. */
export function MovableBox({
  label,
  box,
  scale,
  onMove,
}: {
  label: string
  box: FilmBox
  scale: number
  onMove: (box: FilmBox, done: boolean) => void
}) {
  const [held, setHeld] = useState<{ x: number; y: number; box: FilmBox; size: boolean } | null>(null)
  const grab = (size: boolean) => (e: PointerEvent<HTMLElement>) => {
    e.preventDefault()
    e.stopPropagation()
    e.currentTarget.setPointerCapture(e.pointerId)
    setHeld({ x: e.clientX, y: e.clientY, box, size })
  }
  const to = (e: PointerEvent): FilmBox => {
    const [dx, dy] = [(e.clientX - held!.x) / scale, (e.clientY - held!.y) / scale]
    const b = held!.box
    return within(held!.size ? { ...b, w: b.w + dx, h: b.h + dy } : { ...b, x: b.x + dx, y: b.y + dy })
  }
  const drag = {
    onPointerMove: (e: PointerEvent<HTMLElement>) => held && onMove(to(e), false),
    onPointerUp: (e: PointerEvent<HTMLElement>) => {
      if (!held) return
      onMove(to(e), true)
      setHeld(null)
    },
    onPointerCancel: () => setHeld(null),
  }
  return (
    // eslint-disable-next-line jsx-a11y-x/no-noninteractive-element-interactions -- a box on the picture is a control: dragged, or moved by keys
    <div
      role="group"
      aria-label={`${label}: arrow keys move it, with Alt they change its size`}
      tabIndex={0}
      onPointerDown={grab(false)}
      {...drag}
      onKeyDown={(e) => {
        const by = e.shiftKey ? small : step
        const [dx, dy] = [
          e.key === 'ArrowRight' ? by : e.key === 'ArrowLeft' ? -by : 0,
          e.key === 'ArrowDown' ? by : e.key === 'ArrowUp' ? -by : 0,
        ]
        if (!dx && !dy) return
        e.preventDefault()
        e.stopPropagation()
        onMove(
          within(
            e.altKey ? { ...box, w: box.w + dx, h: box.h + dy } : { ...box, x: box.x + dx, y: box.y + dy },
          ),
          true,
        )
      }}
      className="absolute cursor-move touch-none outline-2 outline-dashed outline-saffron focus-visible:outline-4"
      style={{ left: box.x * scale, top: box.y * scale, width: box.w * scale, height: box.h * scale }}
    >
      <span
        onPointerDown={grab(true)}
        {...drag}
        aria-hidden
        className="absolute -right-2.5 -bottom-2.5 w-6 h-6 rounded-full bg-saffron border-2 border-ink cursor-nwse-resize touch-none"
      />
    </div>
  )
}
