import type { Frames } from '@awlbox/core/contracts/units'
import { Select } from '../../kit/select.tsx'
import { memo, useMemo } from 'react'
import {
  type Clip,
  type CutItem,
  type CutSegment,
  framesPerSecond,
  type Overlay,
} from '@awlbox/core/contracts/cut'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { snapPoints } from '@awlbox/core/cut/edit'
import { isOpen, plays, segmentFrames } from '@awlbox/core/cut/timeline'
import { clockTime } from '@awlbox/core/words'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { ClipView } from './clip-view.tsx'
import { CardView, HoldView, Notch } from './item-views.tsx'
import type { RowActs, Selection } from './selection.ts'

interface Props {
  segment: Segment
  cut: CutSegment
  /** Every take of the segment, and those its spans come from. */
  takes: readonly TakeRecord[]
  on: boolean
  selection: Selection | null
  /** Pixels of a second, the same in every row, so that lengths can be compared. */
  scale: number
  /** The item and frame of its take being shown, when it is in this row. */
  now: { itemId: string; frame: Frames } | null
  /** The overlay chosen, in whichever row. */
  overlay: string | null
  /** For adults alone: rendered as a film of its own. */
  adults: boolean
  acts: RowActs
}
/** One segment: its spans in order with the words under them, waits hatched, cards solid, what is out folded to a notch. */
export const SegmentRow = memo(function SegmentRow({
  segment,
  cut,
  takes,
  on,
  selection,
  scale,
  now,
  overlay,
  adults,
  acts,
}: Props) {
  const mine = takes.filter((t) => t.segmentId === segment.id)
  const length = segmentFrames(cut) / framesPerSecond
  const points = useMemo(() => new Map(takes.map((t) => [t.id, snapPoints(t.hearing)])), [takes])
  const shown = useMemo(() => grouped(cut.items), [cut.items])
  const over = useMemo(
    () =>
      new Map(
        cut.overlays.length
          ? cut.items.flatMap((i) => (i.kind === 'clip' ? [[i.id, overlaysOn(cut, i)] as const] : []))
          : [],
      ),
    [cut],
  )
  return (
    // eslint-disable-next-line jsx-a11y-x/click-events-have-key-events, jsx-a11y-x/no-noninteractive-element-interactions -- keys reach the row through its spans
    <section
      aria-label={segment.title}
      onClick={() => acts.onGo(segment.id)}
      className={`rounded-xl border bg-card px-3 py-2 [content-visibility:auto] [contain-intrinsic-size:auto_110px] ${on ? 'border-saffron border-l-[4px]' : 'border-hair'}`}
    >
      <header className="flex items-center gap-3 min-h-8">
        <b className="truncate">{segment.title}</b>
        {mine.length > 1 ? (
          <Select
            label={`Take of ${segment.title}`}
            look="small"
            value={cut.takeId ?? ''}
            choices={mine.map((t) => ({
              value: t.id,
              words: `take ${t.number} of ${mine.length}${t.hearing ? ` · ${t.hearing.quality}` : ''}`,
            }))}
            onChange={(id) => acts.onTake(segment.id, id)}
          />
        ) : (
          <span className="text-sm text-steel">{mine.length ? 'take 1 of 1' : 'not filmed'}</span>
        )}
        {adults && <span className="text-sm text-blue whitespace-nowrap">for adults: a film of its own</span>}
        <span className="flex-1" />
        <span className="figures">{clockTime(length)}</span>
      </header>
      <div
        className="flex flex-wrap items-start gap-x-1 gap-y-1 mt-1"
        role="list"
        aria-label={`Spans of ${segment.title}`}
      >
        {shown.map((item) => {
          const chosen = selection?.itemId === item.id ? selection : null
          const select = () => acts.onSelect({ segmentId: segment.id, itemId: item.id, part: null })
          if (!plays(item) && !isOpen(item))
            return <Notch key={item.id} item={item} on={chosen !== null} onSelect={select} />
          switch (item.kind) {
            case 'hold':
              return (
                <HoldView
                  key={item.id}
                  item={item}
                  scale={scale}
                  on={chosen !== null}
                  now={now?.itemId === item.id}
                  onSelect={select}
                />
              )
            case 'card':
              return (
                <CardView
                  key={item.id}
                  item={item}
                  on={chosen !== null}
                  now={now?.itemId === item.id}
                  onSelect={select}
                />
              )
            case 'clip':
              return (
                <ClipView
                  key={item.id}
                  segmentId={segment.id}
                  item={item}
                  take={takes.find((t) => t.id === item.takeId) ?? null}
                  voice={item.voice ? (takes.find((t) => t.id === item.voice!.takeId) ?? null) : null}
                  overlays={over.get(item.id) ?? none}
                  overlay={overlay}
                  other={item.takeId !== cut.takeId}
                  scale={scale}
                  chosen={chosen}
                  now={now?.itemId === item.id ? now.frame : null}
                  points={points.get(item.takeId) ?? none}
                  acts={acts}
                />
              )
          }
        })}
      </div>
    </section>
  )
})
const none: readonly never[] = []
/** Overlays whose beginning is in a span. */
const overlaysOn = (cut: CutSegment, item: Clip): readonly Overlay[] =>
  cut.overlays.filter(
    (o) => o.takeId === item.takeId && o.from >= item.from && o.from < item.to && o.why?.state !== 'declined',
  )
/** A card declined is not shown: it was never in the film. */
const grouped = (items: readonly CutItem[]): CutItem[] =>
  items.filter((i) => !(i.kind !== 'clip' && i.why?.state === 'declined'))
