import type { Chance } from './chance.ts'

export const grounds = [
  'plain',
  'paper',
  'wood',
  'planks',
  'cloth',
  'granite',
  'gingham',
  'dots',
  'stripes',
  'tiles',
  'speckle',
  'leaves',
  'dark',
  'sheet',
  'tray',
] as const
export type Ground = (typeof grounds)[number]
export type Rgb = readonly [number, number, number]
export const rgb = (c: Rgb): string =>
  `srgb <${c.map((v) => Math.min(1, Math.max(0, v)).toFixed(3)).join(',')}>`
/** A colour from hue 0–360, saturation and value 0–1. */
export function hsv(h: number, s: number, v: number): Rgb {
  const f = (n: number) => {
    const k = (n + h / 60) % 6
    return v - v * s * Math.max(0, Math.min(k, 4 - k, 1))
  }
  return [f(5), f(3), f(1)]
}
const shade = (c: Rgb, by: number): Rgb => [c[0] * by, c[1] * by, c[2] * by]
export const mix = (a: Rgb, b: Rgb, t: number): Rgb => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
]

const cloths = (r: Chance): Rgb => hsv(r.between(0, 360), r.between(0.05, 0.75), r.between(0.25, 0.95))
const woods = (r: Chance): Rgb => hsv(r.between(12, 42), r.between(0.2, 0.75), r.between(0.22, 0.92))
const pale = (r: Chance): Rgb => hsv(r.between(20, 260), r.between(0, 0.1), r.between(0.75, 1))
const finish = (r: Chance): string =>
  `finish{ambient 0.12 diffuse ${r.between(0.6, 0.85).toFixed(2)} specular ${r.between(0, 0.25).toFixed(2)} roughness ${r.between(0.01, 0.1).toFixed(3)}}`
const turned = (r: Chance, scale: number): string =>
  `scale ${scale.toFixed(2)} rotate y*${r.whole(-60, 60)} translate <${r.whole(-30, 30)},0.003,${r.whole(-30, 30)}>`

/** Texture of the table; a pigment for the ray tracer, in centimetres. */
export function groundTexture(kind: Ground, r: Chance): string {
  return `texture{${pigment(kind, r)} ${r.happens(0.4) ? `normal{bumps ${r.between(0.05, 0.4).toFixed(2)} scale ${r.between(0.05, 0.4).toFixed(2)}}` : ''} ${finish(r)}}`
}
const pigment = (kind: Ground, r: Chance): string => pigments[kind](r, cloths(r))
const even = (r: Chance, c: Rgb): string =>
  r.happens(0.5) ? `pigment{${rgb(r.happens(0.5) ? pale(r) : c)}}` : wood(r)
