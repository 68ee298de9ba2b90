import fs from 'node:fs/promises'
import path from 'node:path'
import { Resvg } from '@resvg/resvg-js'
import { chance, type Chance } from './chance.ts'
import { hsv, type Rgb } from './grounds.ts'
import { classes } from './parts.ts'

/**
 * Flat pictures, as filmed drawings and printed sheets are: each with the picture that says what its pixels are.
 * `node --import tsx bench/photos/drawn.ts FOLDER FROM TO`
 */
const [width, height] = [600, 450]
const css = (c: Rgb): string =>
  `rgb(${c.map((v) => Math.round(255 * Math.min(1, Math.max(0, v)))).join(',')})`
const darker = (c: Rgb, k: number): Rgb => [c[0] * k, c[1] * k, c[2] * k]
interface Pages {
  photo: string[]
  labels: string[]
}
/** Draws a shape on both pages: as it looks, and as what it is. */
function put(
  to: Pages,
  shape: (fill: string, line: string) => string,
  look: { fill: string; line: string },
  is: { klass: number; id?: number },
): void {
  to.photo.push(shape(look.fill, look.line))
  const id = is.id ?? 0
  const code = `rgb(${is.klass * 30},${(id % 16) * 16},${Math.floor(id / 16) * 16})`
  to.labels.push(shape(code, code))
}
const disc = (x: number, y: number, r: number) => (fill: string, line: string) =>
  `<circle cx="${x}" cy="${y}" r="${r}" fill="${fill}" stroke="${line}" stroke-width="${r * 0.1}"/>`
const box = (x: number, y: number, r: number, turn: number) => (fill: string, line: string) =>
  `<rect x="${x - r}" y="${y - r}" width="${2 * r}" height="${2 * r}" rx="${r * 0.25}" fill="${fill}" stroke="${line}" stroke-width="${r * 0.1}" transform="rotate(${turn} ${x} ${y})"/>`
const oval = (x: number, y: number, r: number, turn: number) => (fill: string, line: string) =>
  `<ellipse cx="${x}" cy="${y}" rx="${r * 1.3}" ry="${r * 0.7}" fill="${fill}" stroke="${line}" stroke-width="${r * 0.1}" transform="rotate(${turn} ${x} ${y})"/>`

