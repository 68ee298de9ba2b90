import { belief, type Believed } from './believe.ts'
import type { Picture } from './picture.ts'
import { holds, type Point } from '../../plane.ts'
import { type FoundBox, inkedShare, replySheetIn } from './reply-sheet.ts'
import { type Ink, inkOf, isCrossed, lightOf, type Tally, tallyIn } from './strokes.ts'

/** What of a box's inside must be ink before a pen was there: a speck's worth is none. */
const touched = 0.006
/** More things than this are not looked at for strokes one by one. */
const most = 60

/** The picture as it is looked at for what was written or drawn. */
export interface Page {
  width: number
  height: number
  light: Float32Array
  ink: Ink
  /** The reply sheet's boxes by their corners, in pixels; null where it is no reply sheet. */
  boxes: FoundBox[] | null
}
export function pageOf(fine: Picture): Page {
  const { width, height } = fine
  const light = lightOf(fine)
  const ink = inkOf(fine, light)
  return { width, height, light, ink, boxes: replySheetIn(ink) }
}
const pixel = ({ width: w, height: h }: Page, t: Believed) => ({ x: t.x * w, y: t.y * h, r: t.r * w })

/** Things in a sheet's boxes; its corner marks and its code are printed and none. All of them where there is no sheet. */
export function inBoxes(page: Page, things: readonly Believed[]): Believed[] {
  const { boxes } = page
  if (!boxes) return [...things]
  return things.filter((t) => {
    const { x, y } = pixel(page, t)
    return boxes.some((b) => holds(b, [x, y]))
  })
}
/** Of each thing whether a stroke runs through it. */
export const crossedOf = (page: Page, things: readonly Believed[]): boolean[] =>
  things.map((t) => things.length <= most && isCrossed(page.light, page, pixel(page, t)))

export const tallyOf = (page: Page): Tally | null => tallyIn(page.ink, page.light)

/** What lies or is drawn in each box of a reply sheet, and whether a pen was there; outlines in shares of the picture. */
export function boxesOf(
  page: Page,
  all: readonly Believed[],
): { count: number; low: number; high: number; inked: boolean; outline: Point[] }[] | null {
  return (
    page.boxes?.map((b) => {
      const inside = all.filter((t) => {
        const { x, y } = pixel(page, t)
        return holds(b, [x, y])
      })
      const of = (least: number) => inside.filter((t) => t.p >= least).length
      return {
        count: of(belief.counted),
        low: of(belief.doubtless),
        high: of(belief.no),
        inked: inkedShare(page.ink, b) > touched,
        outline: b.map(([x, y]): Point => [x / page.width, y / page.height]),
      }
    }) ?? null
  )
}
