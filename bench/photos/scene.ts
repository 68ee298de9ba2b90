import { chance, type Chance } from './chance.ts'
import { type Ground, grounds, groundTexture, hsv, type Rgb, rgb } from './grounds.ts'
import { type Kind, kinds, paint, paints, shapeOf } from './things.ts'

const structures = [
  'frame',
  'frames',
  'eggbox',
  'plates',
  'partwhole',
  'rings',
  'line',
  'cards',
  'towers',
] as const
const clutters = ['hand', 'cup', 'pencil', 'spoon', 'book'] as const
/** Faces that numerals are written in: Debian's fonts-dejavu, fonts-liberation, fonts-sil-andika. */
const numerals = [
  'dejavu/DejaVuSerif.ttf',
  'dejavu/DejaVuSans-Bold.ttf',
  'liberation/LiberationSerif-Regular.ttf',
  'liberation/LiberationSans-Regular.ttf',
  'andika/Andika-Regular.ttf',
  'dejavu/DejaVuSansMono.ttf',
] as const
/** What a picture is made of; each may be crossed with each. */
export interface Factors {
  kind: Kind
  ground: Ground
  arrangement: 'apart' | 'touching' | 'overlapping'
  structure: (typeof structures)[number] | null
  clutter: (typeof clutters)[number] | null
  light: 'even' | 'lamp' | 'dim' | 'hard'
  number: number
}
/** What each pixel of the label picture means: its red channel is this times 30. */
export const classes = { ground: 0, thing: 1, clutter: 2, plate: 3, ink: 4, sheet: 5 } as const
export interface Scene {
  factors: Factors
  photo: string
  labels: string
  /** Filled cells in reading order of each frame, or things in each plate, ring or part. */
  structureTruth: number[][] | null
  tilt: number
}

interface Placed {
  x: number
  z: number
  reach: number
  y: number
}
/** What is hardest to see comes more often. */
const hard = {
  kinds: ['tubes', 'coins', 'pebbles'] as const,
  grounds: ['gingham', 'dots', 'granite', 'planks', 'wood'] as const,
  clutters: ['hand', 'hand', ...clutters] as const,
}
/** Draws factors from a seed: every one independent of the others. */
export function draw(seed: number): Factors {
  const r = chance(seed)
  const structure = r.happens(0.36) ? r.one(structures) : null
  const kind = r.happens(0.22) ? r.one(hard.kinds) : r.one(kinds)
  return {
    kind: structure === 'towers' ? r.one(['cubes', 'bricks', 'tops', 'cubes'] as const) : kind,
    ground: r.happens(0.3) ? r.one(hard.grounds) : r.one(grounds),
    arrangement: structure ? 'apart' : r.one(['apart', 'apart', 'touching', 'overlapping'] as const),
    structure,
    clutter: r.happens(0.26) ? r.one(hard.clutters) : null,
    light: r.one(['even', 'lamp', 'dim', 'hard'] as const),
    number: r.happens(0.07) ? 0 : structure ? r.whole(1, 10) : r.whole(1, 20),
  }
}

/** Factors from a seed of what was found hardest: things on things, patterned cloths, thin pasta, numerals in rings. */
export function drawHard(seed: number): Factors {
  const r = chance(seed + 77)
  const structure = r.happens(0.3) ? 'partwhole' : r.happens(0.12) ? 'frame' : null
  return {
    kind: r.happens(0.4) ? 'tubes' : r.one(['counters', 'buttons', 'coins', 'tops', 'cubes'] as const),
    ground: r.happens(0.65) ? r.one(['gingham', 'dots', 'granite', 'wood'] as const) : r.one(grounds),
    arrangement: structure ? 'apart' : r.one(['apart', 'overlapping', 'touching'] as const),
    structure,
    clutter: r.happens(0.22) ? r.one(['hand', 'cup'] as const) : null,
    light: r.one(['even', 'lamp', 'dim', 'hard'] as const),
    number: structure ? r.whole(1, 10) : r.whole(1, 16),
  }
}

