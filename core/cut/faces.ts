import { type FilmBox, framesPerSecond, type Hidden } from '../contracts/cut.ts'
import { clockTime } from '../words.ts'
import { film } from '../film/frame.ts'
import { toSeconds } from './timeline.ts'

/** Faces seen in one picture of a take; boxes in its 1280 × 720. */
export interface FacesSeen {
  frame: number
  boxes: FilmBox[]
}
/** Seconds a face may go unseen between two pictures and still be the same; how far around it is covered, as a share of its size. */
const [unseen, around] = [4.5, 0.35]
/** A face seen once in this many pictures or more is proposed: a single one is often a pattern of things. */
const leastPictures = 2

const middle = (b: FilmBox): { x: number; y: number } => ({ x: b.x + b.w / 2, y: b.y + b.h / 2 })
const grown = (b: FilmBox): FilmBox => {
  const [x, y] = [Math.max(0, b.x - b.w * around), Math.max(0, b.y - b.h * around)]
  return { x, y, w: Math.min(film.width, b.x + b.w * (1 + around)) - x, h: Math.min(film.height, b.y + b.h * (1 + around)) - y }
}

/**
 * Areas proposed to be covered, from faces found in pictures taken `every` frames: boxes near each other in
 * neighbouring pictures are one face, and the cover goes from one to the next. `frames` is the take's length.
 */
export function coversFor(seen: readonly FacesSeen[], every: number, frames: number): Hidden[] {
  const tracks: { frame: number; box: FilmBox }[][] = []
  for (const { frame, boxes } of [...seen].sort((a, b) => a.frame - b.frame))
    for (const box of boxes) {
      const near = tracks.find((t) => {
        const last = t.at(-1)!
        const [a, b] = [middle(last.box), middle(box)]
        return last.frame < frame && frame - last.frame <= unseen * framesPerSecond && Math.hypot(a.x - b.x, a.y - b.y) < (last.box.w + box.w) / 2
      })
      if (near) near.push({ frame, box })
      else tracks.push([{ frame, box }])
    }
  return tracks.filter((t) => t.length >= Math.min(leastPictures, seen.length)).map((t): Hidden => {
    const [from, to] = [Math.max(0, t[0]!.frame - every), Math.min(frames, t.at(-1)!.frame + every + 1)]
    const id = `face-${t[0]!.frame}-${Math.round(t[0]!.box.x)}`
    return {
      id, what: 'face', from, to, keys: t.slice(0, 400).map((k) => ({ frame: k.frame, box: grown(k.box) })),
      why: { id, act: 'add', kind: 'face', note: `Perhaps a face, from ${clockTime(toSeconds(from))} to ${clockTime(toSeconds(to))} of the take. Cover it unless whoever it is has agreed to be seen; your setting’s safeguarding policy decides.`, sure: false, state: 'open' },
    }
  })
}
