import { proxy, type Remote, wrap } from 'comlink'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { Device } from '@awlbox/core/contracts/chance'
import type { Game, Played } from '@awlbox/core/plan/chance/simulate'
import type { GamesWorker } from '../../workers/games.worker.ts'

export const manyGames = 1_000_000

/** Plays a million games in a worker; the page goes on while they are played. */
export function useGames() {
  const worker = useRef<{ remote: Remote<GamesWorker> } | null>(null)
  const run = useRef(0)
  const [state, setState] = useState<{ done: number; played: Played | null; busy: boolean }>({
    done: 0,
    played: null,
    busy: false,
  })
  // The worker is there before it is asked, so that asking costs the page no frame.
  useEffect(() => {
    const w = new Worker(new URL('../../workers/games.worker.ts', import.meta.url), { type: 'module' })
    worker.current = { remote: wrap<GamesWorker>(w) }
    return () => {
      w.terminate()
      worker.current = null
    }
  }, [])
  const play = useCallback(async (game: Game) => {
    if (!worker.current) return
    if (run.current) await worker.current.remote.stop(run.current)
    const mine = ++run.current
    setState({ done: 0, played: null, busy: true })
    // What is told on the way may arrive after the end.
    let over = false
    const played = await worker.current.remote.play(
      game,
      manyGames,
      mine,
      mine,
      proxy((done: number, so: Played) => {
        if (run.current === mine && !over) setState({ done, played: so, busy: true })
      }),
    )
    over = true
    if (run.current === mine)
      setState((s) => ({ done: played ? manyGames : s.done, played: played ?? s.played, busy: false }))
  }, [])
  const stop = useCallback(() => {
    void worker.current?.remote.stop(run.current)
    setState((s) => ({ ...s, busy: false }))
  }, [])
  const lucky = useCallback(
    async (device: Device, wanted: readonly (readonly number[])[]): Promise<number | null> =>
      (await worker.current?.remote.lucky(device, wanted)) ?? null,
    [],
  )
  return { ...state, play, stop, lucky }
}
