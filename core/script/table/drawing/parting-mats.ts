import type { Region } from '../state.ts'
import { type Box, dicePattern, laid, type Layout, loose, type Placed, zoneOf } from './layout.ts'
import { box, el, label, line, paper, type Shape } from './paper.ts'

/** Mats that part a whole: part-whole, bar, shelves, plates, dot card, hands. */
const written = (r: Region, b: Box, size: number): Shape[] =>
  r.label ? [label(b.x + b.w / 2, b.y + b.h / 2 + size * 0.34, size, r.label)] : []

export const partWhole: Layout = (m) => {
  const n = m.regions.length - 1
  const w = Math.max(360, n * 128)
  const [whole, ...parts] = m.regions
  const centre = (i: number) => ((i + 0.5) * w) / n
  const top = { x: w / 2 - 90, y: 0, w: 180, h: 106 }
  const boxes = parts.map((_, i): Box => ({ x: centre(i) - 58, y: 148, w: 116, h: 116 }))
  const inside = (b: Box): Box => ({ x: b.x + 9, y: b.y + 8, w: b.w - 18, h: b.h - 16 })
  return laid(w, 266, {
    under: [
      ...boxes.map((b) => line(w / 2, 104, b.x + b.w / 2, 150)),
      box(top.x, top.y, top.w, top.h, 18),
      ...boxes.map((b) => box(b.x, b.y, b.w, b.h, 18)),
    ],
    things: [
      ...loose(whole!.things, inside(top), m.look, 22),
      ...parts.flatMap((p, i) => loose(p.things, inside(boxes[i]!), m.look, 20)),
    ],
    over: [...written(whole!, top, 52), ...parts.flatMap((p, i) => written(p, boxes[i]!, 48))],
    zones: [zoneOf(0, top), ...boxes.map((b, i) => zoneOf(i + 1, b))],
  })
}

const worthOf = (r: Region): number => (r.label && /^\d+$/.test(r.label) ? Number(r.label) : r.things.length)

/** The whole above, its parts below, each as long as it is much. Unknown parts share what is left evenly. */
export const bar: Layout = (m) => {
  const [whole, ...parts] = m.regions
  const w = 520
  const known = parts.map(worthOf)
  const total = Math.max(
    1,
    worthOf(whole!),
    known.reduce((a, b) => a + b, 0),
  )
  const blanks = known.filter((k) => k === 0).length
  const rest = Math.max(0, total - known.reduce((a, b) => a + b, 0))
  const share = known.map((k) => (k > 0 ? k / total : blanks ? Math.max(0.12, rest / total / blanks) : 0.12))
  const scale =
    1 /
    Math.max(
      1,
      share.reduce((a, b) => a + b, 0),
    )
  let x = 0
  const boxes = share.map((s): Box => {
    const b = { x, y: 92, w: s * scale * w, h: 84 }
    x += b.w
    return b
  })
  const top = { x: 0, y: 0, w: Math.max(x, 60), h: 84 }
  const inside = (b: Box): Box => ({ x: b.x + 6, y: b.y + 8, w: Math.max(10, b.w - 12), h: b.h - 16 })
  return laid(w, 178, {
    under: [box(top.x, top.y, top.w, top.h, 4), ...boxes.map((b) => box(b.x, b.y, b.w, b.h, 4))],
    things: [
      ...loose(whole!.things, inside(top), 0, 22),
      ...parts.flatMap((p, i) => loose(p.things, inside(boxes[i]!), 0, 22)),
    ],
    over: [...written(whole!, top, 44), ...parts.flatMap((p, i) => written(p, boxes[i]!, 44))],
    zones: [zoneOf(0, top), ...boxes.map((b, i) => zoneOf(i + 1, b))],
  })
}

export const shelves: Layout = (m) =>
  laid(420, 220, {
    under: m.regions.flatMap((_, i) => [
      box(0, i * 112, 420, 104, 6),
      line(8, i * 112 + 96, 412, i * 112 + 96, 4, paper.hair),
    ]),
    things: m.regions.flatMap((r, i): Placed[] =>
      r.things.map((thing, j) => ({
        thing,
        form: 'counter',
        x: 28 + j * Math.min(52, 380 / Math.max(1, r.things.length)),
        y: i * 112 + 62,
        r: Math.min(24, 170 / Math.max(1, r.things.length)),
      })),
    ),
    over: m.regions.flatMap((r, i) => written(r, { x: 330, y: i * 112, w: 90, h: 104 }, 44)),
    zones: m.regions.map((_, i) => zoneOf(i, { x: 0, y: i * 112, w: 420, h: 104 })),
  })

