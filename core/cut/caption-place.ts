import type { FilmBox, Repair } from '../contracts/cut.ts'
import type { HouseStyle } from '../contracts/house-style.ts'
import type { TableState } from '../contracts/table.ts'
import { writtenOn } from '../script/table/drawing/written.ts'
import { meet } from './boxes.ts'
import { captionBox } from './caption-drawing.ts'
import type { FilmCue } from './captions.ts'
import type { Check } from './checks.ts'
import { countedBoxes, inFilm } from './overlays.ts'
import { toFrame } from './timeline.ts'

/** Space between a caption and what it keeps clear of, and from the upper edge; pixels of the film. */
const [apart, edge] = [10, 28]

export interface PlaceContext {
  /** The table after a step; null where none is known. */
  tableAfter: (stepId: string) => TableState | null
  repairOf: (takeId: string) => Repair
  fill: HouseStyle['frameFill']
}

/** Where a caption stands so that it covers nothing written on the table: its upper edge in the film; null at the foot. `covers`: no place was free. */
export function captionPlace(
  text: string,
  written: readonly FilmBox[],
  counted: readonly FilmBox[],
): { top: number | null; covers: boolean } {
  const foot = captionBox(text)
  const free = (boxes: readonly FilmBox[], y: number): boolean => boxes.every((b) => !meet({ ...foot, y }, b))
  if (free(written, foot.y)) return { top: null, covers: false }
  const above = Math.round(Math.min(...written.map((b) => b.y)) - foot.h - apart)
  const places = [above, edge].filter((y) => y >= edge && free(written, y))
  const best = places.find((y) => free(counted, y)) ?? places[0]
  return best === undefined ? { top: null, covers: true } : { top: best, covers: false }
}

/** Captions with their places: those that would cover what is written on the table go up. */
export function placedCaptions(
  cues: readonly FilmCue[],
  { tableAfter, repairOf, fill }: PlaceContext,
): FilmCue[] {
  return cues.map((cue) => {
    const table = cue.source && tableAfter(cue.source.stepId)
    if (!cue.source || !table) return cue
    const [repair, frame] = [repairOf(cue.source.takeId), toFrame(cue.source.start)]
    const written = inFilm(writtenOn(table, fill), repair, frame)
    if (!written.length) return cue
    return { ...cue, ...captionPlace(cue.text, written, countedBoxes(table, repair, frame, fill)) }
  })
}

/** Captions for which no place was free. */
export const checkCaptionPlaces = (cues: readonly FilmCue[]): Check[] =>
  cues.flatMap((c) =>
    c.covers
      ? [
          {
            code: 'caption-covers' as const,
            severity: 'risky' as const,
            segmentId: c.segmentId,
            start: c.start,
            params: { caption: c.text.replace(/\n/g, ' ') },
          },
        ]
      : [],
  )
