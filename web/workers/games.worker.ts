import { expose } from 'comlink'
import type { Device } from '@awlbox/core/contracts/chance'
import { luckySeed } from '@awlbox/core/plan/chance/plan'
import { addPlayed, type Game, type Played, playGames } from '@awlbox/core/plan/chance/simulate'

const batch = 50_000
let stopped = 0
/** Plays many games away from the page, a batch at a time, telling how far it is. */
const worker = {
  async play(
    game: Game,
    games: number,
    seed: number,
    run: number,
    told: (done: number, played: Played) => void,
  ): Promise<Played | null> {
    let all: Played | null = null
    let last = 0
    for (let done = 0, k = 0; done < games; done += batch, k++) {
      if (stopped >= run) return null
      all = addPlayed(all, playGames(game, Math.min(batch, games - done), seed * 1000 + k))
      // A few times a second is as often as anybody can read it.
      if (performance.now() - last > 200) {
        last = performance.now()
        told(Math.min(games, done + batch), all)
      }
      // Lets a message that says stop be heard.
      await new Promise((resolve) => setTimeout(resolve))
    }
    return all
  },
  lucky: (device: Device, wanted: readonly (readonly number[])[]): number | null => luckySeed(device, wanted),
  stop(run: number): void {
    stopped = Math.max(stopped, run)
  },
}
export type GamesWorker = typeof worker
expose(worker)
