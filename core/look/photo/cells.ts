/** The cell of a ten frame, 0–9 in reading order, at a share of its width and height; what lies just outside is in the nearest. */
export const cellAt = (u: number, v: number): number =>
  Math.min(1, Math.max(0, Math.floor(v * 2))) * 5 + Math.min(4, Math.max(0, Math.floor(u * 5)))
