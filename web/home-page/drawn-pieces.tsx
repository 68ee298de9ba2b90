import { useRef, useState } from 'react'
import { field, tile } from './looks.ts'
import type { PiecesProps } from './pieces-props.ts'
import { useWords } from './words.ts'

/** Pixels of the drawing of a line; it is stretched to the screen. */
const [across, left, right] = [1000, 40, 960]

/** Numbers dragged, or stepped by keys, to where they belong on a line that shows its ends alone. */
export function Line({ task, given = [], locked, onGive }: PiecesProps) {
  const { say } = useWords()
  const [from = 0, to = 100] = task.numbers
  const drawing = useRef<SVGSVGElement>(null)
  const [held, setHeld] = useState<number | null>(null)
  const at = task.slots.map((_, i) => (given[i]?.trim() ? Number(given[i]) : null))
  const step = (to - from) / 100
  const put = (i: number, place: number | null): void => {
    const clean =
      place === null
        ? ''
        : String(Number(Math.max(from, Math.min(to, place)).toFixed(to - from > 20 ? 0 : 1)))
    onGive(task.slots.map((_, k) => (k === i ? clean : (given[k] ?? ''))))
  }
  const placeAt = (x: number): number => {
    const box = drawing.current!.getBoundingClientRect()
    return from + ((((x - box.left) / box.width) * across - left) / (right - left)) * (to - from)
  }
  const xOf = (place: number): number => left + ((place - from) / (to - from)) * (right - left)
  return (
    <div className="grid gap-2" dir="ltr">
      <svg
        ref={drawing}
        viewBox={`0 0 ${across} 190`}
        className="w-full touch-none rounded-lg bg-wash"
        role="presentation"
        onPointerDown={(e) => {
          if (locked || held === null) return
          e.currentTarget.setPointerCapture(e.pointerId)
          put(held, placeAt(e.clientX))
        }}
        onPointerMove={(e) => {
          if (!locked && held !== null && e.buttons) put(held, placeAt(e.clientX))
        }}
      >
        <line x1={left} x2={right} y1="120" y2="120" stroke="currentColor" strokeWidth="5" />
        {[from, to].map((n) => (
          <g key={n}>
            <line x1={xOf(n)} x2={xOf(n)} y1="98" y2="142" stroke="currentColor" strokeWidth="5" />
            <text
              x={xOf(n)}
              y="182"
              textAnchor="middle"
              className="font-child"
              fontSize="36"
              fill="currentColor"
            >
              {n}
            </text>
          </g>
        ))}
        {at.map(
          (place, i) =>
            place !== null && (
              <g key={i}>
                <line
                  x1={xOf(place)}
                  x2={xOf(place)}
                  y1="64"
                  y2="140"
                  stroke="currentColor"
                  strokeWidth={held === i ? 8 : 4}
                />
                <text
                  x={xOf(place)}
                  y="52"
                  textAnchor="middle"
                  className="font-child"
                  fontSize="40"
                  fontWeight="700"
                  fill="currentColor"
                >
                  {task.slots[i]}
                </text>
              </g>
            ),
        )}
      </svg>
      <div role="radiogroup" aria-label={task.prompt} className="flex flex-wrap gap-2">
        {task.slots.map((s, i) => (
          <button
            key={s}
            type="button"
            role="radio"
            aria-checked={held === i}
            aria-label={
              at[i] === null
                ? `${say('line.from', { what: s })}: ${say('line.not', { what: s })}`
                : say('line.at', { what: s, n: at[i] })
            }
            disabled={locked}
            onClick={() => {
              setHeld(i)
              if (at[i] === null) put(i, (from + to) / 2)
            }}
            onKeyDown={(e) => {
              const by = { ArrowRight: step, ArrowLeft: -step, ArrowUp: step * 10, ArrowDown: -step * 10 }[
                e.key
              ]
              if (by === undefined || locked) return
              e.preventDefault()
              setHeld(i)
              put(i, (at[i] ?? (from + to) / 2) + by)
            }}
            className={`${tile(held === i)} ${at[i] === null ? 'border-dashed' : ''}`}
          >
            {s}
          </button>
        ))}
      </div>
    </div>
  )
}

