import { planeOf } from '../../plane.ts'

/**
 * What a camera over a table sees. Millimetres on the table: x to the right and y away from the camera, both from the
 * point the camera is aimed at; in the picture u and v run from −1 (left, bottom) to 1 (right, top).
 */
export interface View {
  /** Where a point of the picture lies on the table; null above the horizon. */
  toTable: (u: number, v: number) => Point | null
  /** Where a point of the table shows in the picture; null behind the camera. */
  toPicture: (p: Point) => { u: number; v: number } | null
  /** Width of the picture ÷ its height. */
  aspect: number
}
export interface Point {
  x: number
  y: number
}
export interface Camera {
  /** Of the lens above the table, mm, 50–3000. */
  height: number
  /** From straight down, degrees, 0–80. */
  tilt: number
  /** Across the width of the picture, degrees, 20–120. */
  lens: number
  aspect: number
}
const radians = (degrees: number): number => (degrees * Math.PI) / 180

/** The view of a pinhole camera. @throws RangeError where a measure is out of its range. */
export function viewFrom({ height, tilt, lens, aspect }: Camera): View {
  for (const [name, value, from, to] of [
    ['height', height, 50, 3000],
    ['tilt', tilt, 0, 80],
    ['lens', lens, 20, 120],
    ['aspect', aspect, 0.3, 3],
  ] as const)
    if (!(value >= from && value <= to))
      throw new RangeError(`The ${name} is ${value}; it goes from ${from} to ${to}.`)
  const [sin, cos] = [Math.sin(radians(tilt)), Math.cos(radians(tilt))]
  const [halfWide, halfTall] = [Math.tan(radians(lens / 2)), Math.tan(radians(lens / 2)) / aspect]
  const aim = height * Math.tan(radians(tilt))
  return {
    aspect,
    toTable(u, v) {
      const [a, b] = [u * halfWide, v * halfTall]
      const down = cos - b * sin
      if (down <= 0.02) return null
      const t = height / down
      return { x: t * a, y: t * (sin + b * cos) - aim }
    },
    toPicture(p) {
      // In the camera's own axes: forward, right, up.
      const y = p.y + aim
      const forward = y * sin + height * cos
      if (forward <= 1) return null
      return { u: p.x / forward / halfWide, v: (y * cos - height * sin) / forward / halfTall }
    },
  }
}

/** Sheets whose size everybody can look up, mm: longer side first. */
export const sheets = { A4: [297, 210], A5: [210, 148], Letter: [279.4, 215.9] } as const satisfies Record<
  string,
  readonly [number, number]
>
export type Sheet = keyof typeof sheets

/**
 * The view measured from a sheet of paper lying on the table: `corners` are its corners in the picture (u, v), in order
 * around it, the first two along a longer side. @throws RangeError where they are no outline of a sheet.
 */
export function viewFromSheet(
  corners: readonly { u: number; v: number }[],
  sheet: Sheet,
  aspect: number,
): View {
  if (corners.length !== 4) throw new RangeError('A sheet has four corners.')
  const [long, short] = sheets[sheet]
  const turns = corners.map((c, i) => {
    const [n, m] = [corners[(i + 1) % 4]!, corners[(i + 2) % 4]!]
    return Math.sign((n.u - c.u) * (m.v - n.v) - (n.v - c.v) * (m.u - n.u))
  })
  if (turns.some((t) => t === 0 || t !== turns[0]))
    throw new RangeError(
      'These four points are no outline of a sheet: they must go around it, one corner after the other.',
    )
  // Clockwise corners see the sheet from its back; taken the other way round they are the same sheet.
  const order = turns[0]! > 0 ? corners : [corners[1]!, corners[0]!, corners[3]!, corners[2]!]
  const plane = planeOf(order.map((c) => [c.u, c.v] as const) as unknown as Parameters<typeof planeOf>[0])
  const onSheet = (u: number, v: number): Point | null => {
    if (!plane.isBelowHorizon(u, v)) return null
    const [a, b] = plane.from(u, v)
    return { x: (a - 0.5) * long, y: (b - 0.5) * short }
  }
  // Upright on the screen stays upright on the table, however the sheet lies.
  const up = onSheet(0, 0.05)
  const centre = onSheet(0, 0)
  const turn = up && centre ? Math.atan2(up.x - centre.x, up.y - centre.y) : 0
  const rotate = (p: Point, by: number): Point => ({
    x: p.x * Math.cos(by) - p.y * Math.sin(by),
    y: p.x * Math.sin(by) + p.y * Math.cos(by),
  })
  return {
    aspect,
    toTable(u, v) {
      const p = onSheet(u, v)
      return p && rotate(p, turn)
    },
    toPicture(p) {
      const { x, y } = rotate(p, -turn)
      const [a, b] = [x / long + 0.5, y / short + 0.5]
      if (!plane.isBefore(a, b)) return null
      const [u, v] = plane.to(a, b)
      return { u, v }
    },
  }
}

/** The patch of table in the picture: near left, near right, far right, far left. Null where the picture reaches over the table's edge to the horizon. */
export function patchOf(view: View): readonly Point[] | null {
  const corners = (
    [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as const
  ).map(([u, v]) => view.toTable(u, v))
  return corners.every((c) => c !== null) ? corners : null
}

/** Millimetres of table that one pixel across shows, at the height v of the picture. */
export function mmPerPixel(view: View, v: number, pixels: number): number | null {
  const [a, b] = [view.toTable(-0.02, v), view.toTable(0.02, v)]
  return a && b ? Math.hypot(b.x - a.x, b.y - a.y) / (0.02 * pixels) : null
}

/** How far a phone is held from the eye, mm. */
const phoneDistance = 400
/** A film across an ordinary phone held sideways, mm. */
const phoneWidth = 140
/** Least size for reading: numerals as in print held at arm's length; counters only have to be told apart. Minutes of arc. */
export const legible = { numeral: 20, thing: 12 } as const

/** The angle under which a length on the table, at a place, is seen on a phone: minutes of arc. Null out of the picture. */
export function anglesOn(
  view: View,
  at: Point,
  length: number,
  screen = phoneWidth,
  distance = phoneDistance,
): number | null {
  const [a, b] = [
    view.toPicture({ x: at.x - length / 2, y: at.y }),
    view.toPicture({ x: at.x + length / 2, y: at.y }),
  ]
  if (!a || !b) return null
  // Foreshortened heights are what is read least well: the lesser of across and along counts.
  const [c, d] = [
    view.toPicture({ x: at.x, y: at.y - length / 2 }),
    view.toPicture({ x: at.x, y: at.y + length / 2 }),
  ]
  const across = Math.abs(b.u - a.u) / 2
  const along = c && d ? Math.abs(d.v - c.v) / 2 / view.aspect : across
  return (2 * Math.atan((Math.min(across, along) * screen) / 2 / distance) * 180 * 60) / Math.PI
}
export const inPicture = (view: View, p: Point, margin = 0): boolean => {
  const q = view.toPicture(p)
  return q !== null && Math.abs(q.u) <= 1 - margin && Math.abs(q.v) <= 1 - margin
}
