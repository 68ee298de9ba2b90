import { type Card, type CutItem, framesPerSecond, type Hold } from '@awlbox/core/contracts/cut'
import { cardNames } from '@awlbox/core/cut/cards'
import { framesOf, isOpen } from '@awlbox/core/cut/timeline'

const seconds = (item: CutItem): string => `${(framesOf(item) / framesPerSecond).toFixed(1)} s`
const stop = (e: { stopPropagation: () => void }, act: () => void) => {
  e.stopPropagation()
  act()
}

/** What is out of the film, folded; it opens when chosen. */
export function Notch({ item, on, onSelect }: { item: CutItem; on: boolean; onSelect: () => void }) {
  const words = `${item.why!.kind} ${seconds(item)}`
  return (
    <span role="listitem">
      <button
        type="button"
        data-item={item.id}
        aria-pressed={on}
        title={item.why!.note ? `${words}: ${item.why!.note}` : words}
        onClick={(e) => stop(e, onSelect)}
        className={`h-[70px] rounded-md px-1 text-left cursor-pointer ${on ? 'bg-here' : 'hover:bg-wash'}`}
      >
        <svg width="14" height="36" viewBox="0 0 14 36" aria-hidden>
          <path d="M3 2 L11 18 L3 34" fill="none" stroke="var(--brick)" strokeWidth="2" />
        </svg>
        <span className="sr-only">{words}, cut out</span>
      </button>
    </span>
  )
}
const edge = (item: CutItem, on: boolean): string =>
  on ? 'border-saffron border-2 bg-here' : isOpen(item) ? 'border-moss border-dashed border-2 bg-card' : ''

export function HoldView({
  item,
  scale,
  on,
  now,
  onSelect,
}: {
  item: Hold
  scale: number
  on: boolean
  now: boolean
  onSelect: () => void
}) {
  const open = isOpen(item)
  const width = Math.max(40, Math.round((item.frames / framesPerSecond) * scale))
  return (
    <span role="listitem" style={{ width }} className="block">
      <button
        type="button"
        data-item={item.id}
        aria-pressed={on}
        aria-label={`${open ? 'Proposed wait' : 'Wait'}, the picture held ${seconds(item)}`}
        onClick={(e) => stop(e, onSelect)}
        style={{ width }}
        className={`block h-[54px] rounded-lg border-2 border-dotted border-steel cursor-pointer hatched ${edge(item, on)} ${now ? 'ring-2 ring-saffron' : ''}`}
      />
      <span className={`block text-[12px] leading-4 h-4 truncate ${open ? 'text-moss' : 'text-steel'}`}>
        {open ? 'hold?' : 'held'} {seconds(item)}
      </span>
    </span>
  )
}
export function CardView({
  item,
  on,
  now,
  onSelect,
}: {
  item: Card
  on: boolean
  now: boolean
  onSelect: () => void
}) {
  const open = isOpen(item)
  return (
    <span role="listitem" className="self-start">
      <button
        type="button"
        data-item={item.id}
        aria-pressed={on}
        title={item.title}
        onClick={(e) => stop(e, onSelect)}
        className={`h-[54px] flex items-center rounded-lg text-sm font-semibold px-3 max-w-44 cursor-pointer border-2 ${open ? 'border-dashed border-moss text-moss bg-card' : on ? 'border-saffron bg-ink text-card' : 'border-ink bg-ink text-card'} ${on ? 'outline-2 outline-saffron' : ''} ${now ? 'ring-2 ring-saffron' : ''}`}
      >
        <span className="truncate">
          <span className="sr-only">{open ? 'Proposed card: ' : 'Card: '}</span>
          {cardNames[item.look]}
          {open ? '?' : ''}
          <span className="sr-only">, {item.title}, </span>
        </span>
        <span className="figures pl-2 font-normal whitespace-nowrap">
          {Math.round(item.frames / framesPerSecond)} s
        </span>
      </button>
    </span>
  )
}
