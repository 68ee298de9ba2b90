import type { Chance } from './chance.ts'
import { hsv } from './grounds.ts'
import { classes, clear, type Factors, type Hands, type Spot } from './parts.ts'

/** Faces that numerals are written in: Debian's fonts-dejavu, fonts-liberation, fonts-sil-andika. */
const numerals = [
  'dejavu/DejaVuSerif.ttf',
  'dejavu/DejaVuSans-Bold.ttf',
  'liberation/LiberationSerif-Regular.ttf',
  'liberation/LiberationSans-Regular.ttf',
  'andika/Andika-Regular.ttf',
  'dejavu/DejaVuSansMono.ttf',
] as const
/** Draws on the table: turned as the whole figure is. */
interface Pen {
  ink: string
  thick: number
  turn: number
  at: (x: number, z: number) => [number, number]
  line: (from: Spot, to: Spot) => void
  circle: (x: number, z: number, radius: number) => void
  /** Lays so many things into a round; gives how many found room. */
  inside: (middle: Spot, radius: number, n: number, y: number) => number
}
function penOf(r: Chance, h: Hands): Pen {
  const ink = h.flat(
    r.happens(0.8) ? hsv(0, 0, r.between(0.03, 0.25)) : hsv(r.between(0, 360), 0.8, r.between(0.2, 0.6)),
  )
  const thick = r.between(0.05, 0.28)
  const turn = r.between(-0.35, 0.35)
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)]
  const at = (x: number, z: number): [number, number] => [x * cos - z * sin, x * sin + z * cos]
  const line: Pen['line'] = (from, to) => {
    const [a, b, c, d] = [...at(...from), ...at(...to)]
    const y = h.surface + 0.012
    const n = Math.hypot(c - a, d - b) || 1
    const [px, pz] = [((d - b) / n) * thick * 0.5, ((a - c) / n) * thick * 0.5]
    const e = [((c - a) / n) * thick * 0.5, ((d - b) / n) * thick * 0.5] as const
    h.add(
      `prism{linear_spline 0,0.01,5,<${(a - e[0] + px).toFixed(3)},${(b - e[1] + pz).toFixed(3)}>,<${(c + e[0] + px).toFixed(3)},${(d + e[1] + pz).toFixed(3)}>,<${(c + e[0] - px).toFixed(3)},${(d + e[1] - pz).toFixed(3)}>,<${(a - e[0] - px).toFixed(3)},${(b - e[1] - pz).toFixed(3)}>,<${(a - e[0] + px).toFixed(3)},${(b - e[1] + pz).toFixed(3)}> translate y*${y} T}`,
      ink,
      classes.ink,
    )
  }
  const circle = (x: number, z: number, radius: number) => {
    const [a, b] = at(x, z)
    h.add(
      `difference{cylinder{<${a},${h.surface + 0.012},${b}>,<${a},${h.surface + 0.022},${b}>,${radius + thick / 2}} cylinder{<${a},-1,${b}>,<${a},9,${b}>,${radius - thick / 2}} T}`,
      ink,
      classes.ink,
    )
  }
  const inside: Pen['inside'] = ([cx, cz], radius, n, y) => {
    let done = 0
    for (let tries = 0; done < n && tries < 400; tries++) {
      const [q, a] = [radius * Math.sqrt(r.between(0, 1)), r.between(0, 6.28)]
      const [x, z] = [cx + q * Math.cos(a), cz + q * Math.sin(a)]
      if (!clear(h.blocked, [x, z], h.size * 1.15, 0.05)) continue
      h.set(x, z, y)
      done++
    }
    return done
  }
  return { ink, thick, turn, at, line, circle, inside }
}
/** Frames, plates, rings, lines, cards or towers of factors, with what lies in them; gives the truth of each place. */
export function build(f: Factors, r: Chance, h: Hands): number[][] {
  const pen = penOf(r, h)
  if (f.structure === 'plates' || f.structure === 'rings') return rounds(f, r, h, pen)
  if (f.structure === 'line') return alongLine(f, r, h, pen)
  if (f.structure === 'cards') return cards(f, r, h, pen)
  if (f.structure === 'towers') return towers(f, r, h)
  return f.structure === 'partwhole' ? partWhole(f, r, h, pen) : frames(f, r, h, pen)
}
/** A drawn line with ticks and things on it; the truth is where they lie, in hundredths from its left end. */
function alongLine(f: Factors, r: Chance, h: Hands, { at, line }: Pen): number[][] {
  const long = h.wide * r.between(0.72, 0.86)
  line([-long, 0], [long, 0])
  const ticks = r.one([0, 2, 5, 11, 21])
  for (let i = 0; i < ticks; i++) {
    const x = -long + (2 * long * i) / Math.max(1, ticks - 1)
    line([x, -h.size * 0.5], [x, h.size * 0.5])
  }
  const on: number[] = []
  for (let tries = 0; on.length < Math.min(f.number, 7) && tries < 200; tries++) {
    const u = r.between(0.03, 0.97)
    const [x, z] = at(-long + 2 * long * u, r.between(-0.3, 0.3) * h.size)
    if (!clear(h.blocked, [x, z], h.size, 0.3)) continue
    h.set(x, z, h.surface + 0.02)
    on.push(Math.round(u * 100))
  }
  return [on.sort((a, b) => a - b)]
}
/** Cards with printed dots, as many as there are on each. */
function cards(f: Factors, r: Chance, h: Hands, { at, turn }: Pen): number[][] {
  const many = r.whole(1, 3)
  const side = Math.min((h.wide * 1.5) / many, h.wide * 0.62) * 0.46
  const dot = side * r.between(0.12, 0.19)
  const ink = h.flat(r.happens(0.6) ? hsv(0, 0, r.between(0.04, 0.3)) : hsv(r.between(0, 360), 0.8, 0.6))
  let left = f.number
  return Array.from({ length: many }, (_, k) => {
    const share = Math.min(9, k === many - 1 ? left : r.whole(0, Math.min(9, left)))
    left -= share
    const [cx, cz] = [(k - (many - 1) / 2) * side * 2.3, r.between(-1, 1)]
    const [a, b] = at(cx, cz)
    h.add(
      `box{<${-side},0,${-side}>,<${side},0.02,${side}> T rotate y*${((-turn * 180) / Math.PI).toFixed(2)} translate <${a},${h.surface},${b}>}`,
      h.flat(hsv(50, r.between(0, 0.1), r.between(0.85, 1))),
      classes.sheet,
    )
    h.blocked.push({ x: a, z: b, y: 0, reach: side })
    const free = Array.from(
      { length: 9 },
      (_c, i) => [((i % 3) - 1) * 0.58, (Math.floor(i / 3) - 1) * 0.58] as const,
    )
    const faces: Record<number, number[]> = {
      1: [4],
      2: [0, 8],
      3: [0, 4, 8],
      4: [0, 2, 6, 8],
      5: [0, 2, 4, 6, 8],
      6: [0, 2, 3, 5, 6, 8],
    }
    const places =
      r.happens(0.6) && faces[share]
        ? faces[share]
        : free
            .map((_c, i) => i)
            .sort(() => r.between(-1, 1))
            .slice(0, share)
    for (const i of places) {
      const [x, z] = at(cx + free[i]![0] * side, cz + free[i]![1] * side)
      h.add(
        `cylinder{<${x.toFixed(3)},${h.surface + 0.021},${z.toFixed(3)}>,<${x.toFixed(3)},${h.surface + 0.03},${z.toFixed(3)}>,${dot.toFixed(3)} T}`,
        ink,
        classes.thing,
      )
    }
    return [share]
  })
}
/** Things stood on one another, in towers beside each other. */
function towers(f: Factors, r: Chance, h: Hands): number[][] {
  const many = r.whole(1, 4)
  const gap = Math.min(h.size * r.between(2.8, 4.5), (h.wide * 1.5) / many)
  let left = Math.max(1, Math.min(f.number, many * 6))
  return Array.from({ length: many }, (_, k) => {
    const n = k === many - 1 ? Math.min(6, left) : Math.min(left, r.whole(1, 6))
    left -= n
    let y = h.surface
    const x = (k - (many - 1) / 2) * gap
    for (let i = 0; i < n; i++)
      y += h.set(x + r.between(-0.12, 0.12) * h.size, r.between(-0.12, 0.12) * h.size, y).height
    return [n]
  })
}
function frames(f: Factors, r: Chance, h: Hands, { turn, at, line }: Pen): number[][] {
  const many = f.structure === 'frames' ? 2 : 1
  const cell = Math.min(
    (h.wide * 1.7) / 5.6,
    Math.max(h.size * r.between(2.5, 3.3), h.wide * r.between(0.13, 0.24)),
  )
  const total = f.structure === 'frames' ? f.number + (r.happens(0.5) ? r.whole(0, 10) : 0) : f.number
  const truth: number[][] = []
  const shapeScale = Math.min(1, (cell * 0.42) / h.size)
  const box = hsv(r.between(20, 45), r.between(0.05, 0.3), r.between(0.5, 0.8))
  for (let k = 0; k < many; k++) {
    const z0 = many === 1 ? cell : k === 0 ? cell * 2.25 : -cell * 0.25
    const n = Math.min(10, total - 10 * k)
    const messy = r.happens(0.25)
    const cells = Array.from({ length: 10 }, (_, i) => i)
    const filled = (messy ? cells.sort(() => r.between(-1, 1)) : cells)
      .slice(0, Math.max(0, n))
      .sort((p, q) => p - q)
    truth.push(filled)
    if (f.structure === 'eggbox') {
      const [a, b] = at(0, z0 - cell)
      h.add(
        `difference{box{<${-2.65 * cell},0,${-1.15 * cell}>,<${2.65 * cell},${0.55 * cell},${1.15 * cell}>} ${cells.map((i) => `sphere{<${((i % 5) - 2) * cell},${0.6 * cell},${(i < 5 ? 0.5 : -0.5) * cell}>,${0.5 * cell}}`).join(' ')} T rotate y*${((-turn * 180) / Math.PI).toFixed(2)} translate <${a},0,${b}>}`,
        h.flat(box),
        classes.plate,
      )
    } else {
      if (k === 0 && r.happens(0.3)) {
        const [a, b] = at(0, z0 - cell * (many === 2 ? 2.2 : 1))
        h.add(
          `box{<${-2.9 * cell},0,${-1.4 * cell * (many === 2 ? 2 : 1)}>,<${2.9 * cell},0.015,${1.4 * cell * (many === 2 ? 2 : 1)}> T rotate y*${((-turn * 180) / Math.PI).toFixed(2)} translate <${a},${h.surface},${b}>}`,
          h.flat(hsv(50, 0.04, r.between(0.85, 1))),
          classes.sheet,
        )
      }
      for (let i = 0; i <= 5; i++) line([(i - 2.5) * cell, z0], [(i - 2.5) * cell, z0 - 2 * cell])
      for (let i = 0; i <= 2; i++) line([-2.5 * cell, z0 - i * cell], [2.5 * cell, z0 - i * cell])
    }
    for (const i of filled) {
      const off = f.structure === 'eggbox' ? 0.03 : 0.12
      const [x, z] = at(
        ((i % 5) - 2 + r.between(-off, off)) * cell,
        z0 - (Math.floor(i / 5) + 0.5 + r.between(-off, off)) * cell,
      )
      h.set(
        x,
        z,
        f.structure === 'eggbox' ? 0.14 * cell : h.surface + 0.02,
        f.structure === 'eggbox' ? shapeScale * 0.8 : shapeScale,
      )
    }
  }
  return truth
}
function rounds(f: Factors, r: Chance, h: Hands, { ink, thick, at, inside }: Pen): number[][] {
  const n = r.whole(1, f.structure === 'plates' ? 3 : 4)
  const radius = Math.min(h.wide * (n === 1 ? 0.5 : n === 2 ? 0.42 : 0.31), h.size * r.between(4.5, 8))
  const c = h.flat(hsv(r.between(0, 360), r.between(0, 0.7), r.between(0.25, 1)))
  let left = f.number
  return Array.from({ length: n }, (_, i) => {
    const share = i === n - 1 ? left : r.whole(0, left)
    left -= share
    const [x, z] =
      n === 4
        ? at((i % 2 ? 1 : -1) * radius * 1.15, (i < 2 ? 1 : -1) * radius * 1.1)
        : at((i - (n - 1) / 2) * radius * 2.15, r.between(-1, 1))
    if (f.structure === 'plates')
      h.add(
        `union{difference{cone{0,${radius * 0.75},<0,1.1,0>,${radius}} cone{<0,0.25,0>,${radius * 0.62},<0,1.2,0>,${radius * 0.97}} T} torus{${radius * 0.985},0.12 translate y*1.05 T} ${r.happens(0.5) ? `torus{${radius * 0.63},0.05 translate y*0.25 T}` : ''} translate <${x},0,${z}>}`,
        c,
        classes.plate,
      )
    else if (r.happens(0.4))
      h.add(`torus{${radius * 0.95},${r.between(0.15, 0.4)} translate <${x},0.2,${z}> T}`, c, classes.ink)
    else {
      const y = h.surface + 0.012
      h.add(
        `difference{cylinder{<${x},${y},${z}>,<${x},${y + 0.01},${z}>,${radius * 0.95}} cylinder{<${x},-1,${z}>,<${x},9,${z}>,${radius * 0.95 - thick}} T}`,
        ink,
        classes.ink,
      )
    }
    return [
      inside(
        [x, z],
        radius * (f.structure === 'plates' ? 0.6 : 0.72),
        share,
        f.structure === 'plates' ? 0.25 : h.surface,
      ),
    ]
  })
}
function partWhole(
  f: Factors,
  r: Chance,
  h: Hands,
  { ink, turn, at, line, circle, inside }: Pen,
): number[][] {
  const n = r.one([2, 2, 2, 3])
  const radius = Math.min(h.wide * (n === 2 ? 0.3 : 0.24), Math.max(h.wide * 0.2, h.size * 3.6))
  circle(0, h.wide * 0.36, radius * 0.9)
  if (r.happens(0.7)) {
    const [x, z] = at(-radius * 0.25, h.wide * 0.36 - radius * 0.35)
    h.add(
      `text{ttf "${r.one(numerals)}" "${f.number}" 0.02,0 scale <${radius},${radius},1> rotate x*90 rotate y*${((-turn * 180) / Math.PI).toFixed(1)} translate <${x},${h.surface + 0.03},${z}> T}`,
      ink,
      classes.ink,
    )
  }
  let left = f.number
  return Array.from({ length: n }, (_, i) => {
    const share = i === n - 1 ? left : r.whole(0, left)
    left -= share
    const [x, z] = [(i - (n - 1) / 2) * radius * 2.4, -h.wide * 0.22]
    circle(x, z, radius)
    const d = Math.hypot(x, h.wide * 0.58)
    line(
      [(x * radius * 0.95) / d, h.wide * 0.36 - (h.wide * 0.58 * radius * 0.95) / d],
      [x - (x * radius * 1.02) / d, z + (h.wide * 0.58 * radius * 1.02) / d],
    )
    const [a, b] = at(x, z)
    return [inside([a, b], radius - h.size * 1.1, share, h.surface)]
  })
}
