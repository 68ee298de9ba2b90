import type { Frames } from '../contracts/units.ts'
import type { MeanColour } from '../contracts/render.ts'
import type { CutList, FilmBox, Hidden, Repair } from '../contracts/cut.ts'
import { film } from '../film/camera/frame.ts'
import { type Homography, homography, isProperQuad, mapped, type Point, type Quad } from './homography.ts'

export const plainRepair = (takeId: string): Repair => ({
  takeId,
  turn: 0,
  mirror: false,
  corners: null,
  closer: null,
  light: 0,
  warmth: 0,
  steady: false,
  hidden: [],
  louder: 0,
  hum: 0,
  hiss: false,
})
export const repairOf = (list: { repairs: readonly Repair[] }, takeId: string): Repair =>
  list.repairs.find((r) => r.takeId === takeId) ?? plainRepair(takeId)
/** Puts a take's repair in place; one that changes nothing is not kept. */
export function withRepair(list: CutList, repair: Repair): CutList {
  const rest = list.repairs.filter((r) => r.takeId !== repair.takeId)
  return { ...list, repairs: isPlainRepair(repair) ? rest : [...rest, repair] }
}
export const isPlainRepair = (r: Repair): boolean =>
  JSON.stringify({ ...r, takeId: '' }) === JSON.stringify(plainRepair(''))

/** Whether an area is covered: a proposed one only once it is accepted. */
export const isCovered = (h: Pick<Hidden, 'why'>): boolean => h.why === null || h.why.state === 'accepted'
/** Where a hidden area is at a frame of the take; null where it is not there. */
export function boxAt(h: Pick<Hidden, 'from' | 'to' | 'keys'>, frame: Frames): FilmBox | null {
  if (frame < h.from || frame >= h.to) return null
  const after = h.keys.findIndex((k) => k.frame > frame)
  if (after === 0) return h.keys[0]!.box
  if (after < 0) return h.keys.at(-1)!.box
  const [a, b] = [h.keys[after - 1]!, h.keys[after]!]
  const t = (frame - a.frame) / (b.frame - a.frame)
  const mix = (k: keyof FilmBox): number => a.box[k] + (b.box[k] - a.box[k]) * t
  return { x: mix('x'), y: mix('y'), w: mix('w'), h: mix('h') }
}
/** A hidden area set at a frame: a key is added, or the one there is moved. Keys stay in order. */
export const keyed = (h: Hidden, frame: Frames, box: FilmBox): Hidden => ({
  ...h,
  keys: [...h.keys.filter((k) => k.frame !== frame), { frame, box }].sort((a, b) => a.frame - b.frame),
})

/**
 * Factors for red, green and blue: a stop of light doubles them all; warmth raises red and lowers blue, at 1 by a
 * quarter, about the step from daylight to a kitchen lamp.
 */
export function gainsOf({ light, warmth }: Pick<Repair, 'light' | 'warmth'>): {
  r: number
  g: number
  b: number
} {
  const k = 2 ** light
  return { r: k * (1 + 0.25 * warmth), g: k, b: k * (1 - 0.25 * warmth) }
}
/** Light and warmth that bring a picture's mean colour nearest to another's, within what can be set; nothing where it is too dark to tell. */
export function matched(mine: MeanColour, other: MeanColour): Pick<Repair, 'light' | 'warmth'> {
  if (Math.min(mine.r, mine.g, mine.b) < 2) return { light: 0, warmth: 0 }
  const clip = (v: number, most: number): number => Math.round(Math.min(most, Math.max(-most, v)) * 100) / 100
  const [r, g, b] = [other.r / mine.r, other.g / mine.g, other.b / mine.b]
  return { light: clip(Math.log2(g), 2), warmth: clip((r / g - b / g) / 0.5, 1) }
}

