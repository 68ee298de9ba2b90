/** A point of a picture. */
export interface Point {
  x: number
  y: number
}
/** Four corners, clockwise from the upper left. */
export type Quad = readonly [Point, Point, Point, Point]
/** A projective map of the plane, row by row; the last entry is 1. */
export type Homography = readonly [number, number, number, number, number, number, number, number, 1]

/** The map that takes each corner of `from` to that of `to`; null where three corners lie on one line. */
export function homography(from: Quad, to: Quad): Homography | null {
  const rows: number[][] = []
  from.forEach((p, i) => {
    const q = to[i]!
    rows.push(
      [p.x, p.y, 1, 0, 0, 0, -p.x * q.x, -p.y * q.x, q.x],
      [0, 0, 0, p.x, p.y, 1, -p.x * q.y, -p.y * q.y, q.y],
    )
  })
  for (let c = 0; c < 8; c++) {
    const pivot = rows
      .slice(c)
      .reduce((best, _, i) => (Math.abs(rows[c + i]![c]!) > Math.abs(rows[best]![c]!) ? c + i : best), c)
    if (Math.abs(rows[pivot]![c]!) < 1e-9) return null
    ;[rows[c], rows[pivot]] = [rows[pivot]!, rows[c]!]
    for (let r = 0; r < 8; r++) {
      if (r === c) continue
      const f = rows[r]![c]! / rows[c]![c]!
      for (let k = c; k <= 8; k++) rows[r]![k]! -= f * rows[c]![k]!
    }
  }
  const h = rows.map((r, i) => r[8]! / r[i]!)
  return [h[0]!, h[1]!, h[2]!, h[3]!, h[4]!, h[5]!, h[6]!, h[7]!, 1]
}
/** Where a point goes. */
export function mapped(h: Homography, { x, y }: Point): Point {
  const w = h[6] * x + h[7] * y + 1
  return { x: (h[0] * x + h[1] * y + h[2]) / w, y: (h[3] * x + h[4] * y + h[5]) / w }
}
/** Whether four corners go round once, clockwise, with no corner folded in: anything else cannot be straightened. */
export function isProperQuad(q: Quad): boolean {
  return q.every((p, i) => {
    const [b, c] = [q[(i + 1) % 4]!, q[(i + 2) % 4]!]
    return (b.x - p.x) * (c.y - b.y) - (b.y - p.y) * (c.x - b.x) > 1
  })
}
