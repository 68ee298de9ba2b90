/** A point of a picture or a plane. */
export type Point = readonly [number, number]

/** Whether a point lies inside an outline. */
export function holds(outline: readonly Point[], [x, y]: Point): boolean {
  let inside = false
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [a, b] = [outline[i]!, outline[j]!]
    if (a[1] > y !== b[1] > y && x < ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]) + a[0]) inside = !inside
  }
  return inside
}

/** Maps the unit square (0,0)–(1,1) to four corners in order (Heckbert 1989), and back. */
export interface Plane {
  to: (u: number, v: number) => Point
  from: (x: number, y: number) => Point
  /** Whether a point of the square's plane lies before the eye; behind it `to` has no meaning. */
  isBefore: (u: number, v: number) => boolean
  /** Whether a point of the picture lies on the square's side of the horizon; beyond it `from` has no meaning. */
  isBelowHorizon: (x: number, y: number) => boolean
}
export function planeOf([p0, p1, p2, p3]: readonly [Point, Point, Point, Point]): Plane {
  const [sx, sy] = [p0[0] - p1[0] + p2[0] - p3[0], p0[1] - p1[1] + p2[1] - p3[1]]
  const [dx1, dy1, dx2, dy2] = [p1[0] - p2[0], p1[1] - p2[1], p3[0] - p2[0], p3[1] - p2[1]]
  const det = dx1 * dy2 - dx2 * dy1 || 1e-9
  const [g, h] = [(sx * dy2 - dx2 * sy) / det, (dx1 * sy - sx * dy1) / det]
  const m = [
    p1[0] - p0[0] + g * p1[0],
    p3[0] - p0[0] + h * p3[0],
    p0[0],
    p1[1] - p0[1] + g * p1[1],
    p3[1] - p0[1] + h * p3[1],
    p0[1],
    g,
    h,
    1,
  ] as const
  const to = (u: number, v: number): Point => {
    const d = m[6] * u + m[7] * v + m[8]
    return [(m[0] * u + m[1] * v + m[2]) / d, (m[3] * u + m[4] * v + m[5]) / d]
  }
  const [a, b, c, d, e, f, G, H, I] = m
  const inverse = [
    e * I - f * H,
    c * H - b * I,
    b * f - c * e,
    f * G - d * I,
    a * I - c * G,
    c * d - a * f,
    d * H - e * G,
    b * G - a * H,
    a * e - b * d,
  ]
  const from = (x: number, y: number): Point => {
    const q = inverse[6]! * x + inverse[7]! * y + inverse[8]!
    return [
      (inverse[0]! * x + inverse[1]! * y + inverse[2]!) / q,
      (inverse[3]! * x + inverse[4]! * y + inverse[5]!) / q,
    ]
  }
  const depth = (u: number, v: number) => m[6] * u + m[7] * v + m[8]
  const height = (x: number, y: number) => inverse[6]! * x + inverse[7]! * y + inverse[8]!
  const middle = to(0.5, 0.5)
  const [near, below] = [Math.sign(depth(0.5, 0.5)), Math.sign(height(...middle))]
  return {
    to,
    from,
    isBefore: (u, v) => depth(u, v) * near > 1e-9,
    isBelowHorizon: (x, y) => height(x, y) * below > 1e-9,
  }
}