/** The size of a take's picture once turned and fitted into the frame: lying pictures keep bars at their sides. */
function turned(turn: Repair['turn']): Quad {
  const { width: w, height: h } = film
  // Turned a quarter, 1280 × 720 is 405 × 720 in the middle of the frame.
  const narrow = (h * h) / w
  const [l, r] = turn % 180 === 0 ? [0, w] : [(w - narrow) / 2, (w + narrow) / 2]
  const corners: Quad = [
    { x: l, y: 0 },
    { x: r, y: 0 },
    { x: r, y: h },
    { x: l, y: h },
  ]
  // The take's upper left corner goes to the corner a quarter turn further on for each quarter.
  const k = turn / 90
  return [corners[k % 4]!, corners[(k + 1) % 4]!, corners[(k + 2) % 4]!, corners[(k + 3) % 4]!]
}
export const frameQuad: Quad = [
  { x: 0, y: 0 },
  { x: film.width, y: 0 },
  { x: film.width, y: film.height },
  { x: 0, y: film.height },
]
/** The part of the picture enlarged to the frame at a frame of the take; all of it where nothing is. */
export function closerBox(closer: Repair['closer'], frame: Frames): FilmBox {
  if (!closer) return { x: 0, y: 0, w: film.width, h: film.height }
  const t = closer.frames
    ? Math.min(1, Math.max(0, (frame - closer.from) / closer.frames))
    : frame >= closer.from
      ? 1
      : 0
  const by = 1 + (closer.by - 1) * t
  const [w, h] = [film.width / by, film.height / by]
  return {
    x: Math.min(film.width - w, Math.max(0, closer.x - w / 2)),
    y: Math.min(film.height - h, Math.max(0, closer.y - h / 2)),
    w,
    h,
  }
}
const quadOf = (b: FilmBox): Quad => [
  { x: b.x, y: b.y },
  { x: b.x + b.w, y: b.y },
  { x: b.x + b.w, y: b.y + b.h },
  { x: b.x, y: b.y + b.h },
]

/** Where a point of the take's picture comes in the film's, at a frame of the take. */
export function takeToFilm(r: Repair, frame: Frames): Homography {
  const steps: (Homography | null)[] = [homography(frameQuad, turned(r.turn))]
  if (r.mirror) steps.push([-1, 0, film.width, 0, 1, 0, 0, 0, 1])
  if (r.corners && isProperQuad(r.corners)) steps.push(homography(r.corners, frameQuad))
  steps.push(homography(quadOf(closerBox(r.closer, frame)), frameQuad))
  const corners = frameQuad.map((p) => steps.reduce<Point>((q, h) => (h ? mapped(h, q) : q), p))
  return homography(frameQuad, [corners[0]!, corners[1]!, corners[2]!, corners[3]!])!
}
/** The smallest upright box around a box of the take's picture in the film's. */
export function boxInFilm(h: Homography, b: FilmBox): FilmBox {
  const at = quadOf(b).map((p) => mapped(h, p))
  const [x, y] = [Math.min(...at.map((p) => p.x)), Math.min(...at.map((p) => p.y))]
  return { x, y, w: Math.max(...at.map((p) => p.x)) - x, h: Math.max(...at.map((p) => p.y)) - y }
}
/** The same map for style sheets: pictures shown `scale` of a film pixel large, mapped about their upper left corner. */
export function cssMatrix(h: Homography, scale: number): string {
  const [a, b, c, d, e, f, g, i] = h
  return `matrix3d(${[a, d, 0, g / scale, b, e, 0, i / scale, 0, 0, 1, 0, c * scale, f * scale, 0, 1].join(',')})`
}
/** The way back: where a point of the film's picture is in the take's. */
export function filmToTake(h: Homography): Homography {
  const corners = frameQuad.map((p) => mapped(h, p))
  return (
    homography([corners[0]!, corners[1]!, corners[2]!, corners[3]!], frameQuad) ?? [1, 0, 0, 0, 1, 0, 0, 0, 1]
  )
}