function ground(r: Chance): string {
  const c = hsv(r.between(0, 360), r.between(0, 0.45), r.between(0.4, 0.98))
  const k = css(darker(c, r.between(0.75, 0.95)))
  const base = `<rect width="${width}" height="${height}" fill="${css(c)}"/>`
  const kind = r.whole(0, 3)
  if (kind === 0) return base
  if (kind === 1)
    return (
      base +
      Array.from(
        { length: 30 },
        () =>
          `<path d="M0 ${r.between(0, height)} Q${width / 2} ${r.between(0, height)} ${width} ${r.between(0, height)}" stroke="${k}" stroke-width="${r.between(1, 5)}" opacity="0.4" fill="none"/>`,
      ).join('')
    )
  const step = r.between(12, 40)
  const check = css(hsv(r.between(0, 360), r.between(0.2, 0.7), r.between(0.3, 0.9)))
  const bands = Array.from({ length: Math.ceil(width / step / 2) }, (_, i) => i * 2 * step)
  return (
    base +
    bands
      .map(
        (b) =>
          `<rect x="${b}" width="${step}" height="${height}" fill="${check}" opacity="0.4"/>${kind === 3 ? `<rect y="${b}" width="${width}" height="${step}" fill="${check}" opacity="0.4"/>` : ''}`,
      )
      .join('')
  )
}
/** A cup from above, a hand: what is no thing to count. */
function clutter(to: Pages, r: Chance): void {
  const [x, y, q] = [r.one([0.1, 0.9]) * width, r.between(0.1, 0.85) * height, r.between(36, 62)]
  const is = { klass: classes.clutter }
  if (r.happens(0.5)) {
    const c = hsv(r.between(0, 360), r.between(0, 0.4), r.between(0.6, 1))
    put(to, disc(x, y, q), { fill: css(c), line: css(darker(c, 0.7)) }, is)
    put(
      to,
      disc(x, y, q * 0.74),
      { fill: css(hsv(25, 0.6, r.between(0.15, 0.6))), line: css(darker(c, 0.8)) },
      is,
    )
    return
  }
  const skin = hsv(r.between(14, 30), r.between(0.25, 0.6), r.between(0.3, 0.95))
  const fingers = [-1, -0.35, 0.3, 0.9]
    .map((k) => `M${x} ${y}L${x + (x < width / 2 ? 1 : -1) * q * 1.7} ${y + k * q * 1.1}`)
    .join('')
  put(
    to,
    (fill, line) =>
      `<circle cx="${x}" cy="${y}" r="${q}" fill="${fill}"/><path d="${fingers}" stroke="${line === fill ? fill : css(skin)}" stroke-width="${q * 0.4}" stroke-linecap="round"/>`,
    { fill: css(skin), line: css(darker(skin, 0.8)) },
    is,
  )
}
/** Where things go: in the cells of a frame, on plates, in rows or anywhere. */
function spots(to: Pages, r: Chance, size: number): [number, number][] {
  const lay = r.whole(0, 4)
  const ink = css(hsv(0, 0, r.between(0.05, 0.3)))
  const thick = r.between(1.5, 7)
  const pen = { fill: 'none', line: ink }
  const paper = r.happens(0.6)
  if (lay === 0) {
    const cell = Math.max(size * 2.4, r.between(48, 80))
    const [x0, y0] = [width / 2 - 2.5 * cell, height / 2 - cell]
    if (paper)
      put(
        to,
        (fill) =>
          `<rect x="${x0 - 20}" y="${y0 - 20}" width="${5 * cell + 40}" height="${2 * cell + 40}" fill="${fill}"/>`,
        { fill: '#f3f0e7', line: '' },
        { klass: classes.sheet },
      )
    const d = [
      ...[0, 1, 2, 3, 4, 5].map((i) => `M${x0 + i * cell} ${y0}v${2 * cell}`),
      ...[0, 1, 2].map((i) => `M${x0} ${y0 + i * cell}h${5 * cell}`),
    ].join('')
    put(to, (_f, line) => `<path d="${d}" stroke="${line}" stroke-width="${thick}" fill="none"/>`, pen, {
      klass: classes.ink,
    })
    return Array.from({ length: 10 }, (_, i) => [
      x0 + ((i % 5) + 0.5) * cell,
      y0 + (Math.floor(i / 5) + 0.5) * cell,
    ])
  }
  if (lay === 1) {
    const q = r.between(80, 125)
    const c = hsv(r.between(0, 360), r.between(0, 0.4), r.between(0.5, 1))
    const at = [0.28, 0.72].map((k) => [k * width, height / 2] as const)
    for (const [x, y] of at) {
      put(to, disc(x, y, q), { fill: css(c), line: css(darker(c, 0.8)) }, { klass: classes.plate })
      put(to, disc(x, y, q * 0.75), { fill: css(c), line: css(darker(c, 0.9)) }, { klass: classes.plate })
    }
    return at.flatMap(([x, y]) =>
      Array.from({ length: 6 }, (_, i): [number, number] => [
        x + q * 0.5 * Math.cos(i * 1.047),
        y + q * 0.5 * Math.sin(i * 1.047),
      ]),
    )
  }
  if (lay === 2) {
    const pitch = size * r.between(2.3, 3)
    if (paper)
      put(
        to,
        (fill) =>
          `<rect x="${width / 2 - pitch * 3.2}" y="${height / 2 - pitch * 2.2}" width="${pitch * 6.4}" height="${pitch * 4.4}" fill="${fill}"/>`,
        { fill: '#efebe0', line: '' },
        { klass: classes.sheet },
      )
    return Array.from({ length: 15 }, (_, i) => [
      width / 2 + ((i % 5) - 2) * pitch,
      height / 2 + (Math.floor(i / 5) - 1) * pitch,
    ])
  }
  const out: [number, number][] = []
  for (let t = 0; t < 200 && out.length < 16; t++) {
    const p: [number, number] = [r.between(0.05, 0.95) * width, r.between(0.06, 0.94) * height]
    if (out.every((o) => Math.hypot(o[0] - p[0], o[1] - p[1]) > size * 2.15)) out.push(p)
  }
  return out
}
function scene(seed: number): Pages & { count: number } {
  const r = chance(seed + 900001)
  const to: Pages = { photo: [], labels: [] }
  const size = r.between(11, 30)
  const free = spots(to, r, size)
  const n = r.happens(0.06) ? 0 : r.whole(1, free.length)
  const shape = r.one([disc, disc, disc, box, oval])
  const colours = Array.from({ length: r.whole(1, 3) }, () =>
    hsv(r.between(0, 360), r.between(0.4, 1), r.between(0.4, 1)),
  )
  const shade = r.happens(0.7)
  const chosen = r.happens(0.6) ? free.slice(0, n) : free.filter((_, i) => i % 2 === 0 || i < n).slice(0, n)
  chosen.forEach(([x0, y0], i) => {
    const [x, y, q] = [
      x0 + r.between(-0.15, 0.15) * size,
      y0 + r.between(-0.15, 0.15) * size,
      size * r.between(0.93, 1.07),
    ]
    const c = r.one(colours)
    if (shade)
      to.photo.push(
        `<ellipse cx="${x + q * 0.16}" cy="${y + q * 0.22}" rx="${q * 1.03}" ry="${q}" fill="#000" opacity="0.28"/>`,
      )
    put(
      to,
      shape(x, y, q, r.between(0, 180)),
      { fill: css(c), line: css(darker(c, 0.7)) },
      { klass: classes.thing, id: i + 1 },
    )
    if (shape === disc && r.happens(0.6))
      to.photo.push(
        `<circle cx="${x}" cy="${y}" r="${q * r.between(0.2, 0.75)}" fill="${r.happens(0.3) ? '#fff' : 'none'}" stroke="${css(darker(c, 0.75))}" stroke-width="${q * 0.06}"/>`,
      )
    if (shade)
      to.photo.push(
        `<ellipse cx="${x - q * 0.3}" cy="${y - q * 0.35}" rx="${q * 0.22}" ry="${q * 0.12}" fill="#fff" opacity="0.5"/>`,
      )
  })
  if (r.happens(0.4)) clutter(to, r)
  const turn = `<g transform="rotate(${r.between(-12, 12)} ${width / 2} ${height / 2})">`
  const page = (body: string, under: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${under}${turn}${body}</g></svg>`
  const lamp = `<defs><radialGradient id="l" cx="${r.between(0.2, 0.8)}" cy="${r.between(0.2, 0.8)}" r="0.9"><stop offset="0" stop-color="#fff4d8" stop-opacity="0.25"/><stop offset="1" stop-color="#000" stop-opacity="${r.between(0, 0.5)}"/></radialGradient></defs>`
  return {
    photo: [
      page(to.photo.join(''), ground(r)).replace(
        '</svg>',
        `${lamp}<rect width="${width}" height="${height}" fill="url(#l)"/></svg>`,
      ),
    ],
    labels: [
      page(to.labels.join(''), `<rect width="${width}" height="${height}" fill="#000"/>`).replace(
        '<svg ',
        '<svg shape-rendering="crispEdges" ',
      ),
    ],
    count: chosen.length,
  }
}

const [folder, from, to] = process.argv.slice(2)
if (!folder || !from || !to) throw new Error('drawn.ts FOLDER FROM TO')
await fs.mkdir(folder, { recursive: true })
for (let seed = Number(from); seed <= Number(to); seed++) {
  const name = `d${String(seed).padStart(5, '0')}`
  const s = scene(seed)
  await fs.writeFile(path.join(folder, `${name}.png`), new Resvg(s.photo[0]!).render().asPng())
  await fs.writeFile(path.join(folder, `${name}-is.png`), new Resvg(s.labels[0]!).render().asPng())
  await fs.writeFile(
    path.join(folder, `${name}.json`),
    JSON.stringify({ file: `${name}.png`, count: s.count, cutOff: 0 }),
  )
}
