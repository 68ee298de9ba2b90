import { useState } from 'react'
import { gestureText } from '@awlbox/core/script/gesture'
import { isShown, roundNow } from '@awlbox/core/live/state'
import { type LiveLine, silenceNow } from '@awlbox/core/live/run'
import type { LiveAct } from '@awlbox/core/contracts/live'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { type Hand, TableBoard } from '../../table/board.tsx'
import type { Desk, LiveView } from './use-live.ts'

const hands: readonly { hand: Hand; words: string }[] = [
  { hand: 'saffron', words: 'Put' },
  { hand: 'blue', words: 'Put blue' },
  { hand: 'turn', words: 'Turn' },
  { hand: 'cross', words: 'Cross' },
  { hand: 'take', words: 'Take' },
]
const verbs: Partial<Record<string, string>> = {
  say: 'Say',
  ask: 'Ask',
  do: 'Hands',
  write: 'Write',
  count: 'Count together',
  reveal: 'Answer',
  wait: 'Silence',
  pause: 'They do it',
  sound: 'Sound',
}

/** The table as homes see it, moved by hand, by keys or by a line; under it the line to say, and the one after it. */
export function DeskTable({
  view,
  desk,
  at,
  onOpen,
  onBack,
}: {
  view: LiveView
  desk: Desk
  at: number
  onOpen: () => void
  /** To the line before; null where there is none. */
  onBack: (() => void) | null
}) {
  const { run, news, table, record } = view
  const { state } = news
  const [hand, setHand] = useState<Hand>('saffron')
  const [text, setText] = useState('')
  const line = run.lines[state.line]
  const round = roundNow(state)
  return (
    <>
      <div className="flex items-baseline gap-3">
        <h2 className="font-bold">What homes see</h2>
        <span className="text-steel text-sm">shared in its own window</span>
        <span className="flex-1" />
        <Button small onClick={onOpen}>
          Open it
        </Button>
      </div>
      <Card className="overflow-hidden">
        <TableBoard
          table={table}
          fill={record.style.frameFill}
          hand={hand}
          disabled={!desk.leads || state.phase !== 'on'}
          onGesture={(g) => desk.act({ do: 'table', text: gestureText(g) })}
          className="max-h-[38dvh] mx-auto"
        />
        {state.sentence && (
          <p className="font-child text-[34px] text-center pb-2 bg-white text-[#14232b]">
            {state.sentence}
            {round && !isShown(round, at) && (
              <span className="block font-sans text-sm text-[#4c5a62]">only here, until all have shown</span>
            )}
          </p>
        )}
      </Card>
      <div className="flex flex-wrap items-center gap-1.5">
        {hands.map((h) => (
          <Button
            key={h.hand}
            small
            aria-pressed={hand === h.hand}
            look={hand === h.hand ? 'act' : 'plain'}
            onClick={() => setHand(h.hand)}
          >
            {h.words}
          </Button>
        ))}
        <form
          className="flex-1 min-w-48 flex gap-1.5"
          onSubmit={(e) => {
            e.preventDefault()
            if (text.trim()) desk.act({ do: 'table', text: text.trim() })
            setText('')
          }}
        >
          <input
            aria-label="What hands do, as a line of the script"
            placeholder="or a line: put 2 blue ones on the frame"
            value={text}
            maxLength={200}
            disabled={!desk.leads || state.phase !== 'on'}
            onChange={(e) => setText(e.target.value)}
            className="flex-1 min-w-0 min-h-8 rounded-md border border-hair bg-card px-2 text-sm"
          />
        </form>
        <Button
          small
          look="quiet"
          disabled={!desk.leads || !state.acts.length}
          onClick={() => desk.act({ do: 'table back' })}
        >
          Undo
        </Button>
      </div>
      {state.phase === 'on' && line && !state.game && (
        <Line view={view} line={line} desk={desk} at={at} onBack={onBack} />
      )}
      {state.game && round && <p className="font-child text-[26px] leading-snug">{round.prompt}</p>}
      {state.phase === 'waiting' && run.lines[0] && (
        <p className="font-child text-steel text-[20px]">first: {run.lines[0].words}</p>
      )}
    </>
  )
}

/** The line to say now, what it is, and the one after it. */
function Line({
  view,
  line,
  desk,
  at,
  onBack,
}: {
  view: LiveView
  line: LiveLine
  desk: Desk
  at: number
  onBack: (() => void) | null
}) {
  const { news, run, record } = view
  const { state } = news
  const round = roundNow(state)
  const following = run.lines[line.index + 1]
  const silence = silenceNow(run, state, record.style)
  const mayBeRound = !round && (line.offered || line.step.task !== undefined)
  return (
    <div>
      <p className="text-steel text-sm flex items-center gap-1.5 min-h-8">
        {onBack && (
          <Button small look="quiet" className="-ml-2.5" disabled={!desk.leads} onClick={onBack}>
            ‹ a line back
          </Button>
        )}
        {verbs[line.step.verb] ?? line.step.verb}
        {line.kind === 'round' && !round && line.think > 0 && (
          <>
            {' '}
            · think first: <b className="text-ink">{Math.round(line.think)} s</b>
          </>
        )}
        {silence && <Silence until={silence.until} at={at} />}
        {mayBeRound && (
          <Button
            small
            look="quiet"
            disabled={!desk.leads}
            onClick={() => desk.act(asRound(line, line.kind !== 'round'))}
          >
            {line.kind !== 'round'
              ? 'answer it on devices'
              : line.step.task
                ? 'keep it for home'
                : 'only say it'}
          </Button>
        )}
      </p>
      <p className="font-child text-[26px] leading-snug" aria-live="polite">
        {line.words}
      </p>
      {following && <p className="font-child text-steel mt-1 truncate">then: {following.words}</p>}
      {line.faces && <RealThrow key={line.step.id} faces={line.faces} stepId={line.step.id} desk={desk} />}
    </div>
  )
}
function Silence({ until, at }: { until: number; at: number }) {
  const left = Math.max(0, Math.ceil((until - at) / 1000))
  return (
    <>
      {' '}
      · <b className="text-ink figures">{left ? `${left} s more` : 'long enough'}</b>
    </>
  )
}

/** A question becomes a round, or is one no longer. */
const asRound = (line: LiveLine, round: boolean): LiveAct =>
  line.step.task
    ? { do: 'later', stepId: line.step.id, later: !round }
    : { do: 'said', stepId: line.step.id, said: !round }

/** What a real die showed: the line, the table, the sentence and the answers follow. */
function RealThrow({ faces, stepId, desk }: { faces: readonly number[]; stepId: string; desk: Desk }) {
  const [came, setCame] = useState(faces.map(String))
  const numbers = came.map(Number)
  const good = came.every((c) => /^\d{1,2}$/.test(c))
  return (
    <form
      className="flex flex-wrap items-center gap-2 mt-2"
      onSubmit={(e) => {
        e.preventDefault()
        if (good) desk.act({ do: 'throw', stepId, faces: numbers })
      }}
    >
      <span className="text-sm">It really came up</span>
      {came.map((c, i) => (
        <input
          key={i}
          aria-label={`What came up, ${i + 1}`}
          inputMode="numeric"
          maxLength={2}
          value={c}
          onChange={(e) => setCame(came.with(i, e.target.value))}
          className="w-14 min-h-9 rounded-md border border-hair bg-card text-center font-child text-lg"
        />
      ))}
      <Button small type="submit" disabled={!desk.leads || !good || numbers.join() === faces.join()}>
        Write it in
      </Button>
    </form>
  )
}
