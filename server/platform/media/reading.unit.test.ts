import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import fc from 'fast-check'
import sharp from 'sharp'
import { afterAll, describe, expect, test } from 'vitest'
import { readWords, turnedBack } from './reading.ts'

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-reading-test-'))
afterAll(() => fs.rmSync(folder, { recursive: true, force: true }))

describe('reading', () => {
  test('a place in a turned picture is found again in the one before', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -30, max: 30 }),
        fc.integer({ min: 0, max: 1280 }),
        fc.integer({ min: 0, max: 720 }),
        (degrees, x, y) => {
          const [from, grown] = [
            { width: 1280, height: 720 },
            { width: 1500, height: 1100 },
          ]
          const a = (degrees * Math.PI) / 180
          // Turned clockwise about the middle, as pictures are whose second axis points down.
          const [dx, dy] = [x - 640, y - 360]
          const there = {
            x: dx * Math.cos(a) - dy * Math.sin(a) + 750,
            y: dx * Math.sin(a) + dy * Math.cos(a) + 550,
          }
          const back = turnedBack({ x: there.x - 20, y: there.y - 5, w: 40, h: 10 }, degrees, from, grown)
          expect(back.x + back.w / 2).toBeCloseTo(x, 6)
          expect(back.y + back.h / 2).toBeCloseTo(y, 6)
          expect(back.w * back.h).toBeGreaterThanOrEqual(40 * 10 * 0.8)
        },
      ),
    ))
  test.each([0, 6, -5])(
    'printed words on a card that hangs %d° askew are read where they are; things on a table are none',
    async (turn) => {
      const picture = path.join(folder, `card${turn}.png`)
      const things = Array.from(
        { length: 10 },
        (_, i) => `<circle cx="${120 + i * 110}" cy="520" r="36" fill="#b5502e"/>`,
      ).join('')
      await sharp(
        Buffer.from(
          `<svg xmlns="http://www.w3.org/2000/svg" width="1280" height="720"><defs><linearGradient id="g"><stop stop-color="#c8bca8"/><stop offset="1" stop-color="#6f6a60"/></linearGradient></defs><rect width="1280" height="720" fill="url(#g)"/>${things}<g transform="translate(860 200) rotate(${turn})"><rect x="-160" y="-50" width="320" height="90" fill="#fff"/><text text-anchor="middle" y="14" font-family="Andika" font-size="44" fill="#222">Weir Lane</text></g></svg>`,
        ),
      )
        .blur(0.8)
        .png()
        .toFile(picture)
      const words = await readWords(picture, folder)
      const lane = words.find((w) => w.text.startsWith('Lane'))!
      expect(words.map((w) => w.text)).toContain('Weir')
      expect(Math.abs(lane.box.x + lane.box.w / 2 - 910)).toBeLessThan(50)
      expect(Math.abs(lane.box.y + lane.box.h / 2 - 205)).toBeLessThan(40)
      expect(words.filter((w) => w.text.replace(/[^A-Za-z]/g, '').length > 2 && w.box.y > 450)).toEqual([])
    },
  )
  test('a picture with no writing gives nothing to go by, a file that is no picture is an error', async () => {
    const plain = path.join(folder, 'plain.png')
    await sharp({ create: { width: 640, height: 360, channels: 3, background: '#8d9a92' } })
      .png()
      .toFile(plain)
    expect(await readWords(plain, folder)).toEqual([])
    fs.writeFileSync(path.join(folder, 'no.png'), 'nothing')
    await expect(readWords(path.join(folder, 'no.png'), folder)).rejects.toThrow()
  })
})
