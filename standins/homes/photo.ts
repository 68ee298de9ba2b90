import sharp from 'sharp'
import { Resvg } from '@resvg/resvg-js'
import { seeded } from '@awlbox/core/plan/seeded'
import type { Trouble } from './household.ts'
import { laidOut, type Laying } from './laying.ts'

export interface PhotoPlan {
  saffron: number
  blue: number
  seed: number
  /** Long side in pixels. */
  width?: number
  /** How the things lie, where a task asks for it; else in rows, or as what is in the way has it. */
  laying?: Laying
  /** Lay the things on a sheet of paper, as on a drawn frame. */
  sheet?: boolean
  /** How much the phone was turned when held: written as EXIF orientation with the pixels left as they are. */
  orientation?: 1 | 3 | 6 | 8
  ground?: 'wood' | 'cloth' | 'plain'
  /** What is in the way of it, as it is in kitchens. */
  trouble?: Trouble
}

const grounds = {
  wood: ['#B98E5E', '#A67C4D'],
  cloth: ['#8FA39A', '#7D9288'],
  plain: ['#D9D4C8', '#D1CBBE'],
} as const

interface Spread {
  n: number
  w: number
  h: number
  pitch: number
  across: number
  rows: number
}
/** Where things lie: in rows; in the cells of a frame, across in fives; on two plates. */
function placesOf(trouble: Trouble, l: Spread): { x: number; y: number }[] {
  if (trouble === 'plates') {
    const first = Math.ceil(l.n / 2)
    return Array.from({ length: l.n }, (_, i) => {
      const [k, of] = i < first ? [i, first] : [i - first, l.n - first]
      const turn = (k / Math.max(1, of)) * 2 * Math.PI
      const off = of === 1 ? 0 : l.pitch * Math.max(0.8, of / 6)
      return { x: l.w * (i < first ? 0.3 : 0.7) + off * Math.cos(turn), y: l.h / 2 + off * Math.sin(turn) }
    })
  }
  const across = trouble === 'thick frame' ? 5 : l.across
  const rows = trouble === 'thick frame' ? Math.max(2, Math.ceil(l.n / 5)) : l.rows
  return Array.from({ length: l.n }, (_, i) => ({
    x: l.w / 2 + ((i % across) - (across - 1) / 2) * l.pitch,
    y: l.h / 2 + (Math.floor(i / across) - (rows - 1) / 2) * l.pitch,
  }))
}
/** What lies under the things: a frame drawn with a thick pen, two plates with rims. */
function mats(trouble: Trouble, l: Spread): string {
  if (trouble === 'plates')
    return [0.3, 0.7]
      .map(
        (x) =>
          `<ellipse cx="${l.w * x}" cy="${l.h / 2}" rx="${l.w * 0.18}" ry="${l.w * 0.175}" fill="#F4F1EA" stroke="#C9C3B6" stroke-width="6"/><ellipse cx="${l.w * x}" cy="${l.h / 2}" rx="${l.w * 0.135}" ry="${l.w * 0.13}" fill="none" stroke="#D8D2C6" stroke-width="5"/>`,
      )
      .join('')
  if (trouble !== 'thick frame') return ''
  const rows = Math.max(2, Math.ceil(l.n / 5))
  const [left, top] = [l.w / 2 - 2.5 * l.pitch, l.h / 2 - (rows / 2) * l.pitch]
  const down = Array.from({ length: 6 }, (_, i) => `M${left + i * l.pitch} ${top}v${rows * l.pitch}`)
  const over = Array.from({ length: rows + 1 }, (_, i) => `M${left} ${top + i * l.pitch}h${5 * l.pitch}`)
  return `<rect x="${left - 40}" y="${top - 40}" width="${5 * l.pitch + 80}" height="${rows * l.pitch + 80}" fill="#F3F0E7"/><path d="${[...down, ...over].join('')}" stroke="#1d1d20" stroke-width="${l.pitch * 0.11}" fill="none"/>`
}
/** A checked tablecloth. */
const gingham = (w: number, h: number): string => {
  const step = w / 26
  const band = (i: number): number => i * 2 * step
  return `<rect width="${w}" height="${h}" fill="#F1ECE2"/>${Array.from({ length: 14 }, (_, i) => `<rect x="${band(i)}" y="0" width="${step}" height="${h}" fill="#8C3B3B" opacity="0.4"/><rect x="0" y="${band(i)}" width="${w}" height="${step}" fill="#8C3B3B" opacity="0.4"/>`).join('')}`
}
/** What came into the picture: a cup, a hand, an evening without a lamp. */
function clutter(trouble: Trouble, w: number, h: number): string {
  if (trouble === 'cup')
    return `<g><ellipse cx="${w * 0.9}" cy="${h * 0.14}" rx="${w * 0.085}" ry="${w * 0.083}" fill="#DDE6EA" stroke="#A9B8BF" stroke-width="9"/><ellipse cx="${w * 0.9}" cy="${h * 0.14}" rx="${w * 0.062}" ry="${w * 0.06}" fill="#5B3A24"/></g>`
  if (trouble === 'hand')
    return `<g fill="#D9A57F" stroke="#B98360" stroke-width="4"><path d="M${w * 0.02} ${h} Q${w * 0.04} ${h * 0.8} ${w * 0.12} ${h * 0.78} L${w * 0.2} ${h * 0.74} Q${w * 0.23} ${h * 0.76} ${w * 0.19} ${h * 0.81} L${w * 0.22} ${h * 0.84} Q${w * 0.25} ${h * 0.88} ${w * 0.2} ${h * 0.9} L${w * 0.16} ${h} Z"/></g>`
  if (trouble === 'dim') return `<rect width="${w}" height="${h}" fill="#0b0d14" opacity="0.45"/>`
  return ''
}