/** The scene of factors, in the ray tracer's language; centimetres, y up from the table. */
export function scene(factors: Factors, seed: number): Scene {
  const r = chance(seed + 500009)
  const height = r.between(30, 62)
  // Towers are photographed from the front, everything else from above.
  const tilt = factors.structure === 'towers' ? r.between(60, 78) : r.happens(0.3) ? 0 : r.between(2, 36)
  const angle = r.between(46, 62)
  const t = (tilt * Math.PI) / 180
  const wide = height * Math.tan((angle * Math.PI) / 360)
  let thingId = 0
  const shapes: { text: string; texture: string; klass: number; id: number }[] = []
  const add = (text: string, texture: string, klass: number) => {
    const id = klass === classes.thing ? ++thingId : 0
    shapes.push({ text, texture, klass, id })
  }
  const blocked: Placed[] = []
  const flat = (c: Rgb) => `texture{pigment{${rgb(c)}} finish{ambient 0.12 diffuse 0.75 specular 0.1}}`
  let surface = 0
  let patch = { x: 0.88 * wide, z: 0.62 * wide }
  if (factors.ground === 'sheet' || factors.ground === 'tray') {
    const [w, d] = [wide * r.between(0.5, 0.8), wide * r.between(0.38, 0.6)]
    const turn = r.whole(-22, 22)
    const place = `rotate y*${turn} translate <${r.between(-3, 3).toFixed(1)},0,${r.between(-3, 3).toFixed(1)}>`
    if (factors.ground === 'sheet')
      add(
        `box{<${-w},0,${-d}>,<${w},0.02,${d}> T ${place}}`,
        flat(hsv(r.between(0, 360), r.between(0, 0.12), r.between(0.82, 1))),
        classes.sheet,
      )
    else {
      const c = flat(hsv(r.between(0, 360), r.between(0, 0.7), r.between(0.2, 0.9)))
      add(
        `difference{box{<${-w},0,${-d}>,<${w},1.6,${d}>} box{<${-w + 0.5},0.2,${-d + 0.5}>,<${w - 0.5},9,${d - 0.5}>} T ${place}}`,
        c,
        classes.sheet,
      )
      surface = 0.2
      patch = { x: w * 0.75, z: d * 0.72 }
    }
    if (factors.ground === 'sheet') surface = 0.02
  }
  const colours = paints(factors.kind, r)
  const size = r.between(0.75, 1.7) * (height / 45)
  const set = (x: number, z: number, y: number, scale = 1) => {
    const shape = shapeOf(factors.kind, size * scale, r)
    add(
      `${shape.solid.replace(/\}$/, '')} rotate y*${r.whole(0, 359)} translate <${x.toFixed(2)},${y.toFixed(3)},${z.toFixed(2)}>}`,
      paint(factors.kind, r.one(colours), r),
      classes.thing,
    )
    blocked.push({ x, z, y, reach: shape.reach })
    return shape
  }
  let structureTruth: number[][] | null = null
  if (factors.structure) structureTruth = build(factors, r, { add, set, flat, wide, size, surface, blocked })
  if (factors.clutter) clutter(factors.clutter, r, { add, flat, wide, blocked })
  if (!factors.structure) loose(factors, r, { set, patch, size, surface, blocked })

  // Behind a table seen from the front there is a wall.
  const wall =
    factors.structure === 'towers'
      ? `plane{z,${(wide * 3).toFixed(1)} ${flat(hsv(r.between(0, 360), r.between(0, 0.3), r.between(0.4, 1)))}}`
      : ''
  const ground = `plane{y,0 ${groundTexture(factors.ground, r)}} ${wall}`
  const camera = `camera{location <${r.between(-3, 3).toFixed(1)},${(height * Math.cos(t)).toFixed(2)},${(-height * Math.sin(t)).toFixed(2)}> up y right x*1.3333 ${tilt === 0 ? 'sky z' : `sky <${r.between(-0.12, 0.12).toFixed(3)},1,0>`} angle ${angle.toFixed(1)} look_at <${r.between(-1.5, 1.5).toFixed(1)},0,${r.between(-1.5, 1.5).toFixed(1)}>}`
  const head = '#version 3.7; global_settings{assumed_gamma 1.0 max_trace_level 5}\n'
  const texts = shapes.map((s) => s.text.replace(/\bT\b/g, s.texture))
  const ids = shapes.map((s) =>
    s.text.replace(
      /\bT\b/g,
      `texture{pigment{srgb <${((s.klass * 30) / 255).toFixed(4)},${(((s.id % 16) * 16) / 255).toFixed(4)},${((Math.floor(s.id / 16) * 16) / 255).toFixed(4)}>} finish{ambient 0 diffuse 0 emission 1}}`,
    ),
  )
  return {
    factors,
    photo: `${head}${camera}\n${lights(factors.light, r)}\n${ground}\n${texts.join('\n')}\n`,
    labels: `${head}${camera}\nbackground{rgb 0}\nplane{y,0 pigment{rgb 0} finish{ambient 0 diffuse 0 emission 1}}\n${ids.join('\n')}\n`,
    structureTruth,
    tilt,
  }
}