/** Each ground's pigment in the ray tracer's language; `c` is a colour of its own. */
const pigments: Record<Ground, (r: Chance, c: Rgb) => string> = {
  plain: even,
  tray: even,
  sheet: even,
  paper: (r) => {
    return `pigment{${rgb(pale(r))}}`
  },
  dark: (r) => {
    const d = hsv(r.between(0, 360), r.between(0, 0.3), r.between(0.08, 0.3))
    return `pigment{granite color_map{[0 ${rgb(d)}][1 ${rgb(shade(d, r.between(1, 1.4)))}]} scale ${r.between(0.3, 3).toFixed(2)}}`
  },
  wood: (r) => {
    return wood(r)
  },
  planks: (r) => {
    const w = woods(r)
    const line = rgb(shade(w, r.between(0.2, 0.6)))
    const body = wood(r)
      .replace(/^pigment\{/, '')
      .replace(/\}$/, '')
    const at = r.between(0.01, 0.035).toFixed(3)
    return `pigment{gradient z pigment_map{[0 color ${line}][${at} color ${line}][${at} ${body}][1 ${body}]} scale ${r.between(6, 14).toFixed(1)} rotate y*${r.whole(-70, 70)} translate <${r.whole(-8, 8)},0,${r.whole(-8, 8)}>}`
  },
  cloth: (r, c) => {
    return `pigment{bozo turbulence 0.6 color_map{[0 ${rgb(c)}][1 ${rgb(shade(c, r.between(0.8, 0.97)))}]} scale ${r.between(0.3, 6).toFixed(2)}}`
  },
  granite: (r) => {
    const g = r.happens(0.6) ? pale(r) : cloths(r)
    const other = shade(g, r.between(0.45, 0.9))
    return r.happens(0.5)
      ? `pigment{granite turbulence 0.3 color_map{[0 ${rgb(g)}][0.45 ${rgb(g)}][0.6 ${rgb(other)}][1 ${rgb(g)}]} ${turned(r, r.between(0.8, 6))}}`
      : `pigment{marble turbulence 2 color_map{[0 ${rgb(other)}][0.12 ${rgb(g)}][1 ${rgb(g)}]} ${turned(r, r.between(0.6, 4))}}`
  },
  gingham: (r) => {
    const [w, k, s] = [r.happens(0.7) ? pale(r) : cloths(r), cloths(r), r.between(0.7, 2.6)]
    const half = mix(w, k, 0.5)
    const two = `[0 color ${rgb(half)}][0.5 color ${rgb(half)}][0.5 color ${rgb(k)}][1 color ${rgb(k)}]`
    const one = `[0 color ${rgb(w)}][0.5 color ${rgb(w)}][0.5 color ${rgb(half)}][1 color ${rgb(half)}]`
    return `pigment{gradient x pigment_map{[0 gradient z color_map{${one}}][0.5 gradient z color_map{${one}}][0.5 gradient z color_map{${two}}][1 gradient z color_map{${two}}]} ${turned(r, s * 2)}}`
  },
  dots: (r) => {
    const [g, k] = [cloths(r), r.happens(0.7) ? pale(r) : cloths(r)]
    const size = r.between(0.12, 0.32).toFixed(2)
    return `pigment{function{min(pow(abs(mod(abs(x+200),1)-0.5),2)+pow(abs(mod(abs(z+200),1)-0.5),2), pow(abs(mod(abs(x+200.5),1)-0.5),2)+pow(abs(mod(abs(z+200.5),1)-0.5),2))} color_map{[0 ${rgb(k)}][${size}*${size} ${rgb(k)}][${size}*${size} ${rgb(g)}][1 ${rgb(g)}]} ${turned(r, r.between(2, 6))}}`
  },
  stripes: (r) => {
    const [g, k] = [pale(r), cloths(r)]
    const share = r.between(0.2, 0.7).toFixed(2)
    return `pigment{gradient x color_map{[0 ${rgb(g)}][${share} ${rgb(g)}][${share} ${rgb(k)}][1 ${rgb(k)}]} ${turned(r, r.between(0.8, 5))}}`
  },
  tiles: (r) => {
    const [g, k] = [cloths(r), hsv(0, 0, r.between(0.3, 0.95))]
    return `pigment{function{min(abs(mod(abs(x+200),1)-0.5),abs(mod(abs(z+200),1)-0.5))*2} color_map{[0 ${rgb(k)}][0.04 ${rgb(k)}][0.06 ${rgb(g)}][1 ${rgb(g)}]} ${turned(r, r.between(4, 12))}}`
  },
  speckle: (r) => {
    const g = r.happens(0.5) ? pale(r) : cloths(r)
    return `pigment{crackle form <1,0,0> metric 2 color_map{[0 ${rgb(cloths(r))}][${r.between(0.08, 0.22).toFixed(2)} ${rgb(g)}][1 ${rgb(g)}]} ${turned(r, r.between(0.4, 2.2))}}`
  },
  leaves: (r) => {
    const g = r.happens(0.5) ? pale(r) : cloths(r)
    const k = cloths(r)
    return `pigment{leopard turbulence 0.25 color_map{[0 ${rgb(g)}][0.55 ${rgb(g)}][0.6 ${rgb(k)}][1 ${rgb(mix(g, k, 0.7))}]} ${turned(r, r.between(0.2, 0.9))}}`
  },
}
function wood(r: Chance): string {
  const w = woods(r)
  const other = shade(w, r.between(0.6, 0.95))
  return r.happens(0.7)
    ? `pigment{wood turbulence ${r.between(0.03, 0.12).toFixed(3)} octaves 4 color_map{[0 ${rgb(w)}][0.5 ${rgb(other)}][0.75 ${rgb(w)}][1 ${rgb(other)}]} scale ${r.between(0.25, 1.6).toFixed(2)} rotate <${r.between(2, 9).toFixed(1)},${r.whole(0, 90)},0> translate <${r.whole(-20, 20)},${r.whole(2, 8)},0>}`
    : `pigment{bozo turbulence 0.5 color_map{[0 ${rgb(w)}][1 ${rgb(other)}]} scale <${r.between(4, 14).toFixed(1)},1,${r.between(0.1, 0.5).toFixed(2)}> rotate y*${r.whole(-60, 60)}}`
}
