import type { ShowWay } from '@awlbox/core/contracts/live'
import type { DraftAnswer } from './drafts.ts'
import { press } from './looks.ts'
import { useWords } from './words.ts'

interface Props {
  value: DraftAnswer
  locked: boolean
  onChange: (v: DraftAnswer) => void
}
/** A number shown as children show one: on a card, with fingers, as dots, in a frame. What is shown is what counts. */
export function ShowNumber({ way, ...p }: Props & { way: ShowWay }) {
  switch (way) {
    case 'card':
      return <NumberCard {...p} />
    case 'fingers':
      return <Fingers {...p} />
    case 'dots':
      return <Dots {...p} />
    case 'frame':
      return <Frame {...p} />
  }
}

function NumberCard({ value, locked, onChange }: Props) {
  const { say } = useWords()
  const text = value.text ?? ''
  return (
    <div role="group" aria-label={say('live.number')} className="grid gap-3">
      <output
        aria-live="polite"
        className="mx-auto grid place-items-center min-w-40 h-32 px-4 rounded-2xl border-[3px] border-ink bg-white text-[#14232b] font-child font-bold text-[84px] leading-none"
      >
        {text || <span className="text-[#aab4b0]">_</span>}
      </output>
      <div className="grid grid-cols-5 gap-2">
        {['1', '2', '3', '4', '5', '6', '7', '8', '9', '0'].map((d) => (
          <button
            key={d}
            type="button"
            disabled={locked || text.length >= 3}
            onClick={() => onChange({ ...value, text: text + d })}
            className="min-h-14 rounded-lg border-2 border-hair bg-card font-child text-[26px] font-bold disabled:opacity-40"
          >
            {d}
          </button>
        ))}
      </div>
      <button
        type="button"
        disabled={locked || !text}
        onClick={() => onChange({ ...value, text: '' })}
        className={`${press(false)} disabled:opacity-40`}
      >
        {say('draw.clear')}
      </button>
    </div>
  )
}

/** Fingers of each hand that are up, thumb first, as "1" and "0". */
const handsOf = (given: readonly string[] | undefined): [boolean[], boolean[]] => {
  const up = (text = ''): boolean[] => Array.from({ length: 5 }, (_, i) => text[i] === '1')
  return [up(given?.[0]), up(given?.[1])]
}
function Fingers({ value, locked, onChange }: Props) {
  const { say } = useWords()
  const hands = handsOf(value.given)
  const toggle = (h: 0 | 1, f: number) => {
    const next = hands.map((hand, i) => hand.map((up, k) => (i === h && k === f ? !up : up)))
    const n = next.flat().filter(Boolean).length
    onChange({
      ...value,
      text: String(n),
      given: next.map((hand) => hand.map((up) => (up ? '1' : '0')).join('')),
    })
  }
  return (
    <div role="group" aria-label={say('live.fingers')} className="grid grid-cols-2 gap-3" dir="ltr">
      {([0, 1] as const).map((h) => (
        // The left hand as one sees one's own: its thumb on the right.
        <div key={h} className={`flex ${h === 0 ? 'flex-row-reverse' : ''} items-end gap-1 h-44`}>
          {hands[h].map((up, f) => (
            <button
              key={f}
              type="button"
              aria-pressed={up}
              aria-label={say(h === 0 ? 'live.left' : 'live.right', { n: f + 1 })}
              disabled={locked}
              onClick={() => toggle(h, f)}
              className="flex-1 h-full grid items-end"
            >
              <span
                aria-hidden
                className={`block w-full rounded-t-full rounded-b-lg border-2 transition-[height] ${up ? 'bg-saffron border-ink' : 'bg-wash border-hair'}`}
                style={{ height: up ? `${[58, 88, 98, 92, 76][f]}%` : '26%' }}
              />
            </button>
          ))}
        </div>
      ))}
    </div>
  )
}

const Counter = () => (
  <span aria-hidden className="block w-7 h-7 rounded-full bg-saffron border-2 border-[#14232b]" />
)
function Dots({ value, locked, onChange }: Props) {
  const { say } = useWords()
  const n = Number(value.text ?? 0)
  const set = (to: number) => onChange({ ...value, text: String(Math.max(0, Math.min(20, to))) })
  return (
    <div role="group" aria-label={say('live.dots')} className="grid gap-3">
      <div className="min-h-40 rounded-2xl border-[3px] border-ink bg-white p-4 flex flex-wrap gap-2.5 content-center justify-center">
        {Array.from({ length: n }, (_, i) => (
          <Counter key={i} />
        ))}
        <span className="sr-only" role="status">
          {n}
        </span>
      </div>
      <div className="grid grid-cols-2 gap-2">
        <button
          type="button"
          disabled={locked || n === 0}
          onClick={() => set(n - 1)}
          className={press(false)}
        >
          {say('live.fewer')}
        </button>
        <button
          type="button"
          disabled={locked || n >= 20}
          onClick={() => set(n + 1)}
          className={press(false)}
        >
          {say('live.more')}
        </button>
      </div>
    </div>
  )
}

/** Counters in a frame of ten; a second one stands ready once the first is full. */
function Frame({ value, locked, onChange }: Props) {
  const { say } = useWords()
  const cells = (value.given?.[0] ?? '').padEnd(20, '0').slice(0, 20).split('')
  const toggle = (i: number) => {
    const next = cells.map((c, k) => (k === i ? (c === '1' ? '0' : '1') : c))
    onChange({ ...value, text: String(next.filter((c) => c === '1').length), given: [next.join('')] })
  }
  const full = cells.slice(0, 10).every((c) => c === '1') || cells.slice(10).includes('1')
  return (
    <div role="group" aria-label={say('live.frame')} className="grid gap-3" dir="ltr">
      {(full ? [0, 10] : [0]).map((from) => (
        <div key={from} className="grid grid-cols-5 border-2 border-ink bg-white">
          {cells.slice(from, from + 10).map((c, i) => (
            <button
              key={i}
              type="button"
              aria-pressed={c === '1'}
              aria-label={say('live.cell', { n: from + i + 1 })}
              disabled={locked}
              onClick={() => toggle(from + i)}
              className="min-h-14 border border-[#14232b] grid place-items-center"
            >
              {c === '1' && <Counter />}
            </button>
          ))}
        </div>
      ))}
    </div>
  )
}
