import type { Chance } from './chance.ts'
import { hsv, mix, type Rgb, rgb } from './grounds.ts'

export const kinds = [
  'counters',
  'coins',
  'tops',
  'buttons',
  'tubes',
  'cubes',
  'pebbles',
  'beads',
  'beans',
  'bricks',
  'rings',
  'bows',
  'sticks',
  'cones',
] as const
export type Kind = (typeof kinds)[number]

/** One thing lying at the origin of a table: its shape in the ray tracer's language (centimetres), half its width, half its height. */
export interface Shape {
  /** With `T` where its texture goes and `U` where a second one may. */
  solid: string
  reach: number
  height: number
}
const natural: Partial<Record<Kind, readonly Rgb[]>> = {
  coins: [
    [0.72, 0.45, 0.2],
    [0.75, 0.75, 0.77],
    [0.82, 0.66, 0.28],
    [0.5, 0.33, 0.2],
  ],
  tubes: [
    [0.9, 0.76, 0.42],
    [0.82, 0.62, 0.3],
    [0.93, 0.84, 0.6],
  ],
  bows: [
    [0.9, 0.78, 0.45],
    [0.8, 0.4, 0.2],
    [0.55, 0.6, 0.25],
  ],
  pebbles: [
    [0.55, 0.55, 0.53],
    [0.8, 0.78, 0.74],
    [0.4, 0.35, 0.3],
    [0.25, 0.25, 0.27],
    [0.62, 0.5, 0.42],
  ],
  beans: [
    [0.93, 0.9, 0.82],
    [0.5, 0.12, 0.1],
    [0.12, 0.1, 0.1],
    [0.65, 0.45, 0.28],
  ],
}
/** Colours of one handful: one to three, sometimes nearly the table's. */
export function paints(kind: Kind, r: Chance): Rgb[] {
  const own = natural[kind]
  const one = (): Rgb => {
    if (own && r.happens(0.85)) {
      const c = r.one(own)
      const k = r.between(0.85, 1.1)
      return [c[0] * k, c[1] * k, c[2] * k]
    }
    if (r.happens(0.14)) return hsv(0, 0, r.one([0.05, 0.5, 0.95, 0.9]))
    return hsv(r.between(0, 360), r.between(0.35, 1), r.between(0.3, 1))
  }
  return Array.from({ length: r.one([1, 1, 2, 2, 3]) }, one)
}
/** The finish of a thing in a colour. */
export function paint(kind: Kind, c: Rgb, r: Chance): string {
  const metal = kind === 'coins' ? 'metallic specular 0.6 roughness 0.03 reflection 0.06' : ''
  const vary = mix(c, [r.between(0, 1), r.between(0, 1), r.between(0, 1)], r.between(0, 0.07))
  const rough =
    kind === 'pebbles'
      ? `pigment{bozo color_map{[0 ${rgb(vary)}][1 ${rgb(mix(vary, [0.2, 0.2, 0.2], 0.3))}]} scale 0.4} normal{bumps 0.2 scale 0.3}`
      : `pigment{${rgb(vary)}}`
  return `texture{${rough} finish{ambient 0.12 diffuse 0.75 specular ${r.between(0, 0.7).toFixed(2)} roughness ${r.between(0.005, 0.06).toFixed(3)} ${metal}}}`
}

