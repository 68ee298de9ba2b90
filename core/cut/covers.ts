import type { Frames } from '../contracts/units.ts'
import { en } from '../findings/words/en.ts'
import { type FilmBox, framesPerSecond, type Hidden } from '../contracts/cut.ts'
import { type AreasSeen, type PrivateKind, privateKinds, type TakeSeen } from '../contracts/render.ts'
import { film } from '../film/camera/frame.ts'
import { clockTime } from '../words.ts'
import { middleOf } from './boxes.ts'
import { toSeconds } from './timeline.ts'

/** What is covered, in words. */
export const hiddenNames: Record<Hidden['what'], string> = en.names.hidden
/** What is told of an area that may have to be covered: its kind in the cut list, and its name in a sentence. */
const kinds: Record<'face' | PrivateKind, { what: Hidden['what']; named: string; least: number }> = {
  // A face seen in a single picture is often a pattern of things; a name is seldom read by accident.
  face: { what: 'face', named: 'a face', least: 2 },
  child: { what: 'name', named: 'the name of a child of this class', least: 1 },
  place: { what: 'name', named: 'the name of your class or setting', least: 1 },
  address: { what: 'number', named: 'an address', least: 1 },
  telephone: { what: 'number', named: 'a telephone number', least: 1 },
}
/** Seconds, or pictures, an area may go unseen between two pictures and still be the same; how far around it is covered, as a share of its size. */
const [unseen, pictures, around] = [4.5, 2.2, 0.35]

const grown = (b: FilmBox): FilmBox => {
  // A line of writing is wide and low: it is covered as far above and below as beside, within reason.
  const [dx, dy] = [Math.min(b.w, b.h * 2) * around, b.h * around]
  const [x, y] = [Math.max(0, b.x - dx), Math.max(0, b.y - dy)]
  return { x, y, w: Math.min(film.width, b.x + b.w + dx) - x, h: Math.min(film.height, b.y + b.h + dy) - y }
}

/**
 * Areas proposed to be covered, from what was found in pictures taken `every` frames: boxes near each other in
 * neighbouring pictures are one thing, and the cover goes from one to the next. `frames` is the take's length.
 */
export function coversFor(
  kind: keyof typeof kinds,
  seen: readonly AreasSeen[],
  every: number,
  frames: Frames,
): Hidden[] {
  const tracks: { frame: Frames; box: FilmBox }[][] = []
  for (const { frame, boxes } of [...seen].sort((a, b) => a.frame - b.frame))
    for (const box of boxes) {
      const near = tracks.find((t) => {
        const last = t.at(-1)!
        const [a, b] = [middleOf(last.box), middleOf(box)]
        return (
          last.frame < frame &&
          frame - last.frame <= Math.max(unseen * framesPerSecond, pictures * every) &&
          Math.hypot(a.x - b.x, a.y - b.y) < (last.box.w + box.w) / 2
        )
      })
      if (near) near.push({ frame, box })
      else tracks.push([{ frame, box }])
    }
  const { what, named, least } = kinds[kind]
  return tracks
    .filter((t) => t.length >= Math.min(least, seen.length))
    .map((t): Hidden => {
      const [from, to] = [Math.max(0, t[0]!.frame - every), Math.min(frames, t.at(-1)!.frame + every + 1)]
      const id = `${kind}-${t[0]!.frame}-${Math.round(t[0]!.box.x)}`
      const unless = kind === 'face' ? 'whoever it is has' : 'everyone concerned has'
      return {
        id,
        what,
        from,
        to,
        keys: t.slice(0, 400).map((k) => ({ frame: k.frame, box: grown(k.box) })),
        why: {
          id,
          act: 'add',
          kind: kind === 'face' ? 'face' : 'name',
          note: `Perhaps ${named}, from ${clockTime(toSeconds(from))} to ${clockTime(toSeconds(to))} of the take. Cover it unless ${unless} agreed to be seen; your setting’s safeguarding policy decides.`,
          sure: false,
          state: 'open',
        },
      }
    })
}

/** What is proposed to be covered of all that was seen in a take. */
export const coversOf = (take: TakeSeen, frames: Frames): Hidden[] => [
  ...coversFor('face', take.faces, take.every, frames),
  ...privateKinds.flatMap((kind) =>
    coversFor(
      kind,
      take.written?.seen.filter((s) => s.what === kind) ?? [],
      take.written?.every ?? 1,
      frames,
    ),
  ),
]
