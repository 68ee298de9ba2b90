/** What is chosen in the rows: an item, and a part of it where one was drawn over. Frames of the take. */
export interface Selection {
  segmentId: string
  itemId: string
  part: { from: number; to: number } | null
}
