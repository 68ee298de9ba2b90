import { useRef } from 'react'
import { press } from './looks.ts'
import { useWords } from './words.ts'

/** The field one draws in, in the drawing's own units. */
const [wide, high] = [1000, 700]
/** Units a pen has to go before it leaves another point: fewer points than a hand trembles. */
const apart = 8
/** Letters a drawing may have when it is sent. */
const most = 19_900

/** A pen for a finger: lines only, kept as they were drawn. */
export function DrawingPad({
  value,
  locked,
  onChange,
}: {
  value: string
  locked: boolean
  onChange: (drawing: string) => void
}) {
  const { say } = useWords()
  const last = useRef<[number, number] | null>(null)
  const strokes = value.split(/(?=M)/).filter(Boolean)
  const at = (e: React.PointerEvent<SVGSVGElement>): [number, number] => {
    const box = e.currentTarget.getBoundingClientRect()
    const x = Math.round(((e.clientX - box.left) / box.width) * wide)
    const y = Math.round(((e.clientY - box.top) / box.height) * high)
    return [Math.max(0, Math.min(wide, x)), Math.max(0, Math.min(high, y))]
  }
  const add = (piece: string): void => {
    if (value.length + piece.length <= most) onChange(value + piece)
  }
  return (
    <div className="grid gap-2">
      <p className="text-steel">{say('draw.words')}</p>
      <svg
        viewBox={`0 0 ${wide} ${high}`}
        role="img"
        aria-label={say('draw.label')}
        className="w-full touch-none rounded-lg border-2 border-ink bg-white text-[#14232b]"
        onPointerDown={(e) => {
          if (locked) return
          e.currentTarget.setPointerCapture(e.pointerId)
          last.current = at(e)
          // A dot is a line to where it stands.
          add(`M${last.current.join(' ')}L${last.current.join(' ')}`)
        }}
        onPointerMove={(e) => {
          if (locked || !e.buttons || !last.current) return
          const now = at(e)
          if (Math.hypot(now[0] - last.current[0], now[1] - last.current[1]) < apart) return
          last.current = now
          add(`L${now.join(' ')}`)
        }}
        onPointerUp={() => (last.current = null)}
      >
        <path
          d={value}
          fill="none"
          stroke="currentColor"
          strokeWidth="9"
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      </svg>
      <div className="grid grid-cols-2 gap-2">
        <button
          type="button"
          disabled={locked || !strokes.length}
          onClick={() => onChange(strokes.slice(0, -1).join(''))}
          className={`${press(false)} disabled:opacity-50`}
        >
          {say('draw.rub')}
        </button>
        <button
          type="button"
          disabled={locked || !strokes.length}
          onClick={() => onChange('')}
          className={`${press(false)} disabled:opacity-50`}
        >
          {say('draw.clear')}
        </button>
      </div>
    </div>
  )
}
