import { heapsIn, type Region, thingsIn } from '../state.ts'
import { laid, type Layout, loose, type Placed, zoneOf } from './layout.ts'
import { box, el, label, line, paper, path, type Shape } from './paper.ts'

/** For each thing of a place which heap it lies in, from 0. */
const heapNumbers = (r: Region): number[] => {
  const heaps = heapsIn(r)
  return r.things.map((t) => heaps.findIndex((h) => h.includes(t)))
}
/** Mats on which things are counted: table, row, frame, jar, rail, tower, pair plate, coins, skittles. */
export const openTable: Layout = (m) => {
  const n = m.regions[0]!.things.length
  // A few things left over need no whole table beside the plates they were shared on to.
  const [w, h] = n <= 3 ? [200, 150] : n <= 8 ? [360, 190] : [560, 220]
  const b = { x: 0, y: 0, w, h }
  const heaps = heapsIn(m.regions[0]!)
  if (heaps.length < 2)
    return laid(w, h, { things: loose(m.regions[0]!.things, b, m.look, 30), zones: [zoneOf(0, b)] })
  // Heaps lie side by side with clear table between them, each as wide as its share of the things.
  const gap = 34
  const wide = Math.max(w, heaps.length * 110)
  const most = Math.max(...heaps.map((x) => x.length))
  const each = (wide - gap * (heaps.length - 1)) / heaps.length
  const things = heaps.flatMap((heap, i) =>
    loose(heap, { x: i * (each + gap), y: 0, w: each, h }, m.look, Math.min(30, 64 / Math.sqrt(most))),
  )
  return laid(wide, h, { things, zones: [zoneOf(0, { x: 0, y: 0, w: wide, h })] })
}

export const row: Layout = (m) => {
  const things = m.regions[0]!.things
  const n = Math.max(5, things.length)
  const pitch = Math.min(64, 560 / n)
  const gap = m.divider === null ? 0 : pitch * 0.5
  const heap = heapNumbers(m.regions[0]!)
  const apart = pitch * 0.7
  const x = (i: number) =>
    i * pitch + pitch / 2 + (m.divider !== null && i >= m.divider ? gap : 0) + (heap[i] ?? 0) * apart
  const w = n * pitch + gap + Math.max(0, ...heap) * apart
  return laid(w, pitch + 16, {
    under: [
      line(0, pitch + 10, w, pitch + 10, 3, paper.hair),
      ...(m.divider === null
        ? []
        : [line(m.divider * pitch + gap / 2, -4, m.divider * pitch + gap / 2, pitch + 12, 4)]),
    ],
    things: things.map((thing, i) => ({ thing, form: 'counter', x: x(i), y: pitch / 2, r: pitch * 0.42 })),
    zones: [zoneOf(0, { x: 0, y: 0, w, h: pitch + 16 })],
  })
}

export const frame: Layout = (m, { fill }) => {
  const r = m.regions[0]!
  const frames = (r.slots ?? 10) / 10
  const cell = frames === 1 ? 90 : 62
  const at = (i: number): [number, number] => {
    const [f, k] = [Math.floor(i / 10), i % 10]
    const [col, down] = fill === 'across' ? [k % 5, Math.floor(k / 5)] : [Math.floor(k / 2), k % 2]
    return [col * cell, f * (cell * 2 + 20) + down * cell]
  }
  const under = Array.from({ length: frames * 10 }, (_, i) => {
    const [x, y] = at(i)
    return el('rect', {
      x,
      y,
      width: cell,
      height: cell,
      fill: paper.white,
      stroke: paper.ink,
      'stroke-width': 2,
    })
  })
  const h = frames * cell * 2 + (frames - 1) * 20
  return laid(cell * 5, h, {
    under,
    things: r.things.map((thing, i) => ({
      thing,
      form: 'counter',
      x: at(i)[0] + cell / 2,
      y: at(i)[1] + cell / 2,
      r: cell * 0.36,
    })),
    zones: [zoneOf(0, { x: 0, y: 0, w: cell * 5, h })],
  })
}

export const jar: Layout = (m) => {
  const body = 'M30 34 h140 q14 8 14 30 v120 q0 26 -26 26 h-116 q-26 0 -26 -26 v-120 q0 -22 14 -30z'
  const text = m.regions[0]!.label
  return laid(200, 214, {
    under: [
      path(body, { fill: m.covered ? paper.lid : paper.linen }),
      el('rect', {
        x: 34,
        y: 12,
        width: 132,
        height: 22,
        rx: 6,
        fill: m.covered ? paper.steel : paper.lid,
        stroke: paper.ink,
        'stroke-width': 2,
      }),
    ],
    // The number under a cover is known but not shown: the drawing must not give it away.
    things: m.covered ? [] : loose(m.regions[0]!.things, { x: 26, y: 62, w: 148, h: 140 }, m.look, 22),
    over: text ? [label(100, 140, 56, text)] : [],
    zones: [zoneOf(0, { x: 16, y: 10, w: 168, h: 200 })],
  })
}

export const rail: Layout = (m) => {
  const things = m.regions[0]!.things
  const n = Math.max(10, things.length)
  const pitch = Math.min(46, 470 / n)
  const split = m.divider ?? things.length
  const w = n * pitch + 90
  const x = (i: number) => (i < split ? 24 + i * pitch : w - 24 - (things.length - 1 - i) * pitch)
  return laid(w, 130, {
    under: [
      line(0, 34, w, 34, 5, paper.steel),
      line(2, 10, 2, 118, 6, '#8A6A45'),
      line(w - 2, 10, w - 2, 118, 6, '#8A6A45'),
    ],
    things: things.map((thing, i) => ({ thing, form: 'peg', x: x(i), y: 40, r: pitch * 0.44 })),
    zones: [zoneOf(0, { x: 0, y: 0, w, h: 120 })],
  })
}

