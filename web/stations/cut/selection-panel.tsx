import { Card as Paper } from '../../kit/card.tsx'
import { asWritten, wordsBetween } from '@awlbox/core/film/judge/as-written'
import {
  type Card,
  cardLines,
  type CutItem,
  type CutSegment,
  framesPerSecond,
  type Hold,
} from '@awlbox/core/contracts/cut'
import { cardNames } from '@awlbox/core/cut/cards'
import { framesOf, isOpen, plays } from '@awlbox/core/cut/timeline'
import { clockTime } from '@awlbox/core/words'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { Button } from '../../kit/button.tsx'
import { Slider } from '../../kit/slider.tsx'
import { OtherVoice } from './other-voice.tsx'
import type { CutActs } from './use-cut-acts.ts'

interface Props {
  lessonId: string
  cut: CutSegment
  item: CutItem | null
  part: { from: number; to: number } | null
  takes: readonly TakeRecord[]
  mayChange: boolean
  acts: CutActs
  onPlay: () => void
}
/** What is chosen, in words and numbers, and what can be done with it. */
export function SelectionPanel({ lessonId, cut, item, part, takes, mayChange, acts, onPlay }: Props) {
  if (!item)
    return (
      <Paper as="section" aria-label="Selected" className="p-3 text-steel">
        Choose a span, or draw over a waveform to choose part of one.
      </Paper>
    )
  const i = cut.items.indexOf(item)
  const open = isOpen(item)
  const [from, to] =
    item.kind === 'clip' ? [part?.from ?? item.from, part?.to ?? item.to] : [0, framesOf(item)]
  return (
    <Paper as="section" aria-label="Selected" className="p-3 grid gap-2.5">
      <p className="flex justify-between gap-3">
        <b className="min-w-0 truncate">{titleOf(item, takes)}</b>
        <span className="figures text-steel whitespace-nowrap">
          {item.kind === 'clip' && `${clockTime(from / framesPerSecond)} of the take · `}
          {((to - from) / framesPerSecond).toFixed(1)} s
        </span>
      </p>
      {item.why && item.why.note && (
        <p className="text-steel">
          {item.why.note}
          {item.why.sure ? '' : ' Not sure: listen first.'}
        </p>
      )}
      {item.kind === 'hold' && (
        <HoldFields
          hold={item}
          mayChange={mayChange}
          onChange={(h) => acts.change(cut.segmentId, h, `hold ${h.id}`)}
        />
      )}
      {item.kind === 'card' && (
        <CardFields
          card={item}
          mayChange={mayChange}
          onChange={(c) => acts.change(cut.segmentId, c, `card ${c.id}`)}
        />
      )}
      <div className="flex flex-wrap gap-2">
        <Button small onClick={onPlay} disabled={!plays(item)}>
          Play from here
        </Button>
        {mayChange && open && (
          <>
            <Button small look="act" onClick={() => acts.decide(cut.segmentId, item.why!.id, 'accepted')}>
              {item.why!.act === 'drop' ? 'Cut it out' : 'Put it in'}
            </Button>
            <Button small onClick={() => acts.decide(cut.segmentId, item.why!.id, 'declined')}>
              {item.why!.act === 'drop' ? 'Keep it' : 'Leave as filmed'}
            </Button>
          </>
        )}
        {mayChange && !open && !plays(item) && (
          <Button small look="act" onClick={() => acts.bringBack(cut.segmentId, item.id)}>
            Put it back
          </Button>
        )}
        {mayChange && !open && plays(item) && (
          <>
            {part ? (
              <Button small look="act" onClick={acts.dropPart}>
                Drop this part
              </Button>
            ) : (
              <Button small look="act" onClick={() => acts.drop(cut.segmentId, item.id)}>
                {item.kind === 'clip'
                  ? 'Drop this span'
                  : item.kind === 'hold'
                    ? 'Take the wait away'
                    : 'Take the card away'}
              </Button>
            )}
            {item.kind === 'clip' && (
              <Button
                small
                onClick={acts.splitHere}
                title="At the picture shown, or where the chosen part begins"
              >
                Split here
              </Button>
            )}
            {item.kind === 'clip' && (
              <Button
                small
                aria-pressed={item.still ?? false}
                onClick={() => acts.still(cut.segmentId, item.id, !item.still)}
                title="Its first picture is shown while its sound goes on"
              >
                {item.still ? 'Let it move again' : 'Still picture'}
              </Button>
            )}
            {item.kind === 'clip' && (
              <Button small onClick={() => acts.addHold(cut.segmentId, item.id)}>
                Wait after it
              </Button>
            )}
            <Button small disabled={i === 0} onClick={() => acts.move(cut.segmentId, item.id, -1)}>
              Earlier
            </Button>
            <Button
              small
              disabled={i === cut.items.length - 1}
              onClick={() => acts.move(cut.segmentId, item.id, 1)}
            >
              Later
            </Button>
          </>
        )}
      </div>
      {mayChange && item.kind === 'clip' && plays(item) && (
        <>
          <OtherTakes cut={cut} item={item} takes={takes} acts={acts} />
          <OtherVoice lessonId={lessonId} cut={cut} item={item} takes={takes} acts={acts} />
        </>
      )}
    </Paper>
  )
}
function titleOf(item: CutItem, takes: readonly TakeRecord[]): string {
  switch (item.kind) {
    case 'hold':
      return 'Time to think: the picture is held'
    case 'card':
      return `${cardNames[item.look]} card`
    case 'clip': {
      const take = takes.find((t) => t.id === item.takeId)
      const said =
        take?.hearing &&
        wordsBetween(asWritten(take.hearing), item.from / framesPerSecond, item.to / framesPerSecond)
      const out = plays(item) ? '' : 'Cut out: '
      const beside = said?.heard ? ` · heard as “${said.heard}”` : ''
      return `${out}${said?.written ? `“${said.written}”${beside}` : 'quiet'}`
    }
  }
}

