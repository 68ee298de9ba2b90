import type { FilmBox } from '../../contracts/cut.ts'

/**
 * Where skin of every tone lies in colour (8-bit Cb and Cr of ITU-R BT.601; Chai and Ngan 1999 give 77–127 and 133–173).
 * `least` is the share of a face's middle that is skin at the least: eyes, mouth, glasses and hair take the rest.
 * A picture whose colours are all weaker than `grey` was taken in the dark or without colour, and says nothing of skin.
 */
const skin = { cb: [77, 127], cr: [133, 173], least: 0.25, grey: 6 } as const

const chroma = (r: number, g: number, b: number): [cb: number, cr: number] => [
  128 - 0.169 * r - 0.331 * g + 0.5 * b,
  128 + 0.5 * r - 0.419 * g - 0.081 * b,
]

/** Whether the middle of a box may be a face by its colour. `rgb` are interleaved bytes of a picture `width` wide; the box is in its pixels. */
export function mayBeFace(rgb: Uint8Array, width: number, box: FilmBox): boolean {
  const [cx, cy, rx, ry] = [box.x + box.w / 2, box.y + box.h / 2, box.w * 0.3, box.h * 0.36]
  let [all, like] = [0, 0]
  for (let y = Math.ceil(cy - ry); y <= cy + ry; y++)
    for (let x = Math.ceil(cx - rx); x <= cx + rx; x++) {
      if (((x - cx) / rx) ** 2 + ((y - cy) / ry) ** 2 > 1) continue
      const i = (y * width + x) * 3
      if (i < 0 || i + 2 >= rgb.length) continue
      const [cb, cr] = chroma(rgb[i]!, rgb[i + 1]!, rgb[i + 2]!)
      all++
      if (cb >= skin.cb[0] && cb <= skin.cb[1] && cr >= skin.cr[0] && cr <= skin.cr[1]) like++
    }
  return like >= all * skin.least || hasNoColour(rgb)
}
/** Whether every pixel looked at is nearly grey. */
function hasNoColour(rgb: Uint8Array): boolean {
  // Every sixty-first pixel: enough to meet any coloured thing, and in no step with rows.
  for (let i = 0; i + 2 < rgb.length; i += 3 * 61)
    if (chroma(rgb[i]!, rgb[i + 1]!, rgb[i + 2]!).some((c) => Math.abs(c - 128) >= skin.grey)) return false
  return true
}
