import type { Picture } from './picture.ts'

/** A colour in CIE Lab (D65). */
export interface Lab {
  l: number
  a: number
  b: number
}
const linearOf = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)
/** Linear light, 0–1, of an sRGB value of 0–255. */
export const linear = Float32Array.from({ length: 256 }, (_, v) => linearOf(v / 255))
const f = (t: number): number => (t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116)
/** Lab of an sRGB colour, each of 0–1. */
export function labOf(red: number, green: number, blue: number): Lab {
  const [r, g, b] = [linearOf(red), linearOf(green), linearOf(blue)]
  const fx = f((0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.9505)
  const fy = f(0.2126 * r + 0.7152 * g + 0.0722 * b)
  const fz = f((0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.089)
  return { l: 116 * fy - 16, a: 500 * (fx - fy), b: 200 * (fy - fz) }
}
/** Mean colour of the pixels `of` a picture; highlights are the lamp's colour and left out. Null of none. */
export function meanLab(p: Picture, of: Iterable<number>): Lab | null {
  const n = p.width * p.height
  const [sum, lights] = [
    [0, 0, 0, 0],
    [0, 0, 0, 0],
  ]
  for (const i of of) {
    const [r, g, b] = [p.rgb[i]!, p.rgb[n + i]!, p.rgb[2 * n + i]!]
    const to = Math.min(r, g, b) > 0.94 ? lights : sum
    to[0]! += r
    to[1]! += g
    to[2]! += b
    to[3]!++
  }
  // What is white all over has nothing but highlights.
  const from = sum[3]! >= 0.3 * lights[3]! && sum[3]! > 0 ? sum : lights
  return from[3] ? labOf(from[0]! / from[3], from[1]! / from[3], from[2]! / from[3]) : null
}
/** How far two colours of things are apart: lightness at a third, since lamps change it most. */
export const apart = (p: Lab, q: Lab): number => Math.hypot((p.l - q.l) * 0.35, p.a - q.a, p.b - q.b)

/** Colours as a home would name them. Saffron and mustard are yellow however dim the kitchen is: brown is what has little colour left. */
export function colourName({ l, a, b }: Lab): string {
  const chroma = Math.hypot(a, b)
  if (chroma < 9 || (chroma < 13 && l > 78)) return l > 74 ? 'white' : l < 24 ? 'black' : 'grey'
  const hue = ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360
  if (hue >= 40 && hue < 100 && chroma < 36)
    return l > 62 ? 'beige' : chroma < 16 && l > 40 ? 'grey' : 'brown'
  if (hue < 18 || hue >= 335) return l > 60 ? 'pink' : 'red'
  if (hue < 44) return l > 64 && chroma < 45 ? 'pink' : l < 38 && chroma < 42 ? 'brown' : 'red'
  if (hue < 66) return l < 45 && chroma < 50 ? 'brown' : 'orange'
  if (hue < 106) return l < 34 ? 'brown' : 'yellow'
  if (hue < 195) return 'green'
  if (hue < 302) return 'blue'
  return 'purple'
}

/** Groups of like colours: a colour joins the group whose mean is nearest, within 18 (see `apart`). */
export function colourGroups(colours: readonly Lab[]): { name: string; members: number[] }[] {
  const groups: { mean: Lab; members: number[] }[] = []
  colours.forEach((c, i) => {
    const near = groups.map((g) => ({ g, far: apart(g.mean, c) })).sort((p, q) => p.far - q.far)[0]
    if (!near || near.far >= 18) return void groups.push({ mean: { ...c }, members: [i] })
    const n = near.g.members.push(i)
    for (const k of ['l', 'a', 'b'] as const) near.g.mean[k] += (c[k] - near.g.mean[k]) / n
  })
  return groups
    .map((g) => ({ name: colourName(g.mean), members: g.members }))
    .sort((p, q) => q.members.length - p.members.length)
}