function lights(light: Factors['light'], r: Chance): string {
  const warm = hsv(r.between(25, 50), r.between(0, 0.45), 1)
  const at = (h: number, out: number) => {
    const a = r.between(0, 6.28)
    return `<${(out * Math.cos(a)).toFixed(0)},${h},${(out * Math.sin(a)).toFixed(0)}>`
  }
  const soft = `area_light <${r.whole(4, 25)},0,0>,<0,0,${r.whole(4, 25)}>,4,4 adaptive 1 jitter`
  const lit = (k: number, c: Rgb = warm) => `rgb <${c.map((v) => (v ** 2.2 * k).toFixed(3)).join(',')}>`
  switch (light) {
    case 'even':
      return `light_source{${at(130, 70)} ${lit(0.75)} ${soft}} light_source{${at(150, 110)} ${lit(0.35, [1, 1, 1])} shadowless}`
    case 'lamp':
      return `light_source{${at(r.whole(55, 90), 35)} ${lit(1.5)} ${soft} fade_distance 60 fade_power 2} light_source{${at(150, 60)} ${lit(0.15)} shadowless}`
    case 'dim':
      return `light_source{${at(110, 90)} ${lit(0.28)} ${soft}} light_source{${at(150, 60)} ${lit(0.06)} shadowless}`
    case 'hard':
      return `light_source{${at(90, r.whole(50, 110))} ${lit(0.95)}} light_source{${at(150, 60)} ${lit(0.25)} shadowless}`
  }
}

interface Hands {
  add: (text: string, texture: string, klass: number) => void
  set: (x: number, z: number, y: number, scale?: number) => { reach: number; height: number }
  flat: (c: Rgb) => string
  wide: number
  size: number
  surface: number
  blocked: Placed[]
}
/** Whether something of a reach can lie at a spot with a gap to all that lie there. */
const clear = (blocked: readonly Placed[], [x, z]: Spot, reach: number, gap: number) =>
  blocked.every((b) => Math.hypot(b.x - x, b.z - z) > b.reach + reach + gap)

function loose(
  f: Factors,
  r: Chance,
  h: Pick<Hands, 'set' | 'size' | 'surface' | 'blocked'> & { patch: { x: number; z: number } },
): void {
  const own: { x: number; z: number; reach: number; height: number; y: number }[] = []
  for (let i = 0, tries = 0; i < f.number && tries < 500; tries++) {
    const beside = f.arrangement !== 'apart' && own.length > 0 && r.happens(0.5) ? r.one(own) : null
    if (beside) {
      const a = r.between(0, 6.28)
      const near = f.arrangement === 'touching' ? r.between(1.0, 1.06) : r.between(0.38, 0.85)
      // Things on things lie on the upper side of what is below.
      const far = (beside.reach + h.size) * near
      const [x, z] = [beside.x + far * Math.cos(a), beside.z + far * Math.sin(a)]
      if (
        !clear(
          h.blocked.filter((b) => b.x !== beside.x || b.z !== beside.z),
          [x, z],
          h.size,
          0.05,
        )
      )
        continue
      const y = f.arrangement === 'touching' ? h.surface : beside.y + beside.height
      if (y > 3) continue
      const s = h.set(x, z, y)
      own.push({ x, z, y, ...s })
      i++
      continue
    }
    const [x, z] = [r.between(-h.patch.x, h.patch.x), r.between(-h.patch.z, h.patch.z)]
    if (!clear(h.blocked, [x, z], h.size * (f.kind === 'sticks' || f.kind === 'tubes' ? 2.1 : 1.2), 0.3))
      continue
    const s = h.set(x, z, h.surface)
    own.push({ x, z, y: h.surface, ...s })
    i++
  }
}