/** Circles under each numeral, one more or one fewer at a tap. */
export function Circles({ task, given = [], locked, onGive }: PiecesProps) {
  const { say } = useWords()
  const put = (i: number, n: number) =>
    onGive(task.slots.map((_, k) => (k === i ? String(n) : (given[k] ?? '0'))))
  return (
    <ul className="grid gap-2" dir="ltr">
      {task.slots.map((numeral, i) => {
        const n = Number(given[i] ?? 0)
        return (
          <li key={`${numeral} ${i}`} className="flex items-center gap-2 rounded-xl border-2 border-hair p-2">
            <span
              className="flex-1 min-w-0 grid gap-1"
              role="img"
              aria-label={`${say('draw.circles', { n: numeral })}: ${n}`}
            >
              <b className="font-child text-[30px] leading-none">{numeral}</b>
              <span aria-hidden className="flex flex-wrap gap-1 min-h-6">
                {Array.from({ length: n }, (_, k) => (
                  <span key={k} className="size-5 rounded-full border-[3px] border-ink" />
                ))}
              </span>
            </span>
            <button
              type="button"
              aria-label={say('draw.less', { n: numeral })}
              disabled={locked || n === 0}
              onClick={() => put(i, n - 1)}
              className={tile(false)}
            >
              −
            </button>
            <button
              type="button"
              aria-label={say('draw.more', { n: numeral })}
              disabled={locked || n >= 20}
              onClick={() => put(i, n + 1)}
              className={tile(false)}
            >
              +
            </button>
          </li>
        )
      })}
    </ul>
  )
}

/** Things in rows of five, crossed off at a tap. */
export function Cross({ task, given, locked, onGive }: PiecesProps) {
  const { say } = useWords()
  const [things = 0] = task.numbers
  const off = new Set(given ?? [])
  return (
    <div className="grid gap-1.5">
      <p className="text-steel">{say('draw.cross')}</p>
      <ul className="grid grid-cols-5 gap-2" dir="ltr">
        {Array.from({ length: things }, (_, i) => String(i + 1)).map((n) => (
          <li key={n}>
            <button
              type="button"
              aria-pressed={off.has(n)}
              aria-label={say('draw.thing', { n: Number(n) })}
              disabled={locked}
              onClick={() => onGive(off.has(n) ? [...off].filter((x) => x !== n) : [...off, n])}
              className="w-full aspect-square max-h-16 grid place-items-center"
            >
              <svg viewBox="0 0 40 40" className="size-12" aria-hidden>
                <circle cx="20" cy="20" r="15" fill="none" stroke="currentColor" strokeWidth="3" />
                {off.has(n) && (
                  <path
                    d="M6 6 L34 34 M34 6 L6 34"
                    stroke="currentColor"
                    strokeWidth="4"
                    strokeLinecap="round"
                  />
                )}
              </svg>
            </button>
          </li>
        ))}
      </ul>
    </div>
  )
}

/** Parts of a round in what is sent. */
const between = '|'
/** The rounds of a game: what came up, what was said, what was written. */
export function Record({ task, given = [], locked, onGive }: PiecesProps) {
  const { say } = useWords()
  const [rounds = 5] = task.numbers
  const lines = [...given, ...(given.length < rounds ? [''] : [])]
  const parts = ['game.rolled', 'game.said', 'game.wrote'] as const
  return (
    <ol className="grid gap-3">
      {lines.map((line, i) => {
        const cells = line.split(between)
        return (
          <li key={i} className="grid gap-1">
            <b>{say('game.round', { n: i + 1 })}</b>
            <div className="grid grid-cols-[1fr_1fr_2fr] gap-2">
              {parts.map((part, k) => (
                <label key={part} className="grid gap-0.5 text-sm min-w-0">
                  {say(part)}
                  <input
                    dir="ltr"
                    value={cells[k] ?? ''}
                    maxLength={24}
                    disabled={locked}
                    autoComplete="off"
                    inputMode={k < 2 ? 'numeric' : undefined}
                    onChange={(e) => {
                      const text = e.target.value.replaceAll(between, '')
                      const next = [...given]
                      next[i] = parts.map((_, c) => (c === k ? text : (cells[c] ?? ''))).join(between)
                      while (next.length && !next.at(-1)!.replaceAll(between, '').trim()) next.pop()
                      onGive(next)
                    }}
                    className={field}
                  />
                </label>
              ))}
            </div>
          </li>
        )
      })}
    </ol>
  )
}
