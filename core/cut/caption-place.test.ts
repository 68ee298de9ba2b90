import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { FilmBox } from '../contracts/cut.ts'
import type { TableState } from '../contracts/table.ts'
import { film, tableInTake } from '../film/camera/frame.ts'
import { readCaptions, toVtt } from '../film/desk/captions.ts'
import { emptyTable } from '../script/table/state.ts'
import { writtenOn } from '../script/table/drawing/written.ts'
import { meet } from './boxes.ts'
import { captionBox } from './caption-drawing.ts'
import { captionPlace, checkCaptionPlaces, placedCaptions } from './caption-place.ts'
import type { FilmCue } from './captions.ts'
import { inFilm } from './overlays.ts'
import { plainRepair } from './repairs.ts'

const cue = (text: string): FilmCue => ({
  id: 'c',
  segmentId: 's',
  source: { takeId: 't', stepId: 'x', start: 1, end: 3 },
  edited: false,
  start: 1,
  end: 3,
  text,
})
const table = (over: Partial<TableState>): TableState => ({ ...emptyTable, ...over })
const place = (text: string, t: TableState | null) =>
  placedCaptions([cue(text)], { tableAfter: () => t, repairOf: () => plainRepair('t'), fill: 'across' })[0]!
const written = (t: TableState): FilmBox[] => inFilm(writtenOn(t, 'across'), plainRepair('t'), 30)
const sentence = 'Bobbin has five parcels and two more,\nand that makes seven parcels'

describe('a caption', () => {
  test('stays at the foot where nothing is written there', () => {
    expect(place(sentence, table({})).top ?? null).toBeNull()
    expect(place(sentence, null).top ?? null).toBeNull()
  })
  test.each([
    ['a number sentence', { written: ['5 + 2 = 7'] }],
    ['two of them', { written: ['5 + 2 = 7', '7 − 2 = 5'] }],
    ['a held number', { held: 5 }],
  ] as [string, Partial<TableState>][])('goes up over %s and covers none of it', (_what, over) => {
    const t = table(over)
    const { top } = place(sentence, t)
    expect(top).toBeGreaterThan(0)
    for (const b of written(t)) expect(meet(captionBox(sentence, top), b)).toBe(false)
  })
  test('is written higher in the captions of the film, and read back the same', () => {
    const cues = [place('Seven', table({ written: ['5 + 2 = 7'] })), { ...cue('More'), start: 4, end: 5 }]
    const vtt = toVtt(cues)
    expect(vtt.match(/line:\d+%/g)).toHaveLength(1)
    expect(readCaptions(vtt).map((c) => [c.text, c.start])).toEqual([
      ['Seven', 1],
      ['More', 4],
    ])
  })
  test('that finds no place stays at the foot, and is told', () => {
    const everywhere: FilmBox = { x: 0, y: 0, w: film.width, h: film.height }
    expect(captionPlace(sentence, [everywhere], [])).toEqual({ top: null, covers: true })
    expect(checkCaptionPlaces([{ ...cue('Seven'), covers: true }])[0]!.params.caption).toMatch(/Seven/)
    expect(checkCaptionPlaces([cue('Seven')])).toEqual([])
  })
  test('whatever is written where, it never covers it without saying so, and never leaves the picture', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            x: fc.integer({ min: 0, max: 1200 }),
            y: fc.integer({ min: 0, max: 690 }),
            w: fc.integer({ min: 20, max: 600 }),
            h: fc.integer({ min: 10, max: 200 }),
          }),
          { maxLength: 4 },
        ),
        (boxes) => {
          const { top, covers } = captionPlace(sentence, boxes, [])
          const box = captionBox(sentence, top)
          expect(box.y).toBeGreaterThanOrEqual(0)
          expect(boxes.some((b) => meet(box, b))).toBe(covers)
        },
      ),
    ))
  test('what is written lies inside the table as it is filmed', () => {
    for (const b of written(table({ written: ['12 + 7 = 19'], held: 12 }))) {
      expect(b.x).toBeGreaterThanOrEqual(tableInTake.x)
      expect(b.y + b.h).toBeLessThanOrEqual(tableInTake.y + tableInTake.h + 1)
    }
  })
})
