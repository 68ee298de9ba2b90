import { type PointerEvent, type RefObject, useRef } from 'react'
import type { needsOf } from '@awlbox/core/film/camera/camera-check'
import type { View } from '@awlbox/core/film/camera/view'
import { StreamVideo } from './stream-video.tsx'

/** A place in the picture: −1 to 1 across and up. */
export interface Place {
  u: number
  v: number
}

/** The camera's picture with the outline of every planned place in it, as large as it will be, and the corners of the sheet. */
export function CameraPicture({
  stream,
  video,
  view,
  needs,
  corners,
  onCorners,
  onAspect,
}: {
  stream: MediaStream
  video: RefObject<HTMLVideoElement | null>
  view: View | null
  needs: ReturnType<typeof needsOf>
  corners: Place[] | null
  onCorners: (c: Place[]) => void
  onAspect: (a: number) => void
}) {
  const box = useRef<SVGSVGElement>(null)
  const drag = useRef(-1)
  const at = (p: Place): string => `${50 + p.u * 50},${50 - p.v * 50}`
  const move = (e: PointerEvent) => {
    const r = box.current?.getBoundingClientRect()
    if (drag.current < 0 || !corners || !r) return
    const p = {
      u: Math.max(-1, Math.min(1, ((e.clientX - r.left) / r.width) * 2 - 1)),
      v: Math.max(-1, Math.min(1, 1 - ((e.clientY - r.top) / r.height) * 2)),
    }
    onCorners(corners.map((c, i) => (i === drag.current ? p : c)))
  }
  return (
    <div className="relative rounded-lg overflow-hidden bg-black aspect-video">
      <StreamVideo stream={stream} video={video} onSize={(w, h) => onAspect(w / Math.max(1, h))} />
      <svg
        ref={box}
        viewBox="0 0 100 100"
        preserveAspectRatio="none"
        className="absolute inset-0 w-full h-full touch-none"
        onPointerMove={move}
        onPointerUp={() => (drag.current = -1)}
      >
        {view &&
          needs.places.map((p) => {
            const points = [p.from, { x: p.to.x, y: p.from.y }, p.to, { x: p.from.x, y: p.to.y }].map((c) =>
              view.toPicture(c),
            )
            return (
              points.every((q) => q !== null) && (
                <polygon
                  key={p.name}
                  points={points.map((q) => at(q)).join(' ')}
                  fill="#f2b70522"
                  stroke="#f2b705"
                  strokeWidth="2"
                  vectorEffect="non-scaling-stroke"
                >
                  <title>{p.name}</title>
                </polygon>
              )
            )
          })}
        {corners && (
          <polygon
            points={corners.map(at).join(' ')}
            fill="none"
            stroke="#fff"
            strokeWidth="2"
            strokeDasharray="6 4"
            vectorEffect="non-scaling-stroke"
          />
        )}
      </svg>
      {corners?.map((c, i) => (
        <button
          key={i}
          type="button"
          aria-label={`Corner ${i + 1} of the sheet`}
          style={{ left: `${50 + c.u * 50}%`, top: `${50 - c.v * 50}%` }}
          className="absolute size-10 -translate-x-1/2 -translate-y-1/2 rounded-full border-4 border-saffron bg-black/30 cursor-grab touch-none"
          onPointerDown={(e) => {
            drag.current = i
            e.currentTarget.setPointerCapture(e.pointerId)
          }}
          onPointerMove={move}
          onPointerUp={() => (drag.current = -1)}
          onKeyDown={(e) => {
            const by = (
              { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] } as Record<
                string,
                [number, number]
              >
            )[e.key]
            if (!by) return
            e.preventDefault()
            onCorners(corners.map((x, k) => (k === i ? { u: x.u + by[0] * 0.01, v: x.v + by[1] * 0.01 } : x)))
          }}
        />
      ))}
    </div>
  )
}
