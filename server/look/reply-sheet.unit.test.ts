import { Resvg } from '@resvg/resvg-js'
import { describe, expect, test } from 'vitest'
import { readPhoto } from '@awlbox/core/look/photo/read'
import { printableSheets } from '@awlbox/core/send/printables/sheets'
import { sheetSvg } from '@awlbox/core/send/printables/svg'
import { photoEyes } from '../platform/media/seeing.ts'

const prompts = ['How many stamps?', 'Draw the parcels.', 'Show one fewer.']
/** A printed sheet with what a child drew in its boxes: filled rounds, in the boxes' own millimetres. */
function drawnOn(dots: number[], code: boolean): { px: Uint8Array; width: number; height: number } {
  const [sheet] = printableSheets('reply-sheet', 'A4', {
    upTo: 10,
    parts: 2,
    prompts: prompts.slice(0, dots.length),
    ...(code ? { code: { size: 21, dark: Array.from({ length: 441 }, (_, i) => (i * 7919) % 5 < 2) } } : {}),
  })
  const boxes = sheet!.marks.filter((m) => m.kind === 'box' && !m.filled)
  const rounds = boxes.flatMap((b, i) =>
    b.kind === 'box'
      ? Array.from(
          { length: dots[i]! },
          (_, k) =>
            `<circle cx="${b.x + 14 + (k % 5) * 32}" cy="${b.y + 14 + Math.floor(k / 5) * 24}" r="7" fill="#2c4f8f"/>`,
        )
      : [],
  )
  const svg = sheetSvg(sheet!).replace('</svg>', `${rounds.join('')}</svg>`)
  const image = new Resvg(svg, { fitTo: { mode: 'width', value: 1000 }, background: '#fff' }).render()
  return { px: new Uint8Array(image.pixels), width: image.width, height: image.height }
}
interface Camera {
  turn: number
  tilt: number
  /** Share of the picture's height the sheet takes. */
  size: number
}
/** The sheet on a table as a phone sees it: turned, further away at its far end, in a lamp's light. */
function photographed(
  sheet: { px: Uint8Array; width: number; height: number },
  { turn, tilt, size }: Camera,
) {
  const [width, height] = [1200, 1600]
  const px = new Uint8ClampedArray(width * height * 4).fill(255)
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  const h = size * height
  const w = (h * sheet.width) / sheet.height
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [dx, dy] = [x - width / 2, y - height / 2]
      const [a, b] = [dx * c + dy * s, dy * c - dx * s]
      // What is further up the picture is further away: both shares are divided by the same depth.
      const depth = 1 / (1 + (tilt * b) / height)
      const [u, v] = [0.5 + (a / w) * depth, 0.5 + (b / h) * depth]
      const i = (y * width + x) * 4
      const lamp = 0.75 + (0.25 * x) / width
      if (u >= 0 && u < 1 && v >= 0 && v < 1) {
        const j = (Math.floor(v * sheet.height) * sheet.width + Math.floor(u * sheet.width)) * 4
        for (let k = 0; k < 3; k++) px[i + k] = sheet.px[j + k]! * lamp
      } else
        for (let k = 0; k < 3; k++)
          px[i + k] = [150, 118, 84][k]! * lamp * (1 - 0.08 * (Math.sin(y / 9) > 0.6 ? 1 : 0))
    }
  return { px, width, height }
}
const read = async (dots: number[], camera: Camera, code = true) => {
  const { px, width, height } = photographed(drawnOn(dots, code), camera)
  return readPhoto(px, width, height, await photoEyes())
}
describe('a reply sheet set straight by its corner marks', () => {
  test.each<[string, number[], Camera, boolean]>([
    ['as it lies', [4, 7, 0], { turn: 0, tilt: 0, size: 0.9 }, true],
    ['aslant and from an angle', [3, 5, 2], { turn: 0.2, tilt: 0.25, size: 0.8 }, true],
    ['upside down', [6, 0, 1], { turn: Math.PI + 0.1, tilt: 0.15, size: 0.8 }, false],
    ['on its side', [2, 4, 3], { turn: Math.PI / 2, tilt: 0, size: 0.65 }, true],
  ])('%s: what is drawn in each box', async (_name, dots, camera, code) => {
    const r = await read(dots, camera, code)
    expect(r.sheet?.length).toBe(3)
    for (const [i, n] of dots.entries()) {
      const box = r.sheet![i]!
      expect([box.low <= n, box.high >= n, box.inked], `box ${i + 1}: ${JSON.stringify(box)}`).toEqual([
        true,
        true,
        n > 0,
      ])
    }
    // Corner marks and the code are printed: no things.
    expect(r.count).toBeLessThanOrEqual(dots.reduce((a, b) => a + b, 0) + 1)
  })
  test('a ten frame, things on a table or a page of squares are no reply sheet', async () => {
    const [frame] = printableSheets('ten-frame', 'A4', { upTo: 10, parts: 2 })
    const image = new Resvg(sheetSvg(frame!), {
      fitTo: { mode: 'width', value: 1000 },
      background: '#fff',
    }).render()
    const other = photographed(
      { px: new Uint8Array(image.pixels), width: image.width, height: image.height },
      { turn: 0.1, tilt: 0.1, size: 0.8 },
    )
    expect((await readPhoto(other.px, other.width, other.height, await photoEyes())).sheet).toBeNull()
  })
})
