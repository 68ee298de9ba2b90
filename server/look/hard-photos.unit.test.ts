import sharp from 'sharp'
import { describe, expect, test } from 'vitest'
import { readPhoto } from '@awlbox/core/look/photo/read'
import { photoEyes } from '../platform/media/seeing.ts'

const read = async (svg: string) => {
  const { data, info } = await sharp(Buffer.from(svg))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return readPhoto(data, info.width, info.height, await photoEyes())
}
const plain = (width: number, height: number, fill: string, inside = '') =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="${width}" height="${height}" fill="${fill}"/>${inside}</svg>`
const discs = (n: number, y: number) =>
  Array.from({ length: n }, (_, i) => `<circle cx="${150 + i * 260}" cy="${y}" r="44" fill="#24508c"/>`).join(
    '',
  )

describe('photos that are none, or hardly any', () => {
  test('one pixel, black, blank: nothing is found, and nothing is sure', async () => {
    for (const [svg, warning] of [
      [plain(1, 1, '#888'), 'nothing found'],
      [plain(800, 600, '#000'), 'dark'],
      [plain(800, 600, '#f4f1ea'), 'nothing found'],
    ] as const) {
      const r = await read(svg)
      expect(r.count).toBe(0)
      expect(r.warnings).toContain(warning)
      expect([r.tally, r.line, r.sheet, r.dice, r.towers]).toEqual([null, null, null, [], []])
    }
  })
  test('a panorama is read from end to end', async () => {
    const r = await read(plain(2400, 400, '#cdbfa8', discs(8, 200)))
    expect([r.width, r.height]).toEqual([2400, 400])
    expect(r.low <= 8 && r.high >= 8).toBe(true)
    expect(Math.max(...r.things.map((t) => t.x))).toBeGreaterThan(1800)
  })
  test('a page of writing is not counted as things with any certainty', async () => {
    const lines = Array.from(
      { length: 18 },
      (_, i) =>
        `<text x="60" y="${60 + i * 30}" font-size="22" font-family="Andika">Bobbin has seven parcels to sort into two places</text>`,
    ).join('')
    const r = await read(plain(800, 600, '#fff', lines))
    expect(r.count > 0 && r.low === r.high).toBe(false)
    expect(r.sheet).toBeNull()
  })
})