export const plates: Layout = (m) => {
  const n = m.regions.length
  const w = Math.min(170, 600 / n)
  const inside = (i: number): Box => ({ x: i * w + w * 0.2, y: w * 0.22, w: w * 0.6, h: w * 0.56 })
  return laid(n * w, w, {
    under: m.regions.flatMap((_, i) => [
      el('ellipse', {
        cx: i * w + w / 2,
        cy: w / 2,
        rx: w * 0.46,
        ry: w * 0.42,
        fill: paper.white,
        stroke: paper.ink,
        'stroke-width': 2.5,
      }),
      el('ellipse', {
        cx: i * w + w / 2,
        cy: w / 2,
        rx: w * 0.36,
        ry: w * 0.32,
        fill: 'none',
        stroke: paper.hair,
        'stroke-width': 1.5,
      }),
    ]),
    things: m.regions.flatMap((r, i) => loose(r.things, inside(i), m.look, 20)),
    over: m.regions.flatMap((r, i) => written(r, inside(i), w * 0.34)),
    zones: m.regions.map((_, i) => zoneOf(i, { x: i * w, y: 0, w, h: w })),
  })
}

/** Two squares side by side; up to six dots lie as on dice, more lie two by two. */
export const dotCard: Layout = (m) => {
  const side = 170
  const spots = (n: number, x0: number, y0: number): [number, number][] =>
    n <= 6
      ? dicePattern[n]!.map(([x, y]) => [x0 + side / 2 + x * side * 0.29, y0 + side / 2 + y * side * 0.29])
      : Array.from({ length: n }, (_, i) => [
          x0 + side / 2 + ((i % 2) - 0.5) * side * 0.32,
          y0 +
            side / 2 +
            (Math.floor(i / 2) - (Math.ceil(n / 2) - 1) / 2) * Math.min(40, (side * 0.86) / Math.ceil(n / 2)),
        ])
  return laid(side * 2, side, {
    under: [box(0, 0, side * 2, side, 14), line(side, 6, side, side - 6)],
    things: m.regions.flatMap((r, i): Placed[] =>
      r.things.map((thing, k) => ({
        thing,
        form: 'dot',
        x: spots(r.things.length, i * side, 0)[k]![0],
        y: spots(r.things.length, i * side, 0)[k]![1],
        r: r.things.length > 6 ? 13 : 17,
      })),
    ),
    over: m.regions.flatMap((r, i) => written(r, { x: i * side, y: 0, w: side, h: side }, 60)),
    zones: m.regions.map((_, i) => zoneOf(i, { x: i * side, y: 0, w: side, h: side })),
  })
}

/** Which fingers stand up for a number on one hand; the thumb last, or, rearranged, first. */
const fingersUp = (n: number, look: number): boolean[] =>
  [0, 1, 2, 3, 4].map((i) => (look % 2 ? i >= 5 - n : i < n))
/** Hands seen from the viewer's side, palms towards you: the left one stands left. */
export const hands: Layout = (m) => {
  const hand = (r: Region, x0: number, mirror: boolean): Shape[] => {
    const up = fingersUp(r.things.length, m.look)
    const skin = '#DDB892'
    const finger = (i: number, raised: boolean): Shape => {
      // Little finger to index, then the thumb at the side.
      const lengths = [66, 84, 92, 84]
      if (i === 4)
        return el('rect', {
          x: 120,
          y: raised ? 96 : 128,
          width: raised ? 62 : 26,
          height: 28,
          rx: 14,
          fill: skin,
          stroke: paper.ink,
          'stroke-width': 2.2,
          transform: raised ? 'rotate(-38 126 124)' : 'rotate(20 126 140)',
        })
      const h = raised ? lengths[i]! : 24
      return el('rect', {
        x: 16 + i * 28,
        y: 108 - h,
        width: 25,
        height: h + 20,
        rx: 12.5,
        fill: skin,
        stroke: paper.ink,
        'stroke-width': 2.2,
      })
    }
    return [
      el('g', { transform: mirror ? `translate(${x0 + 190} 0) scale(-1 1)` : `translate(${x0} 0)` }, [
        ...up.map((raised, i) => finger(i, raised)),
        el('rect', {
          x: 12,
          y: 104,
          width: 120,
          height: 92,
          rx: 30,
          fill: skin,
          stroke: paper.ink,
          'stroke-width': 2.2,
        }),
      ]),
    ]
  }
  return laid(400, 200, {
    under: [...hand(m.regions[0]!, 0, false), ...hand(m.regions[1]!, 210, true)],
    zones: [zoneOf(0, { x: 0, y: 0, w: 200, h: 200 }), zoneOf(1, { x: 200, y: 0, w: 200, h: 200 })],
  })
}