/**
 * A made-up photograph of things on a table, as a JPEG: lamp fall-off, grain, tilt, shadows, highlights.
 * The same plan gives the same picture. `truth` of the picture is the plan itself.
 */
export async function standInPhoto(plan: PhotoPlan): Promise<Buffer> {
  const random = seeded(plan.seed * 7919 + 13)
  const between = (a: number, b: number) => a + (random(10001) / 10000) * (b - a)
  const w = plan.width ?? 1600
  const h = Math.round(w * 0.75)
  const n = plan.saffron + plan.blue
  const r = w * between(0.028, 0.036)
  const [base, grain] = grounds[plan.ground ?? (['wood', 'cloth', 'plain'] as const)[random(3)]!]
  const lines = Array.from({ length: 40 }, () => {
    const y = between(0, h)
    return `<path d="M0 ${y} Q${w / 2} ${y + between(-30, 30)} ${w} ${y + between(-20, 20)}" stroke="${grain}" stroke-width="${between(1, 7)}" opacity="${between(0.15, 0.5)}" fill="none"/>`
  }).join('')
  const across = Math.max(1, Math.min(5, n))
  const rows = Math.ceil(n / across)
  const pitch = r * between(2.5, 3.1)
  const trouble = plan.trouble ?? 'plain'
  const asked = plan.laying && laidOut(n, plan.laying, { w, h, r })
  const places = asked?.places ?? placesOf(trouble, { n, w, h, pitch, across, rows })
  const things = Array.from({ length: n }, (_, i) => {
    const x = places[i]!.x + between(-0.16, 0.16) * r
    const y = places[i]!.y + between(-0.16, 0.16) * r
    const [fill, edge] = i < plan.saffron ? ['#E8B21C', '#B98608'] : ['#2C68A6', '#1D4A7A']
    return `<ellipse cx="${x + r * 0.16}" cy="${y + r * 0.24}" rx="${r * 1.02}" ry="${r}" fill="#1b130a" opacity="0.3"/>
      <circle cx="${x}" cy="${y}" r="${r}" fill="${fill}" stroke="${edge}" stroke-width="${r * 0.08}"/>
      <circle cx="${x}" cy="${y}" r="${r * 0.74}" fill="none" stroke="${edge}" stroke-width="${r * 0.05}" opacity="0.7"/>
      <ellipse cx="${x - r * 0.3}" cy="${y - r * 0.35}" rx="${r * 0.22}" ry="${r * 0.12}" fill="#fff" opacity="0.55"/>`
  }).join('')
  const sheet = plan.sheet
    ? `<rect x="${w / 2 - pitch * 3}" y="${h / 2 - pitch * Math.max(1.4, rows * 0.75)}" width="${pitch * 6}" height="${pitch * Math.max(2.8, rows * 1.5)}" rx="8" fill="#EFEBE0"/>`
    : ''
  const tilt = between(-9, 9)
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}"><defs><radialGradient id="lamp" cx="${between(0.25, 0.7)}" cy="${between(0.2, 0.6)}" r="0.9"><stop offset="0" stop-color="#fff4d8" stop-opacity="0.28"/><stop offset="0.55" stop-color="#000" stop-opacity="0.02"/><stop offset="1" stop-color="#000" stop-opacity="0.45"/></radialGradient></defs>
    <rect width="${w}" height="${h}" fill="${base}"/>${trouble === 'gingham' ? gingham(w, h) : lines}<g transform="rotate(${tilt} ${w / 2} ${h / 2})">${sheet}${asked?.under ?? mats(trouble, { n, w, h, pitch, across, rows })}${things}</g>${clutter(trouble, w, h)}<rect width="${w}" height="${h}" fill="url(#lamp)"/></svg>`
  const drawn = new Resvg(svg).render()
  const size = { width: drawn.width, height: drawn.height }
  const upright = sharp(drawn.pixels, { raw: { ...size, channels: 4 } })
    .removeAlpha()
    .composite([{ input: sensorNoise(size, plan.seed), raw: { ...size, channels: 3 }, blend: 'soft-light' }])
    .blur(0.8)
  // The phone lays the pixels down as its sensor stands and says in EXIF how to turn them.
  const turned = { 1: 0, 3: 180, 6: 270, 8: 90 }[plan.orientation ?? 1]
  const laid = turned
    ? sharp(await upright.raw().toBuffer(), { raw: { ...size, channels: 3 } }).rotate(turned)
    : upright
  return laid
    .withExif({ IFD0: { Make: 'Stand-in', Model: 'Phone' } })
    .withMetadata({ orientation: plan.orientation ?? 1 })
    .jpeg({ quality: 86 })
    .toBuffer()
}

/** Noise as a dim kitchen's photo has it: about a bell of nine grey levels round the middle, the same for the same seed. */
function sensorNoise({ width, height }: { width: number; height: number }, seed: number): Buffer {
  const out = Buffer.allocUnsafe(width * height * 3)
  let x = (seed * 2_654_435_761 + 1) >>> 0 || 1
  for (let i = 0; i < out.length; i++) {
    // Four bytes of a xorshift; their sum is nearly a bell, 148 wide.
    x ^= x << 13
    x ^= x >>> 17
    x ^= x << 5
    const four = (x & 255) + ((x >>> 8) & 255) + ((x >>> 16) & 255) + (x >>> 24)
    out[i] = 128 + Math.round((four - 510) * (9 / 148))
  }
  return out
}
