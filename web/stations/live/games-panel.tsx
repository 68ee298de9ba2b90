import { useEffect, useState } from 'react'
import { type LiveGame, type ShowWay } from '@awlbox/core/contracts/live'
import { canCome, gamesFor, goOnAfter, thrownIn } from '@awlbox/core/live/games'
import { isShown, roundNow } from '@awlbox/core/live/state'
import { Button } from '../../kit/button.tsx'
import { Select } from '../../kit/select.tsx'
import { type Desk, givesBack, type LiveView } from './use-live.ts'

/** A game played at the desk: the device throws, or a real die is written in; homes answer each throw. */
export function GamesPanel({
  view,
  desk,
  at,
  show,
}: {
  view: LiveView
  desk: Desk
  at: number
  show: ShowWay
}) {
  const { news, record } = view
  const { state, tally } = news
  const { game } = state
  const games = gamesFor(record.doc.aim.upTo)
  const round = roundNow(state)
  const free = desk.leads && state.phase === 'on'
  const [paced, setPaced] = useState(true)
  usePace(view, desk, at, { on: paced && game?.kind === 'to and fro' && desk.leads, show })
  if (!game)
    return (
      <div className="border-t border-hair pt-3">
        <Select
          label="Play a game"
          hint="Play a game"
          value=""
          disabled={!free || (round !== null && round.shows === null)}
          choices={games.map((g, i) => ({ value: String(i), words: g.words }))}
          onChange={(i) => desk.act({ do: 'game', game: games[Number(i)]!.game })}
          onClosed={givesBack}
          className="w-full"
        />
      </div>
    )
  const waiting = !round || isShown(round, at)
  return (
    <div className="border-t border-hair pt-3 grid gap-2">
      <div className="flex items-center gap-2">
        <h3 className="font-bold text-sm flex-1">Game</h3>
        <Button small look="quiet" disabled={!free} onClick={() => desk.act({ do: 'game', game: null })}>
          Back to the script
        </Button>
      </div>
      <Button look="act" disabled={!free || !waiting} onClick={() => desk.throwNow(show, 2)}>
        {game.kind === 'to and fro'
          ? 'Say the next number'
          : game.kind === 'bowl' || game.kind === 'cards'
            ? 'Draw'
            : 'Throw'}
      </Button>
      <RealOne
        key={`${game.kind} ${state.rounds.length}`}
        game={game}
        disabled={!free || !waiting}
        onThrown={(thrown) => desk.act({ do: 'play', thrown, real: true, show, think: 2 })}
      />
      {game.kind === 'to and fro' && (
        <label className="flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            className="size-4"
            checked={paced}
            onChange={(e) => setPaced(e.target.checked)}
          />
          goes on by itself at the pace of the class
        </label>
      )}
      {tally && round && !tally.shown && (
        <p className="text-sm text-steel" role="status">
          {tally.sent.length} of {news.children.filter((c) => c.here).length} have sent
        </p>
      )}
    </div>
  )
}

/** What really came up: only what can. */
function RealOne({
  game,
  disabled,
  onThrown,
}: {
  game: LiveGame
  disabled: boolean
  onThrown: (thrown: number[]) => void
}) {
  const places = thrownIn(game)
  const [came, setCame] = useState<string[]>(places.map(() => ''))
  const numbers = came.map(Number)
  const typed = came.every((c) => /^\d{1,2}$/.test(c))
  const can = typed && canCome(game, numbers)
  return (
    <form
      className="flex flex-wrap items-center gap-1.5"
      onSubmit={(e) => {
        e.preventDefault()
        if (can) onThrown(numbers)
      }}
    >
      <span className="text-sm">or it really was</span>
      {places.map((p, i) => (
        <input
          key={p.name}
          aria-label={`It really was: ${p.name}`}
          title={p.name}
          inputMode="numeric"
          maxLength={2}
          value={came[i]}
          onChange={(e) => setCame(came.with(i, e.target.value))}
          className="w-12 min-h-8 rounded-md border border-hair bg-card text-center font-child"
        />
      ))}
      <Button small type="submit" disabled={disabled || !can}>
        Take it
      </Button>
      {typed && !can && <span className="text-sm text-brick">That cannot come up.</span>}
    </form>
  )
}

/** Milliseconds an answer is looked at before the next number is said. */
const lookAt = 4_000
/** Goes on by itself: shows when nearly all have answered or the class's own pace is over, and says the next number. */
function usePace(view: LiveView, desk: Desk, at: number, { on, show }: { on: boolean; show: ShowWay }): void {
  const { state, tally, last, children } = view.news
  const round = roundNow(state)
  const here = children.filter((c) => c.here).length
  // How long the class took the last time.
  const pace = goOnAfter(last?.took ?? [], here)
  const enough = tally !== null && here > 0 && tally.sent.length >= here * pace.share
  const isDue =
    on &&
    round !== null &&
    round.shows === null &&
    at >= round.opens &&
    (enough || at - round.opens >= pace.at)
  const isNext = on && round !== null && round.shows !== null && at >= round.shows + lookAt
  const roundId = round?.id
  const { act, throwNow } = desk
  useEffect(() => {
    if (isDue) act({ do: 'show' })
  }, [isDue, roundId, act])
  useEffect(() => {
    if (isNext) throwNow(show, 2)
  }, [isNext, roundId, throwNow, show])
}