function HoldFields({
  hold,
  mayChange,
  onChange,
}: {
  hold: Hold
  mayChange: boolean
  onChange: (h: Hold) => void
}) {
  return (
    <Slider
      label="Seconds the picture is held"
      shown={false}
      value={hold.frames}
      from={15}
      to={900}
      step={3}
      words={`${(hold.frames / framesPerSecond).toFixed(1)} s`}
      disabled={!mayChange}
      onChange={(frames) => onChange({ ...hold, frames })}
    />
  )
}
function CardFields({
  card,
  mayChange,
  onChange,
}: {
  card: Card
  mayChange: boolean
  onChange: (c: Card) => void
}) {
  const field = 'rounded-lg border border-hair bg-card px-2 min-h-10 w-full'
  return (
    <div className="grid gap-2">
      <input
        aria-label="Words on the card"
        className={field}
        disabled={!mayChange}
        maxLength={160}
        value={card.title}
        onChange={(e) => e.target.value && onChange({ ...card, title: e.target.value })}
      />
      <textarea
        aria-label="Lines under them"
        placeholder="Lines under them, one each"
        rows={Math.max(1, Math.min(8, card.lines.length))}
        className={`${field} py-2`}
        disabled={!mayChange}
        value={card.lines.join('\n')}
        onChange={(e) =>
          onChange({
            ...card,
            lines: e.target.value
              .split('\n')
              .slice(0, cardLines)
              .map((l) => l.slice(0, 120)),
          })
        }
      />
      {card.table !== undefined && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked
            disabled={!mayChange}
            onChange={() => {
              const { table: _table, ...rest } = card
              onChange(rest)
            }}
            className="w-5 h-5 accent-ink"
          />
          The table is drawn on it
        </label>
      )}
      <label className="flex items-center gap-2">
        It stays{' '}
        <input
          type="number"
          aria-label="Seconds the card stays"
          min={1}
          max={60}
          disabled={!mayChange}
          className="min-h-10 w-20 rounded-lg border border-hair bg-card px-2 figures"
          value={Math.round(card.frames / framesPerSecond)}
          onChange={(e) =>
            onChange({
              ...card,
              frames: framesPerSecond * Math.min(60, Math.max(1, Number(e.target.value) || 1)),
            })
          }
        />{' '}
        s
      </label>
    </div>
  )
}

/** The lines a span says, where another take has them too. */
function OtherTakes({
  cut,
  item,
  takes,
  acts,
}: {
  cut: CutSegment
  item: Extract<CutItem, { kind: 'clip' }>
  takes: readonly TakeRecord[]
  acts: CutActs
}) {
  const here = takes.find((t) => t.id === item.takeId)
  const line = here?.hearing?.lines.find(
    (l) =>
      l.start !== null &&
      l.end !== null &&
      l.start < item.to / framesPerSecond - 0.2 &&
      l.end > item.from / framesPerSecond + 0.2,
  )
  const others = line
    ? takes.filter(
        (t) =>
          t.id !== item.takeId &&
          t.segmentId === cut.segmentId &&
          t.hearing?.lines.some((l) => l.stepId === line.stepId && l.start !== null),
      )
    : []
  if (!line || !others.length) return null
  return (
    <p className="text-sm text-steel flex flex-wrap gap-2 items-center border-t border-hair pt-2">
      <span className="truncate max-w-56">“{line.words.map((w) => w.word).join(' ')}”</span> from
      {others.map((t) => (
        <Button
          key={t.id}
          small
          onClick={() => acts.replaceLine(cut.segmentId, line.stepId, item.takeId, t.id)}
        >
          take {t.number}
        </Button>
      ))}
    </p>
  )
}
