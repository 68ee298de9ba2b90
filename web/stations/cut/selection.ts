import type { Frames } from '@awlbox/core/contracts/units'
/** What is chosen in the rows: an item, and a part of it where one was drawn over. Frames of the take. */
export interface Selection {
  segmentId: string
  itemId: string
  part: { from: number; to: number } | null
}
/** What can be done from within the rows. */
export interface RowActs {
  onSelect: (s: Selection) => void
  onTake: (segmentId: string, takeId: string) => void
  onGo: (segmentId: string) => void
  onEdge: (segmentId: string, itemId: string, edge: 'from' | 'to', frame: Frames) => void
  onOverlay: (segmentId: string, id: string) => void
}
