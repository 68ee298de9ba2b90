import { chance, type Chance } from './chance.ts'
import { clutter } from './clutter.ts'
import { grounds, groundTexture, hsv, type Rgb, rgb } from './grounds.ts'
import { classes, clear, clutters, type Factors, type Hands, type Placed, structures } from './parts.ts'
import { build } from './structures.ts'
import { kinds, paint, paints, shapeOf } from './things.ts'

export interface Scene {
  factors: Factors
  photo: string
  labels: string
  /** Filled cells in reading order of each frame, or things in each plate, ring or part. */
  structureTruth: number[][] | null
  tilt: number
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