export function shapeOf(kind: Kind, size: number, r: Chance): Shape {
  const s = size * r.between(0.88, 1.12)
  const f = (x: number) => x.toFixed(3)
  switch (kind) {
    case 'counters':
      return { solid: `cylinder{0,<0,${f(0.16 * s)},0>,${f(s)} T}`, reach: s, height: 0.16 * s }
    case 'coins':
      return {
        solid: `union{difference{cylinder{0,<0,0.17,0>,${f(s)}} cylinder{<0,0.13,0>,<0,0.3,0>,${f(s * 0.88)}} T} cylinder{<0,0.13,0>,<0,0.15,0>,${f(s * 0.45)} translate x*${f(s * r.between(-0.2, 0.2))} T} box{<${f(-s * 0.3)},0.13,-0.06>,<${f(s * 0.35)},0.16,0.08> rotate y*${r.whole(0, 180)} T}}`,
        reach: s,
        height: 0.17,
      }
    case 'tops': {
      const h = s * r.between(0.4, 0.8)
      const open = r.happens(0.35)
      return {
        solid: open
          ? `difference{cylinder{0,<0,${f(h)},0>,${f(s)}} cylinder{<0,${f(h * 0.15)},0>,<0,${f(h + 1)},0>,${f(s * 0.86)}} T}`
          : `union{cylinder{0,<0,${f(h * 0.85)},0>,${f(s)} T} cylinder{0,<0,${f(h)},0>,${f(s * 0.9)} T} torus{${f(s * 0.9)},${f(h * 0.15)} translate y*${f(h * 0.85)} T}}`,
        reach: s,
        height: h,
      }
    }
    case 'buttons': {
      const holes = r.one([
        [
          [-1, 0],
          [1, 0],
        ],
        [
          [-1, -1],
          [1, -1],
          [-1, 1],
          [1, 1],
        ],
      ] as const)
      return {
        solid: `difference{union{cylinder{0,<0,0.18,0>,${f(s)}} torus{${f(s * 0.9)},${f(s * 0.1)} translate y*0.18}} ${holes.map(([x, z]) => `cylinder{<${f(x * s * 0.2)},-1,${f(z * s * 0.2)}>,<${f(x * s * 0.2)},1,${f(z * s * 0.2)}>,${f(s * 0.11)}}`).join(' ')} T rotate y*${r.whole(0, 90)}}`,
        reach: s,
        height: 0.25,
      }
    }
    case 'tubes': {
      const [l, q] = [s * r.between(1.3, 2.4), s * r.between(0.32, 0.5)]
      return {
        solid:
          `difference{cylinder{<${f(-l)},${f(q)},0>,<${f(l)},${f(q)},0>,${f(q)}} cylinder{<${f(-l - 1)},${f(q)},0>,<${f(l + 1)},${f(q)},0>,${f(q * 0.75)}} plane{x,${f(-l)} rotate z*${r.whole(-25, 25)} translate x*0} T}`.replace(
            / plane\{[^}]*\}/,
            '',
          ),
        reach: l,
        height: 2 * q,
      }
    }
    case 'cubes':
      return {
        solid: `box{<${f(-s * 0.8)},0,${f(-s * 0.8)}>,<${f(s * 0.8)},${f(s * 1.6)},${f(s * 0.8)}> T}`,
        reach: s * 1.1,
        height: 1.6 * s,
      }
    case 'pebbles':
      return {
        solid: `sphere{0,1 scale <${f(s * r.between(0.85, 1.3))},${f(s * r.between(0.5, 0.8))},${f(s * r.between(0.7, 1))}> translate y*${f(s * 0.5)} T}`,
        reach: s * 1.15,
        height: s,
      }
    case 'beads':
      return {
        solid: `difference{sphere{0,${f(s * 0.85)}} cylinder{<-9,0,0>,<9,0,0>,${f(s * 0.22)} rotate y*${r.whole(0, 180)} rotate z*${r.whole(0, 90)}} translate y*${f(s * 0.85)} T}`,
        reach: s * 0.85,
        height: 1.7 * s,
      }
    case 'beans':
      return {
        solid: `blob{threshold 0.5 sphere{<${f(-s * 0.5)},0,0>,${f(s * 1.1)},1} sphere{<0,0,${f(s * 0.2)}>,${f(s * 1.1)},1} sphere{<${f(s * 0.5)},0,0>,${f(s * 1.1)},1} scale <1,0.7,0.8> translate y*${f(s * 0.5)} T}`,
        reach: s * 1.2,
        height: s,
      }
    case 'bricks': {
      const n = r.whole(1, 2)
      const studs = Array.from(
        { length: n * 2 },
        (_, i) =>
          `cylinder{<${f((Math.floor(i / 2) - (n - 1) / 2) * s)},0,${f(((i % 2) - 0.5) * s)}>,<${f((Math.floor(i / 2) - (n - 1) / 2) * s)},${f(s * 1.35)},${f(((i % 2) - 0.5) * s)}>,${f(s * 0.3)} T}`,
      )
      return {
        solid: `union{box{<${f(-n * s * 0.5)},0,${f(-s)}>,<${f(n * s * 0.5)},${f(s * 1.15)},${f(s)}> T} ${studs.join(' ')}}`,
        reach: s * 1.2,
        height: 1.35 * s,
      }
    }
    case 'rings':
      return {
        solid: `torus{${f(s * 0.65)},${f(s * 0.3)} translate y*${f(s * 0.3)} T}`,
        reach: s * 0.95,
        height: s * 0.6,
      }
    case 'bows':
      return {
        solid: `union{box{<${f(-s * 1.2)},0.05,${f(-s * 0.6)}>,<${f(-s * 0.1)},${f(s * 0.2)},${f(s * 0.6)}> rotate x*${r.whole(5, 25)} T} box{<${f(s * 0.1)},0.05,${f(-s * 0.6)}>,<${f(s * 1.2)},${f(s * 0.2)},${f(s * 0.6)}> rotate x*${r.whole(-25, -5)} T} sphere{0,1 scale <${f(s * 0.3)},${f(s * 0.4)},${f(s * 0.4)}> translate y*${f(s * 0.25)} T} translate y*${f(s * 0.15)}}`,
        reach: s * 1.3,
        height: s * 0.7,
      }
    case 'sticks':
      return {
        solid: `box{<${f(-s * 2.3)},0,${f(-s * 0.3)}>,<${f(s * 2.3)},${f(s * 0.3)},${f(s * 0.3)}> T}`,
        reach: s * 2.3,
        height: s * 0.3,
      }
    case 'cones':
      return {
        solid: `cone{0,${f(s * 0.9)},<0,${f(s * 1.5)},0>,${f(s * r.between(0.05, 0.5))} T}`,
        reach: s * 0.95,
        height: 1.5 * s,
      }
  }
}
