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

/** Names by hue from 0° on: up to where each goes, and what it is called when it is dark or faint, bright, or neither. */
const hues: readonly {
  to: number
  name: string
  dark?: readonly [l: number, chroma: number, name: string]
  bright?: readonly [l: number, chroma: number, name: string]
}[] = [
  { to: 18, name: 'red', bright: [60, 200, 'pink'] },
  { to: 44, name: 'red', dark: [38, 42, 'brown'], bright: [64, 45, 'pink'] },
  { to: 66, name: 'orange', dark: [45, 50, 'brown'] },
  { to: 106, name: 'yellow', dark: [34, 200, 'brown'] },
  { to: 195, name: 'green' },
  { to: 302, name: 'blue' },
  { to: 335, name: 'purple' },
  { to: 360, name: 'red', bright: [60, 200, 'pink'] },
]
const withoutHue = (l: number): string => (l > 74 ? 'white' : l < 24 ? 'black' : 'grey')
/** Colours as a home would name them. Saffron and mustard are yellow however dim the kitchen is: brown is what has little colour left. */
export function colourName({ l, a, b }: Lab): string {
  const chroma = Math.hypot(a, b)
  if (chroma < 9 || (chroma < 13 && l > 78)) return withoutHue(l)
  const hue = ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360
  if (hue >= 40 && hue < 100 && chroma < 36)
    return l > 62 ? 'beige' : chroma < 16 && l > 40 ? 'grey' : 'brown'
  const h = hues.find((x) => hue < x.to)!
  if (h.dark && l < h.dark[0] && chroma < h.dark[1]) return h.dark[2]
  if (h.bright && l > h.bright[0] && chroma < h.bright[1]) return h.bright[2]
  return h.name
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
