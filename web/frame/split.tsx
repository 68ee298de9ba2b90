import { useRef, useState, type ReactNode } from 'react'

const key = 'awlbox-divider'
const clamp = (n: number): number => Math.min(65, Math.max(32, n))

/** Strip and table side by side; the divider can be dragged or moved with the arrow keys, and is remembered. */
export function Split({ left, right }: { left: ReactNode; right: ReactNode }) {
  const [share, setShare] = useState(() => clamp(Number(localStorage.getItem(key)) || 45))
  const box = useRef<HTMLDivElement>(null)
  const move = (next: number) => {
    setShare(clamp(next))
    localStorage.setItem(key, String(clamp(next)))
  }
  return (
    <div ref={box} className="flex max-md:flex-col h-[calc(100dvh-112px)] max-md:h-auto">
      <section
        className="min-w-0 flex flex-col max-md:!w-full"
        style={{ width: `${share}%` }}
        aria-label="The strip"
      >
        {left}
      </section>
      {/* eslint-disable-next-line jsx-a11y-x/no-noninteractive-element-interactions -- a divider is a control: it is dragged, or moved by keys */}
      <div
        role="separator"
        aria-orientation="vertical"
        aria-label="Divider between strip and table"
        aria-valuenow={Math.round(share)}
        aria-valuemin={32}
        aria-valuemax={65}
        tabIndex={0}
        className="max-md:hidden w-1.5 shrink-0 cursor-col-resize border-l border-hair hover:bg-hair"
        onKeyDown={(e) => {
          if (e.key === 'ArrowLeft') move(share - 2)
          if (e.key === 'ArrowRight') move(share + 2)
        }}
        onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
        onPointerMove={(e) => {
          const r = box.current?.getBoundingClientRect()
          if (r && e.currentTarget.hasPointerCapture(e.pointerId))
            move(((e.clientX - r.left) / r.width) * 100)
        }}
      />
      <section className="min-w-0 flex-1 overflow-auto" aria-label="The table">
        {right}
      </section>
    </div>
  )
}