type Spot = readonly [x: number, z: number]
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
function build(f: Factors, r: Chance, h: Hands): number[][] {
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

function clutter(
  kind: NonNullable<Factors['clutter']>,
  r: Chance,
  h: Pick<Hands, 'add' | 'flat' | 'wide' | 'blocked'>,
): void {
  const side = r.one([-1, 1])
  const [x, z] = [side * h.wide * r.between(0.55, 0.95), r.between(-0.6, 0.45) * h.wide]
  const c = h.flat(hsv(r.between(0, 360), r.between(0, 0.9), r.between(0.15, 0.95)))
  const f = (n: number) => n.toFixed(2)
  const block = (bx: number, bz: number, reach: number) => h.blocked.push({ x: bx, z: bz, y: 0, reach })
  switch (kind) {
    case 'cup': {
      const q = r.between(3.2, 4.6)
      h.add(
        `union{difference{cylinder{0,<0,9,0>,${f(q)}} cylinder{<0,0.5,0>,<0,10,0>,${f(q * 0.92)}} T} torus{2.6,0.5 rotate x*90 translate <${f(q + 1)},4.5,0> T} rotate y*${r.whole(0, 359)} translate <${f(x)},0,${f(z)}>}`,
        c,
        classes.clutter,
      )
      h.add(
        `cylinder{<0,0.6,0>,<0,${f(r.between(3, 8))},0>,${f(q * 0.91)} translate <${f(x)},0,${f(z)}> T}`,
        h.flat(hsv(25, 0.6, r.between(0.15, 0.9))),
        classes.clutter,
      )
      return void block(x, z, q + 4)
    }
    case 'hand': {
      const skin = `texture{pigment{${rgb(hsv(r.between(14, 30), r.between(0.25, 0.6), r.between(0.25, 0.95)))}} finish{ambient 0.12 diffuse 0.75 specular 0.15} normal{bumps 0.1 scale 0.3}}`
      const long = r.between(0.75, 1.1)
      const fingers = [-2.6, -0.9, 0.9, 2.5].map(
        (q, i) => `cylinder{<${f(q)},0,2>,<${f(q * 1.5)},0,${f([8.2, 9.6, 9.2, 7.4][i]! * long)}>,0.95,1.2}`,
      )
      h.add(
        `blob{threshold 0.4 sphere{<0,0,0>,4.6,1.4} sphere{<0,0,-3>,4.2,1.2} cylinder{<0,0,-4>,<0,0,-22>,3.4,1.2} cylinder{<3,0,-1>,<6,0,3.5>,1.25,1.2} ${fingers.join(' ')} scale <${side > 0 ? 1 : -1},0.55,1> scale ${f(r.between(0.8, 1.15))} rotate y*${side > 0 ? r.whole(-100, -40) : r.whole(40, 100)} translate <${f(x * 1.05)},0.9,${f(z - 2)}> T}`,
        skin,
        classes.clutter,
      )
      return void block(x, z, 9)
    }
    case 'pencil': {
      const l = r.between(10, 17)
      h.add(
        `union{cylinder{<${f(-l / 2)},0.35,0>,<${f(l / 2 - 1.5)},0.35,0>,0.36 T} cone{<${f(l / 2 - 1.5)},0.35,0>,0.36,<${f(l / 2)},0.35,0>,0.03 T} rotate y*${r.whole(0, 359)} translate <${f(x * 0.8)},0,${f(z)}>}`,
        c,
        classes.clutter,
      )
      for (let i = -2; i <= 2; i++) block(x * 0.8 + i * 0.1, z, l * 0.55)
      return
    }
    case 'spoon':
      h.add(
        `union{sphere{0,1 scale <2.6,0.5,1.8> translate <7,0.5,0> T} cylinder{<-6,0.5,0>,<5,0.4,0>,0.35 T} rotate y*${r.whole(0, 359)} translate <${f(x * 0.85)},0,${f(z)}>}`,
        `texture{pigment{rgb 0.7} finish{ambient 0.1 diffuse 0.6 metallic specular 0.7 reflection 0.15}}`,
        classes.clutter,
      )
      return void block(x * 0.85, z, 9)
    case 'book':
      h.add(
        `box{<-6,0,-8>,<6,1.4,8> rotate y*${r.whole(0, 359)} translate <${f(x * 1.15)},0,${f(z)}> T}`,
        c,
        classes.clutter,
      )
      return void block(x * 1.15, z, 10)
  }
}