/** Towers stand side by side where one was broken or another built beside it. */
export const tower: Layout = (m) => {
  const towers = heapsIn(m.regions[0]!)
  const n = Math.max(5, ...towers.map((t) => t.length))
  const side = Math.min(44, 260 / n)
  const each = Math.max(90, side * 2)
  const w = each * Math.max(1, towers.length)
  return laid(w, n * side + 10, {
    under: [line(0, n * side + 6, w, n * side + 6, 4, paper.hair)],
    things: towers.flatMap((blocks, k) =>
      blocks.map((thing, i) => ({
        thing,
        form: 'cube' as const,
        x: each * k + each / 2,
        y: n * side - i * side - side / 2,
        r: side / 2,
      })),
    ),
    zones: [zoneOf(0, { x: 0, y: 0, w, h: n * side + 10 })],
  })
}

/** Two wide, so that an odd one stands alone at the end; plain steel, no code of colours. */
export const pairPlate: Layout = (m) => {
  const things = m.regions[0]!.things
  const pairs = Math.max(3, Math.ceil(things.length / 2))
  const cell = Math.min(58, 520 / pairs)
  return laid(pairs * cell + 24, cell * 2 + 24, {
    under: [box(0, 0, pairs * cell + 24, cell * 2 + 24, 14, { fill: '#C6CDD1', stroke: paper.steel })],
    things: things.map((thing, i) => ({
      thing,
      form: 'dot',
      x: 12 + Math.floor(i / 2) * cell + cell / 2,
      y: 12 + (i % 2) * cell + cell / 2,
      r: cell * 0.34,
    })),
    zones: [zoneOf(0, { x: 0, y: 0, w: pairs * cell + 24, h: cell * 2 + 24 })],
  })
}

export const coins: Layout = (m) => {
  const b = { x: 0, y: 0, w: 420, h: 180 }
  return laid(420, 180, { things: loose(m.regions[0]!.things, b, m.look, 34), zones: [zoneOf(0, b)] })
}

/** A triangle with the point nearest the ball: rows of 4, 3, 2 and 1 for ten. */
export const skittles: Layout = (m) => {
  const things = m.regions[0]!.things
  const rows: number[] = []
  for (let left = things.length, size = 1; left > 0; size++) {
    rows.unshift(Math.min(size, left))
    left -= size
  }
  const pitch = 62
  const placed: Placed[] = []
  let i = 0
  rows.forEach((n, down) => {
    for (let k = 0; k < n; k++, i++)
      placed.push({
        thing: things[i]!,
        form: 'skittle',
        x: 140 + (k - (n - 1) / 2) * pitch,
        y: 36 + down * 66,
        r: 29,
      })
  })
  const h = rows.length * 66 + 16
  return laid(280, h, { things: placed, zones: [zoneOf(0, { x: 0, y: 0, w: 280, h })] })
}

/** A picture to be looked at: things lie about a room, and what to look for stands under it, the missing one too. */
export const scene: Layout = (m) => {
  const all = m.regions.flatMap((r) => [...r.things])
  // Dealt round-robin so that one kind does not stand in a block.
  const mixed = [...all].sort((a, b) => ((a.key * 17) % 23) - ((b.key * 17) % 23))
  const b = { x: 16, y: 16, w: 508, h: 190 }
  const legend: Shape[] = m.regions.map((r, i) =>
    label(((i + 0.5) * 540) / m.regions.length, 258, 22, r.name),
  )
  return laid(540, 270, {
    under: [
      box(0, 0, 540, 222, 18, { fill: '#EEF2EA' }),
      path('M14 196 Q140 170 270 190 T526 182', { stroke: paper.hair, 'stroke-width': 4 }),
      ...legend,
    ],
    things: loose(mixed, b, 3, 30, 'picture'),
    zones: m.regions.map((_, i) =>
      zoneOf(i, { x: (i * 540) / m.regions.length, y: 0, w: 540 / m.regions.length, h: 222 }),
    ),
  })
}

/** Claps to be heard: shown as bursts, or only as a listening ear's waves while they are unseen. */
export const sound: Layout = (m) => {
  const n = thingsIn(m).length
  const pitch = Math.min(70, 500 / Math.max(1, n))
  if (m.covered || n === 0)
    return laid(160, 120, {
      under: [18, 34, 50].map((r) =>
        path(`M${80 + r * 0.6} ${60 - r} A${r} ${r} 0 0 1 ${80 + r * 0.6} ${60 + r}`, {
          stroke: paper.steel,
          'stroke-width': 4,
        }),
      ),
      over: [el('circle', { cx: 70, cy: 60, r: 10, fill: paper.steel })],
    })
  return laid(n * pitch, 90, {
    under: Array.from({ length: n }, (_, i) =>
      el(
        'g',
        { transform: `translate(${i * pitch + pitch / 2} 45)` },
        [0, 1, 2, 3, 4, 5, 6, 7].map((k) =>
          line(
            Math.cos((k * Math.PI) / 4) * pitch * 0.14,
            Math.sin((k * Math.PI) / 4) * pitch * 0.14,
            Math.cos((k * Math.PI) / 4) * pitch * 0.34,
            Math.sin((k * Math.PI) / 4) * pitch * 0.34,
            4,
          ),
        ),
      ),
    ),
  })
}
