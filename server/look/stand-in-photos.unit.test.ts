import sharp from 'sharp'
import { describe, expect, test } from 'vitest'
import { readPhoto } from '@awlbox/core/look/photo/read'
import { type PhotoPlan, standInPhoto } from '../../standins/homes/photo.ts'
import { photoEyes } from '../platform/media/seeing.ts'

const read = async (p: PhotoPlan, width = 1200) => {
  const { data, info } = await sharp(await standInPhoto({ ...p, width }))
    .rotate()
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return readPhoto(data, info.width, info.height, await photoEyes())
}
describe('the stand-in homes’ photos as they are read', () => {
  test.each<PhotoPlan>([
    { saffron: 4, blue: 3, seed: 31 },
    { saffron: 7, blue: 0, seed: 32, sheet: true },
    { saffron: 2, blue: 5, seed: 33, ground: 'cloth' },
    { saffron: 0, blue: 6, seed: 34, ground: 'plain' },
    { saffron: 5, blue: 5, seed: 35, ground: 'wood', sheet: true },
    { saffron: 1, blue: 0, seed: 36 },
  ])('show what they were told to: %o', async (p) => {
    const r = await read(p)
    expect(r.count).toBe(p.saffron + p.blue)
    expect(r.groups.find((g) => g.colour === 'blue')?.count ?? 0).toBe(p.blue)
  })
  test.each<[PhotoPlan['trouble'], number]>([
    ['gingham', 41],
    ['cup', 42],
    ['hand', 43],
    ['thick frame', 44],
    ['plates', 45],
    ['dim', 46],
  ])('with %s in the way the truth is found or lies in the range', async (trouble, seed) => {
    const r = await read({ saffron: 4, blue: 2, seed, trouble })
    expect([r.low <= 6, r.high >= 6]).toEqual([true, true])
  })
})
