import type { Frames } from '../contracts/units.ts'
import type { Card, CutList } from '../contracts/cut.ts'
import { type Run, runsOf, segmentFrames } from './timeline.ts'

/** One run of the whole film, with the frame of the film at which it begins. */
export interface Shot {
  segmentId: string
  at: number
  run: Run
  /** The picture a hold holds: the take and its frame, or a card. */
  still: { takeId: string; frame: Frames } | Card | null
}
export interface Program {
  shots: readonly Shot[]
  frames: Frames
  /** Frame of the film at which each segment begins. */
  starts: ReadonlyMap<string, number>
}
/** The whole film as it will be, one run after another. */
export function programOf(list: Pick<CutList, 'segments'>): Program {
  const shots: Shot[] = []
  const starts = new Map<string, number>()
  let frames = 0
  for (const s of list.segments) {
    starts.set(s.segmentId, frames)
    let still: Shot['still'] = null
    for (const run of runsOf(s)) {
      shots.push({
        segmentId: s.segmentId,
        at: frames + run.at,
        run,
        still: run.kind === 'hold' ? still : null,
      })
      if (run.kind === 'clip')
        still = { takeId: run.takeId, frame: run.still ? run.from : run.from + run.frames - 1 }
      if (run.kind === 'card') still = run.card
    }
    frames += segmentFrames(s)
  }
  return { shots, frames, starts }
}
/** The shot at a frame of the film: its index, or the last one past the end; -1 for an empty film. */
export function shotAt(p: Program, frame: Frames): number {
  let [low, high] = [0, p.shots.length]
  while (low < high) {
    const mid = (low + high) >> 1
    if (p.shots[mid]!.at <= frame) low = mid + 1
    else high = mid
  }
  return low - 1
}
