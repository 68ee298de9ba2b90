import type { PhotoReading } from '../contracts/reading.ts'
import { corrected } from './correct.ts'
import { holds } from '../plane.ts'

/** Of a photo of the reply sheet what is in the box of one task (the first is 0); any other photo as it is. */
export function onSheet(r: PhotoReading, place: number): PhotoReading {
  const box = r.sheet?.[place]
  if (!box) return r
  const inside = corrected(
    r,
    r.things.filter((t) => holds(box.outline, [t.x, t.y])),
  )
  // A box that a person put right is as sure as they are; any other as sure as it was read.
  const settled = r.low === r.count && r.high === r.count
  return {
    ...inside,
    low: settled ? inside.count : Math.min(box.low, inside.count),
    high: settled ? inside.count : Math.max(box.high, inside.count),
    warnings: r.warnings,
    structure: null,
    sheet: null,
  }
}
