import sharp from 'sharp'
import { Resvg } from '@resvg/resvg-js'
import { seeded } from '@awlbox/core/plan/seeded'

export interface PhotoPlan {
  saffron: number
  blue: number
  seed: number
  /** Long side in pixels. */
  width?: number
  /** Lay the things on a sheet of paper, as on a drawn frame. */
  sheet?: boolean
  /** How much the phone was turned when held: written as EXIF orientation with the pixels left as they are. */
  orientation?: 1 | 3 | 6 | 8
  ground?: 'wood' | 'cloth' | 'plain'
}

const grounds = {
  wood: ['#B98E5E', '#A67C4D'],
  cloth: ['#8FA39A', '#7D9288'],
  plain: ['#D9D4C8', '#D1CBBE'],
} as const

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
  const things = Array.from({ length: n }, (_, i) => {
    const x = w / 2 + ((i % across) - (across - 1) / 2) * pitch + between(-0.16, 0.16) * r
    const y = h / 2 + (Math.floor(i / across) - (rows - 1) / 2) * pitch + between(-0.16, 0.16) * r
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
    <rect width="${w}" height="${h}" fill="${base}"/>${lines}<g transform="rotate(${tilt} ${w / 2} ${h / 2})">${sheet}${things}</g><rect width="${w}" height="${h}" fill="url(#lamp)"/></svg>`
  const drawn = new Resvg(svg).render().asPng()
  const noise = await sharp({
    create: {
      width: w,
      height: h,
      channels: 3,
      background: '#808080',
      noise: { type: 'gaussian', mean: 128, sigma: 9 },
    },
  })
    .png()
    .toBuffer()
  const upright = sharp(drawn)
    .removeAlpha()
    .composite([{ input: noise, blend: 'soft-light' }])
    .blur(0.8)
  // The phone lays the pixels down as its sensor stands and says in EXIF how to turn them.
  const turned = { 1: 0, 3: 180, 6: 270, 8: 90 }[plan.orientation ?? 1]
  const laid = turned ? sharp(await upright.png().toBuffer()).rotate(turned) : upright
  return laid
    .withExif({ IFD0: { Make: 'Stand-in', Model: 'Phone' } })
    .withMetadata({ orientation: plan.orientation ?? 1 })
    .jpeg({ quality: 86 })
    .toBuffer()
}
